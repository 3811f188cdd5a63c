/**
 * Choosing works of one part of a house, fault by fault: once everything that could take a fault away has been taken
 * or left, the fault is settled and forgotten. Works along a circuit lie over each other like the outlets do, so that
 * few different ways of being half covered stay open at a time. Exact, or given up where they do not stay few.
 */

/** One work of a part; faults and works are told by their numbers in the part. */
export interface Item {
  readonly weight: number
  readonly covers: readonly number[]
  /** The work that makes this one possible; paid once. It needs nothing itself. */
  readonly needs?: number
}
/** What has been taken so far. */
export interface Taken {
  readonly weight: number
  /** Worth of the faults that are gone. */
  readonly worth: number
  readonly item: number | undefined
  readonly rest: Taken | undefined
}

const NOTHING: Taken = { weight: 0, worth: 0, item: undefined, rest: undefined }
/** Ways of being half covered, or steps of a front, kept at once before the search is given up. */
const MOST = 20_000

export function itemsOf(taken: Taken | undefined): number[] {
  const found: number[] = []
  for (let at = taken; at; at = at.rest) if (at.item !== undefined) found.push(at.item)
  return found.sort((a, b) => a - b)
}

/**
 * The lightest way to cover every fault.
 * @returns undefined where a fault cannot be covered, 'too wide' where too many ways stay open
 */
export function lightestOf(faults: number, items: readonly Item[]): Taken | undefined | 'too wide' {
  const ended = eliminate(faults, items, () => 0, {
    join: (a, b) => ((a[0]?.weight ?? Infinity) <= (b[0]?.weight ?? Infinity) ? a : b),
    mustCover: true,
  })
  return ended === 'too wide' ? ended : ended[0]
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
  return eliminate(faults, items, worth, { join: joinFronts, mustCover: false })
}

/** Two fronts as one: heavier only where it is worth more. */
function joinFronts(a: readonly Taken[], b: readonly Taken[]): Taken[] {
  const merged: Taken[] = []
  let i = 0
  let k = 0
  while (i < a.length || k < b.length) {
    const left = a[i]
    const right = b[k]
    const isLeft =
      right === undefined ||
      (left !== undefined &&
        (left.weight < right.weight || (left.weight === right.weight && left.worth >= right.worth)))
    const next = isLeft ? left : right
    if (isLeft) i++
    else k++
    if (next && next.worth > (merged.at(-1)?.worth ?? -1)) merged.push(next)
  }
  return merged
}

interface Way {
  readonly join: (a: readonly Taken[], b: readonly Taken[]) => readonly Taken[]
  readonly mustCover: boolean
}

/** Sets of small whole numbers: as bits of one number where they are few, which is what most parts are. */
interface Bits<K> {
  readonly none: K
  readonly of: (members: readonly number[]) => K
  readonly join: (a: K, b: K) => K
  readonly without: (a: K, member: number) => K
  readonly has: (a: K, member: number) => boolean
}
const FEW = 30
const SMALL: Bits<number> = {
  none: 0,
  of: members => {
    let set = 0
    for (const m of members) set |= 1 << m
    return set
  },
  join: (a, b) => a | b,
  without: (a, m) => a & ~(1 << m),
  has: (a, m) => (a & (1 << m)) !== 0,
}
const ONE = BigInt(1)
const LARGE: Bits<bigint> = {
  none: BigInt(0),
  of: members => members.reduce((set, m) => set | (ONE << BigInt(m)), BigInt(0)),
  join: (a, b) => a | b,
  without: (a, m) => a & ~(ONE << BigInt(m)),
  has: (a, m) => (a & (ONE << BigInt(m))) !== BigInt(0),
}

function eliminate(
  faults: number,
  items: readonly Item[],
  worth: (fault: number) => number,
  way: Way,
): readonly Taken[] | 'too wide' {
  // What others lean on is followed like a fault that is worth nothing: its bit says that it is there.
  const bitOf = new Map<number, number>()
  for (const { needs } of items)
    if (needs !== undefined && !bitOf.has(needs)) bitOf.set(needs, faults + bitOf.size)
  const isFew = faults + bitOf.size <= FEW
  return isFew
    ? eliminateBy(SMALL, faults, items, bitOf, worth, way)
    : eliminateBy(LARGE, faults, items, bitOf, worth, way)
}

function eliminateBy<K>(
  bits: Bits<K>,
  faults: number,
  items: readonly Item[],
  bitOf: ReadonlyMap<number, number>,
  worth: (fault: number) => number,
  { join, mustCover }: Way,
): readonly Taken[] | 'too wide' {
  const touches = items.map(({ covers, needs }, i) => {
    const own = bitOf.get(needs ?? i)
    if (own === undefined) return covers
    const first = needs === undefined ? [] : (items[needs]?.covers ?? [])
    return [...new Set([...covers, ...first]), own]
  })
  const masks = touches.map(t => bits.of(t))
  const left = Array.from({ length: faults + bitOf.size }, () => new Set<number>())
  touches.forEach((list, i) => {
    for (const b of list) left[b]?.add(i)
  })
  const open = new Set(left.keys())
  let states = new Map<K, readonly Taken[]>([[bits.none, [NOTHING]]])

  function take(i: number): void {
    const item = items[i] as Item
    const own = bitOf.get(item.needs ?? i)
    const mask = masks[i] as K
    const next = new Map(states)
    for (const [key, labels] of states) {
      const after = bits.join(key, mask)
      const isPaid = own !== undefined && bits.has(key, own)
      if (after === key || (isPaid && item.needs === undefined)) continue
      let gained = 0
      for (const b of touches[i] ?? []) if (b < faults && !bits.has(key, b)) gained += worth(b)
      const first = item.needs !== undefined && !isPaid ? item.needs : undefined
      const paid = first === undefined ? 0 : (items[first]?.weight ?? 0)
      const added = labels.map((rest): Taken => {
        const before: Taken =
          first === undefined
            ? rest
            : { weight: rest.weight + paid, worth: rest.worth, item: first, rest }
        return {
          weight: before.weight + item.weight,
          worth: rest.worth + gained,
          item: i,
          rest: before,
        }
      })
      const known = next.get(after)
      next.set(after, known ? join(known, added) : added)
    }
    states = next
  }
  /** Nothing is left that could touch it: covered or not no longer tells ways apart. */
  function settle(b: number): void {
    open.delete(b)
    const next = new Map<K, readonly Taken[]>()
    for (const [key, labels] of states) {
      if (mustCover && b < faults && !bits.has(key, b)) continue
      const without = bits.without(key, b)
      const known = next.get(without)
      next.set(without, known ? join(known, labels) : labels)
    }
    states = next
  }

  while (open.size > 0) {
    let narrowest = -1
    for (const b of open)
      if (narrowest < 0 || (left[b]?.size ?? 0) < (left[narrowest]?.size ?? 0)) narrowest = b
    for (const i of left[narrowest] ?? []) {
      take(i)
      // Each work may double the ways, so that they are counted before the next.
      if (states.size > MOST) return 'too wide'
      for (const b of touches[i] ?? []) if (b !== narrowest) left[b]?.delete(i)
    }
    settle(narrowest)
    let kept = 0
    for (const labels of states.values()) kept += labels.length
    if (kept > MOST) return 'too wide'
  }
  return states.get(bits.none) ?? []
}
