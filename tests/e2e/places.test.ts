import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, ElementHandle, Page } from 'puppeteer-core'
import sharp from 'sharp'
import {
  choose,
  clickText,
  DEMO,
  DESK,
  HAND,
  hasText,
  lacksText,
  onDisk,
  openPage,
  post,
  withDemo,
  type Server,
} from '../support/app'

let server: Server
let browser: Browser
withDemo((s, b) => {
  ;[server, browser] = [s, b]
})
const house = async (job: string) =>
  (await (await fetch(`${server.url}/api/jobs/${job}/export?form=house`)).json()) as {
    photos?: { of?: unknown; shows?: unknown }[]
    rooms?: { id: string; name?: unknown; order?: unknown }[]
    outlets?: { name?: unknown; slots?: unknown; metal?: unknown }[]
  }
const plain = (fact: unknown): unknown =>
  typeof fact === 'object' && fact !== null && 'value' in fact ? fact.value : fact
const newJob = async (name: string, purpose = 'purchase'): Promise<string> => {
  const first = { name, purpose, edition: 2020, yearBuilt: 1974 }
  return ((await (await post(`${server.url}/api/jobs`, first)).json()) as { job: { id: string } })
    .job.id
}

describe('calculators without a job', () => {
  const at = (id: string) => `${server.url}/calculators?calculator=${id}`
  it('take a decimal by keypad between two holes, and keep it when other holes are touched', async () => {
    const { page, errors } = await openPage(browser, at('diagnose'), HAND)
    for (const hole of ['ground hole', 'wide slot, neutral']) {
      await page.waitForSelector(`g[aria-label="${hole}"]`)
      await page.click(`g[aria-label="${hole}"]`)
    }
    await hasText(page, '[data-testid="keypad"]', 'Neutral to ground')
    for (const key of ['1', '.', '5'])
      await page.click(`[data-testid="keypad"] [aria-label="${key}"]`)
    const shown = () =>
      page.$eval('[data-testid="keypad"] input', e => (e as HTMLInputElement).value)
    expect(await shown()).toBe('1.5')
    await hasText(page, '.leads .list', '1.5 V')
    await page.click('g[aria-label="narrow slot, hot"]')
    await hasText(page, '[data-testid="keypad"]', 'Hot to ground')
    expect(await shown()).toBe('')
    await hasText(page, '.leads .list', '1.5 V')
    await page.click('[data-testid="keypad"] [aria-label="9"]')
    await page.click('[data-testid="keypad"] [aria-label="take the last digit back"]')
    expect(await shown()).toBe('')
    expect(errors).toEqual([])
  })
  it('count a box by what is put into it, and out of it again (long)', async () => {
    const { page } = await openPage(browser, at('boxfill'), DESK)
    await clickText(page, '.tray button', '12/2 cable')
    await clickText(page, '.tray button', '12/2 cable')
    await clickText(page, '.tray button', 'device')
    await page.type('[data-key="volumeIn3"] input', '14')
    // Four of 12 AWG, one for the grounds, two for the device: 7 times 2.25.
    await hasText(page, '.answer .hero', '15.75')
    await hasText(page, '.answer', 'too full')
    await page.click('[aria-label="take a 12/2 cable out"]')
    await hasText(page, '.answer .hero', '11.25')
    await hasText(page, '.answer', 'fits')
  })
  it('hold breakers of one name apart in the heat strip (long)', async () => {
    const { page } = await openPage(browser, at('heat'), DESK)
    await clickText(page, 'button', 'Try an example')
    await page.waitForSelector('.strip .says')
    const says = () => page.$$eval('.strip .says b', all => all.map(e => e.textContent))
    const before = await says()
    const second = (
      await page.$$('.strip input[aria-label^="name of breaker"]')
    )[1] as ElementHandle<Element>
    await second.click({ clickCount: 3 })
    await second.type('water heater')
    expect(await says()).toEqual(before)
    expect(new Set(before).size).toBeGreaterThan(1)
  })
})

describe('going anywhere', () => {
  it('finds a rule by its words, and narrows by edition', async () => {
    const { page, errors } = await openPage(browser, `${server.url}/rules`, DESK)
    await page.type('[aria-label="words on the page"]', 'surge')
    await hasText(page, '[data-testid="leaf"]', '230.67 (from 2020)')
    await choose(page, '[aria-label="edition"]', '2017')
    await lacksText(page, '.list', 'surge protector that works')
    expect(errors).toEqual([])
  })
  it('opens a room, and a rule, from the keyboard (long)', async () => {
    const { page } = await openPage(browser, `${server.url}${DEMO}/walk`, DESK)
    await hasText(page, '.rail', 'Findings')
    const press = async () => {
      await page.keyboard.down('Control')
      await page.keyboard.press('k')
      await page.keyboard.up('Control')
      await page.waitForSelector('[data-testid="find"] input')
    }
    await press()
    await page.keyboard.type('Glaze bench')
    await hasText(page, '[role="option"]', 'Glaze bench')
    await page.keyboard.press('Enter')
    await page.waitForFunction(() => location.pathname.endsWith('/outlets'))
    await hasText(page, '.rooms .chip[aria-pressed="true"]', 'Glaze bench')
    await press()
    await page.keyboard.type('jumper joins neutral')
    await hasText(page, '[role="option"]', 'No jumper joins')
    await page.keyboard.press('Enter')
    await hasText(page, '[data-testid="leaf"]', 'No jumper joins')
  })
})

describe('hands full', () => {
  const picture = async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'corvit-loose-')), 'panel.jpg')
    const shot = sharp({ create: { width: 320, height: 240, channels: 3, background: '#567' } })
    writeFileSync(file, await shot.jpeg().toBuffer())
    return file
  }
  it('pictures are taken first and sorted later', async () => {
    const job = await newJob('Pictures first')
    const { page } = await openPage(browser, `${server.url}/jobs/${job}/panel`, HAND)
    await clickText(page, 'form .go', 'Add panel')
    await page.waitForSelector('#breaker-line')
    await onDisk(page)
    await page.goto(`${server.url}/jobs/${job}/walk`)
    const chooser = await page.waitForSelector('[data-testid="loose"] input[type="file"]')
    const take = chooser as unknown as { uploadFile(...paths: string[]): Promise<void> }
    await take.uploadFile(await picture(), await picture())
    await hasText(page, '[data-testid="loose"]', '2 pictures to sort')
    await choose(page, '[data-testid="loose"] [aria-label="what it shows"]', 'Service panel')
    await hasText(page, '[data-testid="loose"]', '1 picture to sort')
    await onDisk(page)
    const { photos = [] } = await house(job)
    expect(photos.filter(p => p.of !== undefined)).toHaveLength(1)
  })
})

describe('one question for many', () => {
  async function roomOf(page: Page, count: number): Promise<void> {
    await page.waitForSelector('[data-testid="add-room"]')
    await page.click('[data-testid="add-room"]')
    await clickText(page, '[data-use="bedroom"]', 'bedroom')
    for (let i = 0; i < count; i++) await clickText(page, '[data-add="receptacle"]', 'Receptacle')
    await page.waitForFunction(n => document.querySelectorAll('.faces li').length === n, {}, count)
  }
  it('is answered for all but those picked out on the drawing, which stay open (long)', async () => {
    const job = await newJob('All but one', 'rental')
    const { page, errors } = await openPage(browser, `${server.url}/jobs/${job}/outlets`, HAND)
    await roomOf(page, 3)
    await onDisk(page)
    await page.goto(`${server.url}/jobs/${job}/walk`)
    await clickText(page, '.stopchip', 'Bedroom')
    await clickText(page, '[data-field="slots"] .head', 'slots')
    await page.waitForSelector('[data-field="slots"] .pick .one')
    await page.click('[data-field="slots"] .pick .one')
    await hasText(page, '[data-field="slots"]', 'The same for 2 of them')
    await clickText(page, '[data-field="slots"] .chip', 'three')
    await onDisk(page)
    const { outlets = [] } = await house(job)
    expect(outlets.filter(o => plain(o.slots) === 'three')).toHaveLength(2)
    expect(outlets.filter(o => o.slots === undefined)).toHaveLength(1)
    expect(errors).toEqual([])
  })
  it('all alike copies the face to the room, and nothing that is in the box (long)', async () => {
    const job = await newJob('Alike')
    const { page } = await openPage(browser, `${server.url}/jobs/${job}/outlets`, HAND)
    await roomOf(page, 2)
    await page.click('.faces li:first-child .face')
    await clickText(page, '.quick .chip', 'two slots')
    // Pressed where it is: the record may still be moving under it.
    await clickText(page, '[data-testid="alike"]', 'All alike')
    await page.waitForSelector('[data-testid="alike"]', { hidden: true })
    await onDisk(page)
    const { outlets = [], rooms = [] } = await house(job)
    expect(outlets.map(o => plain(o.slots))).toEqual(['two', 'two'])
    expect(new Set(outlets.map(o => plain(o.name))).size).toBe(2)
    expect(rooms.map(r => plain(r.order))).toEqual([0])
  })
})
