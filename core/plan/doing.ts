import type { AnyValue } from '../model/fields'
import type { House } from '../model/house'
import type { Grade } from '../model/observation'
import { acceptanceTests } from './acceptance'
import type { Change } from './change'

/** What somebody says of a work that is done. */
export interface DoneWork {
  readonly changes: readonly Change[]
  /** Readings of its tests, by `thing field`. */
  readonly readings: ReadonlyMap<string, AnyValue>
  /** What was built otherwise, by `thing field`. */
  readonly otherwise: ReadonlySet<string>
}
/** What is then recorded: things added and taken out, facts with their grade, and facts that are open again. */
export type DoneRecord =
  | Exclude<Change, { readonly act: 'note' }>
  | {
      readonly act: 'note'
      readonly subject: string
      readonly field: string
      readonly value: AnyValue
      readonly grade: Grade
      readonly instrument?: string
    }
  | {
      readonly act: 'block'
      readonly subject: string
      readonly field: string
      readonly reason: string
    }

export const NOT_TESTED = 'Not tested since the work was done'
export const OTHERWISE = 'Built otherwise than planned; not recorded yet'

/**
 * The record of a work that is done: what was put in is seen, what was read is measured. What nobody tested, and what
 * was built otherwise, is open again: an old reading says nothing of new work, and a plan is no observation.
 */
export function recordOf(house: House, done: DoneWork): readonly DoneRecord[] {
  const tests = new Map(
    acceptanceTests(house, done.changes).map(t => [`${t.subject} ${t.field}`, t]),
  )
  const records = new Map<string, DoneRecord>()
  for (const c of done.changes) {
    if (c.act !== 'note') {
      records.set(`${c.act} ${c.subject}`, c)
      continue
    }
    const { subject, field, value } = c
    const key = `${subject} ${field}`
    const test = tests.get(key)
    const read = done.readings.get(key)
    const at = { subject, field }
    // Said last, it stands last: a thing comes before its facts.
    records.delete(key)
    if (done.otherwise.has(key)) records.set(key, { act: 'block', ...at, reason: OTHERWISE })
    else if (!test) records.set(key, { act: 'note', ...at, value, grade: 'seen' })
    else if (read === undefined) records.set(key, { act: 'block', ...at, reason: NOT_TESTED })
    else {
      const { instrument } = test
      const grade: Grade = instrument ? 'measured' : 'seen'
      records.set(key, {
        act: 'note',
        ...at,
        value: read,
        grade,
        ...(instrument && { instrument }),
      })
    }
  }
  return [...records.values()]
}
