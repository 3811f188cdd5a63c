/** npm run bench clients: fifty devices record into one job at the same time. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import serveLib from '../../scripts/lib/serve.cjs'

const CLIENTS = 50
const SECONDS = 20
/** Somebody who taps: five observations a second. */
const EVERY_MS = 200

const quantile = (list: readonly number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))]!
const wait = (ms: number) => new Promise(resolve => setTimeout(resolve, Math.max(0, ms)))
const post = (url: string, body: unknown) =>
  fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })

/** How long each append took, in milliseconds, where each client begins so long after the one before it. */
async function appends(url: string, job: string, run: string, apartMs: number): Promise<number[]> {
  const times: number[] = []
  const end = performance.now() + SECONDS * 1000
  const client = async (c: number) => {
    await wait(c * apartMs)
    for (let n = 0; performance.now() < end; n++) {
      const id = `${run}-c${c}-${n}`
      const at = new Date().toISOString()
      const note = {
        id,
        at,
        by: 'b',
        act: 'note',
        subject: 'premises',
        field: 'client',
        value: id,
        grade: 'told',
      }
      const began = performance.now()
      const response = await post(`${url}/api/jobs/${job}/observations`, { observations: [note] })
      if (!response.ok) throw new Error(await response.text())
      await response.text()
      times.push(performance.now() - began)
      await wait(EVERY_MS - (performance.now() - began))
    }
  }
  await Promise.all(Array.from({ length: CLIENTS }, (_, c) => client(c)))
  return times
}

async function main(): Promise<void> {
  const db = join(mkdtempSync(join(tmpdir(), 'corvit-bench-')), 'corvit.db')
  const server = await serveLib.serve({ db, demo: true, env: { CORVIT_RATE_SCALE: '10000' } })
  try {
    const answer = await post(`${server.url}/api/jobs`, {
      name: 'Fifty',
      purpose: 'service',
      edition: 2020,
    })
    const { job } = (await answer.json()) as { job: { id: string } }
    // A server that has just started is slower for some seconds, until its code is compiled; said apart.
    const cold = await appends(server.url, job.id, 'first', EVERY_MS / CLIENTS)
    console.log(`first ${SECONDS} s after the start: p99 ${quantile(cold, 0.99).toFixed(1)} ms`)
    for (const [run, apartMs] of [
      ['one after another', EVERY_MS / CLIENTS],
      ['all at the same instant', 0],
    ] as const) {
      const times = await appends(server.url, job.id, run.split(' ')[0]!, apartMs)
      const [half, most] = [quantile(times, 0.5), quantile(times, 0.99)].map(t => t.toFixed(1))
      console.log(
        `${CLIENTS} clients on one job for ${SECONDS} s, tapping ${run}: ${times.length} appends, p50 ${half} ms, ` +
          `p99 ${most} ms (aim 100 ms)`,
      )
    }
  } finally {
    await server.stop()
  }
}
void main()
