import type { Result } from '../engine/evaluate'
import type { Severity } from '../engine/severity'
import { findingKey, type Option } from './options'
import type { PriceBook } from './prices'

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
  /** Numbers of the options. */
  readonly options: readonly number[]
}
export interface Frontier {
  /** From nothing done to all that can be: each takes more away than any that costs no more. */
  readonly points: readonly FrontierPoint[]
  /** Nothing better was passed over. */
  readonly isExact: boolean
}

interface Label {
  readonly cents: number
  readonly danger: number
  readonly option: number | undefined
  readonly rest: readonly Label[]
}
interface State extends Label {
  readonly fixes: bigint
}
const NOTHING: Label = { cents: 0, danger: 0, option: undefined, rest: [] }
/** States of one part kept at once; a part with more is cut, and said not to be exact. */
const MOST_STATES = 4000
/** Steps of the whole frontier kept; finer ones are thinned out only on the way, never where nothing is cut. */
const MOST_LABELS = 6000

/**
 * All there is to be had for each sum: exact, by the fronts of cost against danger of each part of the house that
 * hangs together, joined part by part. The permit is paid once, so both fronts, with it and without, are merged.
 */
export function frontierOf(
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
): Frontier {
  const danger = new Map(findings.map(f => [findingKey(f), dangerOf(f)]))
  let isExact = true
  const points: FrontierPoint[] = [{ cents: 0, danger: 0, options: [] }]
  for (const hasPermit of [false, true]) {
    const shared = book.callOut + (hasPermit ? book.permit : 0)
    const isOut = (o: Option | undefined) => o?.needsPermit === true && !hasPermit
    const usable = options.flatMap((o, i) =>
      isOut(o) || (o.needs !== undefined && isOut(options[o.needs])) ? [] : [i],
    )
    const front = frontOfAll(options, usable, danger)
    isExact &&= front.isExact
    for (const l of front.labels)
      if (l.danger > 0)
        // Sets that need no permit stand in the other front too, for less.
        points.push({ cents: l.cents + shared, danger: l.danger, options: spelled(l) })
  }
  return { points: undominated(points), isExact }
}

/** The best point within a budget. */
export function atBudget({ points }: Frontier, cents: number): FrontierPoint {
  let low = 0
  let high = points.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((points[middle]?.cents ?? Infinity) <= cents) low = middle
    else high = middle - 1
  }
  return points[low] ?? { cents: 0, danger: 0, options: [] }
}

function spelled(label: Label): number[] {
  const found: number[] = []
  const open: Label[] = [label]
  for (let at = open.pop(); at; at = open.pop()) {
    if (at.option !== undefined) found.push(at.option)
    open.push(...at.rest)
  }
  return found.sort((a, b) => a - b)
}

function frontOfAll(
  options: readonly Option[],
  usable: readonly number[],
  danger: ReadonlyMap<string, number>,
): { labels: readonly Label[]; isExact: boolean } {
  let isExact = true
  let front: readonly Label[] = [NOTHING]
  for (const part of partsOf(options, usable, danger)) {
    const own = frontOfPart(options, part, danger)
    isExact &&= own.isExact
    const joined = front.flatMap(a =>
      own.labels.map(b => ({
        cents: a.cents + b.cents,
        danger: a.danger + b.danger,
        option: undefined,
        rest: [a, b],
      })),
    )
    front = undominated(joined)
    if (front.length > MOST_LABELS) {
      isExact = false
      const every = front.length / MOST_LABELS
      front = front.filter((_, i) => Math.floor(i / every) !== Math.floor((i - 1) / every))
    }
  }
  return { labels: front, isExact }
}

/** Dearer only where it takes more danger away. */
function undominated<L extends { readonly cents: number; readonly danger: number }>(
  labels: readonly L[],
): readonly L[] {
  const sorted = [...labels].sort((a, b) => a.cents - b.cents || b.danger - a.danger)
  const kept: L[] = []
  for (const l of sorted)
    if (kept.length === 0 || l.danger > (kept.at(-1)?.danger ?? 0)) kept.push(l)
  return kept
}

function partsOf(
  options: readonly Option[],
  usable: readonly number[],
  danger: ReadonlyMap<string, number>,
): readonly (readonly number[])[] {
  const parts: { keys: Set<string>; options: number[] }[] = []
  for (const i of usable) {
    const own = [...(options[i]?.fixes ?? [])].filter(k => danger.has(k))
    if (own.length === 0) continue
    // What leans on one thing hangs together, and with that thing.
    const keys = [...own, NEEDS + (options[i]?.needs ?? i)]
    const mine = parts.filter(g => keys.some(k => g.keys.has(k)))
    const one = { keys: new Set(keys), options: [i] }
    for (const g of mine) {
      for (const k of g.keys) one.keys.add(k)
      one.options.unshift(...g.options)
      parts.splice(parts.indexOf(g), 1)
    }
    parts.push(one)
  }
  return parts.map(g => g.options)
}

const NEEDS = 'needs '

/** Taking or leaving each option of a part; what takes away no more for no less is dropped. */
function frontOfPart(
  options: readonly Option[],
  part: readonly number[],
  danger: ReadonlyMap<string, number>,
): { labels: readonly Label[]; isExact: boolean } {
  const keys = [...new Set(part.flatMap(i => [...(options[i]?.fixes ?? [])]))].filter(k =>
    danger.has(k),
  )
  const bits = new Map(keys.map((k, i) => [k, 1n << BigInt(i)]))
  // What others lean on is paid once: whether it is there is part of the state.
  const leanedOn = [...new Set(part.flatMap(i => options[i]?.needs ?? []))]
  const there = new Map(leanedOn.map((n, i) => [n, 1n << BigInt(keys.length + i)]))
  const weigh = (fixes: bigint) =>
    keys.reduce((n, k, i) => (fixes & (1n << BigInt(i)) ? n + (danger.get(k) ?? 0) : n), 0)
  let isExact = true
  let states: State[] = [{ ...NOTHING, fixes: 0n }]
  for (const i of part) {
    const option = options[i]
    if (!option) continue
    const first = option.needs === undefined ? undefined : options[option.needs]
    const isThere = there.get(option.needs ?? i) ?? 0n
    const fixesOf = (o: Option) => [...o.fixes].reduce((n, k) => n | (bits.get(k) ?? 0n), 0n)
    const covers = fixesOf(option) | (first ? fixesOf(first) : 0n) | isThere
    const next = new Map<bigint, State>(states.map(s => [s.fixes, s]))
    for (const s of states) {
      const fixes = s.fixes | covers
      if (fixes === s.fixes) continue
      const isPaid = isThere !== 0n && (s.fixes & isThere) !== 0n
      // Itself already there for another.
      if (isPaid && !first) continue
      const paid = first && !isPaid ? first.cents : 0
      const cents = s.cents + option.cents + paid
      const known = next.get(fixes)
      if (known && known.cents <= cents) continue
      const before: Label =
        paid > 0 ? { cents: s.cents + paid, danger: s.danger, option: option.needs, rest: [s] } : s
      next.set(fixes, { cents, danger: weigh(fixes), option: i, rest: [before], fixes })
    }
    states = [...next.values()]
    if (states.length > MOST_STATES) {
      isExact = false
      states = states.sort((a, b) => b.danger / (b.cents + 1) - a.danger / (a.cents + 1))
      states.length = MOST_STATES
    }
  }
  return { labels: undominated(states), isExact }
}
