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
  /** Numbers of the items, in the order they were taken. */
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
  readonly masks: readonly number[]
  /** The faults of those bits. */
  readonly touches: readonly (readonly number[])[]
  /** Bit that says a work others lean on is there: its own, or that of the one it needs; -1 where there is none. */
  readonly own: readonly number[]
}

function courseOf(faults: number, items: readonly Item[]): Course {
  const bitOf = items.some(i => i.needs !== undefined) ? bitsOfLeaning(faults, items) : undefined
  const own = bitOf ? new Array<number>(items.length).fill(-1) : NONE
  const touches = bitOf ? items.map((_, i) => touched(items, i, bitOf, own)) : items.map(coversOf)
  const bits = faults + (bitOf?.size ?? 0)
  const words = Math.max(1, Math.ceil(bits / WORD))
  // Small arrays of plain numbers are made quicker than typed ones, and there are many parts.
  const masks = zeros(items.length * words)
  const left = zeros(bits)
  for (let i = 0; i < touches.length; i++) {
    const list = touches[i] as readonly number[]
    for (let n = 0; n < list.length; n++) {
      const b = list[n] as number
      left[b] = (left[b] as number) + 1
      const word = words === 1 ? 0 : Math.floor(b / WORD)
      const at = i * words + word
      masks[at] = (masks[at] as number) | (1 << (b - word * WORD))
    }
  }

  const isTaken = zeros(items.length)
  const steps: number[] = []
  // Settled faults are too wide to be the narrowest.
  for (let settled = 0; settled < bits; settled++) {
    let narrowest = 0
    for (let b = 1; b < bits; b++)
      if ((left[b] as number) < (left[narrowest] as number)) narrowest = b
    const word = words === 1 ? 0 : Math.floor(narrowest / WORD)
    const bit = 1 << (narrowest - word * WORD)
    for (let i = 0; i < items.length; i++) {
      if (isTaken[i] === 1 || ((masks[i * words + word] as number) & bit) === 0) continue
      isTaken[i] = 1
      steps.push(i)
      const list = touches[i] as readonly number[]
      for (let k = 0; k < list.length; k++) {
        const b = list[k] as number
        left[b] = (left[b] as number) - 1
      }
    }
    steps.push(-1 - narrowest)
    left[narrowest] = items.length + 1
  }
  return { steps, words, masks, touches, own }
}
const NONE: number[] = []
/** What others lean on is followed like a fault that is worth nothing: its bit says that it is there. */
function bitsOfLeaning(faults: number, items: readonly Item[]): ReadonlyMap<number, number> {
  const bitOf = new Map<number, number>()
  for (const { needs } of items)
    if (needs !== undefined && !bitOf.has(needs)) bitOf.set(needs, faults + bitOf.size)
  return bitOf
}
/** Written one by one, so that nothing looks for holes in it. */
function zeros(n: number): number[] {
  const list: number[] = []
  for (let i = 0; i < n; i++) list.push(0)
  return list
}
const coversOf = (item: Item): readonly number[] => item.covers
/** The bits a work sets where works lean on each other: with those of the one it needs, and the bit of that one. */
function touched(
  items: readonly Item[],
  i: number,
  bitOf: ReadonlyMap<number, number>,
  own: number[],
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
    return found.reverse()
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
  /** The row with the bits of a work besides, itself where it had them all; it is added where there is none. */
  joined(row: number, masks: readonly number[], item: number): number {
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
   * @param mustHave rows without the bit are dropped
   * @param to where each row goes is written here, -1 where it is dropped; rows alike without the bit go to one place,
   * never behind where they stood
   */
  forget(bit: number, mustHave: boolean, to: number[]): void {
    const words = this.#words
    const at = Math.floor(bit / WORD)
    const mask = ~(1 << (bit % WORD))
    const rows = this.size
    this.#index = undefined
    this.size = 0
    for (let row = 0; row < rows; row++) {
      if (mustHave && !this.has(row, bit)) {
        to[row] = -1
        continue
      }
      const end = this.size * words
      for (let w = 0; w < words; w++) {
        const old = this.#bits[row * words + w] as number
        this.#bits[end + w] = w === at ? old & mask : old
      }
      // Rows that all had it differ without it as they did with it.
      const found = mustHave ? -1 : this.#find(this.size)
      to[row] = found < 0 ? this.size : found
      if (found >= 0) continue
      this.#noted(this.size)
      this.size++
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
    if (words === 1) {
      const bits = this.#bits[row]
      for (let r = 0; r < row; r++) if (this.#bits[r] === bits) return r
      return -1
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

  const to: number[] = []
  for (const step of steps) {
    if (step < 0) {
      const bit = -1 - step
      const before = rows.size
      rows.forget(bit, bit < faults, to)
      let kept = 0
      for (let from = 0; from < before; from++) {
        const row = to[from] as number
        if (row < 0 || (row < kept && (weights[row] as number) <= (weights[from] as number)))
          continue
        weights[row] = weights[from] as number
        marks[row] = marks[from] as number
        if (row === kept) kept++
      }
      if (rows.size === 0) return undefined
      continue
    }
    const item = items[step] as Item
    const { needs } = item
    const bit = own[step] ?? -1
    const before = rows.size
    for (let row = 0; row < before; row++) {
      const isPaid = bit >= 0 && rows.has(row, bit)
      if (isPaid && needs === undefined) continue
      const size = rows.size
      const after = rows.joined(row, masks, step)
      if (after === row) continue
      const first = needs !== undefined && !isPaid ? needs : undefined
      const paid = first === undefined ? 0 : (items[first]?.weight ?? 0)
      const weight = (weights[row] as number) + paid + item.weight
      if (after < size && (weights[after] as number) <= weight) continue
      const rest = marks[row] as number
      weights[after] = weight
      marks[after] = journal.write(step, first === undefined ? rest : journal.write(first, rest))
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
  const to: number[] = []
  let fronts: Front[] = [{ weights: [0], worths: [0], marks: [NOTHING_TAKEN] }]

  for (const step of steps) {
    if (step < 0) {
      const next: Front[] = []
      rows.forget(-1 - step, false, to)
      fronts.forEach((front, from) => {
        const row = to[from] as number
        const known = next[row]
        next[row] = known ? joinFronts(known, front) : front
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
      if (isPaid && needs === undefined) continue
      const after = rows.joined(row, masks, step)
      if (after === row) continue
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
      const known = fronts[after]
      fronts[after] = known ? joinFronts(known, added) : added
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
