// Pictures of the main views from the demo data: node scripts/screenshots.mjs [OUT] [NAME …]
import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import browserLib from './lib/browser.cjs'
import serveLib from './lib/serve.cjs'

const { launch } = browserLib
const { serve } = serveLib

const DESK = { width: 1280, height: 800 }
const HAND = { width: 390, height: 844, isMobile: true, hasTouch: true }
const job = '/jobs/demo-sorrel-bank'
const space = n => page => page.click(`[data-space="${n}"]`)
const wait = ms => new Promise(r => setTimeout(r, ms))
async function openPhoto(page) {
  await page.click('[data-space="7"]')
  await page.waitForSelector('.thumb')
  await page.click('.thumb')
  await wait(900)
}
async function openPlan(page) {
  await page.click('[data-space="5"]')
  await wait(300)
  await page.evaluate(() => [...document.querySelectorAll('button')].find(b => b.textContent.includes('make it dead')).click())
  await wait(500)
}
const VIEWS = [
  { name: 'jobs', path: '/', size: DESK },
  { name: 'walk', path: `${job}/walk`, size: DESK },
  { name: 'walk-hand', path: `${job}/walk`, size: HAND },
  { name: 'bonds', path: `${job}/walk?tab=bonds`, size: DESK },
  { name: 'years', path: `${job}/walk?tab=years`, size: DESK, dark: true },
  { name: 'panel', path: `${job}/panel?at=main`, size: DESK, act: space(5) },
  { name: 'panel-dark', path: `${job}/panel?at=main`, size: DESK, dark: true, act: space(7) },
  { name: 'panel-hand', path: `${job}/panel?at=main`, size: HAND },
  { name: 'panel-hand-sheet', path: `${job}/panel?at=main`, size: HAND, act: space(7) },
  { name: 'panel-split', path: '/jobs/demo-bakehouse/panel?at=oven', size: DESK },
  { name: 'panel-new', path: '/jobs/demo-tarn-end/panel', size: DESK, act: page => page.evaluate(() => [...document.querySelectorAll('.tab')].find(t => t.textContent.includes('another')).click()) },
  { name: 'photo', path: `${job}/panel?at=main`, size: DESK, act: openPhoto },
  { name: 'isolation', path: `${job}/panel?at=main`, size: HAND, act: openPlan },
  { name: 'points', path: `${job}/points?circuit=living`, size: DESK, act: page => page.click('[data-point="living-4"]') },
  { name: 'findings', path: `${job}/findings`, size: DESK },
  { name: 'findings-hand', path: `${job}/findings`, size: HAND },
  { name: 'bench', path: `${job}/bench?sum=diagnose&from=den-4`, size: DESK },
  { name: 'bench-trace', path: `${job}/bench?sum=trace`, size: DESK },
  { name: 'report', path: `${job}/report`, size: DESK },
]

const [out = 'docs/screenshots', ...only] = process.argv.slice(2)
mkdirSync(out, { recursive: true })
const server = await serve({ db: join(mkdtempSync(join(tmpdir(), 'corvit-shots-')), 'demo.db'), demo: true })
const browser = await launch()
try {
  for (const view of VIEWS.filter(v => only.length === 0 || only.includes(v.name))) {
    const page = await browser.newPage()
    page.on('pageerror', e => console.error(`${view.name}: ${e.message}`))
    page.on('console', m => { if (m.type() === 'error') console.error(`${view.name}: ${m.text()}`) })
    await page.setViewport(view.size)
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: view.dark ? 'dark' : 'light' }, { name: 'prefers-reduced-motion', value: 'reduce' }])
    await page.goto(server.url + view.path, { waitUntil: 'load' })
    await new Promise(r => setTimeout(r, 1500))
    if (view.act) {
      await view.act(page)
      await new Promise(r => setTimeout(r, 350))
    }
    await page.screenshot({ path: join(out, `${view.name}.png`) })
    await page.close()
  }
} finally {
  await browser.close()
  await server.stop()
}
