import { Site } from '../derive/site'
import { Context } from '../engine/context'
import { evaluate, judgeOne, type Result } from '../engine/evaluate'
import { SHAPING_FIELDS, type Kind } from '../model/fields'
import { listReads, type House } from '../model/house'
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
  /** The house everything was judged in, and what has changed since; only what can turn was judged again. */
  readonly #root: Judged
  readonly #changes: readonly Change[]
  /** All judgments of a root; of a house after some work those taken anew. */
  readonly #own: ReadonlyMap<string, Result>
  /** Which judgments rest on a fact, by `thing field`; only of a root, and once it is asked for. */
  #resting: ReadonlyMap<string, ReadonlySet<string>> | undefined

  constructor(
    readonly house: House,
    from?: { readonly root: Judged; readonly changes: readonly Change[] },
  ) {
    this.#changes = from?.changes ?? []
    const affected = from && from.root.#affected(from.changes)
    this.#root = from && affected ? from.root : this
    this.site = new Site(house)
    if (!from || !affected) {
      this.#own = new Map(evaluate(this.site, RULES).map(r => [keyOf(r), r]))
      return
    }
    const context = new Context(this.site)
    const own = new Map<string, Result>()
    for (const key of affected) {
      const was = from.root.#own.get(key)
      const subject = was && house.subjects.get(was.subject.id)
      if (was && subject) own.set(key, judgeOne(was.rule, subject, context))
    }
    this.#own = own
  }
  /** Every judgment, by `rule thing`, in the order of the rules. */
  get results(): ReadonlyMap<string, Result> {
    if (!this.isPartly) return this.#own
    return new Map([...this.#root.#own].map(([key, r]) => [key, this.#own.get(key) ?? r]))
  }
  /** Judged again only as far as the work reaches. */
  get isPartly(): boolean {
    return this.#root !== this
  }
  result(key: string): Result | undefined {
    return this.#own.get(key) ?? (this.isPartly ? this.#root.#own.get(key) : undefined)
  }
  resultOf(rule: string, subject: string): Result | undefined {
    return this.result(`${rule} ${subject}`)
  }
  /** The house with some work done, judged anew as far as the work reaches. */
  after(changes: readonly Change[]): Judged {
    const root = this.#root
    const all = this.isPartly ? [...this.#changes, ...changes] : changes
    return new Judged(withChanges(root.house, all), { root, changes: all })
  }
  /** The judgments in which another house may differ from this one, in the order of the rules. */
  keysToCompare(after: Judged): readonly string[] {
    if (after.#root !== this.#root)
      return [...new Set([...this.results.keys(), ...after.results.keys()])]
    const keys = new Set(after.#own.keys())
    if (this.isPartly) for (const key of this.#own.keys()) keys.add(key)
    return [...keys].sort((a, b) => this.#root.#placeOf(a) - this.#root.#placeOf(b))
  }
  #places: ReadonlyMap<string, number> | undefined
  #placeOf(key: string): number {
    this.#places ??= new Map([...this.#own.keys()].map((k, i) => [k, i]))
    return this.#places.get(key) ?? 0
  }

  /** The judgments that may turn; undefined where the work gives the house another shape, so that all may. */
  #affected(changes: readonly Change[]): ReadonlySet<string> | undefined {
    const isLocal = changes.every(
      c =>
        c.act === 'note' &&
        !SHAPING_FIELDS.has(c.field) &&
        !LAWS.has(this.house.subjects.get(c.subject)?.kind ?? 'premises'),
    )
    if (!isLocal) return undefined
    const resting = (this.#resting ??= restingOn(this.house))
    const keys = new Set<string>()
    for (const c of changes)
      if (c.act === 'note')
        for (const k of resting.get(`${c.subject} ${c.field}`) ?? []) keys.add(k)
    return keys
  }
}

/** What holds for the whole property, or is read before anything is judged: a change of it may turn everything. */
const LAWS: ReadonlySet<Kind> = new Set(['premises', 'override', 'amendment', 'adoption', 'visit'])

/** Judges a house once more, and lists what each judgment read: asked for, weighed by, or read aside. */
function restingOn(house: House): ReadonlyMap<string, ReadonlySet<string>> {
  const resting = new Map<string, Set<string>>()
  const site = new Site(house)
  const context = new Context(site)
  for (const rule of RULES)
    for (const subject of site.all[rule.subject]) {
      const reads: string[] = []
      const result = listReads(reads, () => {
        const judged = judgeOne(rule, subject, context)
        void judged.standing
        void judged.missing
        return judged
      })
      const asked = [...result.asked, ...(result.standing?.rests ?? []), ...result.missing]
      const key = keyOf(result)
      for (const at of [...reads, ...asked.map(f => `${f.subject} ${f.field}`)]) {
        const keys = resting.get(at)
        if (keys) keys.add(key)
        else resting.set(at, new Set([key]))
      }
    }
  return resting
}

/** Measures that cure but bring something along, before the search is given up. */
const MOST_CURES = 3

/** Every way the work of a remedy may be done, each on a copy of the house, judged again. */
function* triedWays(before: Judged, result: Result, remedy: string) {
  for (const changes of effectsOf(remedy, new Work(before.site, result))) {
    const after = before.after(changes)
    const turned = compare(before, after)
    const open = [...turned.broken, ...turned.required].filter(
      f => f.remedies.length === 0 && f.conditional.length === 0,
    )
    const now = after.result(keyOf(result))
    const isCured = isSettled(now)
    const base = { remedy, subject: result.subject.id }
    const made = { ...base, changes, ...turned, isCured, isRefused: open.length > 0 }
    yield { made, left: now?.outcome === 'fault' ? Math.max(1, now.failures.length) : 0 }
  }
}
const bringsAlong = (c: Consequences): number => c.broken.length * 100 + c.required.length

/**
 * Does the work of a remedy on a copy of the house and judges everything again.
 * @param result the finding the remedy is for
 */
export function consequencesOf(before: Judged, result: Result, remedy: string): Consequences {
  let last: Consequences | undefined
  let cures = 0
  let least = Infinity
  let fewest = Infinity
  for (const { made: found, left } of triedWays(before, result, remedy)) {
    // One that cures and brings nothing along is what is wanted; else the one that brings least, the first of them.
    const along = bringsAlong(found)
    if (found.isCured && along === 0) return found
    // Where none cures all of it, the one that leaves the least of it and brings the least along.
    const rest = left * 1e6 + along
    const isBetter = found.isCured ? along < least : least === Infinity && rest < fewest
    if (last === undefined || isBetter) last = found
    if (found.isCured) least = Math.min(least, along)
    fewest = Math.min(fewest, rest)
    // Where even these bring something along, no larger or smaller one will do.
    if (found.isCured && ++cures >= MOST_CURES) break
  }
  const base = { remedy, subject: result.subject.id }
  const nothing = { fixed: [], broken: [], required: [], undecided: [], decided: [] }
  return last ?? { ...base, changes: undefined, ...nothing, isCured: false, isRefused: false }
}

/** Works that take a space of a panel: two of them do not take the same one. */
const TAKES_A_SPACE = new Set(['untwin', 'split-circuit', 'own-circuit', 'move-to-other-leg'])
const SPACES_TRIED = 4
/** The same work in other spaces, where it takes one; the first is what the work by itself would be. */
export function waysOf(before: Judged, result: Result, remedy: string): readonly Consequences[] {
  if (!TAKES_A_SPACE.has(remedy)) return [consequencesOf(before, result, remedy)]
  const clean: Consequences[] = []
  for (const { made: found } of triedWays(before, result, remedy)) {
    if (found.isCured && bringsAlong(found) === 0) clean.push(found)
    if (clean.length >= SPACES_TRIED) break
  }
  return clean.length > 0 ? clean : [consequencesOf(before, result, remedy)]
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
  for (const key of before.keysToCompare(after)) {
    const was = before.result(key)
    const is = after.result(key)
    if (was === is) continue
    if (was === undefined) {
      if (is?.outcome === 'fault')
        required.push({ ...turned(undefined, is), ...ways(is, after.site) })
      else if (isLeaning(is)) undecided.push(turned(undefined, is))
      continue
    }
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
  return { fixed, broken, required, undecided, decided }
}

/** What can be done about a finding, apart by whether its conditions are known to hold. */
function ways(result: Result, site: Site): Pick<FollowUp, 'remedies' | 'conditional'> {
  const found = remediesFor(result, site)
  const of = (verdict: string) =>
    found.filter(f => f.advice.verdict === verdict).map(f => f.remedy.id)
  return { remedies: of('offered'), conditional: of('conditional') }
}
