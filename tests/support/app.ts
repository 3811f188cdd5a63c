import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, Page } from 'puppeteer-core'
import browserLib from '../../scripts/lib/browser.cjs'
import serveLib from '../../scripts/lib/serve.cjs'

export interface Server { url: string, stop: (signal?: NodeJS.Signals) => Promise<void>, log: () => string, child: { pid?: number } }
export const serve: (options: { db: string, demo?: boolean, port?: number }) => Promise<Server> = serveLib.serve
export const launch: () => Promise<Browser> = browserLib.launch
export const freshDb = (): string => join(mkdtempSync(join(tmpdir(), 'corvit-test-')), 'corvit.db')
export const DEMO = '/jobs/demo-sorrel-bank'

/** A page of the application; errors in its console fail the test that looks at `errors`. */
export async function openPage(browser: Browser, url: string, size: { width: number, height: number, isMobile?: boolean, hasTouch?: boolean } = { width: 1280, height: 800 }): Promise<{ page: Page, errors: string[] }> {
  const context = await browser.createBrowserContext()
  const page = await context.newPage()
  const errors: string[] = []
  page.on('pageerror', e => errors.push(String(e)))
  page.on('console', m => { if (m.type() === 'error' && !m.text().includes('status of 4')) errors.push(m.text()) })
  await page.setViewport(size)
  await page.goto(url, { waitUntil: 'networkidle0' })
  return { page, errors }
}

/** A phone held upright. */
export const HAND = { width: 390, height: 844, isMobile: true, hasTouch: true }
/** A server with the demo houses and a browser, for every test of a file. */
export function withDemo(begun: (server: Server, browser: Browser) => void): void {
  let server: Server
  let browser: Browser
  beforeAll(async () => {
    server = await serve({ db: freshDb(), demo: true })
    browser = await launch()
    begun(server, browser)
  })
  afterAll(async () => {
    await browser.close()
    await server.stop()
  })
}

/** Waits until everything typed is acknowledged by the server. */
export const onDisk = (page: Page) => page.waitForSelector('[data-testid="save-dot"][data-state="on-disk"]')
export const textOf = (page: Page, selector: string) => page.$eval(selector, e => e.textContent ?? '')
export const hasText = (page: Page, selector: string, text: string) => page.waitForFunction((s, t) => [...document.querySelectorAll(s)].some(e => (e.textContent ?? '').includes(t)), { timeout: 8000 }, selector, text)
export const lacksText = (page: Page, selector: string, text: string) => page.waitForFunction((s, t) => ![...document.querySelectorAll(s)].some(e => (e.textContent ?? '').includes(t)), { timeout: 8000 }, selector, text)
/** Clicks the first element of a kind whose text contains the words. */
export async function clickText(page: Page, selector: string, text: string): Promise<void> {
  await hasText(page, selector, text)
  await page.evaluate((s, t) => ([...document.querySelectorAll(s)].find(e => (e.textContent ?? '').includes(t)) as HTMLElement).click(), selector, text)
}
export const post = (url: string, body: unknown) => fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: typeof body === 'string' ? body : JSON.stringify(body) })
export const axeSource = (): string => readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')
