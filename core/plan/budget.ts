import type { Result } from '../engine/evaluate'
import type { Severity } from '../engine/severity'
import { itemsOf, partsOf, type Action } from './cover'
import { frontOf, type Item, type Taken } from './eliminate'
import { fill } from './fill'
import { findingKey, type Option } from './options'
import type { PriceBook } from './prices'
import { budgetByProgram, type GeneralSolver, type Refused } from './program'

/** Danger taken away counts by severity, so that one thing to make safe outweighs any handful of notes. */
const DANGER: Readonly<Record<Severity, number>> = {
  'make safe now': 64,
  repair: 8,
  upgrade: 2,
  note: 1,
}
export const dangerOf = (r: Result): number => DANGER[r.severity ?? 'note']

/** A sum of money, and the most danger it takes away. */
export interface FrontierPoint {
  /** With call-out and permit. */
  readonly cents: number
  readonly danger: number
}
/** From nothing done to all that can be: each point takes more away than any that costs no more. */
export interface Frontier {
  readonly points: readonly FrontierPoint[]
  /** Nothing better was passed over. */
  readonly isExact: boolean
}
/** What a budget buys. */
export interface Bought extends FrontierPoint {
  /** Numbers of the options, ascending. */
  readonly options: readonly number[]
  /** Nothing that costs no more takes more danger away. */
  readonly isExact: boolean
  /** Whether the general solver was asked. */
  readonly isByProgram: boolean
}

/** The best point within a budget. */
export function atBudget(points: readonly FrontierPoint[], cents: number): FrontierPoint {
  let low = 0
  let high = points.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((points[middle]?.cents ?? Infinity) <= cents) low = middle
    else high = middle - 1
  }
  return points[low] ?? { cents: 0, danger: 0 }
}

/**
 * All there is to be had for each sum: exact, by the front of cost against danger of each part of the house that hangs
 * together, joined part by part.
 * @param mustHave keys every set but the empty one has to cover: locked works
 */
export function frontierOf(
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
  mustHave: readonly string[] = [],
): Frontier {
  const fronts = frontsOf(options, findings, book, mustHave)
  const steps: FrontierPoint[] = [{ cents: 0, danger: 0 }]
  for (const { shared, parts } of fronts)
    joined(parts).forEach((cents, danger) => {
      if (danger > 0 && cents < Infinity) steps.push({ cents: cents + shared, danger })
    })
  return {
    points: undominated(steps),
    isExact: fronts.every(f => f.parts.every(p => p.isExact)),
  }
}

/**
 * The most danger a budget takes away, for the least money that does it; of one budget quicker than all of them.
 * @param mustHave keys every set but the empty one has to cover: locked works
 * @param general asked where too many ways stay open, or sets were refused
 * @param refused sets found wanting; without a general solver they cannot be passed over
 */
export function bestWithin(
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
  budget: number,
  mustHave: readonly string[] = [],
  general?: GeneralSolver,
  refused: readonly Refused[] = [],
): Bought {
  const byProgram = (solver: GeneralSolver): Bought => {
    const worths = findings.map(f => ({ key: findingKey(f), danger: dangerOf(f) }))
    const { callOut, permit } = book
    const question = { options, worths, mustHave, callOut, permit, budget }
    const chosen = budgetByProgram(question, refused, solver)
    const fixes = new Set(chosen.flatMap(i => [...(options[i]?.fixes ?? [])]))
    const paid = [
      ...(chosen.length > 0 ? [callOut] : []),
      ...(chosen.some(i => options[i]?.needsPermit) ? [permit] : []),
      ...chosen.map(i => options[i]?.cents ?? 0),
    ]
    return {
      cents: paid.reduce((n, c) => n + c, 0),
      danger: worths.reduce((n, w) => n + (fixes.has(w.key) ? w.danger : 0), 0),
      options: chosen,
      isExact: true,
      isByProgram: true,
    }
  }
  if (general && refused.length > 0) return byProgram(general)
  const fronts = frontsOf(options, findings, book, mustHave)
  const isExact = fronts.every(f => f.parts.every(p => p.isExact))
  const isByProgram = false
  let best: Bought = { cents: 0, danger: 0, options: [], isExact, isByProgram }
  for (const { shared, parts } of fronts) {
    const found = fill(
      parts.map(p => p.ways),
      budget - shared,
    )
    if (!found || found.worth === 0) continue
    const cents = found.weight + shared
    const isBetter =
      found.worth > best.danger || (found.worth === best.danger && cents < best.cents)
    if (!isBetter) continue
    const chosen = parts.flatMap(({ ways, own }, p) =>
      (ways[found.ways[p] ?? 0]?.items() ?? []).map(n => own[n] ?? 0),
    )
    best = { ...best, cents, danger: found.worth, options: chosen.sort((a, b) => a - b) }
  }
  return !isExact && general ? byProgram(general) : best
}

/** Dearer only where it takes more danger away. */
function undominated(points: readonly FrontierPoint[]): readonly FrontierPoint[] {
  const sorted = [...points].sort((a, b) => a.cents - b.cents || b.danger - a.danger)
  const kept: FrontierPoint[] = []
  for (const p of sorted)
    if (kept.length === 0 || p.danger > (kept.at(-1)?.danger ?? 0)) kept.push(p)
  return kept
}

interface PartFront {
  /** Ways of the part, the cheapest first; without locked works the first takes nothing. */
  readonly ways: readonly Taken[]
  /** Numbers of the options, by the numbers of the part. */
  readonly own: readonly number[]
  readonly isExact: boolean
}
interface Fronts {
  /** Cents paid once. */
  readonly shared: number
  readonly parts: readonly PartFront[]
}
/** The permit is paid once: the parts without any work that needs one, and with all of them. */
function frontsOf(
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
  mustHave: readonly string[],
): readonly Fronts[] {
  const worths = findings.map(dangerOf)
  // What must be there outweighs all danger together, so that only ways with all of it reach this height.
  const lock = 1 + worths.reduce((n, d) => n + d, 0)
  for (const _ of mustHave) worths.push(lock)
  const number = new Map([...findings.map(findingKey), ...mustHave].map((key, i) => [key, i]))
  const covers = options.map(o => {
    const own: number[] = []
    for (const key of o.fixes) {
      const i = number.get(key)
      if (i !== undefined) own.push(i)
    }
    return own.sort((a, b) => a - b)
  })
  const needsPermit = (o: Option): boolean =>
    o.needsPermit || (o.needs !== undefined && options[o.needs]?.needsPermit === true)
  const withPermit = options.map(needsPermit)
  const actions = options.map(({ cents, needs }, i): Action => {
    const action = { weight: cents, covers: covers[i] ?? [] }
    return needs === undefined ? action : { ...action, needs }
  })
  const parts = (list: readonly Action[]) => partsFor(list, worths, findings.length, lock)
  const all = { shared: book.callOut + book.permit, parts: parts(actions) }
  // Where no work needs a permit, what it would make possible is what is possible without.
  if (!withPermit.includes(true)) return [{ ...all, shared: book.callOut }].filter(isWhole)
  const free = actions.map((a, i): Action => (withPermit[i] ? { weight: 0, covers: [] } : a))
  return [{ shared: book.callOut, parts: parts(free) }, all].filter(isWhole)
}
/** Whether every part has a way: a locked work may need the permit. */
const isWhole = ({ parts }: Fronts): boolean => parts.every(p => p.ways.length > 0)

/** Faults from `locked` on are locks: only ways that keep all of a part's are ways of it. */
function partsFor(
  actions: readonly Action[],
  worths: readonly number[],
  locked: number,
  lock: number,
): readonly PartFront[] {
  return partsOf(worths.length, actions).flatMap((part): PartFront[] => {
    const locks = part.faults.filter(f => f >= locked).length
    if (part.actions.length === 0 && locks === 0) return []
    const { own, items } = itemsOf(part, actions)
    const worth = (fault: number) => worths[part.faults[fault] ?? 0] ?? 0
    const front = frontOf(part.faults.length, items, worth)
    const isExact = front !== 'too wide'
    const ways = isExact ? front : greedy(items, worth)
    return [{ ways: locks > 0 ? above(ways, lock * locks) : ways, own, isExact }]
  })
}
/** The ways that reach a height, counted from there. */
const above = (ways: readonly Taken[], height: number): readonly Taken[] =>
  ways.filter(w => w.worth >= height).map(w => ({ ...w, worth: w.worth - height }))

/** The cheapest cost of each amount of danger over all parts; danger is a whole number, so it is an index. */
function joined(parts: readonly PartFront[]): Float64Array {
  const most = parts.reduce((n, p) => n + (p.ways.at(-1)?.worth ?? 0), 0)
  let best = new Float64Array(most + 1).fill(Infinity)
  let next = new Float64Array(most + 1)
  best[0] = 0
  let reach = 0
  for (const { ways } of parts) {
    next.fill(Infinity)
    for (const { weight, worth } of ways)
      for (let d = 0; d <= reach; d++) {
        const cents = (best[d] as number) + weight
        if (cents < (next[d + worth] as number)) next[d + worth] = cents
      }
    reach += ways.at(-1)?.worth ?? 0
    ;[best, next] = [next, best]
  }
  return best
}

/** Where too many ways stay open: always the next work that takes most away for its money. Not proved the best. */
function greedy(items: readonly Item[], worth: (fault: number) => number): readonly Taken[] {
  const gone = new Set<number>()
  const front: Taken[] = [{ weight: 0, worth: 0, items: () => [] }]
  const free = items.map((item, i) => ({ ...item, i })).filter(i => i.needs === undefined)
  for (;;) {
    const rated = free
      .map(item => {
        const gained = item.covers.reduce((n, f) => (gone.has(f) ? n : n + worth(f)), 0)
        return { item, gained, share: gained / (item.weight + 1) }
      })
      .sort((a, b) => b.share - a.share)
    const [best] = rated
    const rest = front.at(-1)
    if (!best || !rest || best.gained === 0) return front
    for (const f of best.item.covers) gone.add(f)
    front.push({
      weight: rest.weight + best.item.weight,
      worth: rest.worth + best.gained,
      items: () => [...rest.items(), best.item.i],
    })
  }
}
