import { fieldOf } from '../model/fields'
import { Ledger, type Conflict } from '../model/ledger'
import type { Observation } from '../model/observation'
import { Site } from '../derive/site'
import { labelOf, valueText } from '../texts/labels'

/** An id that two logs use for different content: neither is thrown away in silence. */
export interface Clash {
  readonly id: string
}
export interface Merged {
  readonly ledger: Ledger
  /** Observations that only one of the two had. */
  readonly onlyFirst: number
  readonly onlySecond: number
  readonly shared: number
  readonly conflicts: readonly MergeConflict[]
}
/** Two values for one fact, each with who saw it and when. */
export interface MergeConflict {
  readonly thing: string
  readonly subject: string
  readonly field: string
  readonly values: readonly {
    readonly value: string
    readonly by: string
    readonly at: string
    readonly isUsed: boolean
  }[]
}

/** Who signed in, and how far a clock was off, is the server's remark and no part of what was seen. */
function contentOf({ by: _by, skewSeconds: _skew, ...rest }: Observation): string {
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1)))
}
/** Of two copies of one observation the same one is kept, whichever log is given first. */
const keptOf = (a: Observation, b: Observation): Observation =>
  JSON.stringify(a) <= JSON.stringify(b) ? a : b

/**
 * Puts two logs of one job together: the union of what both hold, whichever is given first. Nothing is lost, and what
 * two people saw differently is listed with both values.
 * @returns the ids that stand for different observations in the two, where there are such: nothing is put together then
 */
export function mergeLogs(
  first: readonly Observation[],
  second: readonly Observation[],
): Merged | { readonly clashes: readonly Clash[] } {
  const known = new Map(first.map(o => [o.id, o]))
  const fresh: Observation[] = []
  const clashes: Clash[] = []
  let shared = 0
  for (const o of second) {
    const mine = known.get(o.id)
    if (mine === undefined) fresh.push(o)
    else if (contentOf(mine) !== contentOf(o)) clashes.push({ id: o.id })
    else {
      shared++
      known.set(o.id, keptOf(mine, o))
    }
  }
  if (clashes.length > 0) return { clashes }
  const ledger = new Ledger([...known.values(), ...fresh])
  return {
    ledger,
    onlyFirst: first.length - shared,
    onlySecond: fresh.length,
    shared,
    conflicts: conflictsIn(ledger),
  }
}

/** What two people recorded differently, in words. */
export function conflictsIn(ledger: Ledger): readonly MergeConflict[] {
  const { house } = ledger
  const site = new Site(house)
  return ledger.conflicts().flatMap((c: Conflict): readonly MergeConflict[] => {
    const subject = house.subjects.get(c.subject)
    if (c.kind === 'taken out')
      return [
        {
          thing: c.subject,
          subject: c.subject,
          field: 'there or not',
          values: [
            { value: 'taken out', by: c.drop.by, at: c.drop.at, isUsed: true },
            ...c.later.slice(-1).map(o => ({
              value: 'recorded on',
              by: o.by,
              at: o.at,
              isUsed: false,
            })),
          ],
        },
      ]
    const field = subject && fieldOf(subject.kind, c.field)
    if (!subject || !field) return []
    const isLink = field.type === 'ref' || field.type === 'refs'
    return [
      {
        thing: labelOf(site, subject),
        subject: c.subject,
        field: c.field,
        values: [c.stands, ...c.rivals].map((o, i) => ({
          value: isLink ? [o.value].flat().join(', ') : valueText(field, o.value, site.units),
          by: o.by,
          at: o.at,
          isUsed: i === 0,
        })),
      },
    ]
  })
}
