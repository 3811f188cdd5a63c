import { Site } from '../derive/site'
import { evaluate, type Result } from '../engine/evaluate'
import type { House } from '../model/house'
import { remediesFor } from '../remedies'
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
/** What then has to be done too. */
export interface FollowUp extends Turned {
  /** Remedies offered there. */
  readonly remedies: readonly string[]
  /** Remedies that depend on a look nobody has taken: no plan leans on them. */
  readonly conditional: readonly string[]
}
export interface Consequences {
  readonly remedy: string
  readonly subject: string
  /** Nothing where Corvit cannot say what the work makes so. */
  readonly changes: readonly Change[] | undefined
  /** Faults, and what leaned to one, that are settled: what is merely open afterwards is not fixed. */
  readonly fixed: readonly Turned[]
  /** Clear before, a fault after. */
  readonly broken: readonly FollowUp[]
  /** New work brings it along: it did not bear before, or was allowed to remain, and is a fault now. */
  readonly required: readonly FollowUp[]
  /** Decided before and open after, or open before and leaning to a fault after. */
  readonly undecided: readonly Turned[]
  /** Open before, settled after. */
  readonly decided: readonly Turned[]
  /** The fault it is for is settled afterwards: clear, allowed, or not applicable. */
  readonly isCured: boolean
  /** Something is broken or required that no remedy there would cure. */
  readonly isRefused: boolean
}

const keyOf = (r: Result) => `${r.rule.id} ${r.subject.id}`
const isLeaning = (r: Result | undefined) => r?.outcome === 'undecided' && r.standing !== undefined
const isBad = (r: Result | undefined) => r?.outcome === 'fault' || isLeaning(r)
/** Unknown is not fine: what is open afterwards is not settled. A thing taken out takes its judgments along. */
const isSettled = (r: Result | undefined) => r?.outcome !== 'fault' && r?.outcome !== 'undecided'

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
    const open = [...turned.broken, ...turned.required].filter(
      f => f.remedies.length === 0 && f.conditional.length === 0,
    )
    const isCured = isSettled(after.results.get(keyOf(result)))
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
    if (is?.outcome === 'fault') {
      const follow = { ...turned(was, is), ...ways(is, after.site) }
      if (was.outcome === 'clear') broken.push(follow)
      else required.push(follow)
    } else if (is?.outcome === 'undecided') {
      // What leaned and is now merely open, or was a fault and is open, is open: nothing was fixed.
      if (was.outcome !== 'undecided' || isLeaning(is)) undecided.push(turned(was, is))
    } else if (isBad(was)) fixed.push(turned(was, is))
    else if (was.outcome === 'undecided' && is !== undefined) decided.push(turned(was, is))
  }
  for (const [key, is] of after.results) {
    if (before.results.has(key)) continue
    if (is.outcome === 'fault') required.push({ ...turned(undefined, is), ...ways(is, after.site) })
    else if (isLeaning(is)) undecided.push(turned(undefined, is))
  }
  return { fixed, broken, required, undecided, decided }
}

/** What can be done about a finding, apart by whether its conditions are known to hold. */
function ways(result: Result, site: Site): Pick<FollowUp, 'remedies' | 'conditional'> {
  const found = remediesFor(result, site)
  const of = (verdict: string) =>
    found.filter(f => f.advice.verdict === verdict).map(f => f.remedy.id)
  return { remedies: of('offered'), conditional: of('conditional') }
}
