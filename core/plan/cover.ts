import { lightestOf, type Item } from './eliminate'
import { lightestByProgram, type GeneralSolver } from './program'

/** An action of the planner: what it costs by the aim, and which of the chosen faults it takes away. */
export interface Action {
  readonly weight: number
  /** Numbers of the faults, ascending. */
  readonly covers: readonly number[]
  /** Number of the action that makes this one possible, and is paid once however many lean on it. */
  readonly needs?: number
}
export interface Cover {
  readonly weight: number
  /** Numbers of the actions, ascending. */
  readonly actions: readonly number[]
  /** The same by the parts of the house that hang together. */
  readonly parts: readonly (readonly number[])[]
  /** Nothing lighter was passed over. */
  readonly isExact: boolean
  /** Whether some part was left to the general solver. */
  readonly isByProgram: boolean
}
interface Found {
  readonly weight: number
  readonly actions: readonly number[]
  readonly isExact?: boolean
}

const NONE: Found = { weight: Infinity, actions: [] }
/** Sets looked at in one part before the search is given up; a general solver bounds it better then. */
const MOST_SETS = 20_000

/**
 * The cheapest set of actions that takes every fault away: exact, by search over each part of the house that hangs
 * together, with a bound that no part can be cheaper than its faults' cheapest shares.
 * @param refused sets of one part already found wanting; the cheapest other one is looked for
 * @param links pairs of faults whose works get into each other's way: their parts are searched as one
 * @param general takes the parts in which too many ways stay open, where it is there
 * @returns undefined where a fault has no action left
 */
export function cheapestCover(
  faults: number,
  actions: readonly Action[],
  refused: ReadonlySet<string> = new Set(),
  links: readonly (readonly [number, number])[] = [],
  general?: GeneralSolver,
): Cover | undefined {
  let isExact = true
  let isByProgram = false
  const chosen: number[] = []
  const parts: (readonly number[])[] = []
  let weight = 0
  for (const part of partsOf(faults, actions, links)) {
    // Sets that were refused are passed over by name, which only the search by sets can do.
    const quick = refused.size === 0 ? byElimination(part, actions) : undefined
    let best = quick ?? searchPart(part.faults, part.actions, actions, refused)
    if (best.isExact === false && general) {
      best = byProgram(part, actions, refused, general)
      isByProgram = true
    }
    if (best.weight === Infinity) return undefined
    isExact &&= best.isExact !== false
    weight += best.weight
    for (const i of best.actions) chosen.push(i)
    parts.push(best.actions)
  }
  return { weight, actions: chosen.sort((a, b) => a - b), parts, isExact, isByProgram }
}

/** A set of actions as a word, so that it can be refused. */
export const coverKey = (actions: readonly number[]): string =>
  [...actions].sort((a, b) => a - b).join(' ')

export interface Part {
  readonly faults: number[]
  readonly actions: number[]
  /** Where each fault of the house stands in its part. */
  readonly place: readonly number[]
}
/** Faults that no action joins are apart: each part is searched by itself. */
export function partsOf(
  faults: number,
  actions: readonly Action[],
  links: readonly (readonly [number, number])[] = [],
): readonly Part[] {
  const parent: number[] = []
  for (let f = 0; f < faults; f++) parent.push(f)
  const find = (i: number): number => {
    let at = i
    for (let up = parent[at] as number; up !== at; up = parent[at] as number) at = up
    parent[i] = at
    return at
  }
  // What leans on one thing hangs together, even where that thing covers nothing itself.
  const leaning = new Map<number, number>()
  for (const a of actions) {
    const covers = closureOf(a, actions)
    const first = covers[0]
    // What covers nothing itself, and leans on what covers nothing, joins nothing.
    if (first === undefined) continue
    const root = find(first)
    for (let n = 1; n < covers.length; n++) {
      const f = covers[n] as number
      if (parent[f] !== root) parent[find(f)] = root
    }
    const own = a.covers[0]
    if (a.needs === undefined || own === undefined) continue
    const other = leaning.get(a.needs)
    if (other === undefined) leaning.set(a.needs, own)
    else parent[find(own)] = find(other)
  }
  for (const [a, b] of links) parent[find(b)] = find(a)
  const parts: Part[] = []
  const partOf: (Part | undefined)[] = new Array<undefined>(faults).fill(undefined)
  const place: number[] = []
  for (let f = 0; f < faults; f++) {
    const root = find(f)
    let part = partOf[root]
    if (!part) parts.push((part = partOf[root] = { faults: [], actions: [], place }))
    place.push(part.faults.push(f) - 1)
  }
  for (let i = 0; i < actions.length; i++) {
    const a = actions[i] as Action
    const first = closureOf(a, actions)[0]
    if (first !== undefined && a.weight < Infinity) partOf[find(first)]?.actions.push(i)
  }
  return parts
}
/** What an action covers, with what it needs first. */
const closureOf = ({ covers, needs }: Action, actions: readonly Action[]): readonly number[] =>
  needs === undefined ? covers : [...covers, ...(actions[needs]?.covers ?? [])]

/** The actions of a part, with faults and actions told by their numbers in it. */
export function itemsOf(
  part: Part,
  actions: readonly Action[],
): { readonly own: readonly number[]; readonly items: readonly Item[] } {
  const leans = part.actions.some(i => actions[i]?.needs !== undefined)
  const own = leans
    ? [...new Set([...part.actions.flatMap(i => actions[i]?.needs ?? []), ...part.actions])]
    : besideTheWhole(part, actions)
  const items: Item[] = []
  for (let n = 0; n < own.length; n++) {
    const { weight, covers, needs } = actions[own[n] as number] as Action
    const item = { weight, covers: placesOf(covers, part.place) }
    items.push(needs === undefined ? item : { ...item, needs: own.indexOf(needs) })
  }
  return { own, items }
}

/** The cheapest work that covers the whole part, and what costs less than it: all else is never chosen. */
function besideTheWhole(
  { faults, actions: all }: Part,
  actions: readonly Action[],
): readonly number[] {
  let whole = -1
  let least = Infinity
  for (const i of all) {
    const { weight, covers } = actions[i] as Action
    if (covers.length !== faults.length || weight >= least) continue
    whole = i
    least = weight
  }
  if (whole < 0) return all
  const kept: number[] = []
  for (const i of all) if (i === whole || (actions[i] as Action).weight < least) kept.push(i)
  return kept
}

function placesOf(covers: readonly number[], place: readonly number[]): number[] {
  const found: number[] = []
  for (let n = 0; n < covers.length; n++) found.push(place[covers[n] as number] as number)
  return found
}

/** Fault by fault; undefined where too many ways stay open for that. */
function byElimination(part: Part, actions: readonly Action[]): Found | undefined {
  const { own, items } = itemsOf(part, actions)
  const taken = lightestOf(part.faults.length, items)
  if (taken === 'too wide') return undefined
  if (taken === undefined) return NONE
  const chosen = taken.items().map(n => own[n] ?? 0)
  return { weight: taken.weight, actions: chosen.sort((a, b) => a - b) }
}

function byProgram(
  part: Part,
  actions: readonly Action[],
  refused: ReadonlySet<string>,
  general: GeneralSolver,
): Found {
  const mine = new Set(part.actions.flatMap(i => [actions[i]?.needs ?? i, i]))
  const sets = [...refused]
    .map(key => key.split(' ').map(Number))
    .filter(set => set.every(i => mine.has(i)))
    .map(set => ({ set, among: [...mine] }))
  const found = lightestByProgram(part.faults, part.actions, actions, sets, general)
  if (!found) return NONE
  return { weight: found.reduce((n, i) => n + (actions[i]?.weight ?? 0), 0), actions: found }
}

/** Set by set; `isExact: false` where there were too many to look at. */
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
  /** How many of the taken actions are or need this one. */
  const standing = new Map<number, number>()
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
  /** Takes an action, and first what it needs; returns what was not there yet. */
  function take(i: number): readonly number[] {
    const { needs } = actions[i] as Action
    const wanted = needs === undefined ? [i] : [needs, i]
    const fresh = wanted.filter(k => !standing.get(k))
    for (const k of wanted) standing.set(k, (standing.get(k) ?? 0) + 1)
    for (const k of fresh) {
      taken.push(k)
      mark(k, 1)
    }
    return fresh
  }
  function putBack(i: number, fresh: readonly number[]): void {
    const { needs } = actions[i] as Action
    for (const k of needs === undefined ? [i] : [needs, i])
      standing.set(k, (standing.get(k) ?? 0) - 1)
    for (const k of fresh) mark(k, -1)
    taken.length -= fresh.length
  }
  let looked = 0
  function search(weight: number): void {
    // Given up only with a set in hand: that none was found yet does not mean that there is none.
    if (++looked > MOST_SETS && best.weight < Infinity) return
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
      const { needs } = actions[i] as Action
      // Sets without what it needs are being looked through: it is none of theirs.
      if (needs !== undefined && barred.has(needs) && !standing.get(needs)) continue
      const fresh = take(i)
      search(weight + fresh.reduce((n, k) => n + (actions[k]?.weight ?? 0), 0))
      putBack(i, fresh)
      // Whoever comes later in this list stands for the sets without those before.
      barred.add(i)
      tried.push(i)
    }
    for (const i of tried) barred.delete(i)
  }
  search(0)
  return looked > MOST_SETS ? { ...best, isExact: false } : best
}

function undominated(own: readonly number[], actions: readonly Action[]): readonly number[] {
  const at = (i: number) => actions[i] as Action
  const leanedOn = new Set(own.flatMap(i => at(i).needs ?? []))
  return own.filter(i => {
    const mine = at(i)
    // What is leaned on is worth more than it covers.
    if (leanedOn.has(i)) return true
    return !own.some(j => {
      if (j === i) return false
      const other = at(j)
      // What leans on something is only as cheap as what it leans on.
      if (other.needs !== undefined && other.needs !== mine.needs) return false
      const isMore = mine.covers.every(f => other.covers.includes(f))
      if (!isMore || other.weight > mine.weight) return false
      const isSame = other.weight === mine.weight && other.covers.length === mine.covers.length
      return !isSame || j < i
    })
  })
}
