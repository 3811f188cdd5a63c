import type { Browser, Page } from 'puppeteer-core'
import {
  Planner,
  PLAN_PAPERS,
  REPORT_TITLES,
  REPORT_VOICES,
  writeHouse,
  type House,
  type ReportVoice,
} from '#core'
import { seeded } from '#core/simulate/random'
import {
  blankPage,
  choose,
  clickText,
  DESK,
  goTo,
  HAND,
  hasText,
  onDisk,
  openPage,
  post,
  steady,
  textOf,
  withDemo,
  type Server,
} from '../support/app'
import { pagesOf } from '../support/pdf'
import { mistakenHouse } from '../support/random-house'
import { OPEN, wing } from '../support/wing'

let server: Server
let browser: Browser
withDemo((s, b) => {
  ;[server, browser] = [s, b]
})

/** A job of a two-wire wing in an attic: three faults and no more than that to fix. */
async function newWing(): Promise<string> {
  const file = { corvit: 2, form: 'house', ...wing({}, undefined, 'attic') }
  const answer = await post(`${server.url}/api/jobs/import`, file)
  return ((await answer.json()) as { job: { id: string } }).job.id
}
const isDemo = (job: string) => job.startsWith('demo-')
const openPlan = async (job: string, size = DESK) => {
  // The ways of the desk are kept on the device: what a test before chose would hold for this one.
  const url = `${server.url}/jobs/${job}/plan`
  const { page, errors } = await openPage(browser, url, size, isDemo(job) ? 'used' : 'new')
  // What is still being read starts the plan anew.
  const answer = '[data-testid="heroes"], [data-testid="nothing-to-plan"]'
  await page.waitForSelector(answer)
  await steady(page, answer)
  return { page, errors }
}
const preset = (page: Page, words: string) => clickText(page, '.fixes button', words)
/** On a connection of its own: one that lay idle may be closed just when it is used again. */
const fresh = (path: string) => fetch(`${server.url}${path}`, { headers: { connection: 'close' } })
const pdfText = async (job: string, paper: string) => {
  const answer = await fresh(`/api/jobs/${job}/papers/${paper}`)
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf'])
  return pagesOf(new Uint8Array(await answer.arrayBuffer())).join('\n')
}
const outcomes = async (job: string, rule: string) => {
  const csv = await (await fresh(`/api/jobs/${job}/findings.csv`)).text()
  return csv.split('\n').filter(line => line.includes(rule)).length
}

/** The desk does not put two slots back: the way it goes is another one. */
async function acceptFirstOutlet(page: Page): Promise<void> {
  await hasText(page, '.choice', 'two-slot')
  await clickText(page, 'button', 'Which way your desk goes')
  const question = '[aria-label="Three-slot outlets without a ground"]'
  await choose(page, question, 'A device at the first outlet')
  // What is shown is still the other plan: it cannot be accepted for this one.
  await hasText(page, '.choice', 'GFCI at the first outlet')
  await page.waitForSelector('.split:not(.waiting)')
  await clickText(page, 'button', 'Accept this plan')
}

describe('from faults to a plan to done', () => {
  it('chooses, accepts, prints, does it with readings, and the faults are gone', async () => {
    const job = await newWing()
    expect(await outcomes(job, 'open-ground-three-slot')).toBe(OPEN.length)
    const { page, errors } = await openPlan(job, HAND)
    await preset(page, 'Outlets without a ground')
    await hasText(page, '[data-testid="heroes"]', 'of 3 faults cured')
    await hasText(page, '[data-testid="heroes"]', 'sample prices, made up')
    await acceptFirstOutlet(page)
    await hasText(page, '.task', 'GFCI at the first outlet')
    await onDisk(page)

    const labels = await pdfText(job, 'labels')
    expect(labels.match(/GFCI Protected and No Equipment Ground/g)).toHaveLength(2)
    expect(await pdfText(job, 'scope-of-work')).toContain('GFCI at the first outlet')
    expect(await pdfText(job, 'acceptance')).toMatch(/trips, goes dead/)
    expect(await pdfText(job, 'pick-list')).toMatch(/GFCI receptacle\s+1/)

    await clickText(page, '.task button', 'Done')
    await page.waitForSelector('[data-testid="doing"] [data-field="gfciButton"]')
    await hasText(page, '[role="dialog"]', 'not tested: recorded as not tested')
    await clickText(page, '[data-field="gfciButton"] .chip', 'trips, goes dead')
    await clickText(page, '[role="dialog"] button', 'Record as done')
    await hasText(page, '.task[data-state="done"]', 'GFCI at the first outlet')
    await onDisk(page)
    expect(await outcomes(job, 'open-ground-three-slot')).toBe(0)
    expect(errors).toEqual([])
  })
  it('a test that fails is recorded as read, and judged (long)', async () => {
    const job = await newWing()
    const { page } = await openPlan(job)
    await preset(page, 'Outlets without a ground')
    await acceptFirstOutlet(page)
    await clickText(page, '.task button', 'Done')
    await page.waitForSelector('[data-testid="doing"] [data-field="gfciButton"]')
    await clickText(page, '[data-field="gfciButton"] .chip', 'does not trip')
    await hasText(page, '[data-field="gfciButton"]', 'Does not pass')
    await clickText(page, '[role="dialog"] button', 'Record as it is')
    await hasText(page, '.task[data-state="done"]', 'GFCI at the first outlet')
    await onDisk(page)
    expect(await outcomes(job, 'open-ground-three-slot')).toBeGreaterThan(0)
  })
})

describe('what is recorded of a work', () => {
  it('is listed first; what was built otherwise is struck, and stays open (long)', async () => {
    const job = await newWing()
    const { page } = await openPlan(job, HAND)
    await preset(page, 'Outlets without a ground')
    await acceptFirstOutlet(page)
    await clickText(page, '.task button', 'Done')
    const protection = '[data-testid="doing"] [data-built="protection"]'
    await page.waitForSelector(protection)
    await hasText(page, '[data-testid="doing"]', 'Recorded as built')
    await page.$eval(protection, e => (e as HTMLElement).click())
    await page.waitForSelector(`${protection}[aria-pressed="false"]`)
    await clickText(page, '[role="dialog"] button', 'Record as done')
    await hasText(page, '.task[data-state="done"]', 'GFCI at the first outlet')
    await onDisk(page)
    // Nobody says that there is a protective device: nothing is fine for that.
    const log = await (await fresh(`/api/jobs/${job}/export?form=log`)).text()
    expect(log).toContain('Built otherwise than planned')
    expect(await outcomes(job, 'open-ground-three-slot')).toBeGreaterThan(0)
  })
  it('a plan that is stopped says so, and can be worked out again (long)', async () => {
    const { page } = await openPlan('demo-sorrel-bank')
    // What is asked from now on never reaches a worker, so that there is time to press the button.
    await page.evaluate(() => {
      const kept = Worker.prototype.postMessage
      Worker.prototype.postMessage = () => undefined
      Object.assign(window, { answerAgain: () => (Worker.prototype.postMessage = kept) })
    })
    await preset(page, 'All faults')
    await clickText(page, '.working button', 'Stop')
    await hasText(page, '.working', 'Nothing is planned')
    await page.evaluate(() => (window as unknown as { answerAgain: () => void }).answerAgain())
    await clickText(page, '.working button', 'Work it out')
    await page.waitForSelector('[data-testid="heroes"]')
  })
})

describe('the report as PDF', () => {
  async function isWhole(voice: ReportVoice): Promise<void> {
    const path = `/api/jobs/demo-sorrel-bank/papers/report-${voice}`
    const began = Date.now()
    const answer = await fresh(path)
    expect(Date.now() - began).toBeLessThan(10_000)
    const pages = pagesOf(new Uint8Array(await answer.arrayBuffer()))
    expect(pages.length).toBeLessThanOrEqual(voice === 'household' ? 1 : 40)
    pages.forEach((text, i) => {
      expect(text).toContain(`page ${i + 1} of ${pages.length}`)
      expect(text).toContain('Sorrel Bank 22')
    })
    const whole = pages.join('\n')
    expect(whole).toContain(REPORT_TITLES[voice])
    // Signs the type cannot set would come out as boxes.
    expect(whole).not.toMatch(/[\ufffdΩΔ≤≥→]/)
    if (voice === 'inspector') {
      expect(pages[0]).toContain('Summary')
      for (const chapter of [
        'Findings, place by place',
        'Allowed to remain',
        'Limitations',
        'Cautions',
      ])
        expect(whole).toContain(chapter)
    }
  }
  const often: readonly ReportVoice[] = ['inspector', 'household']
  it.each(often)('%s: numbered pages, the property on each, sections and limitations', isWhole)
  it.each(REPORT_VOICES.filter(v => !often.includes(v)))(
    '%s: numbered pages, the property on each, sections and limitations (long)',
    isWhole,
  )
})

describe('the plan of the demo house', () => {
  it('follows a budget that is dragged, at once, and proves it after', async () => {
    const { page, errors } = await openPlan('demo-sorrel-bank')
    await preset(page, 'All faults')
    await hasText(page, '[data-testid="heroes"]', 'faults cured')
    await page.waitForFunction(
      () => Number(/of (\d+) faults/.exec(document.body.innerText)?.[1] ?? 0) > 50,
      { timeout: 20_000 },
    )
    await page.waitForSelector('.split:not(.waiting)')
    const total = () => page.$eval('[data-testid="heroes"] .hero', e => e.textContent ?? '')
    const cents = async () => Number((await total()).replace(/[^\d]/g, ''))
    const whole = await cents()
    const thumb = await page.waitForSelector('[role="slider"]')
    await thumb?.focus()
    const began = Date.now()
    await page.keyboard.press('Home')
    await page.waitForFunction(
      () => document.querySelector('[data-testid="heroes"] .hero')?.textContent === '$0.00',
    )
    expect(Date.now() - began).toBeLessThan(1000)
    for (let i = 0; i < 20; i++) await page.keyboard.press('PageUp')
    await page.waitForFunction(
      () => document.querySelector('[data-testid="heroes"] .hero')?.textContent !== '$0.00',
    )
    expect(await cents()).toBeLessThan(whole)
    await hasText(page, '.says', 'The most danger')
    expect(errors).toEqual([])
  })
  it('loads the general solver only where a budget buys a set that does not hold (long)', async () => {
    const random = seeded(23)
    let house: House
    let isHolding: boolean
    do {
      house = mistakenHouse(random)
      const planner = new Planner(house)
      const whole = planner.plan()
      const alone = planner.plan('least-cost', Math.round(whole.total * 0.6))
      isHolding = whole.status !== 'planned' || whole.choices.length < 2 || alone.proof.gap === 0
    } while (isHolding)
    const answer = await post(`${server.url}/api/jobs/import`, writeHouse(house))
    const { job } = (await answer.json()) as { job: { id: string } }
    const { page, errors } = await openPlan(job.id)
    let isLoaded = false
    page.on('response', r => (isLoaded ||= r.url().endsWith('.wasm') && r.ok()))
    await preset(page, 'All faults')
    await page.waitForSelector('.split:not(.waiting)')
    expect(isLoaded).toBe(false)
    const thumb = await page.waitForSelector('[role="slider"]')
    await thumb?.focus()
    await page.keyboard.press('Home')
    for (let i = 0; i < 20; i++) await page.keyboard.press('PageUp')
    await hasText(page, '.says', 'The most danger')
    await hasText(page, '.says', 'Proved the best')
    await page.waitForSelector('.split:not(.waiting)')
    expect(isLoaded).toBe(true)
    expect(await page.$('.says.fails')).toBeNull()
    expect(errors).toEqual([])
  })
  it('lets one circuit go another way than the house (long)', async () => {
    const job = await newWing()
    const { page, errors } = await openPlan(job)
    await preset(page, 'Outlets without a ground')
    await hasText(page, '.choice', 'two-slot')
    await clickText(page, 'button', 'Which way your desk goes')
    await clickText(page, 'button', 'One circuit goes another way')
    await choose(page, '[aria-label="which circuit"]', 'space 1')
    // The list of circuits has to be gone before the next one opens.
    await page.waitForFunction(() => document.querySelector('[role="option"]') === null)
    await page.waitForSelector('[aria-label="which way it goes"]:not([disabled])')
    await choose(page, '[aria-label="which way it goes"]', 'A device at every outlet')
    await hasText(page, '[data-testid="schools-apart"]', 'A device at every outlet')
    await hasText(page, '.choice', 'GFCI')
    await clickText(page, '[data-testid="schools-apart"] button', '')
    await hasText(page, '.choice', 'two-slot')
    expect(errors).toEqual([])
  })
  it('plans nothing for a house that has not arrived (long)', async () => {
    const page = await blankPage(browser)
    // The ways of the desk are known at once, the job comes later.
    const { identifier } = await page.evaluateOnNewDocument(() => {
      const real = window.fetch
      window.fetch = async (...asked) => {
        const { pathname } = new URL(new Request(...asked).url)
        if (pathname === '/api/jobs/demo-sorrel-bank') await new Promise(d => setTimeout(d, 2000))
        return real(...asked)
      }
    })
    await goTo(page, `${server.url}/jobs/demo-sorrel-bank/plan`)
    await page.removeScriptToEvaluateOnNewDocument(identifier)
    await hasText(page, '.choice', 'Guest room 4')
    expect(await textOf(page, 'main')).not.toContain('The record has changed since')
    expect(
      Number(/of (\d+) faults/.exec(await textOf(page, '[data-testid="heroes"]'))?.[1]),
    ).toBeGreaterThan(0)
  })
  it('keeps what is wished: not this way, and another way stands there (long)', async () => {
    const { page } = await openPlan('demo-sorrel-bank')
    await hasText(page, '.choice', 'Guest room 4')
    // While the plan is still being made, its rows change places.
    await page.waitForSelector('.split:not(.waiting)')
    await steady(page, '.choice .head')
    await clickText(page, '.choice .head', '')
    const before = await textOf(page, '.choice.open .head b')
    await clickText(page, '.choice.open button', 'Not this way')
    await hasText(page, '.wishes', `Not: ${before}`)
    await page.waitForFunction(
      was =>
        [...document.querySelectorAll('.choice .head')].every(
          e => !(e.textContent ?? '').startsWith(was),
        ),
      {},
      before,
    )
  })
  it('reads a price sheet, and refuses a wrong one by line', async () => {
    const { page } = await openPlan('demo-sorrel-bank')
    await clickText(page, '.acts button', 'Price book')
    await page.waitForSelector('[data-testid="prices"]')
    await hasText(page, '[role="dialog"]', 'Made-up round figures')
    const give = async (text: string) => {
      await page.evaluate(sheet => {
        const input = document.querySelector<HTMLInputElement>(
          '[data-testid="prices"] input[type="file"]',
        )
        const data = new DataTransfer()
        data.items.add(new File([sheet], 'prices.csv', { type: 'text/csv' }))
        if (!input) return
        input.files = data.files
        input.dispatchEvent(new Event('change', { bubbles: true }))
      }, text)
    }
    await give('entry,cents,minutes\nhourly,12.5,\n')
    await hasText(page, '[data-testid="prices"]', 'line 2, cents')
    await hasText(page, '[data-testid="prices"]', 'Nothing was taken over')
    const before = await page.$eval('[data-testid="heroes"] .hero', e => e.textContent)
    await give('entry,title,cents,minutes\nname,Ours,,\nhourly,,18000,\n')
    await page.waitForFunction(
      was => document.querySelector('[data-testid="heroes"] .hero')?.textContent !== was,
      {},
      before,
    )
    await hasText(page, '[data-testid="heroes"]', 'Ours')
  })
  it('refuses a paper there is none of', async () => {
    const answer = await fetch(`${server.url}/api/jobs/demo-sorrel-bank/papers/novel`)
    expect(answer.status).toBe(422)
    expect(await answer.text()).toContain('scope-of-work')
    expect(PLAN_PAPERS).not.toContain('novel')
  })
})
