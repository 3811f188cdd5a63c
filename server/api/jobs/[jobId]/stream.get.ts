import { JobQuery } from '../../../../shared/api'
import { bodiesAfter } from '../../../queries/jobs'

const PAGE = 500
const BEAT_MS = 25_000

/** What others record on this job, as it comes; goes on from the number after which a device lost the line. */
export default defineEventHandler(async event => {
  const { after } = readQuery(event, JobQuery)
  const { db, row } = await requireJob(event)
  if (listenersOf(row.id) >= MAX_LISTENERS)
    throw refuse('too-often', 'Too many devices listen to this job')
  const { req, res } = event.node
  const resumed = Number(getHeader(event, 'last-event-id') ?? NaN)
  let last = Number.isInteger(resumed) ? resumed : after
  event._handled = true
  res.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
  })
  keepOpen(res)
  const send = (sequence: number, bodies: readonly string[]) => {
    if (sequence <= last) return
    last = sequence
    res.write(
      `id: ${sequence}\ndata: {"lastSequence":${sequence},"observations":[${bodies.join(',')}]}\n\n`,
    )
  }
  // What comes while the past is being read waits for it.
  let isCaughtUp = false
  const waiting: News[] = []
  const stop = listen(row.id, news => {
    if (isCaughtUp) send(news.lastSequence, news.bodies)
    else waiting.push(news)
  })
  const beat = setInterval(() => res.write(': here\n\n'), BEAT_MS)
  req.once('close', () => {
    stop()
    clearInterval(beat)
  })
  res.write(': here\n\n')
  for (;;) {
    const rows = await bodiesAfter(db, row.id, last, PAGE)
    if (rows.length === 0 || res.destroyed) break
    send(
      rows.at(-1)!.seq,
      rows.map(r => r.body),
    )
    await breathe()
  }
  isCaughtUp = true
  for (const news of waiting) send(news.lastSequence, news.bodies)
})
