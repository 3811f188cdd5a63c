import type { AnyValue, Kind } from '../model/fields'
import { thingOf, unseenFacts, type House, type Known, type Subject } from '../model/house'
import type { RawObservation } from '../model/observation'
import type { Stamper } from '../file/from-house'

/** One thing the work changes: a thing put in, a thing taken out, or what is so of a thing afterwards. */
export type Change =
  | { readonly act: 'add'; readonly subject: string; readonly kind: Kind; readonly parent: string }
  | { readonly act: 'drop'; readonly subject: string }
  | {
      readonly act: 'note'
      readonly subject: string
      readonly field: string
      readonly value: AnyValue
    }

const AFTER = 'after the work'

const known = (subject: string, field: string, value: AnyValue): Known => ({
  state: 'known',
  value,
  grade: 'seen',
  subject,
  field,
  observation: AFTER,
  earlier: [],
  rivals: [],
  heads: undefined,
})

/**
 * The house as it would be after the work: a copy, the given one is not touched. A thing that is taken out takes
 * what hangs on it along. Facts of things that are not there are left out.
 */
export function withChanges(house: House, changes: readonly Change[]): House {
  const subjects = new Map(house.subjects)
  for (const change of changes) {
    if (change.act === 'add') {
      const { subject: id, kind, parent } = change
      subjects.set(id, thingOf({ id, kind, parent, born: AFTER }, unseenFacts(kind, id)))
    } else if (change.act === 'drop') drop(subjects, change.subject)
    else {
      const thing = subjects.get(change.subject)
      if (!thing) continue
      const fact = known(thing.id, change.field, change.value)
      subjects.set(thing.id, thingOf(thing, { ...thing.facts, [change.field]: fact }))
    }
  }
  return { subjects }
}

function drop(subjects: Map<string, Subject>, id: string): void {
  const gone = new Set([id])
  // Children stand after their parents, so one pass finds whole branches.
  for (const thing of subjects.values())
    if (thing.parent && gone.has(thing.parent)) gone.add(thing.id)
  for (const g of gone) subjects.delete(g)
}

/** The same changes as observations for the log of a job, all by one person at one time. */
export const observationsOf = (
  changes: readonly Change[],
  stamper: Stamper,
): readonly RawObservation[] =>
  changes.map(change => {
    const made = { id: stamper.nextId(), at: stamper.at, by: stamper.by }
    if (change.act === 'add') return { ...made, ...change }
    if (change.act === 'drop') return { ...made, ...change }
    return { ...made, ...change, grade: 'seen' as const }
  })
