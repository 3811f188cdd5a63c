import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import type { Browser, ElementHandle, Page } from 'puppeteer-core'
import { REPORT_TITLES, REPORT_VOICES } from '#core'
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
  textOf,
  withDemo,
  type Server,
} from '../support/app'
import { panel, run } from '../support/house'
import { pagesOf } from '../support/pdf'

let server: Server
let browser: Browser
withDemo((s, b) => {
  ;[server, browser] = [s, b]
})
const fresh = (path: string, init: RequestInit = {}) =>
  fetch(`${server.url}${path}`, { ...init, headers: { connection: 'close', ...init.headers } })
const bytesAt = async (path: string) => new Uint8Array(await (await fresh(path)).arrayBuffer())
const textAt = async (path: string) => pagesOf(await bytesAt(path)).join('\n')
const json = async (path: string) => (await (await fresh(path)).json()) as Record<string, unknown>
const send = (path: string, body: unknown) => post(`${server.url}${path}`, body)
const sendZip = (path: string, body: Uint8Array) =>
  fresh(path, {
    method: 'POST',
    body: body as unknown as BodyInit,
    headers: { 'content-type': 'application/zip' },
  })

/** A job with one breaker too big for its conductor. */
async function newJob(premises: Record<string, unknown> = {}): Promise<string> {
  const wire = { size: '14', metal: 'copper', wiring: 'NM-B', terminalsC: 60 }
  const house = panel(
    [run(20, wire, { label: 'Bedroom' })],
    {},
    {
      name: 'Plum Lane 4',
      street: '4 Plum Lane',
      ...premises,
    },
  )
  const answer = await send('/api/jobs/import', house)
  return ((await answer.json()) as { job: { id: string } }).job.id
}
const note = (job: string, id: string, subject: string, field: string, value: unknown, more = {}) =>
  send(`/api/jobs/${job}/observations`, {
    observations: [
      {
        id,
        at: new Date().toISOString(),
        by: 'Ann',
        act: 'note',
        subject,
        field,
        value,
        grade: 'seen',
        ...more,
      },
    ],
  })
const SIGN = {
  voice: 'inspector',
  by: 'R. Ambersley',
  on: '2026-11-27',
  discloses: 'No ladder',
  changes: '',
}

async function openReport(job: string, size = DESK): Promise<{ page: Page; errors: string[] }> {
  const { page, errors } = await openPage(browser, `${server.url}/jobs/${job}/report`, size)
  await page.waitForSelector('[data-testid="report"]', { timeout: 20_000 })
  return { page, errors }
}
/** Presses the first thing that holds the words, as a hand does: some parts act when the pointer goes down. */
async function press(page: Page, selector: string, text: string): Promise<void> {
  const found = await page.waitForFunction(
    (s, t) =>
      [...document.querySelectorAll<HTMLButtonElement>(s)].find(
        e => e.textContent?.includes(t) && !e.disabled,
      ),
    { timeout: 10_000 },
    selector,
    text,
  )
  await (found as ElementHandle<Element>).click()
}
const type = async (page: Page, selector: string, text: string) => {
  await page.waitForSelector(selector)
  await page.click(selector, { count: 3 })
  await page.type(selector, text)
}

describe('the report, from the record to the signature and back', () => {
  it('tells the demo house in every voice (long)', async () => {
    const { page, errors } = await openReport('demo-sorrel-bank')
    const names = ['Inspector', 'Electrician', 'Corrections', 'Household', 'Insurer', 'Rental']
    for (const [i, voice] of REPORT_VOICES.entries()) {
      await press(page, '[role="tab"]', names[i] ?? '')
      await hasText(page, '[data-testid="report"] h1', REPORT_TITLES[voice])
    }
    expect(errors).toEqual([])
  })
  it('is worded, signed, amended, gone back to, and passes', async () => {
    const job = await newJob()
    const { page, errors } = await openReport(job)
    await hasText(
      page,
      '[data-testid="report"]',
      'A 20 A device stands on a conductor rated for 15 A',
    )
    await page.click('[data-finding="overfused-conductor@s"] button')
    await type(page, '[data-testid="edit-finding"] textarea', 'The bedroom breaker is too big')
    await clickText(page, '[role="dialog"] button', 'Keep')
    await hasText(page, '[data-testid="report"]', 'The bedroom breaker is too big.')

    await clickText(page, 'button', 'Sign')
    await page.waitForSelector('[data-testid="sign-report"]')
    const isBarred = () =>
      page.evaluate(
        () =>
          [...document.querySelectorAll('[role="dialog"] button')]
            .find(b => b.textContent?.trim() === 'Sign')
            ?.hasAttribute('disabled') ?? false,
      )
    expect(await isBarred()).toBe(true)
    await type(page, '[data-testid="sign-report"] textarea', 'The attic was locked')
    await clickText(page, '[role="dialog"] button', 'Sign')
    await hasText(page, '[data-testid="signed"]', 'Inspector, revision 1')
    const first = await textAt(`/api/jobs/${job}/signed/1-inspector`)
    expect(first).toContain('The bedroom breaker is too big')
    expect(first).toContain('The attic was locked')
    expect(first).toMatch(/Revision 1, signed by/)

    // Somebody puts in a smaller breaker; the signed report stays as it was.
    expect((await note(job, 'later-1', 'b', 'ratingAmps', 15)).status).toBe(200)
    await hasText(
      page,
      '[data-testid="since"]',
      'No longer found: Breaker too big for the conductor',
    )
    expect(await textAt(`/api/jobs/${job}/signed/1-inspector`)).toBe(first)
    await clickText(page, 'button', 'Amend')
    await page.waitForSelector('[data-testid="sign-report"]')
    await type(page, '[data-testid="sign-report"] textarea', 'The attic was locked')
    await clickText(page, '[role="dialog"] button', 'Sign')
    await hasText(page, '[data-testid="signed"]', 'Inspector, revision 2')
    const second = await textAt(`/api/jobs/${job}/signed/2-inspector`)
    expect(second).toContain('What changed since revision 1')
    expect(second).toContain('No longer found: Breaker too big for the conductor')
    expect(errors).toEqual([])
  })
  it('a return visit passes only when the record bears it out (long)', async () => {
    const job = await newJob()
    const { page, errors } = await openPage(browser, `${server.url}/jobs/${job}/return`, HAND)
    await press(page, 'button', 'correction')
    const line = '[data-rule="overfused-conductor"]'
    await page.waitForSelector(`${line}[data-state="open"]`)
    const others = await page.$$eval('[data-testid="rechecks"] li', l => l.length - 1)
    await clickText(page, `${line} .chip`, 'corrected')
    await page.waitForSelector(`${line}[data-state="record disagrees"]`)
    await hasText(page, line, 'What is there now?')
    await page.click(`${line} [data-field="ratingAmps"] .head`)
    await clickText(page, `${line} [data-field="ratingAmps"] .chip`, '15')
    await page.waitForSelector(`${line}[data-state="passed"]`)
    await hasText(page, '[data-testid="return-state"]', `1 of ${others + 1} passed`)
    await clickText(page, `${line} .chip`, 'reading, photograph, note')
    await type(page, `${line} input[maxlength="200"]`, '15 A read on the handle')
    await page.keyboard.press('Tab')
    await onDisk(page)
    const text = await textAt(`/api/jobs/${job}/papers/report-corrections`)
    expect(text).toContain('Return visit 1')
    expect(text).toContain('15 A read on the handle')
    expect(errors).toEqual([])
  })
  it('what is left out is disclosed, and what is urgent cannot be', async () => {
    const job = await newJob()
    const { page } = await openReport(job)
    await page.click('[data-finding="overfused-conductor@s"] button')
    await page.waitForSelector('[data-testid="edit-finding"] [role="switch"]')
    await page.click('[data-testid="edit-finding"] [role="switch"]')
    await hasText(page, '[data-testid="edit-finding"]', 'Say why it is left out')
    const inputs = await page.$$('[data-testid="edit-finding"] input[maxlength="400"]')
    await inputs.at(-1)?.type('Told to the seller')
    await clickText(page, '[role="dialog"] button', 'Keep')
    await hasText(page, '[data-testid="report"]', 'Reason: Told to the seller')
    await onDisk(page)
    expect(await textAt(`/api/jobs/${job}/papers/report-inspector`)).toContain('Told to the seller')
  })
})

describe('what is refused', () => {
  it.each([
    ['without a reason for what is open', { ...SIGN, discloses: '' }, 409, /questions are open/],
    ['without a name', { ...SIGN, by: ' ' }, 422, /by/],
    ['on no day', { ...SIGN, on: 'yesterday' }, 422, /on/],
    ['in a voice nobody has', { ...SIGN, voice: 'poet' }, 422, /voice/],
  ])('signing %s', async (_, body, status, words) => {
    const job = await newJob()
    const answer = await send(`/api/jobs/${job}/signed`, body)
    expect(answer.status).toBe(status)
    expect(((await answer.json()) as { message: string }).message).toMatch(words)
    expect((await json(`/api/jobs/${job}/signed`)).signed).toEqual([])
  })
  it('an amendment of nothing, a report nobody signed, mail to nowhere, a paper that is none', async () => {
    const job = await newJob()
    expect((await send(`/api/jobs/${job}/signed`, SIGN)).status).toBe(201)
    expect((await send(`/api/jobs/${job}/signed`, SIGN)).status).toBe(409)
    expect((await fresh(`/api/jobs/${job}/signed/7-rental`)).status).toBe(404)
    expect((await fresh(`/api/jobs/${job}/signed/nonsense`)).status).toBe(422)
    const mail = { to: 'nobody', subject: 'x', text: '', paper: '1-inspector' }
    expect((await send(`/api/jobs/${job}/outbox`, mail)).status).toBe(422)
    const paper = { ...mail, to: 'a@example.org', paper: 'no-such-paper' }
    expect((await send(`/api/jobs/${job}/outbox`, paper)).status).toBe(422)
    expect((await json(`/api/jobs/${job}/outbox`)).sent).toEqual([])
  })
  it('of two who sign at once, one does', async () => {
    const job = await newJob()
    const answers = await Promise.all([1, 2].map(() => send(`/api/jobs/${job}/signed`, SIGN)))
    expect(answers.map(a => a.status).sort()).toEqual([201, 409])
    expect((await json(`/api/jobs/${job}/signed`)).signed).toHaveLength(1)
    const log = await (await fresh(`/api/jobs/${job}/export?form=log`)).text()
    expect(log.match(/"kind": "signing"/g)).toHaveLength(1)
  })
  it('settings that do not fit, by where they do not', async () => {
    const put = (body: unknown) =>
      fresh('/api/me/settings', {
        method: 'PUT',
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      })
    const answer = await put({ letterhead: ['a', 'b', 'c', 'd', 'e', 'f', 'g'] })
    expect(answer.status).toBe(422)
    expect(await answer.text()).toContain('letterhead')
    expect((await put({ signature: 'javascript:alert(1)' })).status).toBe(422)
    // Dressed as a picture, and none: it would stop every paper.
    const fake = await put({ signature: 'data:image/png;base64,bm9uc2Vuc2U=' })
    expect(fake.status).toBe(422)
    expect(await fake.text()).toContain('signature')
    expect((await json('/api/me/settings')).signature).toBe('')
  })
})

describe('what goes out', () => {
  it('mail lies in the outbox with its PDF, labels and permit office answer', async () => {
    const job = await newJob()
    await send(`/api/jobs/${job}/signed`, SIGN)
    const { page, errors } = await openReport(job)
    await clickText(page, 'button', 'Send')
    await hasText(page, '[data-testid="send-report"]', 'Nothing yet.')
    await new Promise(resolve => setTimeout(resolve, 600))
    await type(page, '[data-testid="send-report"] input[type="email"]', 'client@example.org')
    await clickText(page, '[role="dialog"] button', 'Mail it')
    await hasText(page, '[data-testid="send-report"]', 'client@example.org ·')
    const [sent] = (await json(`/api/jobs/${job}/outbox`)).sent as { id: string; file: string }[]
    const eml = Buffer.from(await bytesAt(`/api/jobs/${job}/outbox/${sent?.id}`)).toString('latin1')
    expect(eml).toContain('To: client@example.org')
    const [, packed = ''] =
      /Content-Disposition: attachment[^]*?\r\n\r\n([A-Za-z0-9+/=\r\n]+)/.exec(eml) ?? []
    const pdf = new Uint8Array(Buffer.from(packed, 'base64'))
    const own = await bytesAt(`/api/jobs/${job}/signed/1-inspector`)
    expect(createHash('sha256').update(pdf).digest('hex')).toBe(
      createHash('sha256').update(own).digest('hex'),
    )
    await clickText(page, '[role="dialog"] button', 'Send the permit note')
    await hasText(page, '[data-testid="send-report"]', 'received')
    await clickText(page, '[role="dialog"] button', 'Print the labels')
    await hasText(page, '[data-testid="send-report"]', 'label printer')
    expect(errors).toEqual([])
  })
  it('the permit office sends back what lacks works, after it took its time (long)', async () => {
    const job = await newJob()
    await send(`/api/jobs/${job}/permits`, {})
    const state = async () =>
      ((await json(`/api/jobs/${job}/permits`)).permits as { state: string; result: string }[])[0]
    expect((await state())?.state).toBe('received')
    await new Promise(resolve => setTimeout(resolve, 6500))
    expect(await state()).toMatchObject({
      state: 'returned',
      result: 'Missing: who applies, works that need a permit',
    })
  })
  it('visits come as a calendar', async () => {
    const job = await newJob({ visitedOn: '2026-05-12' })
    const text = await (await fresh(`/api/jobs/${job}/visits.ics`)).text()
    expect(text).toContain('BEGIN:VCALENDAR')
    expect(text).toContain('DTSTART;VALUE=DATE:20260512')
    expect(text).toContain('SUMMARY:Visit: Plum Lane 4')
    expect(text).toContain('LOCATION:4 Plum Lane')
  })
})

describe('bundles', () => {
  it('come back as they were: log, photographs and signed reports', async () => {
    const demo = 'demo-sorrel-bank'
    await send(`/api/jobs/${demo}/signed`, { ...SIGN, voice: 'household' })
    const packed = await bytesAt(`/api/jobs/${demo}/bundle`)
    const answer = await sendZip('/api/jobs/import', packed)
    expect(answer.status).toBe(201)
    const { job } = (await answer.json()) as { job: { id: string } }
    const again = unzipSync(await bytesAt(`/api/jobs/${job.id}/bundle`))
    const files = unzipSync(packed)
    expect(Object.keys(again)).toEqual(Object.keys(files))
    expect(Object.keys(files).filter(n => n.startsWith('photos/')).length).toBeGreaterThan(2)
    for (const [name, bytes] of Object.entries(files))
      expect([name, Buffer.from(again[name] as Uint8Array).equals(Buffer.from(bytes))]).toEqual([
        name,
        true,
      ])
    const log = await bytesAt(`/api/jobs/${job.id}/export?form=log`)
    expect(Buffer.from(log).equals(Buffer.from(files['job.log.corvit.json'] as Uint8Array))).toBe(
      true,
    )
    expect(await textAt(`/api/jobs/${job.id}/signed/1-household`)).toContain('Revision 1')
  })
  it('a broken one leaves nothing behind', async () => {
    const before = (await json('/api/jobs')).total
    const packed = await bytesAt('/api/jobs/demo-tarn-end/bundle')
    for (const cut of [10, packed.length / 2, packed.length - 30]) {
      const answer = await sendZip('/api/jobs/import', packed.slice(0, cut))
      expect(answer.status).toBe(422)
      expect(await answer.text()).toContain('path')
    }
    expect((await json('/api/jobs')).total).toBe(before)
  })
  it('two copies that went apart are put together, and both values are shown', async () => {
    const job = await newJob()
    const copy = JSON.parse(
      Buffer.from(await bytesAt(`/api/jobs/${job}/export?form=log`)).toString(),
    ) as { observations: object[] }
    const at = new Date().toISOString()
    copy.observations.push({
      id: 'theirs-1',
      at,
      by: 'Bo',
      act: 'note',
      subject: 'main',
      field: 'openings',
      value: 2,
      grade: 'seen',
      over: [],
    })
    await note(job, 'ours-1', 'main', 'openings', 1, { over: [] })
    const file = join(tmpdir(), `corvit-copy-${job}.json`)
    writeFileSync(file, JSON.stringify(copy))
    const { page, errors } = await openReport(job)
    const input = await page.waitForSelector('[data-testid="merge"] input[type="file"]')
    await (input as ElementHandle<HTMLInputElement>).uploadFile(file)
    await hasText(page, '[data-testid="merged"]', '1 new')
    const merged = await textOf(page, '[data-testid="merged"]')
    expect(merged).toContain('1 (Ann)')
    expect(merged).toContain('2 (Bo)')
    // A copy of another job is refused, and changes nothing.
    const before = await (await fresh(`/api/jobs/${job}/export?form=log`)).text()
    const other = await (await fresh('/api/jobs/demo-tarn-end/export?form=log')).text()
    const refused = await fresh(`/api/jobs/${job}/merge`, {
      method: 'POST',
      body: other,
      headers: { 'content-type': 'application/json' },
    })
    expect(refused.status).toBe(422)
    expect(await (await fresh(`/api/jobs/${job}/export?form=log`)).text()).toBe(before)
    expect(errors).toEqual([])
  })
})

describe('jobs and settings', () => {
  it('are found by name, street and finding, and by how far they are (long)', async () => {
    const job = await newJob({ name: 'Quince Court 7' })
    const { page } = await openPage(browser, server.url)
    await type(page, 'input[type="search"]', 'quince')
    await hasText(page, '[data-testid="total"]', '1 jobs')
    await hasText(page, '.job', 'Quince Court 7')
    await type(page, 'input[type="search"]', 'well house bonding')
    await hasText(page, '.job', 'Sorrel Bank 22')
    await lacksText(page, '.job', 'Quince Court 7')
    await type(page, 'input[type="search"]', 'zzz')
    await page.waitForSelector('[data-testid="none-found"]')
    await type(page, 'input[type="search"]', 'plum lane')
    await hasText(page, '.job', 'Quince Court 7')
    await send(`/api/jobs/${job}/signed`, SIGN)
    // Counted a moment after it was quiet.
    await new Promise(resolve => setTimeout(resolve, 2500))
    await press(page, '[role="tab"]', 'Signed')
    await hasText(page, '.job', 'Quince Court 7')
    await press(page, '[role="tab"]', 'Planned')
    await page.waitForSelector('[data-testid="none-found"]')
    // Signs that a search language would read are words like others.
    const odd = await json(`/api/jobs?search=${encodeURIComponent('quince" OR * NEAR(')}`)
    expect(odd).toHaveProperty('jobs')
  })
  it('letterhead, phrase and edition are kept, come into papers and new jobs, and out as a file (long)', async () => {
    const { page, errors } = await openPage(browser, `${server.url}/settings`)
    await type(page, 'textarea', 'Ambersley Wiring\n1 Mill Row')
    await page.click('[data-testid="add-phrase"]')
    await type(page, '[aria-label="name of the phrase"]', 'Too big')
    await type(page, '[aria-label="wording"]', 'The breaker is too big for its wire')
    await choose(page, '[role="combobox"]', 'Short form for the insurer')
    await clickText(page, 'button', 'Keep')
    await hasText(page, 'body', 'Kept')
    expect(await json('/api/me/settings')).toMatchObject({
      voice: 'insurance',
      letterhead: ['Ambersley Wiring', '1 Mill Row'],
      phrases: [{ name: 'Too big', words: 'The breaker is too big for its wire' }],
    })
    const job = await newJob()
    expect(await textAt(`/api/jobs/${job}/papers/report-household`)).toContain('Ambersley Wiring')
    const report = await openReport(job)
    await hasText(report.page, '[data-testid="report"] h1', 'Short form for the insurer')
    const input = await page.waitForSelector('input[type="file"][accept*="json"]')
    const file = join(tmpdir(), 'corvit-settings-bad.json')
    writeFileSync(file, JSON.stringify({ settings: { voice: 'poet' } }))
    await (input as ElementHandle<HTMLInputElement>).uploadFile(file)
    await hasText(page, '[data-testid="settings-problem"]', 'settings.voice')
    expect(readFileSync(file, 'utf8')).toContain('poet')
    expect(errors).toEqual([])
    await fresh('/api/me/settings', {
      method: 'PUT',
      body: '{}',
      headers: { 'content-type': 'application/json' },
    })
  })
  it('the demo house has its drawings and photographs in the PDF, in time (long)', async () => {
    const began = Date.now()
    const bytes = await bytesAt(`/api/jobs/demo-sorrel-bank/papers/report-inspector`)
    console.log(`report of the demo house: ${Date.now() - began} ms, ${bytes.length} bytes`)
    const pages = pagesOf(bytes)
    expect(pages.length).toBeLessThanOrEqual(40)
    const whole = pages.join('\n')
    expect(whole).toContain('How it is supplied, grounded and bonded')
    expect(whole).toContain('Service panel, as found')
    expect(whole).not.toContain('Photograph, not in this file')
    expect(
      Buffer.from(bytes)
        .toString('latin1')
        .match(/\/Subtype \/Image/g)?.length,
    ).toBeGreaterThan(2)
    expect(DEMO).toContain('sorrel')
  })
})
