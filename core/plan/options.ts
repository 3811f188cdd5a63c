import type { Result } from '../engine/evaluate'
import { remediesFor, remedyById, type Remedy } from '../remedies'
import { fieldOf } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import { labelOf } from '../texts/labels'
import type { Change } from './change'
import {
  compare,
  consequencesOf,
  waysOf,
  type Consequences,
  type FollowUp,
  type Judged,
} from './consequences'
import { costOf, type Cost, type PriceBook } from './prices'
import { Work } from './work'

/** One work of a plan: a remedy at a thing, and the works its own consequences bring along. */
export interface Step {
  readonly remedy: Remedy
  /** The finding it is for. */
  readonly rule: string
  readonly subject: string
  readonly cost: Cost
  readonly changes: readonly Change[]
}
/** What can be chosen: one work with its follow-ups, so that nothing new is left behind. */
export interface Option {
  readonly steps: readonly Step[]
  readonly changes: readonly Change[]
  /** Every finding that is gone afterwards, by `rule subject`. */
  readonly fixes: ReadonlySet<string>
  readonly cents: number
  /** Of that, parts and cable. */
  readonly materials: number
  readonly minutes: number
  readonly wallFt: number
  readonly buttons: number
  readonly needsPermit: boolean
  /** Number of the option that makes this one possible, among those gathered with it: paid once for all. */
  readonly needs?: number
}
/** Why a remedy is no option here. */
export interface NotAnOption {
  readonly remedy: string
  readonly why: string
}

/** A chain of follow-ups longer than this is no remedy but a rebuilding. */
const LONGEST_CHAIN = 3
/** Ways on that are tried at each follow-up. */
const WAYS = 3
/** Works tried to close the chain of one option; a chain that needs more is no remedy either. */
const MOST_TRIES = 12

export const findingKey = (r: Result): string => `${r.rule.id} ${r.subject.id}`

export interface Choosing {
  readonly book: PriceBook
  /** Remedies that are out of the question, everywhere or at one thing. */
  readonly isForbidden: (remedy: string, subject: string) => boolean
  /** Remedies that give way to a locked one, where they would be the first work at a thing. */
  readonly isLockedOut?: (remedy: string, subject: string) => boolean
  /** Remedies the chosen school leaves aside for this finding. */
  readonly isAnotherWay?: (remedy: string) => boolean
}

/** Everything that can be done about a finding in this house, each way with what it brings along. */
export function optionsFor(
  before: Judged,
  finding: Result,
  { book, isForbidden, isLockedOut = () => false, isAnotherWay = () => false }: Choosing,
): { readonly options: readonly Option[]; readonly others: readonly NotAnOption[] } {
  const options: Option[] = []
  const others: NotAnOption[] = []
  for (const { remedy, advice } of remediesFor(finding, before.site)) {
    if (advice.verdict !== 'offered') {
      others.push({
        remedy: remedy.id,
        why: advice.verdict === 'refused' ? 'refused here' : 'depends on a look',
      })
      continue
    }
    if (isForbidden(remedy.id, finding.subject.id) || isLockedOut(remedy.id, finding.subject.id)) {
      others.push({ remedy: remedy.id, why: 'forbidden' })
      continue
    }
    if (isAnotherWay(remedy.id)) {
      others.push({ remedy: remedy.id, why: 'another school' })
      continue
    }
    const ways = waysOf(before, finding, remedy.id)
    const done = ways[0] as Consequences
    if (done.changes === undefined) {
      others.push({ remedy: remedy.id, why: 'what it makes so cannot be said before it is done' })
      continue
    }
    if (!done.isCured) {
      const left = before.after(done.changes).result(findingKey(finding))
      others.push({
        remedy: remedy.id,
        why:
          left?.outcome === 'undecided'
            ? `whether that is enough is not known yet: ${missingWords(before, left)}`
            : 'judged again, the fault would still be there',
      })
      continue
    }
    const chains = ways.flatMap(way => {
      const first = stepOf(before, finding, remedy, way.changes ?? [], book)
      const open = [...way.broken, ...way.required]
      return closeChains(before, [first], open, { book, isForbidden })
    })
    for (const chain of chains) options.push(toOption(before, chain))
    if (chains.length === 0)
      others.push({ remedy: remedy.id, why: 'it would bring along what no remedy here cures' })
  }
  return { options, others }
}

/** What would have to be looked at, in words. */
function missingWords({ site }: Judged, left: Result): string {
  const words = left.missing.slice(0, 2).flatMap(({ subject, field }) => {
    const thing = site.house.subjects.get(subject)
    const label = thing && fieldOf(thing.kind, field)?.label
    return thing && label ? `${labelOf(site, thing)}: ${label}` : []
  })
  return words.join('; ') || 'something nobody has looked at'
}

function stepOf(
  judged: Judged,
  finding: Result,
  remedy: Remedy,
  changes: readonly Change[],
  book: PriceBook,
): Step {
  const cost = costOf(remedy, changes, runFt(judged, finding), book)
  return { remedy, rule: finding.rule.id, subject: finding.subject.id, cost, changes }
}

/** Length of the run a work would pull, where anybody measured it. */
export function runFt(judged: Judged, finding: Result): number | undefined {
  const work = new Work(judged.site, finding)
  const { subject } = finding
  if (subject.kind === 'outlet') {
    const toPanel = valueOf(subject, 'runFt')
    if (toPanel !== undefined) return toPanel
  }
  if (subject.kind === 'segment') return valueOf(subject, 'lengthFt')
  const lengths = work.segments.map(s => valueOf(s as Subject<'segment'>, 'lengthFt'))
  if (lengths.length === 0 || lengths.includes(undefined)) return undefined
  return lengths.reduce((sum: number, l) => sum + (l ?? 0), 0)
}

/** Works off what the last work brought along: every way, of those tried, that leaves nothing behind. */
function closeChains(
  before: Judged,
  steps: readonly Step[],
  open: readonly FollowUp[],
  choosing: Choosing,
  effort: { left: number } = { left: MOST_TRIES },
): readonly (readonly Step[])[] {
  const [next] = open
  if (!next) return [steps]
  if (steps.length >= LONGEST_CHAIN) return []
  const now = before.after(steps.flatMap(s => s.changes))
  const finding = now.resultOf(next.rule, next.subject)
  if (!finding) return []
  const closed: (readonly Step[])[] = []
  // Only what is offered: a way that depends on a look is no way to promise.
  for (const id of next.remedies.slice(0, WAYS)) {
    if (choosing.isForbidden(id, next.subject)) continue
    if (effort.left-- <= 0) break
    const remedy = remedyById(id)
    const done = remedy && consequencesOf(now, finding, id)
    if (!remedy || !done?.isCured || done.changes === undefined) continue
    const longer = [...steps, stepOf(now, finding, remedy, done.changes, choosing.book)]
    const after = before.after(longer.flatMap(s => s.changes))
    const { broken, required } = compare(before, after)
    closed.push(...closeChains(before, longer, [...broken, ...required], choosing, effort))
  }
  return closed
}

/** One work outside of any finding, with what it brings along; undefined where that cannot be closed. */
export function optionOf(
  before: Judged,
  finding: Result,
  remedy: Remedy,
  choosing: Choosing,
): Option | undefined {
  const done = consequencesOf(before, finding, remedy.id)
  if (done.changes === undefined || done.changes.length === 0) return undefined
  const first = stepOf(before, finding, remedy, done.changes, choosing.book)
  const [chain] = closeChains(before, [first], [...done.broken, ...done.required], choosing)
  return chain && toOption(before, chain)
}

export function toOption(before: Judged, steps: readonly Step[], after?: Option): Option {
  const changes = steps.flatMap(s => s.changes)
  const { fixed } = compare(before, before.after([...(after?.changes ?? []), ...changes]))
  const sum = (of: (c: Cost) => number) => steps.reduce((n, s) => n + of(s.cost), 0)
  return {
    steps,
    changes,
    fixes: new Set(fixed.map(f => `${f.rule} ${f.subject}`)),
    cents: sum(c => c.cents),
    materials: sum(c => c.materials),
    minutes: sum(c => c.minutes),
    wallFt: sum(c => c.wallFt),
    buttons: sum(c => c.buttons),
    needsPermit: steps.some(s => s.cost.needsPermit),
  }
}
