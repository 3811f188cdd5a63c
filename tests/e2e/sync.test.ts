import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import type { Browser, Page } from 'puppeteer-core'
import { Appended, Job } from '#shared/api'
import {
  clickText,
  DEMO,
  DESK,
  faultsOf,
  follow,
  giveBack,
  demoDb,
  Devices,
  goTo,
  hasText,
  launch,
  onDisk,
  post,
  reload,
  serve,
  serveHere,
  type Server,
} from '../support/app'
import { isOpen, knownOf, logIds, withClockOff, withoutStorage, withStore } from '../support/store'

const DAY_MS = 86_400_000
let server: Server
let db: string
let browser: Browser
beforeAll(async () => {
  db = demoDb()
  server = await serveHere({ db, demo: true })
  browser = await launch()
})
afterAll(async () => {
  await giveBack(browser)
  await server.stop()
})

const devices = new Devices(() => browser)
afterEach(() => devices.leave(server))
// One test that ends while the server is away must not take the next ones with it.
beforeEach(async () => {
  const isUp = await fetch(`${server.url}/api/health`).then(
    r => r.ok,
    () => false,
  )
  if (!isUp) await comeBack()
})

const port = () => Number(new URL(server.url).port)
const goAway = () => server.stop('SIGKILL')
const comeBack = async () => {
  server = await serve({ db, demo: true, port: port() })
}
async function newJob(name: string): Promise<string> {
  return Appended.parse(
    await (
      await post(`${server.url}/api/jobs`, { name, purpose: 'service', edition: 2020 })
    ).json(),
  ).job.id
}
async function profile(): Promise<Page> {
  const page = await (await devices.next()).newPage()
  await page.setViewport(DESK)
  await withStore(page)
  return page
}
const idsAtServer = async (job: string) =>
  Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json())
    .observations.map(o => o.id)
    .sort()
/** The application is on the device: its files, its page, and this job. */
const isReadyOffline = (page: Page) =>
  page.waitForFunction(
    async () => {
      const registration = await navigator.serviceWorker.ready
      const names = await caches.keys()
      return (
        registration.active?.state === 'activated' && names.some(n => n.startsWith('corvit-shell'))
      )
    },
    { timeout: 20_000, polling: 200 },
  )
const stateIs = (page: Page, state: string) =>
  page.waitForSelector(`[data-testid="save-dot"][data-state="${state}"]`, { timeout: 20_000 })
async function typeLine(page: Page, line: string): Promise<void> {
  await page.focus('#breaker-line')
  await page.keyboard.type(line)
  await page.keyboard.press('Enter')
}

describe('two devices on one job', () => {
  it('both offline, clocks a day apart: the union is complete, later knowledge wins, both screens agree', async () => {
    const job = await newJob('Two devices')
    const [a, b] = [await profile(), await profile()]
    await withClockOff(b, DAY_MS)
    for (const page of [a, b]) {
      await goTo(page, `${server.url}/jobs/${job}/panel`)
      await isOpen(page)
    }
    // B, a day ahead, says something; A sees it and corrects it, an hour later by no clock at all.
    await b.evaluate(() => window.jobStore().note('premises', 'client', 'said ahead'))
    await a.waitForFunction(
      () => JSON.stringify([...window.jobStore().house.subjects.values()]).includes('said ahead'),
      { timeout: 10_000 },
    )
    await goAway()
    await a.evaluate(() => window.jobStore().note('premises', 'client', 'corrected'))
    for (const [page, name] of [
      [a, 'a'],
      [b, 'b'],
    ] as const) {
      await page.evaluate(who => {
        const store = window.jobStore()
        store.note('premises', 'street', `street of ${who}`)
        for (let i = 0; i < 67; i++) {
          const id = `${who}-${i}`
          store.record([
            { act: 'add', subject: id, kind: 'room', parent: 'premises' },
            { act: 'note', subject: id, field: 'name', value: `room ${id}`, grade: 'seen' },
            { act: 'note', subject: id, field: 'use', value: 'bedroom', grade: 'seen' },
          ])
        }
      }, name)
      await stateIs(page, 'device')
    }
    await comeBack()
    const isSent = () =>
      window.jobStore().unsent === 0 && window.jobStore().log().length >= 8 + 1 + 1 + 2 + 2 * 201
    for (const page of [a, b]) await page.waitForFunction(isSent, { timeout: 60_000 })
    const stored = await idsAtServer(job)
    expect(await logIds(a)).toEqual(stored)
    expect(await logIds(b)).toEqual(stored)
    expect(await knownOf(a)).toEqual(await knownOf(b))
    const known = await knownOf(a)
    // How far the clock was off stays with what it stamped.
    const { observations } = Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json())
    const skews = observations
      .filter(o => o.id && o.act === 'note' && String(o.value).startsWith('room b-'))
      .map(o => Math.round((o.skewSeconds ?? 0) / 3600))
    expect(new Set(skews)).toEqual(new Set([24]))
    expect(
      observations
        .filter(o => o.act === 'note' && String(o.value).startsWith('room a-'))
        .every(o => o.skewSeconds === undefined),
    ).toBe(true)
    expect(known).toContain('premises.client="corrected"')
    expect(known.filter(k => k.includes('.use="bedroom"')).length).toBe(134)
    // Neither had seen the other's street: two opinions, named, on both screens, until one of them decides.
    for (const page of [a, b]) {
      await clickText(page, 'a', '1 seen differently')
      await hasText(page, '[data-testid="conflicts"]', 'street of a')
      await hasText(page, '[data-testid="conflicts"]', 'street of b')
    }
    await a.evaluate(() =>
      (
        [...document.querySelectorAll('.opinion')]
          .find(o => o.textContent!.includes('street of a'))!
          .querySelector('button') as HTMLElement
      ).click(),
    )
    for (const page of [a, b])
      await page.waitForSelector('[data-testid="no-conflicts"]', { timeout: 10_000 })
    expect((await knownOf(b)).filter(k => k.startsWith('premises.street'))).toEqual([
      'premises.street="street of a"',
    ])
    await hasText(b, '[data-slot="title"]', '24 hours ahead')
  }, 150_000)

  it('what one records appears on the other without a reload, also after the server was away (long)', async () => {
    const job = await newJob('Live')
    const [a, b] = [await profile(), await profile()]
    for (const page of [a, b]) {
      await goTo(page, `${server.url}/jobs/${job}/panel`)
      await isOpen(page)
    }
    await a.evaluate(() => window.jobStore().note('premises', 'client', 'first'))
    await b.waitForFunction(() =>
      JSON.stringify([...window.jobStore().house.subjects.values()]).includes('"first"'),
    )
    await goAway()
    await comeBack()
    await a.evaluate(() => window.jobStore().note('premises', 'client', 'second'))
    await b.waitForFunction(
      () => JSON.stringify([...window.jobStore().house.subjects.values()]).includes('"second"'),
      { timeout: 40_000 },
    )
  }, 90_000)
})

describe('without a network', () => {
  it('a new job, a panel, a photograph, a finding, the report, a reload; then all of it is on the server', async () => {
    const page = await profile()
    await goTo(page, server.url)
    await hasText(page, '.job', 'Tarn End 9')
    await goTo(page, `${server.url}${DEMO}/panel?at=main`)
    await isOpen(page)
    await isReadyOffline(page)
    await goAway()
    await goTo(page, server.url)
    await hasText(page, '.job', 'Sorrel Bank 22')
    await clickText(page, 'button', 'New job')
    await page.type('input[name="name"]', 'Crawlspace 4')
    await clickText(page, 'form.new button', 'Start')
    await clickText(page, 'form .go', 'Add panel')
    await page.waitForSelector('#breaker-line')
    await typeLine(page, '7 20 14cu nm porch lights')
    await page.waitForSelector('[data-space="7"]')
    await page.click('[data-space="7"]')
    await hasText(page, '[data-testid="margin"] h3', 'Breaker too big for the conductor')
    const picture = join(mkdtempSync(join(tmpdir(), 'corvit-off-')), 'breaker.jpg')
    writeFileSync(
      picture,
      await sharp({ create: { width: 640, height: 480, channels: 3, background: '#456' } })
        .jpeg()
        .toBuffer(),
    )
    const input = await page.waitForSelector('[data-testid="photos"] input[type="file"]')
    await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(picture)
    await page.waitForSelector('[data-testid="photos"] .thumb img[src^="blob:"]')
    await stateIs(page, 'device')
    await reload(page)
    await page.waitForSelector('[data-space="7"]')
    await clickText(page, '.place', 'Report')
    await hasText(page, '[data-testid="report"]', 'Breaker too big for the conductor')
    const job = (await page.evaluate(() => window.jobStore().jobId))!
    await goTo(page, server.url)
    await hasText(page, '.job', 'not sent')
    const before = await page.evaluate(() => document.querySelectorAll('.job').length)
    // The list as it was last seen, and the new one; what was not opened here says so.
    expect(before).toBeGreaterThanOrEqual(4)
    await hasText(page, '.job', 'not on this device')
    await comeBack()
    // The list is enough: the job need not be opened again for its work to go.
    await page.waitForFunction(
      () => !document.body.textContent!.includes('not on the server yet'),
      { timeout: 40_000 },
    )
    const { observations } = Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json())
    const hash = observations.find(o => o.act === 'note' && o.field === 'hash')
    expect(
      observations.some(o => o.act === 'note' && o.field === 'ratingAmps' && o.value === 20),
    ).toBe(true)
    expect(
      (await fetch(`${server.url}/api/jobs/${job}/photos/${(hash as { value: string }).value}`))
        .status,
    ).toBe(200)
    expect(
      observations.some(o => o.act === 'note' && o.field === 'label' && o.value === 'porch lights'),
    ).toBe(true)
  }, 150_000)

  it('where no service worker may run, every page is at hand all the same (long)', async () => {
    const page = await profile()
    await page.evaluateOnNewDocument(() => {
      delete (Navigator.prototype as { serviceWorker?: unknown }).serviceWorker
    })
    await goTo(page, server.url)
    // The last page of all has come when nothing more is asked for.
    await page.waitForNetworkIdle({ idleTime: 1000 })
    await page.setOfflineMode(true)
    await follow(page, '/calculators')
    await hasText(page, 'h1', 'Calculators')
    await follow(page, '/practice')
    await hasText(page, 'h1', 'Practice')
    await page.setOfflineMode(false)
  }, 60_000)

  it('a photograph of a job that went meanwhile is kept, said, and let go by hand (long)', async () => {
    const job = await newJob('Goes away')
    const page = await profile()
    await goTo(page, `${server.url}/jobs/${job}/panel`)
    await isOpen(page)
    await page.setOfflineMode(true)
    await page.evaluate(async id => {
      const device = window.deviceStore()
      const picture = new Blob([new Uint8Array([1, 2, 3])], { type: 'image/jpeg' })
      await device.holdPhoto({ id: 'p-gone', job: id, subject: 'premises', picture, by: 'A' })
    }, job)
    await stateIs(page, 'device')
    expect((await fetch(`${server.url}/api/jobs/${job}`, { method: 'DELETE' })).ok).toBe(true)
    await page.setOfflineMode(false)
    await page.evaluate(() => {
      dispatchEvent(new Event('online'))
    })
    await stateIs(page, 'needs-you')
    await goTo(page, `${server.url}/unsent`)
    await hasText(page, '[data-testid="refused-photos"]', 'There is no such job')
    await clickText(page, '[data-testid="refused-photos"] button', 'Let it go')
    await page.waitForSelector('[data-testid="all-sent"]')
  }, 60_000)

  it('a job left in the middle of sending goes on, and its dot does not say more than is true (long)', async () => {
    const job = await newJob('Left early')
    const before = (await idsAtServer(job)).length
    const page = await profile()
    await goTo(page, `${server.url}/jobs/${job}/panel`)
    await isOpen(page)
    // The list is a part of the application that has to be on the device before the server goes.
    await isReadyOffline(page)
    await goAway()
    await page.evaluate(() => {
      for (let i = 0; i < 30; i++) window.jobStore().note('premises', 'client', `client ${i}`)
    })
    await stateIs(page, 'device')
    await page.evaluate(() => (document.querySelector('.rail .mark') as HTMLElement).click())
    await hasText(page, '[data-slot="title"]', '30 not on the server yet')
    await comeBack()
    await page.waitForFunction(
      () => !document.body.textContent!.includes('not on the server yet'),
      { timeout: 40_000 },
    )
    expect((await idsAtServer(job)).length).toBe(before + 30)
  }, 90_000)
})

describe('two tabs of one browser', () => {
  it('see each other at once, share the list of what is not sent, and lose nothing when closed (long)', async () => {
    const job = await newJob('Two tabs')
    const context = await devices.next()
    const open = async () => {
      const page = await context.newPage()
      await withStore(page)
      await goTo(page, `${server.url}/jobs/${job}/panel`)
      await isOpen(page)
      return page
    }
    const [a, b] = [await open(), await open()]
    await isReadyOffline(a)
    await goAway()
    await a.evaluate(() => window.jobStore().note('premises', 'client', 'from the first tab'))
    await b.waitForFunction(
      () =>
        JSON.stringify([...window.jobStore().house.subjects.values()]).includes(
          'from the first tab',
        ),
      { polling: 100 },
    )
    await b.evaluate(() => window.jobStore().note('premises', 'street', 'from the second tab'))
    await a.waitForFunction(() => window.jobStore().unsent === 2, { polling: 100 })
    await stateIs(b, 'device')
    await a.close()
    await b.close()
    await comeBack()
    // Another page of the same browser sends it; the job is not opened.
    const later = await context.newPage()
    await goTo(later, server.url)
    await later.waitForFunction(
      () => !document.body.textContent!.includes('not on the server yet'),
      { timeout: 40_000 },
    )
    const { observations } = Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json())
    const values = observations.flatMap(o => (o.act === 'note' ? [o.value] : []))
    expect(values).toEqual(expect.arrayContaining(['from the first tab', 'from the second tab']))
  }, 90_000)
})

describe('with every page closed', () => {
  it('the service worker goes on sending (long)', async () => {
    const job = await newJob('Closed')
    const page = await profile()
    await goTo(page, `${server.url}/jobs/${job}/panel`)
    await isOpen(page)
    await isReadyOffline(page)
    await goAway()
    await page.evaluate(() => window.jobStore().note('premises', 'client', 'sent by nobody there'))
    await stateIs(page, 'device')
    const context = page.browserContext()
    const idle = await context.newPage()
    const session = await idle.createCDPSession()
    const registered = new Promise<string>(resolve => {
      session.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
        const own = registrations.find(r => r.scopeURL.startsWith(server.url))
        if (own) resolve(own.registrationId)
      })
    })
    await session.send('ServiceWorker.enable')
    const registrationId = await registered
    await page.close()
    await comeBack()
    await session.send('ServiceWorker.dispatchSyncEvent', {
      origin: server.url,
      registrationId,
      tag: 'corvit-send',
      lastChance: true,
    })
    const isThere = async () =>
      (await (await fetch(`${server.url}/api/jobs/${job}`)).text()).includes('sent by nobody there')
    for (let i = 0; i < 60 && !(await isThere()); i++) await new Promise(r => setTimeout(r, 250))
    expect(await isThere()).toBe(true)
  }, 90_000)
})

describe('a browser that does not store', () => {
  it('sends at once and says where things are; without a network: in this window only (long)', async () => {
    const job = await newJob('No room')
    const page = await profile()
    await withoutStorage(page)
    await goTo(page, `${server.url}/jobs/${job}/panel`)
    await isOpen(page)
    await page.evaluate(() => window.jobStore().note('premises', 'client', 'goes at once'))
    await onDisk(page)
    expect(JSON.stringify(await (await fetch(`${server.url}/api/jobs/${job}`)).json())).toContain(
      'goes at once',
    )
    await goAway()
    await page.evaluate(() => window.jobStore().note('premises', 'client', 'only here'))
    await stateIs(page, 'needs-you')
    await hasText(page, '[data-testid="save-dot"]', 'only in this window')
    // A window with work that is nowhere else does not close without a word.
    const asked = new Promise<string>(resolve =>
      page.once('dialog', d => {
        resolve(d.type())
        void d.accept()
      }),
    )
    await page.click('h1')
    void page.close({ runBeforeUnload: true })
    expect(await asked).toBe('beforeunload')
    await comeBack()
  }, 90_000)
})

describe('an observation the server does not take', () => {
  it('is set aside with its reason and can be corrected; the rest goes on; an unreadable one too', async () => {
    const job = await newJob('Poisoned')
    const page = await profile()
    await goTo(page, `${server.url}/jobs/${job}/panel`)
    await isOpen(page)
    await goAway()
    await page.evaluate(() => {
      window.jobStore().note('premises', 'yearBuilt', 1200)
      window.jobStore().note('premises', 'client', 'behind the bad one')
    })
    await stateIs(page, 'device')
    // A line of the outbox spoiled on the disk.
    await page.evaluate(async id => {
      const open = indexedDB.open('corvit')
      const database = await new Promise<IDBDatabase>(resolve => {
        open.onsuccess = () => resolve(open.result)
      })
      const item = {
        job: id,
        id: 'spoiled',
        body: '{"id":"spoiled","act":',
        state: 'waiting',
        problems: [],
        account: null,
      }
      const tx = database.transaction('outbox', 'readwrite')
      tx.objectStore('outbox').add(item)
      await new Promise(resolve => {
        tx.oncomplete = resolve
      })
      database.close()
    }, job)
    await comeBack()
    await stateIs(page, 'needs-you')
    await page.click('[data-testid="save-dot"]')
    await hasText(page, '[data-testid="refused"]', 'year built: 1200')
    await hasText(page, '[data-testid="refused"]', 'expected a year')
    await hasText(page, '[data-testid="refused"]', 'cannot be read')
    expect(await faultsOf(page)).toEqual([])
    expect(JSON.stringify(await (await fetch(`${server.url}/api/jobs/${job}`)).json())).toContain(
      'behind the bad one',
    )
    await clickText(page, '[data-testid="refused"] li:nth-child(1) button', 'Correct')
    await page.evaluate(() => {
      ;(document.querySelector('[aria-label="the right value"]') as HTMLInputElement).value = ''
    })
    await page.type('[aria-label="the right value"]', '1962')
    await clickText(page, '[data-testid="refused"] button', 'Save')
    await page.waitForFunction(
      () => document.querySelectorAll('[data-testid="refused"] li').length === 1,
      { timeout: 20_000 },
    )
    await clickText(page, '[data-testid="refused"] button', 'Let it go')
    await page.waitForSelector('[data-testid="all-sent"]', { timeout: 20_000 })
    const { observations } = Job.parse(await (await fetch(`${server.url}/api/jobs/${job}`)).json())
    expect(
      observations
        .filter(o => o.act === 'note' && o.field === 'yearBuilt')
        .map(o => (o as { value: unknown }).value),
    ).toEqual([1962])
  }, 90_000)
})
