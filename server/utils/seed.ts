import type { Kysely } from 'kysely'
import { PREMISES_ID, readJob, type Observation } from '../../core'
import { DEMO_HOUSES } from '../../core/examples'
import type { Database } from '../database/types'
import { findJob, removeJob } from '../queries/jobs'

/** Puts the demo houses in; safe to run twice. With `again` they are put back as they were. */
export async function seedDemo(db: Kysely<Database>, again = false): Promise<void> {
  for (const { id, file } of DEMO_HOUSES) {
    if (await findJob(db, id)) {
      if (!again) continue
      await removeJob(db, id)
      forgetLedgers()
    }
    let n = 0
    const { observations } = readJob(JSON.parse(JSON.stringify(file())), { at: '', by: 'R. Ambersley', nextId: () => `${id}-${String(n++).padStart(6, '0')}` })
    await startJob(db, id)
    await append(db, id, spread(observations))
  }
}

/** The visit takes a morning: observations a second or so apart, the premises first. */
function spread(observations: readonly Observation[]): Observation[] {
  const start = Date.UTC(2026, 4, 12, 8, 30)
  const ordered = [...observations].sort((a, b) => rank(a) - rank(b))
  return ordered.map((o, i) => ({ ...o, at: new Date(start + i * 1500).toISOString() }))
}
const rank = (o: Observation) => o.act === 'add' ? o.subject === PREMISES_ID ? 0 : 1 : 2
