import { Site } from '../derive/site'
import { evaluate, type Result } from '../engine/evaluate'
import type { House } from '../model/house'
import { remediesFor, remedyById, type Remedy } from '../remedies'
import { RULES } from '../rules'
import { labelOf } from '../texts/labels'
import { withChanges, type Change } from './change'
import { effectsOf } from './effects'
import { Work } from './work'

/** One judgment that the work turns. */
export interface Turned {
  readonly rule: string
  readonly subject: string
  readonly label: string
  readonly title: string
  readonly before: Result['outcome'] | 'not there'
  readonly after: Result['outcome'] | 'gone'
}
/** What then has to be done too, with the remedies that are offered there. */
export interface FollowUp extends Turned {
  readonly remedies: readonly string[]
}
export interface Consequences {
  readonly remedy: string
  readonly subject: string
  /** Nothing where Corvit cannot say what the work makes so. */
  readonly changes: readonly Change[] | undefined
  /** Faults, and what leaned to one, that are gone. */
  readonly fixed: readonly Turned[]
  /** Clear before, a fault after. */
  readonly broken: readonly FollowUp[]
  /** New work brings it along: it did not bear before, or was allowed to remain, and is a fault now. */
  readonly required: readonly FollowUp[]
  /** Decided before, open after. */
  readonly undecided: readonly Turned[]
  /** Open before, decided after and no fault. */
  readonly decided: readonly Turned[]
  /** The fault it is for is no fault afterwards. */
  readonly isCured: boolean
  /** Something is broken or required that no remedy there would cure. */
  readonly isRefused: boolean
}

const keyOf = (r: Result) => `${r.rule.id} ${r.subject.id}`
const isBad = (r: Result | undefined) =>
  r !== undefined &&
  (r.outcome === 'fault' || (r.outcome === 'undecided' && r.standing !== undefined))

/** A house judged once, to be compared with what it would be after each of many works. */
export class Judged {
  readonly site: Site
  readonly results: ReadonlyMap<string, Result>
  constructor(readonly house: House) {
    this.site = new Site(house)
    this.results = new Map(evaluate(this.site, RULES).map(r => [keyOf(r), r]))
  }
  resultOf(rule: string, subject: string): Result | undefined {
    return this.results.get(`${rule} ${subject}`)
  }
}

/** Measures that cure but break something, before the search is given up. */
const MOST_CURES = 3

/**
 * Does the work of a remedy on a copy of the house and judges everything again.
 * @param result the finding the remedy is for
 */
export function consequencesOf(before: Judged, result: Result, remedy: string): Consequences {
  const base = { remedy, subject: result.subject.id }
  let last: Consequences | undefined
  let cures = 0
  for (const changes of effectsOf(remedy, new Work(before.site, result))) {
    const after = new Judged(withChanges(before.house, changes))
    const turned = compare(before, after)
    const open = [...turned.broken, ...turned.required].filter(f => f.remedies.length === 0)
    const isCured = !isBad(after.results.get(keyOf(result)))
    const found = { ...base, changes, ...turned, isCured, isRefused: open.length > 0 }
    // One that cures and breaks nothing is what is wanted; else the first that cures at all.
    if (isCured && turned.broken.length === 0) return found
    // Where even these break something, no larger or smaller one will do.
    if (isCured && ++cures >= MOST_CURES) break
    if (last === undefined || (isCured && !last.isCured)) last = found
  }
  const nothing = { fixed: [], broken: [], required: [], undecided: [], decided: [] }
  return last ?? { ...base, changes: undefined, ...nothing, isCured: false, isRefused: false }
}

/** What differs between two judgments of a house. */
export function compare(before: Judged, after: Judged) {
  const fixed: Turned[] = []
  const broken: FollowUp[] = []
  const required: FollowUp[] = []
  const undecided: Turned[] = []
  const decided: Turned[] = []
  const turned = (was: Result | undefined, is: Result | undefined): Turned => {
    const one = (is ?? was) as Result
    const site = is ? after.site : before.site
    return {
      rule: one.rule.id,
      subject: one.subject.id,
      label: labelOf(site, one.subject),
      title: one.rule.fault,
      before: was?.outcome ?? 'not there',
      after: is?.outcome ?? 'gone',
    }
  }
  for (const [key, was] of before.results) {
    const is = after.results.get(key)
    if (is?.outcome === was.outcome && isBad(is) === isBad(was)) continue
    if (isBad(was) && !isBad(is)) fixed.push(turned(was, is))
    else if (is?.outcome === 'fault') {
      const follow = { ...turned(was, is), remedies: offered(is, after.site) }
      if (was.outcome === 'clear') broken.push(follow)
      else required.push(follow)
    } else if (is?.outcome === 'undecided' && was.outcome !== 'undecided')
      undecided.push(turned(was, is))
    else if (was.outcome === 'undecided' && is !== undefined) decided.push(turned(was, is))
  }
  for (const [key, is] of after.results)
    if (!before.results.has(key) && is.outcome === 'fault')
      required.push({ ...turned(undefined, is), remedies: offered(is, after.site) })
  return { fixed, broken, required, undecided, decided }
}

const offered = (result: Result, site: Site): readonly string[] =>
  remediesFor(result, site)
    .filter(({ advice }) => advice.verdict !== 'refused')
    .map(({ remedy }) => remedy.id)

/** The remedies of a finding that are offered here, each with what it would do. */
export function optionsOf(
  before: Judged,
  result: Result,
): readonly { readonly remedy: Remedy; readonly consequences: Consequences }[] {
  return remediesFor(result, before.site)
    .filter(({ advice }) => advice.verdict === 'offered')
    .map(({ remedy }) => ({ remedy, consequences: consequencesOf(before, result, remedy.id) }))
}
export const isRemedy = (id: string): boolean => remedyById(id) !== undefined
