import { writeFileSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, Page } from 'puppeteer-core'
import {
  choose,
  clickText,
  DEMO,
  faultsOf,
  demoDb,
  hasText,
  lacksText,
  onDisk,
  openPage,
  serve,
  textOf,
  unfold,
  type Server,
  DESK,
  HAND,
  withDemo,
  reload,
  goTo,
} from '../support/app'

let server: Server
let browser: Browser
withDemo((s, b) => {
  ;[server, browser] = [s, b]
})
const margin = '[data-testid="margin"]'

async function typeLine(page: Page, line: string): Promise<void> {
  await page.focus('#breaker-line')
  await page.keyboard.type(line)
  await page.keyboard.press('Enter')
}

describe('the demo house', () => {
  it('opens from the list of jobs, with its findings drawn', async () => {
    const { page, errors } = await openPage(browser, server.url)
    await clickText(page, '.job', 'Sorrel Bank 22')
    await page.waitForSelector('[data-space="7"]')
    await hasText(page, `${margin} h2`, 'found here')
    await page.click('[data-space="7"]')
    await hasText(page, `${margin} h3`, 'Breaker too big for the conductor')
    await hasText(page, `${margin} .compare`, '20')
    await hasText(page, `${margin} .refused`, 'Leave it and label it')
    expect(errors).toEqual([])
  })
  it('shows the sum, the evidence and its grade on request', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/panel?at=main`)
    await page.click('[data-space="7"]')
    await clickText(page, `${margin} [data-rule="overfused-conductor"] button`, 'Show the math')
    await hasText(page, `${margin} .sum`, 'small-conductor limit: 15 A (240.4(D))')
    await hasText(page, `${margin} .sum`, 'gauge')
  })
  it('draws the circuit as a chain with its protected region (long)', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/outlets?circuit=living`)
    await page.waitForSelector('[data-outlet="living-1"]')
    expect(await page.$$eval('li.shaded [data-outlet]', list => list.length)).toBe(7)
    await page.click('[data-outlet="living-4"]')
    await hasText(page, margin, 'Not marked GFCI Protected')
  })
  it('lists findings by severity and what is undecided by the walk', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/findings`)
    await hasText(page, '.finding', 'make safe now')
    const order = await page.$$eval('.rows .weight', list => list.map(e => e.textContent?.trim()))
    expect(order[0]).toContain('make safe now')
    expect(order[1]).toMatch(/repair\s+46 \+ 3 leaning/)
    expect((await page.$$('.rows .row')).length).toBeGreaterThan(30)
    // A weight is counted alike in its chip and over its rows, though a row may stand for several places.
    const numberOf = (text: string | null | undefined) =>
      /\d+(?: \+ \d+ leaning)?$/.exec((text ?? '').trim())?.[0]
    const chips = await page.$$eval('.chip', list => list.map(e => e.textContent?.trim()))
    for (const weight of order) expect(chips.map(numberOf)).toContain(numberOf(weight))
    // A dozen in view at once, and one of them open beside the list.
    const inView = await page.$$eval(
      '.rows .row',
      list => list.filter(e => e.getBoundingClientRect().bottom < 800).length,
    )
    expect(inView).toBeGreaterThanOrEqual(8)
    expect(await page.$$('.finding')).toHaveLength(1)
    await clickText(page, '.bar .tab', 'Allowed to remain')
    await hasText(page, '.stays', 'Cloth-covered')
    await clickText(page, '.bar .tab', 'To look at')
    await hasText(page, '.stage h2', 'Panel, cover off')
    await hasText(page, '.look', 'could not be seen: attic hatch painted shut')
  })
  it('lets a person set a severity with a reason, keeps the computed one, and takes it back (long)', async () => {
    const { page, errors } = await openPage(browser, `${server.url}${DEMO}/findings`)
    const card = '.finding[data-rule="overfused-conductor"]'
    const row = '.row[data-rule="overfused-conductor"]'
    const openRow = async () => {
      await page.waitForSelector(row)
      await page.click(row)
    }
    await openRow()
    await page.waitForSelector(card)
    const weightOf = (text: string) => hasText(page, `${card} .sev`, text)
    await weightOf('repair')
    await page.click(`${card} .foot .touch`)
    await page.click(`${card} .byhand`)
    await choose(page, `${card} .weigh [aria-label="severity by hand"]`, 'note')
    await page.type(`${card} [aria-label="reason for the severity"]`, 'capped today')
    await page.click(`${card} .weigh .plain`)
    await weightOf('note')
    await onDisk(page)
    await reload(page)
    await clickText(page, '.filters .chip', 'note')
    await openRow()
    await weightOf('note')
    await page.click(`${card} .foot .touch`)
    await hasText(page, `${card} .sum`, 'capped today')
    await page.click(`${card} .byhand`)
    await clickText(page, `${card} .weigh button`, 'as computed')
    await clickText(page, '.filters .chip', 'note')
    await openRow()
    await weightOf('repair')
    await onDisk(page)
    expect(errors).toEqual([])
  })
  it('takes a local amendment in "about the job", and judges by it (long)', async () => {
    const { page } = await openPage(browser, `${server.url}/jobs/demo-tarn-end/panel?at=main`)
    await clickText(page, 'button', 'about the job')
    await clickText(page, '.record .more', 'add a local amendment')
    await clickText(page, '.fact .head', 'rule amended')
    await choose(page, 'button[aria-label="rule amended"]', 'Surge protector')
    await clickText(page, '.fact .head', 'local law says')
    await clickText(page, '.fact .chip', 'not enforced here')
    await onDisk(page)
    const text = await (
      await fetch(`${server.url}/api/jobs/demo-tarn-end/export?form=house`)
    ).text()
    expect(JSON.parse(text).amendments).toEqual([
      expect.objectContaining({ rule: 'surge-protector', effect: 'not enforced here' }),
    ])
  })
  it('is reported in two voices, and prints without the rail (long)', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/report`)
    await hasText(page, '[data-testid="report"]', 'A licensed electrician')
    expect(await textOf(page, '[data-testid="report"]')).not.toContain('Not here:')
    const tab = await page.$$('[role="tab"]')
    await tab[1]?.click()
    await hasText(page, '[data-testid="report"]', 'small-conductor limit')
    await hasText(page, '[data-testid="report"]', 'Not here:')
    await page.emulateMediaType('print')
    expect(await page.$eval('.rail', e => getComputedStyle(e).display)).toBe('none')
    const pdf = await page.pdf({ format: 'Letter' })
    expect(Buffer.from(pdf.slice(0, 5)).toString()).toBe('%PDF-')
    expect(pdf.length).toBeGreaterThan(20_000)
  })
})

describe('recording', () => {
  async function freshJob(): Promise<{ page: Page; errors: string[] }> {
    const opened = await openPage(browser, server.url)
    const { page } = opened
    await clickText(page, 'button', 'New job')
    await page.type('input[name="name"]', 'Larch Rise 5')
    await page.type('input[name="yearBuilt"]', '1987')
    await clickText(page, 'form.new button', 'Start')
    await hasText(page, 'h2', 'Draw the first enclosure')
    await clickText(page, 'form .go', 'Add panel')
    await page.waitForSelector('#breaker-line')
    return opened
  }
  it('by shorthand: a fault appears, and vanishes with the correction; reload keeps all; undo takes back', async () => {
    const { page, errors } = await freshJob()
    await typeLine(page, '7 20 14cu nm porch lights')
    await page.waitForSelector('[data-space="7"]')
    await hasText(page, `${margin} h3`, 'Breaker too big for the conductor')
    await hasText(page, 'label[for="breaker-line"]', 'space 8')
    await typeLine(page, '7 15')
    await lacksText(page, `${margin} h3`, 'Breaker too big for the conductor')
    await onDisk(page)
    await reload(page)
    await page.waitForSelector('[data-space="7"]')
    expect(await page.$eval('[data-space="7"]', e => e.getAttribute('aria-label'))).toContain(
      '15 A, porch lights',
    )
    await typeLine(page, '9 30 12cu nm bench')
    await page.waitForSelector('[data-space="9"]')
    await page.click('button[aria-label="Undo"]')
    await page.waitForFunction(() => !document.querySelector('[data-space="9"]'))
    await page.click('button[aria-label="Redo"]')
    await page.waitForSelector('[data-space="9"]')
    await onDisk(page)
    expect(errors).toEqual([])
  })
  it('says when two breakers are recorded in one space (long)', async () => {
    const { page } = await freshJob()
    await typeLine(page, '3 2p 30 10cu nm dryer')
    await page.waitForSelector('[data-space="3"]')
    await typeLine(page, '5 20 12cu nm bath')
    await hasText(
      page,
      '.overlap',
      'space 3 · dryer and space 5 · bath are recorded in the same space',
    )
  })
  it('says live what was understood and what could not be read, and keeps nothing half read', async () => {
    const { page } = await freshJob()
    await page.focus('#breaker-line')
    await page.keyboard.type('5 20 13cu nm lights')
    await hasText(page, '.piece.bad', 'no such conductor size')
    await page.keyboard.press('Enter')
    expect(await page.$('[data-space="5"]')).toBeNull()
  })
  it('by touch on a phone: the space, the rating, the size, and what could not be seen', async () => {
    const { page: desk } = await freshJob()
    await typeLine(desk, '3 20 nm bath')
    await onDisk(desk)
    const { page, errors } = await openPage(browser, desk.url(), HAND)
    await page.waitForSelector('[data-space="3"]')
    await page.tap('[data-space="3"]')
    await hasText(page, `${margin} h2`, 'space 3 · bath')
    const row = '[data-field="size"]'
    await page.waitForSelector(row)
    await page.$eval(`${row} .head`, e => (e as HTMLElement).click())
    await clickText(page, `${row} .chip`, '14')
    await hasText(page, `${row} .value`, '14 AWG')
    await page.$eval('[data-field="metal"] .head', e => (e as HTMLElement).click())
    await clickText(page, '[data-field="metal"] .chip', 'copper')
    await hasText(page, `${margin} h3`, 'Breaker too big for the conductor')
    const entry = '[data-field="entry"]'
    await unfold(page)
    await page.$eval(`${entry} .head`, e => (e as HTMLElement).click())
    await clickText(page, `${entry} button`, 'could not be seen')
    await page.type(`${entry} input`, 'behind the dryer')
    await clickText(page, `${entry} button`, 'Save')
    await hasText(page, entry, 'could not be seen: behind the dryer')
    await onDisk(page)
    expect(errors).toEqual([])
  })
  it('a bar, its screw, a room, a sub-panel in another building, and the job itself, all by touch (long)', async () => {
    const { page, errors } = await freshJob()
    await page.click('[aria-label^="neutral bar"]')
    await clickText(page, `${margin} button`, 'record a screw')
    for (const [field, value] of [
      ['neutrals', '2'],
      ['grounds', '0'],
    ] as const) {
      const row = `[data-field="${field}"]`
      await page.waitForSelector(row)
      await page.$eval(`${row} .head`, e => (e as HTMLElement).click())
      await clickText(page, `${row} .chip`, value)
    }
    await hasText(page, `${margin} h3`, 'Two neutrals')
    await typeLine(page, '2 2p 60 6cu se feeder studio')
    await page.waitForSelector('[data-space="2"]')
    await typeLine(page, '3 15 14cu nm-b hall outlets')
    await page.waitForSelector('[data-space="3"]')
    await clickText(page, '.tab', 'another')
    await choose(page, '[aria-label="building"]', 'another, detached')
    await page.type('input[name="newBuilding"]', 'Studio')
    await choose(page, '[aria-label="fed from"]', 'studio')
    await clickText(page, 'form .go', 'Add panel')
    await hasText(page, '.panel-face', 'sub-panel')
    await page.click('button[aria-label="about the job"]')
    await page.$eval('[data-field="edition"] .head', e => (e as HTMLElement).click())
    await clickText(page, '[data-field="edition"] .chip', '2014')
    await hasText(page, '.top', '2014 code in force')
    await clickText(page, '.place', 'Outlets')
    await clickText(page, '.views .tab', 'by circuit')
    await clickText(page, 'button', 'next receptacle on this circuit')
    await unfold(page)
    await page.waitForSelector('[data-field="room"]')
    await page.$eval('[data-field="room"] .head', e => (e as HTMLElement).click())
    await page.type('[data-field="room"] input[aria-label="name of another room"]', 'Upper hall')
    await clickText(page, '[data-field="room"] button', 'Add')
    await hasText(page, '[data-field="room"] .value', 'Upper hall')
    await onDisk(page)
    await reload(page)
    await hasText(page, '.chain', 'Receptacle 1')
    expect(errors).toEqual([])
  })
  it('walks the spaces by arrow keys (long)', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/panel?at=main`)
    await page.waitForSelector('[data-space="1"]')
    await page.keyboard.press('ArrowDown')
    await hasText(page, `${margin} h2`, 'space 1 · Range')
    await page.keyboard.press('ArrowRight')
    await hasText(page, `${margin} h2`, 'space 2')
  })
  it('keeps what is typed while the server is away, says so, and sends it when it is back (long)', async () => {
    const db = demoDb()
    const own = await serve({ db, demo: true })
    const { page } = await openPage(browser, `${own.url}${DEMO}/panel?at=main`)
    await page.waitForSelector('[data-space="7"]')
    await own.stop('SIGKILL')
    await typeLine(page, '7 15')
    await page.waitForSelector('[data-testid="save-dot"][data-state="device"]')
    await hasText(page, '[data-testid="save-dot"]', 'not sent')
    const again = await serve({ db, demo: true, port: Number(new URL(own.url).port) })
    await page.waitForSelector('[data-testid="save-dot"][data-state="server"]', { timeout: 15_000 })
    const job = (await (await fetch(`${again.url}/api/jobs/demo-sorrel-bank`)).json()) as {
      observations: { subject?: string; value?: unknown }[]
    }
    expect(job.observations.some(o => o.subject === 'main/7' && o.value === 15)).toBe(true)
    await again.stop()
  })
  it('answers keystrokes and a kept line on the full house, and prints how soon (long)', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/panel?at=main`)
    await page.waitForSelector('[data-space="7"]')
    await hasText(page, `${margin} h2`, 'found here')
    await page.click('[data-space="10"]')
    await page.focus('#breaker-line')
    const times: number[] = []
    for (const key of '20 12cu nm ') {
      times.push(
        await page.evaluate(async k => {
          const input = document.querySelector<HTMLInputElement>('#breaker-line')!
          const began = performance.now()
          input.value += k
          input.dispatchEvent(new Event('input', { bubbles: true }))
          await new Promise(r => requestAnimationFrame(() => setTimeout(r, 0)))
          return performance.now() - began
        }, key),
      )
    }
    times.sort((a, b) => a - b)
    const kept = await page.evaluate(async () => {
      const began = performance.now()
      const margin = document.querySelector('[data-testid="margin"]')!
      const answered = new Promise<void>(resolve => {
        const observer = new MutationObserver(() => {
          if (!margin.textContent!.includes('20 A')) return
          observer.disconnect()
          resolve()
        })
        observer.observe(margin, { subtree: true, childList: true, characterData: true })
      })
      document.querySelector<HTMLFormElement>('form.line')!.requestSubmit()
      await answered
      return performance.now() - began
    })
    console.log(
      `keystroke to screen: median ${times[5]!.toFixed(0)} ms, worst ${times.at(-1)!.toFixed(0)} ms; ` +
        `kept line to answer: ${kept.toFixed(0)} ms`,
    )
    // Printed, not asserted: a busy machine is no error of the code. The answer itself was awaited above.
    expect(await page.$eval('[data-testid="margin"]', e => e.textContent)).toContain('20 A')
  })
})

describe('job files', () => {
  const file = (name: string, text: string) => {
    const path = join(mkdtempSync(join(tmpdir(), 'corvit-up-')), name)
    writeFileSync(path, text)
    return path
  }
  it('that cannot be read are refused with where, expected and found; the list is unchanged', async () => {
    const { page } = await openPage(browser, server.url)
    const jobs = await page.$$eval('.job', list => list.length)
    const input = await page.$('input[type="file"]')
    await input!.uploadFile(
      file(
        'broken.json',
        JSON.stringify({
          corvit: 1,
          form: 'house',
          enclosures: [{ breakers: [{ ratingAmps: 'many <script>window.hurt=1</script>' }] }],
        }),
      ),
    )
    await hasText(page, '[data-testid="import-problems"]', 'enclosures[0].breakers[0].ratingAmps')
    await hasText(page, '[data-testid="import-problems"]', 'from 5 to 400 A')
    expect(await page.evaluate(() => 'hurt' in window)).toBe(false)
    expect(await page.$$eval('.job', list => list.length)).toBe(jobs)
  })
  it('that can be read open as a job', async () => {
    const { page, errors } = await openPage(browser, server.url)
    const input = await page.$('input[type="file"]')
    await input!.uploadFile('docs/examples/multiwire.corvit.json')
    await page.waitForSelector('[data-space="5"]')
    await hasText(page, `${margin} h3`, 'Two hots on the same leg')
    expect(errors).toEqual([])
  })
})

describe('markup in every text', () => {
  it('is shown as text on every screen and never runs', async () => {
    const nasty = '<img src=x onerror="window.hurt=1"><script>window.hurt=1</script>'
    const { page } = await openPage(browser, server.url)
    const input = await page.$('input[type="file"]')
    const path = join(mkdtempSync(join(tmpdir(), 'corvit-up-')), 'nasty.json')
    writeFileSync(
      path,
      JSON.stringify({
        corvit: 1,
        form: 'house',
        premises: { name: nasty, street: nasty, client: nasty, assessor: nasty, edition: 2020 },
        enclosures: [
          {
            id: 'e',
            name: nasty,
            type: 'panel',
            place: 'indoors',
            fedFrom: 'utility',
            cover: { blocked: nasty },
            breakers: [
              {
                space: 1,
                poles: 1,
                ratingAmps: 20,
                label: nasty,
                circuit: {
                  id: 'c',
                  label: nasty,
                  supplies: 'lighting',
                  segments: [{ name: nasty, size: '14', metal: 'copper', wiring: 'NM-B' }],
                  outlets: [
                    {
                      id: 'p',
                      name: nasty,
                      type: 'receptacle',
                      slots: 'three',
                      lamps: 'open ground',
                      protection: 'none',
                      after: 'panel',
                    },
                  ],
                },
              },
            ],
          },
        ],
      }),
    )
    await input!.uploadFile(path)
    await page.waitForSelector('[data-space="1"]')
    const base = page.url().replace(/\/panel.*/, '')
    for (const place of ['/panel', '/outlets', '/findings', '/report']) {
      await goTo(page, base + place)
      await hasText(page, 'body', 'onerror')
      expect(await page.evaluate(() => 'hurt' in window)).toBe(false)
    }
  })
})

describe('every screen', () => {
  async function isSound(path: string): Promise<void> {
    // One page: it follows the width of its window and what the device prefers.
    const { page, errors } = await openPage(browser, server.url + path, DESK)
    if (path.endsWith('/report'))
      await page.waitForSelector('[data-testid="report"]', { timeout: 20_000 })
    for (const [width, schemes] of [
      [DESK.width, ['light']],
      [HAND.width, ['light', 'dark']],
    ] as const) {
      await page.setViewport({ width, height: HAND.height })
      await page.waitForFunction(w => window.innerWidth === w, { polling: 40 }, width)
      for (const scheme of schemes) {
        await page.emulateMediaFeatures([
          { name: 'prefers-color-scheme', value: scheme },
          // A color half way from one to the other is no fault of either.
          { name: 'prefers-reduced-motion', value: 'reduce' },
        ])
        await page.waitForSelector(`html.${scheme}`)
        expect(await faultsOf(page, scheme === 'dark' ? 'colors' : 'all')).toEqual([])
      }
      expect(
        await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        ),
      ).toBeLessThanOrEqual(0)
    }
    expect(errors).toEqual([])
  }
  it.each([
    '/',
    `${DEMO}/walk`,
    `${DEMO}/panel?at=main`,
    `${DEMO}/outlets`,
    `${DEMO}/findings`,
    `${DEMO}/plan`,
  ])('%s has no serious accessibility fault, light or dark, and fits a phone and a desk', isSound)
  it.each([
    '/rules',
    '/calculators?calculator=boxfill',
    `${DEMO}/walk?tab=years`,
    `${DEMO}/walk?tab=bonds`,
    `${DEMO}/outlets?circuit=living`,
    `${DEMO}/bench?calculator=heat`,
    `${DEMO}/report`,
    `${DEMO}/return`,
    '/settings',
    '/currents',
    '/practice',
    '/jobs/demo-bakehouse/conductors',
  ])(
    '%s has no serious accessibility fault, light or dark, and fits a phone and a desk (long)',
    isSound,
  )
  it('says in plain words when a job is not there', async () => {
    const { page } = await openPage(browser, `${server.url}/jobs/ghost-job-id/panel`)
    await hasText(page, '[role="alert"]', 'could not be opened')
  })
})
