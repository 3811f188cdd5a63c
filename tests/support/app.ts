import { cpSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import type { ConsoleMessage, ElementHandle, Page, Browser, BrowserContext } from 'puppeteer-core'
import puppeteer from 'puppeteer-core'
import browserLib from '../../scripts/lib/browser.cjs'
import serveLib from '../../scripts/lib/serve.cjs'

export interface Server {
  url: string
  stop: (signal?: NodeJS.Signals) => Promise<void>
  log: () => string
  child: { pid?: number }
}
interface Serving {
  db: string
  demo?: boolean
  port?: number
  env?: Record<string, string>
}
export const serve: (options: Serving) => Promise<Server> = serveLib.serve

/** Workers are counted from 1. */
const WORKER = Number(process.env.JEST_WORKER_ID ?? 1)
/** The main server of a file listens where the one before did: what the browser compiled of it is still good. */
const OWN_PORT = 41_700 + WORKER
export async function serveHere(options: Serving): Promise<Server> {
  const isFree = await fetch(`http://127.0.0.1:${OWN_PORT}`).then(
    () => false,
    () => true,
  )
  if (!isFree) return serve(options)
  // Something that speaks no HTTP may sit there.
  return serve({ ...options, port: OWN_PORT }).catch(() => serve(options))
}
/** The browser of this worker, with nothing of an earlier file in it. */
export async function launch(): Promise<Browser> {
  const endpoint = process.env.CORVIT_BROWSERS?.split(' ')[WORKER - 1]
  if (endpoint === undefined) return browserLib.launch()
  return puppeteer.connect({ browserWSEndpoint: endpoint, defaultViewport: null })
}
/** Leaves the browser to the next file. */
export async function giveBack(browser: Browser): Promise<void> {
  const kept = keptOf(browser)
  for (const one of kept) await forget(one)
  const [own, ...others] = browser.browserContexts()
  for (const context of others) await context.close()
  // A browser without a window ends.
  const [, ...pages] = (await own?.pages()) ?? []
  for (const page of pages) await page.close()
  await browser.disconnect()
}
export const freshDb = (): string => join(mkdtempSync(join(tmpdir(), 'corvit-test-')), 'corvit.db')
/** A database of its own with the demo houses in it. */
export function demoDb(): string {
  const db = freshDb()
  const template = process.env.CORVIT_TEMPLATE
  if (template) cpSync(template, dirname(db), { recursive: true })
  return db
}
export const DEMO = '/jobs/demo-sorrel-bank'

export interface Size {
  width: number
  height: number
  isMobile?: boolean
  hasTouch?: boolean
}
/** A phone held upright. */
export const DESK: Size = { width: 1280, height: 800 }
export const HAND: Size = { width: 390, height: 844, isMobile: true, hasTouch: true }

/**
 * A desk and a phone a browser, used again and again: their code stays compiled, and a new window costs as much as a
 * view drawn. Most tests go on in the application that the one before left open, as a person does who goes from job to
 * job; what a test needs to find untouched it asks of a page by itself (`blankPage`).
 */
interface Warm {
  readonly page: Page
  isFree: boolean
  /** The test that used it last; a test that is tried again begins with nothing. */
  usedBy: string | undefined
}
type Shape = 'desk' | 'hand'
const shapeOf = (size: Size): Shape => (size.hasTouch ? 'hand' : 'desk')
const warm = new WeakMap<Browser, Map<Shape, Warm>>()
const keptOf = (browser: Browser) => [...(warm.get(browser)?.values() ?? [])]
const testName = () => expect.getState().currentTestName

async function pageOf(browser: Browser, size: Size): Promise<Page> {
  const shape = shapeOf(size)
  const kept = warm.get(browser) ?? new Map<Shape, Warm>()
  warm.set(browser, kept)
  const known = kept.get(shape)
  // A second device at the same time has a context of its own: two tabs would share what they keep.
  const isApart = [...kept.values()].some(one => !one.isFree)
  if (known?.isFree && !isApart) {
    known.isFree = false
    await known.page.bringToFront()
    return known.page
  }
  const context = isApart ? await browser.createBrowserContext() : browser.defaultBrowserContext()
  const page = await context.newPage()
  if (!known && !isApart) {
    kept.set(shape, { page, isFree: false, usedBy: undefined })
    // A test may end on a line half typed, which the page asks about before it is left.
    page.on('dialog', dialog => void dialog.accept().catch(() => undefined))
  }
  await page.setViewport(size)
  return page
}
/** A page with nothing opened yet, and nothing on its device; `leaveAll` after each test. */
export async function blankPage(browser: Browser, size = DESK): Promise<Page> {
  const kept = keptOf(browser)
  if (kept.every(one => one.isFree)) for (const one of kept) await forget(one)
  const page = await pageOf(browser, size)
  await page.setViewport(size)
  return page
}
/** After a test: pages that go on listening and judging would slow the next one down. */
export async function leaveAll(browser: Browser): Promise<void> {
  const kept = keptOf(browser)
  for (const one of kept) if (!one.isFree) await leave(one)
  const [, ...others] = browser.browserContexts()
  const ours = new Set(kept.map(one => one.page.browserContext()))
  for (const context of others) if (!ours.has(context)) await context.close()
}
/** Leaves a page, and nothing of it on the device. */
export async function closePage(page: Page): Promise<void> {
  const kept = keptOf(page.browser()).find(one => one.page === page)
  if (kept) await forget(kept)
  else await page.browserContext().close()
}

/** A place of the application where nothing is listened to or judged. */
const REST = '/settings'
/** Goes where nothing happens, and stays within the application. */
async function leave(kept: Warm): Promise<void> {
  const { page } = kept
  await page.emulateMediaType()
  await page.emulateMediaFeatures([])
  const isRested = await follow(page, REST).catch(() => false)
  if (isRested) kept.isFree = true
  else await forget(kept)
}
async function forget(kept: Warm): Promise<void> {
  const { page } = kept
  const { origin } = new URL(page.url())
  await page.emulateMediaType()
  await page.emulateMediaFeatures([])
  await page.goto('about:blank')
  if (origin !== 'null') await wipe(page, origin)
  kept.isFree = true
}
/** Takes what a server's pages keep on the device of a page; the service worker and the code it keeps stay. */
async function wipe(page: Page, origin: string): Promise<void> {
  const session = await page.createCDPSession()
  await session.send('Storage.clearDataForOrigin', {
    origin,
    storageTypes: 'cookies,indexeddb,local_storage',
  })
  await session.detach()
}

/** Devices apart from each other, used again with nothing on them: a new one compiles all of the application anew. */
export class Devices {
  readonly #all: { context: BrowserContext; isFree: boolean }[] = []
  constructor(readonly browser: () => Browser) {}

  async next(): Promise<BrowserContext> {
    let device = this.#all.find(one => one.isFree)
    if (!device) {
      device = { context: await this.browser().createBrowserContext(), isFree: true }
      this.#all.push(device)
    }
    device.isFree = false
    return device.context
  }

  /** After a test: closes what is open on them, and takes what a server's pages left there. */
  async leave({ url }: Server): Promise<void> {
    for (const device of this.#all) {
      if (device.isFree) continue
      const { context } = device
      const open = await context.pages()
      const page = await context.newPage()
      for (const other of open) await other.close()
      await wipe(page, url)
      await page.close()
      device.isFree = true
    }
  }
}
/**
 * Goes to another place of the application that is open already, as a link does: nothing is loaded anew.
 * @param path with its question, from the root
 * @returns false where no application is open
 */
export async function follow(page: Page, path: string): Promise<boolean> {
  const isThere = await page.evaluate(async to => {
    interface Mounted {
      __vue_app__?: {
        $nuxt: { $router: { push(to: string): Promise<unknown> } }
      }
    }
    const app = (document.querySelector('#__nuxt') as (Element & Mounted) | null)?.__vue_app__
    if (!app) return false
    await app.$nuxt.$router.push(to)
    return true
  }, path)
  if (isThere) await settled(page)
  return isThere
}

/** What listens to a page that is used again. */
const listeners = new WeakMap<
  Page,
  { pageerror: (e: unknown) => void; console: (m: ConsoleMessage) => void }
>()
/**
 * A page of the application; errors in its console fail the test that looks at `errors`.
 * @param device new where nothing may be kept on it that a test before chose for all jobs
 */
export async function openPage(
  browser: Browser,
  url: string,
  size: Size = DESK,
  device: 'used' | 'new' = 'used',
): Promise<{ page: Page; errors: string[] }> {
  const name = testName()
  const kept = keptOf(browser)
  // Both shapes share what is kept on the device; nothing is taken from under a page that is open.
  const isRest = kept.every(one => one.isFree)
  if (isRest && (device === 'new' || kept.some(one => one.usedBy === name)))
    for (const one of kept) await forget(one)
  const page = await pageOf(browser, size)
  const errors: string[] = []
  const listen = {
    pageerror: (e: unknown) => errors.push(String(e)),
    console: (m: ConsoleMessage) => {
      if (m.type() === 'error' && !m.text().includes('status of 4')) errors.push(m.text())
    },
  }
  const before = listeners.get(page)
  if (before) page.off('pageerror', before.pageerror).off('console', before.console)
  page.on('pageerror', listen.pageerror).on('console', listen.console)
  listeners.set(page, listen)
  await page.setViewport(size)
  const { origin, pathname, search } = new URL(url)
  const isOpen = page.url().startsWith(`${origin}/`) && (await follow(page, pathname + search))
  if (!isOpen) await goTo(page, url)
  const used = warm.get(browser)?.get(shapeOf(size))
  if (used?.page === page) used.usedBy = name
  return { page, errors }
}

/** A server with the demo houses and a browser, for every test of a file. */
export function withDemo(begun: (server: Server, browser: Browser) => void): void {
  let server: Server
  let browser: Browser
  beforeAll(async () => {
    // One address makes the calls of many people here.
    server = await serveHere({ db: demoDb(), demo: true, env: { CORVIT_RATE_SCALE: '10' } })
    browser = await launch()
    begun(server, browser)
  })
  afterEach(() => leaveAll(browser))
  afterAll(async () => {
    await giveBack(browser)
    await server.stop()
  })
}

/** Opens an address and waits for the first view of the application; a live stream keeps the network busy for ever. */
export async function goTo(page: Page, url: string): Promise<void> {
  await page.goto(url, { waitUntil: 'load' })
  await settled(page)
}
export async function reload(page: Page): Promise<void> {
  await page.reload({ waitUntil: 'load' })
  await settled(page)
}
/** Drawn, listening, and not drawn anew any more: a press on what is about to be replaced goes nowhere. */
async function settled(page: Page): Promise<void> {
  await page.waitForFunction(
    () => {
      const main = document.querySelector('main')
      const root = document.querySelector('#__nuxt')
      return (
        main !== null &&
        root !== null &&
        '__vue_app__' in root &&
        !/^(Opening the job|Reading the jobs)/.test(
          document.querySelector('[role="status"].state')?.textContent ?? '',
        )
      )
    },
    { timeout: 15_000, polling: POLL_MS },
  )
  await page.evaluate(
    (quiet, most) =>
      new Promise<void>(done => {
        const watch = new MutationObserver(() => {
          clearTimeout(timer)
          timer = setTimeout(end, quiet)
        })
        const end = () => {
          watch.disconnect()
          done()
        }
        let timer = setTimeout(end, quiet)
        setTimeout(end, most)
        watch.observe(document.body, { childList: true, subtree: true })
      }),
    QUIET_MS,
    LONGEST_MS,
  )
}
/** Asking at every frame makes the browser draw frames for nothing else. */
const POLL_MS = 40
const QUIET_MS = 200
/** Some pages move for ever. */
const LONGEST_MS = 2500

/** Waits until everything typed is acknowledged by the server. */
export const onDisk = (page: Page) =>
  page.waitForSelector('[data-testid="save-dot"][data-state="server"]')
export const textOf = (page: Page, selector: string) =>
  page.$eval(selector, e => e.textContent ?? '')
export const hasText = (page: Page, selector: string, text: string) =>
  page.waitForFunction(
    (s, t) => [...document.querySelectorAll(s)].some(e => (e.textContent ?? '').includes(t)),
    { timeout: 20000, polling: POLL_MS },
    selector,
    text,
  )
export const lacksText = (page: Page, selector: string, text: string) =>
  page.waitForFunction(
    (s, t) => ![...document.querySelectorAll(s)].some(e => (e.textContent ?? '').includes(t)),
    { timeout: 20000, polling: POLL_MS },
    selector,
    text,
  )
/** Waits until what stands there has not changed for a second: a job is read and judged piece by piece. */
export async function steady(page: Page, selector: string): Promise<void> {
  const text = () =>
    page.evaluate(
      s => [...document.querySelectorAll(s)].map(e => e.textContent).join('|'),
      selector,
    )
  let before: string | undefined
  for (let same = 0; same < 4;) {
    const now = await text()
    same = now !== '' && now === before ? same + 1 : 0
    before = now
    await new Promise(done => setTimeout(done, 250))
  }
}
/** Clicks the first element of a kind whose text contains the words. */
export async function clickText(page: Page, selector: string, text: string): Promise<void> {
  await hasText(page, selector, text)
  await page.evaluate(
    (s, t) =>
      (
        [...document.querySelectorAll(s)].find(e =>
          (e.textContent ?? '').includes(t),
        ) as HTMLElement
      ).click(),
    selector,
    text,
  )
}
/** Chooses from a list that opens over the page: its button, then the option that holds the words. */
export async function choose(page: Page, selector: string, text: string): Promise<void> {
  await page.waitForSelector(selector)
  await page.click(selector)
  await hasText(page, '[role="option"]', text)
  const option = await page.evaluateHandle(
    t => [...document.querySelectorAll('[role="option"]')].find(e => e.textContent?.includes(t)),
    text,
  )
  // Pressed as a hand does: some lists choose when the pointer comes up.
  await (option as ElementHandle<Element>).click()
  // While the list goes, nothing under it can be pressed.
  await page.waitForFunction(() => document.body.style.pointerEvents !== 'none', {
    polling: POLL_MS,
  })
}
/** Opens every folded theme of the records on screen. */
export async function unfold(page: Page): Promise<void> {
  await page.evaluate(() => {
    for (const e of document.querySelectorAll<HTMLElement>('.fold[aria-expanded="false"]'))
      e.click()
  })
}
export const post = (url: string, body: unknown) =>
  fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })
const axeSource = (): string => readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')

/** A person signed in at a server, and their requests. */
export interface SignedIn {
  cookie: string
  get(path: string): Promise<Response>
  send(method: string, path: string, body?: unknown): Promise<Response>
}
export function withCookie(url: string, cookie: string): SignedIn {
  return {
    cookie,
    get: path => fetch(url + path, { headers: { cookie } }),
    send: (method, path, body = {}) =>
      fetch(url + path, {
        method,
        headers: { cookie, 'content-type': 'application/json' },
        body: typeof body === 'string' ? body : JSON.stringify(body),
      }),
  }
}
const cookieOf = (response: Response) =>
  (response.headers.getSetCookie().at(-1) ?? '').split(';')[0]!
export const PASSWORD = 'quite a long one'

/** Makes the owner with the code the server printed. */
export async function makeOwner(server: Server): Promise<SignedIn> {
  let code: string | undefined
  for (let i = 0; i < 50 && !code; i++) {
    code = /with this code: ([A-Z0-9-]+)/.exec(server.log())?.[1]
    if (!code) await new Promise(r => setTimeout(r, 100))
  }
  const response = await post(`${server.url}/api/setup`, {
    code,
    login: 'olive',
    name: 'Olive Owner',
    password: PASSWORD,
  })
  if (!response.ok) throw new Error(await response.text())
  return withCookie(server.url, cookieOf(response))
}
export async function signIn(
  server: Server,
  login: string,
  password = PASSWORD,
): Promise<SignedIn> {
  const response = await post(`${server.url}/api/session`, { login, password })
  if (!response.ok) throw new Error(await response.text())
  return withCookie(server.url, cookieOf(response))
}
/** Signs a browser page in. */
export async function signInPage(page: Page, server: Server, who: SignedIn): Promise<void> {
  const [name, value] = who.cookie.split(/=(.*)/s)
  await page.setCookie({
    name: name!,
    value: value!,
    url: server.url,
    httpOnly: true,
    sameSite: 'Strict',
  })
}

interface Violation {
  id: string
  impact: string
  nodes: { html: string; any: { data: unknown }[] }[]
}

/**
 * Serious accessibility faults of a page as it is.
 * @param what colors only: all else is the same page in another color
 */
export async function faultsOf(view: Page, what: 'all' | 'colors' = 'all'): Promise<string[]> {
  const isThere = await view.evaluate(() => 'axe' in window)
  if (!isThere) {
    // The page's own policy keeps foreign scripts out, axe's too.
    const session = await view.createCDPSession()
    await session.send('Page.setBypassCSP', { enabled: true })
    await view.evaluate(axeSource())
  }
  const runOnly = what === 'all' ? ['wcag2a', 'wcag2aa'] : ['color-contrast']
  const found = await view.evaluate(async only => {
    const { axe } = window as unknown as {
      axe: {
        run(options: object): Promise<{ violations: Violation[] }>
      }
    }
    const { violations } = await axe.run({ resultTypes: ['violations'], runOnly: only })
    return violations
      .filter(v => ['serious', 'critical'].includes(v.impact))
      .map(({ id, nodes: [node] }) => {
        // What axe measured (the two colors, their ratio) tells a fault from a moment's blend.
        const measured = JSON.stringify(node?.any[0]?.data ?? null)
        return `${id}: ${node?.html.slice(0, 160)} ${measured.slice(0, 300)}`
      })
  }, runOnly)
  return found
}
