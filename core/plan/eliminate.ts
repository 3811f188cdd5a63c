/**
 * Choosing works of one part of a house, fault by fault: once everything that could take a fault away has been taken
 * or left, the fault is settled and forgotten. Works along a circuit lie over each other like the outlets do, so that
 * few different ways of being half covered stay open at a time. Exact, or given up where they do not stay few.
 *
 * A way of being half covered is a row of bits, one for each fault; rows stand one after the other in flat arrays, and
 * what was taken on the way to one is written in a journal that later ways share.
 */

import { joinFronts, NOTHING_TAKEN, type Front } from './front'

/** One work of a part; faults and works are told by their numbers in the part. */
export interface Item {
  readonly weight: number
  readonly covers: readonly number[]
  /** The work that makes this one possible; paid once. It needs nothing itself. */
  readonly needs?: number
}
/** What has been taken. */
export interface Taken {
  readonly weight: number
  /** Worth of the faults that are gone. */
  readonly worth: number
  /** Numbers of the items, ascending. */
  readonly items: () => readonly number[]
}

/** Ways of being half covered, or steps of a front, kept at once before the search is given up. */
const MOST = 20_000
/** Bits of a word: whole numbers of so many are what machines count with. */
const WORD = 30
/** So many rows are looked through quicker than they are looked up. */
const FEW_ROWS = 32

/** In which order works are taken and faults settled: it goes by which works touch which faults, not by prices. */
interface Course {
  /** A work to take, or the fault to settle next as -1 less its number. */
  readonly steps: readonly number[]
  readonly words: number
  /** Bits each work sets, so many words a work. */
  readonly masks: Int32Array
  /** The faults of those bits. */
  readonly touches: readonly (readonly number[])[]
  /** Bit that says a work others lean on is there: its own, or that of the one it needs; -1 where there is none. */
  readonly own: Int32Array
}

function courseOf(faults: number, items: readonly Item[]): Course {
  // What others lean on is followed like a fault that is worth nothing: its bit says that it is there.
  const bitOf = new Map<number, number>()
  for (const { needs } of items)
    if (needs !== undefined && !bitOf.has(needs)) bitOf.set(needs, faults + bitOf.size)
  const own = new Int32Array(items.length).fill(-1)
  const touches =
    bitOf.size === 0 ? items.map(coversOf) : items.map((_, i) => touched(items, i, bitOf, own))

  const bits = faults + bitOf.size
  const words = Math.max(1, Math.ceil(bits / WORD))
  const masks = new Int32Array(items.length * words)
  // The works that touch each bit, one list after the other.
  const starts = new Int32Array(bits + 1)
  for (const list of touches) for (const b of list) starts[b + 1] = (starts[b + 1] as number) + 1
  const left = starts.slice(1)
  for (let b = 0; b < bits; b++) starts[b + 1] = (starts[b + 1] as number) + (starts[b] as number)
  const ends = starts.slice(0, bits)
  const touching = new Int32Array(starts[bits] as number)
  for (let i = 0; i < touches.length; i++)
    for (const b of touches[i] as readonly number[]) {
      const end = ends[b] as number
      touching[end] = i
      ends[b] = end + 1
      const word = words === 1 ? 0 : Math.floor(b / WORD)
      const at = i * words + word
      masks[at] = (masks[at] as number) | (1 << (b - word * WORD))
    }

  const isTaken = new Uint8Array(items.length)
  const isSettled = new Uint8Array(bits)
  const steps: number[] = []
  for (let settled = 0; settled < bits; settled++) {
    let narrowest = -1
    for (let b = 0; b < bits; b++) {
      if (isSettled[b] === 1) continue
      if (narrowest < 0 || (left[b] as number) < (left[narrowest] as number)) narrowest = b
    }
    const end = starts[narrowest + 1] as number
    for (let n = starts[narrowest] as number; n < end; n++) {
      const i = touching[n] as number
      if (isTaken[i] === 1) continue
      isTaken[i] = 1
      steps.push(i)
      for (const b of touches[i] as readonly number[]) left[b] = (left[b] as number) - 1
    }
    steps.push(-1 - narrowest)
    isSettled[narrowest] = 1
  }
  return { steps, words, masks, touches, own }
}
const coversOf = (item: Item): readonly number[] => item.covers
/** The bits a work sets where works lean on each other: with those of the one it needs, and the bit of that one. */
function touched(
  items: readonly Item[],
  i: number,
  bitOf: ReadonlyMap<number, number>,
  own: Int32Array,
): readonly number[] {
  const { covers, needs } = items[i] as Item
  const bit = bitOf.get(needs ?? i)
  if (bit === undefined) return covers
  own[i] = bit
  const first = needs === undefined ? [] : (items[needs]?.covers ?? [])
  return [...new Set([...covers, ...first]), bit]
}

/** What was taken, each with what was taken before it. */
class Journal {
  readonly #items: number[] = []
  readonly #rests: number[] = []
  write(item: number, rest: number): number {
    this.#rests.push(rest)
    return this.#items.push(item) - 1
  }
  read(mark: number): number[] {
    const found: number[] = []
    for (let at = mark; at !== NOTHING_TAKEN; at = this.#rests[at] ?? NOTHING_TAKEN)
      found.push(this.#items[at] ?? 0)
    return found.sort((a, b) => a - b)
  }
}

/** Rows of bits, each once. */
class Rows {
  size = 1
  readonly #words: number
  /** One row after the other. */
  readonly #bits: number[]
  #index: Map<string, number> | undefined
  constructor(words: number) {
    this.#words = words
    this.#bits = new Array<number>(words).fill(0)
  }
  has(row: number, bit: number): boolean {
    const word = this.#bits[row * this.#words + Math.floor(bit / WORD)] ?? 0
    return (word & (1 << (bit % WORD))) !== 0
  }
  /** Whether a row has every bit of a work already. */
  hasAll(row: number, masks: Int32Array, item: number): boolean {
    const from = row * this.#words
    const mask = item * this.#words
    for (let w = 0; w < this.#words; w++) {
      const wanted = masks[mask + w] ?? 0
      if (((this.#bits[from + w] ?? 0) & wanted) !== wanted) return false
    }
    return true
  }
  /** The row with the bits of a work besides; it is added where there is none. */
  joined(row: number, masks: Int32Array, item: number): number {
    const words = this.#words
    const from = row * words
    const end = this.size * words
    for (let w = 0; w < words; w++)
      this.#bits[end + w] = (this.#bits[from + w] ?? 0) | (masks[item * words + w] ?? 0)
    const found = this.#find(this.size)
    if (found >= 0) return found
    this.#noted(this.size)
    return this.size++
  }
  /**
   * Forgets a bit.
   * @param onKept told where a row goes; rows alike without the bit go to the same place, later ones after
   * @param mustHave rows without the bit are dropped
   */
  forget(bit: number, mustHave: boolean, onKept: (from: number, to: number) => void): void {
    const words = this.#words
    const at = Math.floor(bit / WORD)
    const mask = ~(1 << (bit % WORD))
    const rows = this.size
    this.#index = undefined
    this.size = 0
    for (let row = 0; row < rows; row++) {
      if (mustHave && !this.has(row, bit)) continue
      const end = this.size * words
      for (let w = 0; w < words; w++) {
        const old = this.#bits[row * words + w] ?? 0
        this.#bits[end + w] = w === at ? old & mask : old
      }
      // Rows that all had it differ without it as they did with it.
      const found = mustHave ? -1 : this.#find(this.size)
      if (found < 0) {
        this.#noted(this.size)
        onKept(row, this.size++)
      } else onKept(row, found)
    }
  }
  #noted(row: number): void {
    this.#index?.set(this.#nameOf(row), row)
  }
  #nameOf(row: number): string {
    return this.#bits.slice(row * this.#words, (row + 1) * this.#words).join()
  }
  #indexOf(rows: number): Map<string, number> {
    return new Map(Array.from({ length: rows }, (_, r) => [this.#nameOf(r), r]))
  }
  /** A row before this one with the same bits, or -1. */
  #find(row: number): number {
    const words = this.#words
    if (row > FEW_ROWS) {
      const index = (this.#index ??= this.#indexOf(row))
      return index.get(this.#nameOf(row)) ?? -1
    }
    for (let r = 0; r < row; r++) {
      let w = 0
      while (w < words && this.#bits[r * words + w] === this.#bits[row * words + w]) w++
      if (w === words) return r
    }
    return -1
  }
}

/**
 * The lightest way to cover every fault.
 * @returns undefined where a fault cannot be covered, 'too wide' where too many ways stay open
 */
export function lightestOf(faults: number, items: readonly Item[]): Taken | undefined | 'too wide' {
  const { steps, words, masks, own } = courseOf(faults, items)
  const rows = new Rows(words)
  const journal = new Journal()
  const weights = [0]
  const marks = [NOTHING_TAKEN]

  let kept = 0
  const keep = (from: number, to: number): void => {
    if (to < kept && (weights[to] ?? 0) <= (weights[from] ?? 0)) return
    weights[to] = weights[from] ?? 0
    marks[to] = marks[from] ?? NOTHING_TAKEN
    kept = Math.max(kept, to + 1)
  }

  for (const step of steps) {
    if (step < 0) {
      const bit = -1 - step
      kept = 0
      rows.forget(bit, bit < faults, keep)
      if (rows.size === 0) return undefined
      continue
    }
    const item = items[step] as Item
    const { needs } = item
    const bit = own[step] ?? -1
    const before = rows.size
    for (let row = 0; row < before; row++) {
      const isPaid = bit >= 0 && rows.has(row, bit)
      if ((isPaid && needs === undefined) || rows.hasAll(row, masks, step)) continue
      const first = needs !== undefined && !isPaid ? needs : undefined
      const paid = first === undefined ? 0 : (items[first]?.weight ?? 0)
      const weight = (weights[row] ?? 0) + paid + item.weight
      const size = rows.size
      const to = rows.joined(row, masks, step)
      if (to < size && (weights[to] ?? Infinity) <= weight) continue
      const rest = marks[row] ?? NOTHING_TAKEN
      weights[to] = weight
      marks[to] = journal.write(step, first === undefined ? rest : journal.write(first, rest))
    }
    if (rows.size > MOST) return 'too wide'
  }
  const mark = marks[0] ?? NOTHING_TAKEN
  return { weight: weights[0] ?? 0, worth: 0, items: () => journal.read(mark) }
}

/**
 * Every way that is dearer only because it is worth more, the cheapest first.
 * @param worth of each fault, whole numbers
 */
export function frontOf(
  faults: number,
  items: readonly Item[],
  worth: (fault: number) => number,
): readonly Taken[] | 'too wide' {
  const { steps, words, masks, touches, own } = courseOf(faults, items)
  const rows = new Rows(words)
  const journal = new Journal()
  const worths = Array.from({ length: faults }, (_, f) => worth(f))
  let fronts: Front[] = [{ weights: [0], worths: [0], marks: [NOTHING_TAKEN] }]

  for (const step of steps) {
    if (step < 0) {
      const next: Front[] = []
      rows.forget(-1 - step, false, (from, to) => {
        const known = next[to]
        const front = fronts[from] as Front
        next[to] = known ? joinFronts(known, front) : front
      })
      fronts = next
      let kept = 0
      for (const f of fronts) kept += f.weights.length
      if (kept > MOST) return 'too wide'
      continue
    }
    const item = items[step] as Item
    const { needs } = item
    const bit = own[step] ?? -1
    const before = rows.size
    for (let row = 0; row < before; row++) {
      const isPaid = bit >= 0 && rows.has(row, bit)
      if ((isPaid && needs === undefined) || rows.hasAll(row, masks, step)) continue
      let gained = 0
      for (const b of touches[step] ?? [])
        if (b < faults && !rows.has(row, b)) gained += worths[b] ?? 0
      const first = needs !== undefined && !isPaid ? needs : undefined
      const paid = item.weight + (first === undefined ? 0 : (items[first]?.weight ?? 0))
      const from = fronts[row] as Front
      const added: Front = {
        weights: from.weights.map(w => w + paid),
        worths: from.worths.map(w => w + gained),
        marks: from.marks.map(rest =>
          journal.write(step, first === undefined ? rest : journal.write(first, rest)),
        ),
      }
      const to = rows.joined(row, masks, step)
      const known = fronts[to]
      fronts[to] = known ? joinFronts(known, added) : added
    }
    if (rows.size > MOST) return 'too wide'
  }
  const { weights, worths: gone, marks } = fronts[0] as Front
  return weights.map((weight, n) => ({
    weight,
    worth: gone[n] ?? 0,
    items: () => journal.read(marks[n] ?? NOTHING_TAKEN),
  }))
}
