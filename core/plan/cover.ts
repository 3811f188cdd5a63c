/** An action of the planner: what it costs by the aim, and which of the chosen faults it takes away. */
export interface Action {
  readonly weight: number
  /** Numbers of the faults, ascending. */
  readonly covers: readonly number[]
}
export interface Cover {
  readonly weight: number
  /** Numbers of the actions, ascending. */
  readonly actions: readonly number[]
  /** The same by the parts of the house that hang together. */
  readonly parts: readonly (readonly number[])[]
}
interface Found {
  readonly weight: number
  readonly actions: readonly number[]
}

const NONE: Found = { weight: Infinity, actions: [] }

/**
 * The cheapest set of actions that takes every fault away: exact, by search over each part of the house that hangs
 * together, with a bound that no part can be cheaper than its faults' cheapest shares.
 * @param refused sets of one part already found wanting; the cheapest other one is looked for
 * @param links pairs of faults whose works get into each other's way: their parts are searched as one
 * @returns undefined where a fault has no action left
 */
export function cheapestCover(
  faults: number,
  actions: readonly Action[],
  refused: ReadonlySet<string> = new Set(),
  links: readonly (readonly [number, number])[] = [],
): Cover | undefined {
  const chosen: number[] = []
  const parts: (readonly number[])[] = []
  let weight = 0
  for (const part of partsOf(faults, actions, links)) {
    const best = searchPart(part.faults, part.actions, actions, refused)
    if (best.weight === Infinity) return undefined
    weight += best.weight
    chosen.push(...best.actions)
    parts.push(best.actions)
  }
  return { weight, actions: chosen.sort((a, b) => a - b), parts }
}

/** A set of actions as a word, so that it can be refused. */
export const coverKey = (actions: readonly number[]): string =>
  [...actions].sort((a, b) => a - b).join(' ')

interface Part {
  faults: number[]
  actions: number[]
}
/** Faults that no action joins are apart: each part is searched by itself. */
export function partsOf(
  faults: number,
  actions: readonly Action[],
  links: readonly (readonly [number, number])[] = [],
): readonly Part[] {
  const parent = Array.from({ length: faults }, (_, i) => i)
  const find = (i: number): number => {
    let at = i
    while (parent[at] !== at) at = parent[at] ?? at
    parent[i] = at
    return at
  }
  for (const { covers } of actions)
    for (const f of covers.slice(1)) parent[find(f)] = find(covers[0] ?? f)
  for (const [a, b] of links) parent[find(b)] = find(a)
  const parts = new Map<number, Part>()
  for (let f = 0; f < faults; f++) {
    const root = find(f)
    const part = parts.get(root)
    if (part) part.faults.push(f)
    else parts.set(root, { faults: [f], actions: [] })
  }
  actions.forEach((a, i) => {
    const [first] = a.covers
    if (first !== undefined && a.weight < Infinity) parts.get(find(first))?.actions.push(i)
  })
  return [...parts.values()]
}

function searchPart(
  faults: readonly number[],
  own: readonly number[],
  actions: readonly Action[],
  refused: ReadonlySet<string>,
): Found {
  // Dear and narrow is never chosen where another covers as much for no more; refusals may need it, so all stay then.
  const kept = refused.size > 0 ? own : undominated(own, actions)
  const byFault = new Map<number, number[]>(faults.map(f => [f, []]))
  for (const i of kept) for (const f of actions[i]?.covers ?? []) byFault.get(f)?.push(i)
  for (const list of byFault.values())
    list.sort((a, b) => (actions[a]?.weight ?? 0) - (actions[b]?.weight ?? 0))
  let best = NONE
  const covered = new Map<number, number>()
  const taken: number[] = []
  const barred = new Set<number>()

  /** Every open fault pays at least its cheapest share of an action. */
  function bound(): number {
    let sum = 0
    for (const [f, list] of byFault) {
      if (covered.get(f)) continue
      let least = Infinity
      for (const i of list) {
        if (barred.has(i)) continue
        const { weight, covers } = actions[i] as Action
        let open = 0
        for (const g of covers) if (!covered.get(g)) open++
        least = Math.min(least, weight / open)
      }
      sum += least
      if (sum === Infinity) return sum
    }
    return sum
  }
  function mark(i: number, by: 1 | -1): void {
    for (const f of actions[i]?.covers ?? []) covered.set(f, (covered.get(f) ?? 0) + by)
  }
  function search(weight: number): void {
    if (weight + bound() >= best.weight - 1e-9) return
    let narrowest: number[] | undefined
    for (const [f, list] of byFault) {
      if (covered.get(f)) continue
      const left = list.filter(i => !barred.has(i))
      if (!narrowest || left.length < narrowest.length) narrowest = left
    }
    if (!narrowest) {
      if (!refused.has(coverKey(taken)))
        best = { weight, actions: [...taken].sort((a, b) => a - b) }
      return
    }
    const tried: number[] = []
    for (const i of narrowest) {
      taken.push(i)
      mark(i, 1)
      search(weight + (actions[i]?.weight ?? 0))
      mark(i, -1)
      taken.pop()
      // Whoever comes later in this list stands for the sets without those before.
      barred.add(i)
      tried.push(i)
    }
    for (const i of tried) barred.delete(i)
  }
  search(0)
  return best
}

function undominated(own: readonly number[], actions: readonly Action[]): readonly number[] {
  const at = (i: number) => actions[i] as Action
  return own.filter(i => {
    const mine = at(i)
    return !own.some(j => {
      if (j === i) return false
      const other = at(j)
      const isMore = mine.covers.every(f => other.covers.includes(f))
      if (!isMore || other.weight > mine.weight) return false
      const isSame = other.weight === mine.weight && other.covers.length === mine.covers.length
      return !isSame || j < i
    })
  })
}
