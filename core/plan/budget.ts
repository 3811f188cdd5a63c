import type { Result } from '../engine/evaluate'
import type { Severity } from '../engine/severity'
import { frontOf, itemsOf, type Taken } from './eliminate'
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
}
/** From nothing done to all that can be: each point takes more away than any that costs no more. */
export class Frontier {
  constructor(
    readonly points: readonly FrontierPoint[],
    /** Nothing better was passed over. */
    readonly isExact: boolean,
    private readonly chosen: readonly (() => readonly number[])[],
  ) {}
  /** Numbers of the options that are taken for what a budget buys. */
  optionsFor(cents: number): readonly number[] {
    return this.chosen[this.points.indexOf(atBudget(this.points, cents))]?.() ?? []
  }
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
 * together, joined part by part. The permit is paid once, so both fronts, with it and without, are merged.
 * @param mustHave keys every set but the empty one has to cover: locked works
 */
export function frontierOf(
  options: readonly Option[],
  findings: readonly Result[],
  book: PriceBook,
  mustHave: readonly string[] = [],
): Frontier {
  const danger = new Map(findings.map(f => [findingKey(f), dangerOf(f)]))
  // What must be there outweighs all danger together, so that only sets with all of it reach this height.
  const lock = 1 + [...danger.values()].reduce((n, d) => n + d, 0)
  for (const key of mustHave) danger.set(key, lock)
  const height = lock * mustHave.length
  const steps: (FrontierPoint & { readonly chosen: () => readonly number[] })[] = [
    { cents: 0, danger: 0, chosen: () => [] },
  ]
  let isExact = true
  for (const hasPermit of [false, true]) {
    const shared = book.callOut + (hasPermit ? book.permit : 0)
    const isOut = (o: Option | undefined) => o?.needsPermit === true && !hasPermit
    const usable = options.flatMap((o, i) =>
      isOut(o) || (o.needs !== undefined && isOut(options[o.needs])) ? [] : [i],
    )
    const parts = partsOf(options, usable, danger).map(part => frontOfPart(options, part, danger))
    isExact &&= parts.every(p => p.isExact)
    // Sets that need no permit stand in the other front too, for less.
    for (const s of joined(parts))
      if (s.danger >= height)
        steps.push({ ...s, cents: s.cents + shared, danger: s.danger - height })
  }
  const kept = undominated(steps)
  const points = kept.map(({ cents, danger: gone }) => ({ cents, danger: gone }))
  return new Frontier(
    points,
    isExact,
    kept.map(k => k.chosen),
  )
}

/** Dearer only where it takes more danger away. */
function undominated<P extends FrontierPoint>(points: readonly P[]): readonly P[] {
  const sorted = [...points].sort((a, b) => a.cents - b.cents || b.danger - a.danger)
  const kept: P[] = []
  for (const p of sorted)
    if (kept.length === 0 || p.danger > (kept.at(-1)?.danger ?? 0)) kept.push(p)
  return kept
}

interface PartFront {
  /** Ways of the part, the cheapest first; the first takes nothing. */
  readonly front: readonly Taken[]
  /** Numbers of the options, by the numbers of the part. */
  readonly own: readonly number[]
  readonly isExact: boolean
}

/** The cheapest cost of each amount of danger over all parts; danger is a whole number, so it is an index. */
function joined(
  parts: readonly PartFront[],
): (FrontierPoint & { readonly chosen: () => readonly number[] })[] {
  const most = parts.reduce((n, p) => n + (p.front.at(-1)?.worth ?? 0), 0)
  let best = new Float64Array(most + 1).fill(Infinity)
  best[0] = 0
  let reach = 0
  const picks: Uint16Array[] = []
  for (const { front } of parts) {
    const next = best.slice()
    const pick = new Uint16Array(most + 1)
    front.forEach(({ weight, worth }, way) => {
      if (worth === 0) return
      for (let d = 0; d <= reach; d++) {
        const cents = (best[d] ?? 0) + weight
        if (cents < (next[d + worth] ?? 0)) {
          next[d + worth] = cents
          pick[d + worth] = way
        }
      }
    })
    reach += front.at(-1)?.worth ?? 0
    best = next
    picks.push(pick)
  }
  const chosenFor = (danger: number) => (): readonly number[] => {
    const found: number[] = []
    let at = danger
    for (let p = parts.length - 1; p >= 0; p--) {
      const part = parts[p]
      const way = part?.front[picks[p]?.[at] ?? 0]
      if (!part || !way) continue
      found.push(...itemsOf(way).map(n => part.own[n] ?? 0))
      at -= way.worth
    }
    return found.sort((a, b) => a - b)
  }
  return [...best].flatMap((cents, danger) =>
    danger > 0 && cents < Infinity ? { cents, danger, chosen: chosenFor(danger) } : [],
  )
}

const NEEDS = 'needs '
function partsOf(
  options: readonly Option[],
  usable: readonly number[],
  danger: ReadonlyMap<string, number>,
): readonly (readonly number[])[] {
  const parts: { keys: Set<string>; options: number[] }[] = []
  const at = new Map<string, { keys: Set<string>; options: number[] }>()
  for (const i of usable) {
    const own = [...(options[i]?.fixes ?? [])].filter(k => danger.has(k))
    if (own.length === 0) continue
    // What leans on one thing hangs together, and with that thing.
    const keys = [...own, NEEDS + (options[i]?.needs ?? i)]
    const mine = [...new Set(keys.flatMap(k => at.get(k) ?? []))]
    const part = mine[0] ?? { keys: new Set<string>(), options: [] }
    if (mine.length === 0) parts.push(part)
    for (const other of mine.slice(1)) {
      for (const k of other.keys) {
        part.keys.add(k)
        at.set(k, part)
      }
      part.options.push(...other.options)
      parts.splice(parts.indexOf(other), 1)
    }
    for (const k of keys) {
      part.keys.add(k)
      at.set(k, part)
    }
    part.options.push(i)
  }
  return parts.map(p => p.options)
}

/** Every way of a part that is worth its money. */
function frontOfPart(
  options: readonly Option[],
  part: readonly number[],
  danger: ReadonlyMap<string, number>,
): PartFront {
  const own = [...new Set(part.flatMap(i => [options[i]?.needs ?? i, i]))]
  const place = new Map(own.map((i, n) => [i, n]))
  const keys = [...new Set(own.flatMap(i => [...(options[i]?.fixes ?? [])]))].filter(k =>
    danger.has(k),
  )
  const number = new Map(keys.map((k, n) => [k, n]))
  const items = own.map(i => {
    const { cents, fixes, needs } = options[i] as Option
    return {
      weight: cents,
      covers: [...fixes].flatMap(k => number.get(k) ?? []),
      ...(needs !== undefined && { needs: place.get(needs) ?? 0 }),
    }
  })
  const worth = (fault: number) => danger.get(keys[fault] ?? '') ?? 0
  const front = frontOf(keys.length, items, worth)
  if (front !== 'too wide') return { front, own, isExact: true }
  return { front: greedy(items, worth), own, isExact: false }
}

/** Where too many ways stay open: always the next work that takes most away for its money. Not proved the best. */
function greedy(
  items: readonly { readonly weight: number; readonly covers: readonly number[]; needs?: number }[],
  worth: (fault: number) => number,
): readonly Taken[] {
  const gone = new Set<number>()
  const front: Taken[] = [{ weight: 0, worth: 0, item: undefined, rest: undefined }]
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
      item: best.item.i,
      rest,
    })
  }
}
