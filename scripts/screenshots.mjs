// Pictures of the main views from the demo data: node scripts/screenshots.mjs [OUT] [NAME …]
import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import browserLib from './lib/browser.cjs'
import serveLib from './lib/serve.cjs'

const { launch } = browserLib
const { serve } = serveLib

const DESK = { width: 1280, height: 800 }
const HAND = { width: 390, height: 844, isMobile: true, hasTouch: true }
const job = '/jobs/demo-sorrel-bank'
const press = async (page, selector) => {
  await page.waitForSelector(selector)
  await page.click(selector)
}
const space = n => page => press(page, `[data-space="${n}"]`)
const wait = ms => new Promise(r => setTimeout(r, ms))
async function openPhoto(page) {
  await press(page, '[data-space="7"]')
  await page.waitForSelector('.thumb')
  await page.click('.thumb')
  await wait(900)
}
async function openPlan(page) {
  await press(page, '[data-space="5"]')
  await wait(300)
  await page.evaluate(() =>
    [...document.querySelectorAll('button')]
      .find(b => b.textContent.includes('make it dead'))
      .click(),
  )
  await wait(500)
}
/** The plan of all faults, once it is worked out. */
async function planAll(page) {
  await page.waitForSelector('.fixes button')
  await page.evaluate(() => {
    const all = [...document.querySelectorAll('.fixes button')]
    all.find(b => b.textContent.includes('All faults')).click()
  })
  await page.waitForFunction(
    () => Number(/of (\d+) faults/.exec(document.body.innerText)?.[1] ?? 0) > 50,
  )
  await page.waitForSelector('.split:not(.waiting)')
  await wait(2500)
}
async function doIt(page) {
  await page.waitForSelector('.choice')
  await page.evaluate(() => {
    const all = [...document.querySelectorAll('button')]
    all.find(b => b.textContent.includes('Accept this plan')).click()
  })
  await page.waitForSelector('.task')
  await wait(7000)
}
/** A return visit begun, its first line said to be corrected. */
async function goBack(page) {
  await page.waitForFunction(() =>
    [...document.querySelectorAll('button')].some(
      b => /From the \d+ corrections/.test(b.textContent) && !b.disabled,
    ),
  )
  await page.evaluate(() =>
    [...document.querySelectorAll('button')]
      .find(b => /From the \d+ corrections/.test(b.textContent))
      .click(),
  )
  await press(page, '[data-testid="rechecks"] li .chip')
  await page.waitForSelector('[data-state="record disagrees"]')
  await wait(800)
}
/** The paper is written beside the page. */
async function written(page) {
  await page.waitForSelector('[data-testid="report"]')
  await wait(600)
}
/** The second bond, guessed right. */
async function bondedAgain(page) {
  await clickIn(page, '.which button', 'bonded again')
  await wait(600)
  await clickIn(page, '.guesses button', 'as their resistances say')
  await page.waitForSelector('canvas')
}
async function clickIn(page, selector, words) {
  await page.waitForSelector(selector)
  await page.evaluate(
    (s, w) => [...document.querySelectorAll(s)].find(e => e.textContent.includes(w)).click(),
    selector,
    words,
  )
}
/** A cover off in a practice house. */
async function practiceBegun(page) {
  await clickIn(page, '.begin', 'Begin')
  await clickIn(page, '.places button', 'Service panel')
  await clickIn(page, '.thing', 'space 1')
  await clickIn(page, '.actions button', 'Look')
  await clickIn(page, '.actions button', 'Take the cover off')
}
const VIEWS = [
  { name: 'jobs', path: '/', size: DESK },
  { name: 'walk', path: `${job}/walk`, size: DESK },
  { name: 'bonds', path: `${job}/walk?tab=bonds`, size: DESK },
  { name: 'years', path: `${job}/walk?tab=years`, size: DESK, dark: true },
  { name: 'panel', path: `${job}/panel?at=main`, size: DESK, act: space(5) },
  { name: 'photo', path: `${job}/panel?at=main`, size: DESK, act: openPhoto },
  {
    name: 'outlets',
    path: `${job}/outlets?view=rooms&room=room-living`,
    size: DESK,
    act: page => press(page, '[data-outlet="living-2"]'),
  },
  { name: 'findings', path: `${job}/findings`, size: DESK },
  { name: 'plan', path: `${job}/plan`, size: DESK, act: planAll },
  { name: 'bench', path: `${job}/bench?calculator=diagnose&from=den-4`, size: DESK },
  { name: 'rules', path: '/rules?rule=multiwire-no-common-trip', size: DESK },
  { name: 'report', path: `${job}/report`, size: DESK, act: written },
  {
    name: 'currents',
    path: '/currents',
    size: { width: 1280, height: 1060 },
    act: bondedAgain,
  },
  {
    name: 'conductors',
    path: '/jobs/demo-bakehouse/conductors',
    size: DESK,
    act: page => page.locator('[data-conductor="lead-neutral"]').click(),
  },
  { name: 'return-hand', path: `${job}/return`, size: HAND, act: goBack },
]

const desk = async page => ({ png: await page.screenshot(), width: 1030, height: 644 })
const hand = async page => ({ png: await page.screenshot(), width: 297, height: 644 })

const [out = 'docs/screenshots', ...only] = process.argv.slice(2)
const isWanted = name => only.length === 0 || only.includes(name)
mkdirSync(out, { recursive: true })
const freshDb = () => join(mkdtempSync(join(tmpdir(), 'corvit-shots-')), 'corvit.db')
const browser = await launch()
try {
  await demoViews()
  if (isWanted('door')) await doorView()
  if (isWanted('record')) await recordView()
  if (isWanted('hand')) await handView()
  if (isWanted('practice')) await practiceView()
} finally {
  await browser.close()
}

async function newPage(name, size, isDark = false) {
  const page = await (await browser.createBrowserContext()).newPage()
  page.on('pageerror', e => console.error(`${name}: ${e.message}`))
  await page.setViewport(size)
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: isDark ? 'dark' : 'light' },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ])
  return page
}

async function demoViews() {
  const views = VIEWS.filter(v => isWanted(v.name))
  if (views.length === 0) return
  const server = await serve({ db: freshDb(), demo: true })
  for (const view of views) {
    const page = await newPage(view.name, view.size, view.dark)
    await page.goto(server.url + view.path, { waitUntil: 'load' })
    // A busy machine judges later: nothing is shown before that.
    await wait(2500)
    await page.waitForFunction(() => !/Judging|Opening the job/.test(document.body.innerText))
    if (view.act) {
      await view.act(page)
      await wait(500)
    }
    await page.screenshot({ path: join(out, `${view.name}.png`) })
    await page.close()
  }
  await server.stop()
}

/** Several screens beside each other, so that small ones need no picture each. */
async function together(name, shots) {
  const width = shots.reduce((sum, s) => sum + s.width + 24, 24)
  const parts = []
  let left = 24
  for (const { png, width: w, height } of shots) {
    parts.push({ input: await sharp(png).resize(w, height).toBuffer(), left, top: 24 })
    left += w + 24
  }
  await sharp({ create: { width, height: 692, channels: 3, background: '#8d8778' } })
    .composite(parts)
    .png({ palette: true })
    .toFile(join(out, `${name}.png`))
}
/** What one hand holds: the panel, the walk, making something dead, doing the plan. */
async function handView() {
  const server = await serve({ db: freshDb(), demo: true })
  const shots = []
  for (const [path, act] of [
    [`${job}/panel?at=main`, undefined],
    [`${job}/walk`, undefined],
    [`${job}/panel?at=main`, openPlan],
    [`${job}/plan`, doIt],
  ]) {
    const page = await newPage('hand', HAND)
    await page.goto(server.url + path, { waitUntil: 'load' })
    await wait(2500)
    await page.waitForFunction(() => !/Judging|Opening the job/.test(document.body.innerText))
    if (act) await act(page)
    shots.push(await hand(page))
    await page.close()
  }
  await together('hand', shots)
  await server.stop()
}
/** A round being played, and its debrief on a phone. */
async function practiceView() {
  const server = await serve({ db: freshDb(), demo: true })
  const round = await newPage('practice', DESK)
  await round.goto(`${server.url}/practice?seed=7`, { waitUntil: 'load' })
  await wait(1500)
  await practiceBegun(round)
  await wait(600)
  const ended = await newPage('practice', HAND, true)
  await ended.goto(`${server.url}/practice?seed=7`, { waitUntil: 'load' })
  await wait(1500)
  await clickIn(ended, '.begin', 'Begin')
  await clickIn(ended, '.head button', 'Finish')
  await wait(800)
  await together('practice', [await desk(round), await hand(ended)])
  await server.stop()
}
/** Signing in, and the people of a Corvit. */
async function doorView() {
  const server = await serve({ db: freshDb() })
  const send = (path, body, cookie = '') =>
    fetch(server.url + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    })
  await wait(500)
  const code = /with this code: ([A-Z0-9-]+)/.exec(server.log())[1]
  const password = 'quite a long one'
  const made = await send('/api/setup', { code, login: 'olive', name: 'Olive Harrow', password })
  const cookie = made.headers.getSetCookie().at(-1).split(';')[0]
  for (const [login, name, role] of [
    ['ben', 'Ben Tarrow', 'assessor'],
    ['cleo', 'Cleo Marsh', 'apprentice'],
  ]) {
    await send('/api/people', { login, name, role, password }, cookie)
  }
  const signIn = await newPage('door', HAND)
  await signIn.goto(`${server.url}/sign-in`, { waitUntil: 'load' })
  await wait(1500)
  const [name, value] = cookie.split(/=(.*)/s)
  const people = await newPage('door', DESK)
  await people.setCookie({ name, value, url: server.url, httpOnly: true, sameSite: 'Strict' })
  await people.goto(`${server.url}/people`, { waitUntil: 'load' })
  await wait(1500)
  await together('door', [await hand(signIn), await desk(people)])
  await server.stop()
}

/** What two people saw differently; what is not sent; the list without a network. */
async function recordView() {
  const db = freshDb()
  const server = await serve({ db, demo: true })
  const stamp = (id, by) => ({
    id,
    at: '2026-05-12T11:20:00.000Z',
    by,
    act: 'note',
    subject: 'main/7',
    grade: 'read',
    over: ['none'],
  })
  await fetch(`${server.url}/api${job}/observations`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      observations: [
        { ...stamp('z1', 'Ben Tarrow'), field: 'ratingAmps', value: 15 },
        { ...stamp('z2', 'Cleo Marsh'), field: 'ratingAmps', value: 20 },
      ],
    }),
  })
  const opinions = await newPage('record', DESK)
  await opinions.goto(`${server.url}${job}/opinions`, { waitUntil: 'load' })
  await wait(2000)
  const phone = await newPage('record', HAND)
  await phone.goto(server.url, { waitUntil: 'load' })
  await wait(1500)
  await phone.goto(`${server.url}${job}/panel?at=main`, { waitUntil: 'load' })
  await wait(3000)
  await server.stop('SIGKILL')
  await phone.evaluate(() => {
    const store = document
      .querySelector('#__nuxt')
      .__vue_app__.config.globalProperties.$pinia._s.get('job')
    for (const client of ['A. Reed', 'A. Reed, owner']) store.note('premises', 'client', client)
  })
  await wait(1500)
  await phone.goto(server.url, { waitUntil: 'load' })
  await wait(2500)
  await together('record', [await desk(opinions), await hand(phone)])
}
