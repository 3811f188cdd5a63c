import type { Judged } from './consequences'
import { compare } from './consequences'
import { overlapsIn } from '../derive/overlaps'
import type { Result } from '../engine/evaluate'
import { bestWithin, type Bought } from './budget'
import { cheapestCover, coverKey, partsOf, type Action } from './cover'
import { LOCK } from './gather'
import { findingKey, type Option } from './options'
import type { PriceBook } from './prices'
import type { GeneralSolver, Refused } from './program'

export const AIMS = ['least-cost', 'most-protection', 'least-opening', 'fewest-tests'] as const
export type Aim = (typeof AIMS)[number]

/** What the plan would be without one choice: more, or less where something comes before cents. */
export interface RunnerUp {
  readonly remedies: readonly string[]
  /** Cents for the whole plan. */
  readonly more: number
  readonly wallFt: number
  readonly buttons: number
}
/** A foot of wall, or a button to press each month, before any cent: the cents then decide between equals. */
const BEFORE_CENTS = 1e9
const MOST_REFUSED = 60

const weightOf = (o: Option, aim: Aim): number => {
  if (aim === 'least-opening') return o.wallFt * BEFORE_CENTS + o.cents
  if (aim === 'fewest-tests') return o.buttons * BEFORE_CENTS + o.cents
  return o.cents
}

export interface Solved extends Lightest {
  readonly refused: number
  readonly holds: boolean
}
/** What did not hold when it was judged again, so that something else is looked for. */
interface Wanting {
  /** Sets of one part, by their numbers. */
  readonly refused: Set<string>
  /** Findings whose works get into each other's way. */
  readonly links: [number, number][]
}
/**
 * The lightest set that holds when the house is judged again with all of it done. A part that does not hold by itself
 * is refused; parts that hold alone and not together are searched as one.
 */
export function solve(
  before: Judged,
  options: readonly Option[],
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  general?: GeneralSolver,
  barred?: Option,
): Solved | undefined {
  const wanting: Wanting = { refused: new Set(), links: [] }
  for (let round = 0; ; round++) {
    const best = lightest(options, wanted, aim, book, wanting, general, barred)
    if (!best) return undefined
    const isHolding = holds(before, options, best.actions, wanted)
    const isDone = isHolding || round >= MOST_REFUSED
    if (isDone || !learn(before, options, wanted, best, wanting))
      return { ...best, refused: wanting.refused.size, holds: isHolding }
  }
}

/** Learns from a set that does not hold which part of it is to blame; false where no more can be learned. */
function learn(
  before: Judged,
  options: readonly Option[],
  wanted: readonly string[],
  { parts }: Lightest,
  wanting: Wanting,
): boolean {
  const keysOf = (part: readonly number[]) =>
    wanted.filter(k => part.some(i => options[i]?.fixes.has(k)))
  let isLearned = false
  for (const part of parts) {
    const key = coverKey(part)
    if (part.length === 0 || wanting.refused.has(key)) continue
    if (holds(before, options, part, keysOf(part))) continue
    wanting.refused.add(key)
    isLearned = true
  }
  if (isLearned) return true
  for (const [n, a] of parts.entries())
    for (const b of parts.slice(n + 1)) {
      if (holds(before, options, [...a, ...b], [...keysOf(a), ...keysOf(b)])) continue
      const first = wanted.indexOf(keysOf(a)[0] ?? '')
      const second = wanted.indexOf(keysOf(b)[0] ?? '')
      if (first < 0 || second < 0) continue
      wanting.links.push([first, second])
      wanting.refused.add(coverKey([...a, ...b]))
      return true
    }
  return false
}

interface Lightest {
  readonly weight: number
  readonly actions: readonly number[]
  readonly parts: readonly (readonly number[])[]
  readonly isExact: boolean
  readonly isByProgram: boolean
}
/** The permit is paid once: sets without any work that needs one are looked for apart. */
function lightest(
  options: readonly Option[],
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  { refused, links }: Wanting,
  general?: GeneralSolver,
  barred?: Option,
): Lightest | undefined {
  const number = new Map(wanted.map((key, i) => [key, i]))
  const isOut = (o: Option | undefined, hasPermit: boolean): boolean =>
    o !== undefined && (o === barred || (o.needsPermit && !hasPermit))
  const actionOf = (o: Option, hasPermit: boolean): Action => ({
    weight:
      isOut(o, hasPermit) || (o.needs !== undefined && isOut(options[o.needs], hasPermit))
        ? Infinity
        : weightOf(o, aim),
    ...(o.needs !== undefined && { needs: o.needs }),
    covers: [...o.fixes].flatMap(k => number.get(k) ?? []).sort((a, b) => a - b),
  })
  const tries = [true, false].flatMap(hasPermit => {
    const actions = options.map(o => actionOf(o, hasPermit))
    const cover = cheapestCover(wanted.length, actions, refused, links, general)
    if (!cover) return []
    const permit = cover.actions.some(i => options[i]?.needsPermit) ? book.permit : 0
    return { ...cover, weight: cover.weight + permit }
  })
  return tries.sort((a, b) => a.weight - b.weight)[0]
}

export interface BoughtHolding extends Bought {
  readonly refused: number
  readonly holds: boolean
}
/**
 * The most danger a budget takes away by a set that holds when the house is judged again. A set that does not is
 * refused and another looked for, where a general solver is there to do it.
 */
export function solveBudget(
  before: Judged,
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
  budget: number,
  lockKeys: readonly string[],
  general?: GeneralSolver,
): BoughtHolding {
  const keys = [...findings.map(findingKey), ...lockKeys]
  const refused: Refused[] = []
  for (;;) {
    const bought = bestWithin(options, findings, book, budget, lockKeys, general, refused)
    const isHolding = holds(before, options, bought.options, fixedBy(options, bought.options, keys))
    const told = { ...bought, refused: refused.length, holds: isHolding }
    if (isHolding || !general || refused.length >= MOST_REFUSED) return told
    refused.push(...blamed(before, options, bought.options, keys))
  }
}
const fixedBy = (
  options: readonly Option[],
  chosen: readonly number[],
  keys: readonly string[],
): readonly string[] => keys.filter(k => chosen.some(i => options[i]?.fixes.has(k)))
/** The parts of a set that do not hold by themselves; the whole of it where each of them does. */
function blamed(
  before: Judged,
  options: readonly Option[],
  chosen: readonly number[],
  keys: readonly string[],
): readonly Refused[] {
  const number = new Map(keys.map((key, i) => [key, i]))
  const actions = options.map(({ fixes, needs }): Action => {
    const covers = [...fixes].flatMap(k => number.get(k) ?? []).sort((a, b) => a - b)
    return { weight: 0, covers, ...(needs !== undefined && { needs }) }
  })
  const wanting = partsOf(keys.length, actions).flatMap(
    ({ actions: among }): readonly Refused[] => {
      const all = [...new Set(among.flatMap(i => [options[i]?.needs ?? i, i]))]
      const set = chosen.filter(i => all.includes(i))
      const isWanting = set.length > 0 && !holds(before, options, set, fixedBy(options, set, keys))
      return isWanting ? [{ set, among: all }] : []
    },
  )
  return wanting.length > 0 ? wanting : [{ set: chosen, among: options.map((_, i) => i) }]
}

/** Breakers that would stand in a space that is taken. */
const crowded = ({ site }: Judged): number =>
  site.all.enclosure.reduce((n, panel) => n + overlapsIn(site, panel).length, 0)

function holds(
  before: Judged,
  options: readonly Option[],
  actions: readonly number[],
  wanted: readonly string[],
): boolean {
  const changes = actions.flatMap(i => options[i]?.changes ?? [])
  const after = before.after(changes)
  const { fixed, broken, required } = compare(before, after)
  const gone = new Set(fixed.map(f => `${f.rule} ${f.subject}`))
  return (
    crowded(after) <= crowded(before) &&
    broken.length === 0 &&
    required.length === 0 &&
    wanted.every(k => gone.has(k) || k.startsWith(LOCK))
  )
}

/** What a set costs with what is paid once. */
export function costAll(options: readonly Option[], book: PriceBook) {
  const shared = [
    ...(options.length > 0 ? [{ what: 'Call-out', cents: book.callOut }] : []),
    ...(options.some(o => o.needsPermit) ? [{ what: 'Permit', cents: book.permit }] : []),
  ]
  const cents = options.reduce((n, o) => n + o.cents, 0) + shared.reduce((n, s) => n + s.cents, 0)
  return { shared, total: cents }
}

/** The best whole plan without one option, judged again like the plan itself. */
export function runnerUp(
  before: Judged,
  options: readonly Option[],
  option: Option,
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  chosen: readonly Option[],
  general?: GeneralSolver,
): RunnerUp | undefined {
  const other = solve(before, options, wanted, aim, book, general, option)
  if (!other?.holds) return undefined
  const instead = other.actions.map(i => options[i] as Option)
  const sum = (list: readonly Option[], of: (o: Option) => number) =>
    list.reduce((n, o) => n + of(o), 0)
  const more = (of: (o: Option) => number) => sum(instead, of) - sum(chosen, of)
  return {
    remedies: [
      ...new Set(
        instead
          .filter(o => [...o.fixes].some(k => option.fixes.has(k)))
          .map(o => o.steps[0]?.remedy.title ?? ''),
      ),
    ],
    more: costAll(instead, book).total - costAll(chosen, book).total,
    wallFt: more(o => o.wallFt),
    buttons: more(o => o.buttons),
  }
}
