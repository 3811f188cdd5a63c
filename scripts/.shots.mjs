import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import browserLib from './lib/browser.cjs'
import serveLib from './lib/serve.cjs'
const { launch } = browserLib
const { serve } = serveLib
const DESK = { width: 1280, height: 800 }
const HAND = { width: 390, height: 844, isMobile: true, hasTouch: true }
const wait = ms => new Promise(r => setTimeout(r, ms))
const { views } = await import(process.argv[2])
const server = await serve({
  db: join(mkdtempSync(join(tmpdir(), 'corvit-shots-')), 'corvit.db'),
  demo: true,
})
const browser = await launch()
const pngs = []
try {
  for (const v of views) {
    const page = await (await browser.createBrowserContext()).newPage()
    page.on('pageerror', e => console.error('ERR', v.path, e.message))
    page.on('console', c => c.type() === 'error' && console.error('CON', c.text().slice(0, 200)))
    await page.setViewport(v.hand ? HAND : DESK)
    await page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: v.dark ? 'dark' : 'light' },
    ])
    await page.goto(server.url + v.path)
    await wait(v.wait ?? 3500)
    if (v.act) await v.act(page, wait)
    let png = await page.screenshot({ fullPage: v.full })
    if (v.full) {
      const meta = await sharp(png).metadata()
      if (meta.height > 2000)
        png = await sharp(png)
          .extract({ left: 0, top: 0, width: meta.width, height: 2000 })
          .toBuffer()
    }
    pngs.push(png)
    await page.close()
  }
} finally {
  await browser.close()
  await server.stop()
}
const H = Number(process.argv[4] ?? 800)
const parts = []
let x = 0
for (const p of pngs) {
  const b = await sharp(p).resize({ height: H, fit: 'inside' }).toBuffer()
  const mm = await sharp(b).metadata()
  parts.push({ input: b, left: x, top: 0 })
  x += mm.width + 8
}
await sharp({ create: { width: x, height: H, channels: 3, background: '#777' } })
  .composite(parts)
  .png()
  .toFile(process.argv[3])
