/** A firm with 5 000 jobs: how long the list and the search take, at the database and on screen. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { RULES } from '../../core'
import { openDatabase } from '../../server/database/open'
import { addJob, indexJob, listJobs } from '../../server/queries/jobs'
import browserLib from '../../scripts/lib/browser.cjs'
import serveLib from '../../scripts/lib/serve.cjs'

const JOBS = 5000
const STREETS = ['Sorrel', 'Tansy', 'Quince', 'Plum', 'Bramble', 'Hazel', 'Juniper', 'Medlar']
const WAYS = ['Lane', 'Court', 'Row', 'Hill', 'Bank', 'End']
const NAMES = ['Quillon', 'Brackendale', 'Ambersley', 'Tarnwell', 'Oakhurst', 'Fennimore']
const STAGES = ['planned', 'on site', 'writing', 'signed', 'return']
const of = <T>(list: readonly T[], i: number): T => list[i % list.length] as T

const median = (times: readonly number[]) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0
const print = (what: string, ms: number, aim: number) =>
  console.log(`${what.padEnd(56)} ${ms.toFixed(1).padStart(8)} ms   aim ${aim} ms`)

async function main(): Promise<void> {
  const file = join(mkdtempSync(join(tmpdir(), 'corvit-jobs-')), 'corvit.db')
  const db = await openDatabase(file)
  for (let i = 0; i < JOBS; i++) {
    const id = `job-${String(i).padStart(6, '0')}`
    const name = `${of(STREETS, i)} ${of(WAYS, Math.floor(i / 8))} ${1 + (i % 97)}`
    const at = new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString()
    await addJob(db, id, at, { name, street: `${i} ${name}`, stage: of(STAGES, i), in_scope: 40 })
    const titles = Array.from({ length: 40 }, (_, k) => of(RULES, i * 7 + k * 3).fault)
    await indexJob(db, {
      job_id: id,
      name,
      street: `${i} ${name}`,
      people: of(NAMES, i),
      findings: titles.join('; '),
    })
  }
  const timed = async (words: string, more: object = {}) => {
    const times: number[] = []
    for (let k = 0; k < 15; k++) {
      const began = performance.now()
      await listJobs(db, { words, offset: 0, limit: 200, ...more })
      times.push(performance.now() - began)
    }
    return median(times)
  }
  print(`${JOBS} jobs: a page of the list`, await timed(''), 50)
  print('the last page of the list', await timed('', { offset: JOBS - 200 }), 50)
  print('search by a name', await timed('quince hill'), 50)
  print('search by a finding that many have', await timed('bonding'), 50)
  print('search by one letter', await timed('q'), 50)
  print('those signed', await timed('', { stage: 'signed' }), 50)
  await db.destroy()

  const server = await serveLib.serve({ db: file, demo: true, env: { CORVIT_RATE_SCALE: '100' } })
  const browser = await browserLib.launch()
  try {
    const page = await browser.newPage()
    await page.goto(server.url)
    await page.waitForSelector('.job')
    const onScreen = async (words: string) => {
      await page.click('input[type="search"]', { count: 3 })
      // Time from the answer being asked for to its first row on screen; the pause while one types is not counted.
      return page.evaluate(async text => {
        const input = document.querySelector<HTMLInputElement>('input[type="search"]')
        if (!input) return 0
        input.value = text
        input.dispatchEvent(new Event('input', { bubbles: true }))
        const before = document.querySelector('[data-testid="total"]')?.textContent
        await new Promise(resolve => setTimeout(resolve, 120))
        const began = performance.now()
        while (document.querySelector('[data-testid="total"]')?.textContent === before) {
          if (performance.now() - began > 5000) break
          await new Promise(resolve => requestAnimationFrame(resolve))
        }
        return performance.now() - began
      }, words)
    }
    const times = [
      await onScreen('quince hill'),
      await onScreen('bonding'),
      await onScreen('medlar court'),
      await onScreen('oakhurst'),
    ]
    print('on screen: searched words to their rows', median(times), 200)
    const rows = await page.$$eval('.job', list => list.length)
    console.log(`rows drawn of those loaded: ${rows}`)
  } finally {
    await browser.close()
    await server.stop()
  }
}
void main()
