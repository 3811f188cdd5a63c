/** npm run bench record: a job of 50 000 observations on the server and in a browser. */
import { existsSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  FIELDS,
  Ledger,
  LiveAssessment,
  readJob,
  reportPaper,
  type Observation,
  type RawObservation,
} from '../../core'
import { hillside } from '../../core/examples/hillside'
import { renderPdf } from '../../server/pdf/render'
import { readType } from '../../server/pdf/type'
import { Job } from '../../shared/api'
import browserLib from '../../scripts/lib/browser.cjs'
import serveLib from '../../scripts/lib/serve.cjs'

const SIZE = 50_000
/** Fields that point at things. */
const LINKS = new Set(
  Object.values(FIELDS).flatMap(fields =>
    Object.entries(fields)
      .filter(([, f]) => f.type === 'ref' || f.type === 'refs')
      .map(([name]) => name),
  ),
)
const lines: string[] = []
const report = (what: string, value: string, aim = '') =>
  lines.push(`${what.padEnd(66)} ${value.padStart(12)}   ${aim}`)
const ms = (x: number) => `${x.toFixed(1)} ms`
const quantile = (list: readonly number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))]!

function observe(file: object, prefix: string): RawObservation[] {
  let n = 0
  const text = JSON.stringify(file)
  const stamp = {
    at: '2026-05-12T08:00:00.000Z',
    by: 'bench',
    nextId: () => `${prefix}${String(n++).padStart(6, '0')}`,
  }
  return readJob(JSON.parse(text), stamp).observations
}

/**
 * The demo house four times over in one property (some 250 circuits and 390 outlets), then corrections of what is
 * known and undone corrections, as years of visits leave them, up to the size.
 */
function bigLog(): RawObservation[] {
  const one = observe(hillside(), 'a').filter(o => o.act === 'add' || o.act === 'note')
  const ids = new Set(one.flatMap(o => (o.act === 'add' ? [o.subject] : [])))
  const log: RawObservation[] = [...one]
  for (const copy of [2, 3, 4]) {
    const named = (id: string) => (id === 'premises' ? id : `${id}.c${copy}`)
    const linked = (field: string, value: unknown) =>
      LINKS.has(field) && typeof value === 'string' && ids.has(value) ? named(value) : value
    for (const o of one) {
      if (o.subject === 'premises') continue
      const base = { ...o, id: `${o.id}.c${copy}`, subject: named(o.subject) }
      if (base.act === 'add')
        log.push({
          ...base,
          parent: base.parent === null ? null : named(base.parent),
        } as RawObservation)
      else
        log.push({
          ...base,
          value: Array.isArray(base.value)
            ? base.value.map(v => linked(base.field, v))
            : linked(base.field, base.value),
        } as RawObservation)
    }
  }
  const notes = log.filter(
    o =>
      o.act === 'note' &&
      typeof o.value === 'number' &&
      o.field !== 'space' &&
      o.field !== 'position',
  )
  for (let i = 0; log.length < SIZE; i++) {
    const o = notes[(i * 7919) % notes.length]!
    const at = new Date(Date.UTC(2026, 4, 13) + i * 1000).toISOString()
    if (i % 9 === 8)
      log.push({ id: `r${i}`, at, by: 'bench', act: 'retract', target: log.at(-1)!.id })
    else log.push({ ...o, id: `e${i}`, at, clock: undefined } as RawObservation)
  }
  return log
}

function timed<T>(run: () => T): [T, number] {
  const began = performance.now()
  const value = run()
  return [value, performance.now() - began]
}

async function main(): Promise<void> {
  const log = bigLog()
  const [ledger, fold] = timed(() => new Ledger(log))
  const whole = ledger.log()
  report('fold 50 000 observations', ms(fold))
  const live = new LiveAssessment()
  const [first, judge] = timed(() => live.append(whole))
  report(
    `first judgment (${ledger.house.subjects.size} things, ${first.changed.length} results)`,
    ms(judge),
    'aim 2 000 ms',
  )
  const edits = Array.from({ length: 40 }, (_, i) => {
    const o = whole.find(x => x.act === 'note' && x.field === 'ratingAmps') as Observation & {
      act: 'note'
    }
    const next = {
      ...o,
      id: `edit${i}`,
      value: i % 2 === 0 ? 15 : 20,
      clock: undefined,
      at: new Date(Date.UTC(2026, 6, 1) + i).toISOString(),
    }
    return timed(() => live.append(new Ledger([next as unknown as RawObservation]).log()))[1]
  })
  report('one edit, judged (median of 40)', ms(quantile(edits, 0.5)), 'aim 50 ms')
  report('the report', ms(timed(() => reportPaper(ledger.house, 'inspector'))[1]), 'aim 2 000 ms')
  await inPrint()

  const db = join(mkdtempSync(join(tmpdir(), 'corvit-bench-')), 'corvit.db')
  const server = await serveLib.serve({ db, demo: true, env: { CORVIT_RATE_SCALE: '10000' } })
  try {
    await onServer(server.url, whole)
  } finally {
    await server.stop()
  }
  console.log(lines.join('\n'))
}

const post = (url: string, body: unknown, method = 'POST') =>
  fetch(url, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })

async function onServer(url: string, whole: readonly Observation[]): Promise<void> {
  const file = JSON.stringify({ corvit: 2, form: 'log', observations: whole })
  const began = performance.now()
  const imported = await fetch(`${url}/api/jobs/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: file,
  })
  if (!imported.ok) throw new Error((await imported.text()).slice(0, 600))
  const { job } = (await imported.json()) as { job: { id: string } }
  report(`import of ${(file.length / 1e6).toFixed(1)} MB`, ms(performance.now() - began))
  const opened = performance.now()
  const { observations } = Job.parse(await (await fetch(`${url}/api/jobs/${job.id}`)).json())
  new Ledger(observations as Observation[])
  report('open: fetch, check and fold', ms(performance.now() - opened), 'aim 1 000 ms')
  const times: number[] = []
  for (let i = 0; i < 60; i++) {
    const note = {
      id: `s${i}`,
      at: new Date().toISOString(),
      by: 'b',
      act: 'note',
      subject: 'premises',
      field: 'client',
      value: `c${i}`,
      grade: 'told',
    }
    const start = performance.now()
    await (await post(`${url}/api/jobs/${job.id}/observations`, { observations: [note] })).text()
    times.push(performance.now() - start)
  }
  report(
    'append at the server (median of 60, the first reads the log)',
    ms(quantile(times, 0.5)),
    'aim 20 ms',
  )
  await inBrowser(url, job.id)
}

/** The report of the demo house three times over, as PDF. */
async function inPrint(): Promise<void> {
  const log = observe(hillside(), 'p')
  const paper = reportPaper(new Ledger(log).house, 'inspector')
  const thrice = { ...paper, blocks: [...paper.blocks, ...paper.blocks, ...paper.blocks] }
  const began = performance.now()
  await renderPdf(thrice, readType())
  report('a paper of 60 pages as PDF', ms(performance.now() - began), 'aim 3 000 ms')
}

/** The same job in a real browser, from its own storage. */
async function inBrowser(url: string, job: string): Promise<void> {
  if (!browserLib.CHROMIUM || !existsSync(browserLib.CHROMIUM)) return
  const browser = await browserLib.launch()
  try {
    const page = await browser.newPage()
    const openIt = async () => {
      const began = performance.now()
      await page.goto(`${url}/jobs/${job}/panel`, { waitUntil: 'load' })
      await page.waitForSelector('[data-space]', { timeout: 60_000 })
      const shown = performance.now() - began
      await page.waitForFunction(
        () => {
          const root = document.querySelector('#__nuxt') as unknown as {
            __vue_app__: {
              config: { globalProperties: { $pinia: { _s: Map<string, { isReady: boolean }> } } }
            }
          }
          return root.__vue_app__.config.globalProperties.$pinia._s.get('job')?.isReady
        },
        { timeout: 60_000 },
      )
      return [shown, performance.now() - began] as const
    }
    const [cold] = await openIt()
    await new Promise(r => setTimeout(r, 1500))
    const [warm, judged] = await openIt()
    await page.goto(url, { waitUntil: 'load' })
    await page.waitForSelector(`a[href*="${job}"]`)
    await new Promise(r => setTimeout(r, 1000))
    const clicked = performance.now()
    await page.evaluate(id => {
      ;(document.querySelector(`a[href*="${id}"]`) as HTMLElement).click()
    }, job)
    await page.waitForSelector('[data-space]', { timeout: 60_000 })
    report(
      'in a browser: opened from the list, panel drawn',
      ms(performance.now() - clicked),
      'aim 1 000 ms',
    )
    report('in a browser: first opened, page and all, from the server', ms(cold))
    report('in a browser: page loaded anew from this device, panel drawn', ms(warm))
    report('in a browser: … and judged', ms(judged))
  } finally {
    await browser.close()
  }
}
void main()
