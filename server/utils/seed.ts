import type { Kysely } from 'kysely'
import { clockOfInstant, PREMISES_ID, readJob, type RawObservation } from '../../core'
import { DEMO_HOUSES } from '../../core/examples'
import { DEMO_PICTURES } from '../../core/examples/drawings'
import type { Database } from '../database/types'
import { findJob, removeJob } from '../queries/jobs'

/** Puts the demo houses in; safe to run twice. With `again` they are put back as they were. */
export async function seedDemo(db: Kysely<Database>, again = false): Promise<void> {
  // The last one touched stands first in the list.
  for (const { id, file } of [...DEMO_HOUSES].reverse()) {
    if (await findJob(db, id)) {
      if (!again) continue
      await removeJob(db, id)
      forgetBox(id)
    }
    let n = 0
    const { observations } = readJob(JSON.parse(JSON.stringify(file())), {
      at: '2026-05-12T08:30:00.000Z',
      by: 'R. Ambersley',
      nextId: () => `${id}-${String(n++).padStart(6, '0')}`,
    })
    await startJob(db, id)
    for (const part of [spread(observations), await pictures(db, id)]) {
      const { refused } = await append(db, id, { observations: part })
      if (refused.length > 0)
        throw new Error(`the demo house ${id} does not fit: ${JSON.stringify(refused[0])}`)
    }
    await countNow(db, id)
  }
}

/** The pictures of a demo house, stored like any photograph. */
async function pictures(db: Kysely<Database>, job: string): Promise<RawObservation[]> {
  const observations: RawObservation[] = []
  for (const [i, p] of DEMO_PICTURES.filter(x => x.job === job).entries()) {
    const { hash, width, height } = await storePhoto(db, job, Buffer.from(p.svg), true)
    const subject = `photo-${i + 1}`
    const at = new Date(Date.UTC(2026, 4, 12, 11, i)).toISOString()
    const stamp = (n: number) => ({ id: `${job}-photo-${i}-${n}`, at, by: 'R. Ambersley', subject })
    observations.push({ ...stamp(0), act: 'add', kind: 'photo', parent: PREMISES_ID })
    const facts = {
      of: p.of,
      caption: p.caption,
      shows: p.shows,
      hash,
      widthPx: width,
      heightPx: height,
      takenAt: at,
      marks: JSON.stringify(p.marks),
    }
    Object.entries(facts).forEach(([field, value], n) =>
      observations.push({ ...stamp(n + 1), act: 'note', field, value, grade: 'seen' }),
    )
  }
  return observations.length > 0 ? observations : []
}

/** The visit takes a morning: observations a second or so apart, the premises first. */
function spread(observations: readonly RawObservation[]): RawObservation[] {
  const start = Date.UTC(2026, 4, 12, 8, 30)
  const ordered = [...observations].sort((a, b) => rank(a) - rank(b))
  return ordered.map((o, i) => {
    const at = new Date(start + i * 1500).toISOString()
    return { ...o, at, clock: clockOfInstant(at, 'tablet') }
  })
}
const rank = (o: RawObservation) => (o.act === 'add' ? (o.subject === PREMISES_ID ? 0 : 1) : 2)
