import { JobQuery } from '../../../../shared/api'
import { bodiesAfter } from '../../../queries/jobs'

const PAGE = 2000

/** The log as it is stored, page by page: however long it is, nobody else waits for it. */
export default defineEventHandler(async event => {
  const { after } = readQuery(event, JobQuery)
  const { db, row, asker } = await requireJob(event)
  const { res } = event.node
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  event._handled = true
  res.write(`{"job":${JSON.stringify(summary(row, asker))},"observations":[`)
  let last = after
  for (;;) {
    const rows = await bodiesAfter(db, row.id, last, PAGE)
    if (rows.length === 0 || res.destroyed) break
    const text = rows.map(r => r.body).join(',')
    if (!res.write(last === after ? text : `,${text}`)) await drained(res)
    last = rows.at(-1)!.seq
    await breathe()
  }
  res.end(`],"lastSequence":${last}}`)
})

const drained = (res: { once(name: string, run: () => void): unknown }) =>
  new Promise<void>(resolve => {
    res.once('drain', resolve)
    res.once('close', resolve)
  })
