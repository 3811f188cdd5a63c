/**
 * A resistive network with voltage sources, solved by star-mesh elimination: conductances are only added, multiplied
 * and divided, never subtracted, so that a run that hangs on leaks of a million megohms keeps its volts. Ideal parts
 * (sources, conductors without resistance, ties to the earth) join nodes at a fixed difference before anything else.
 */
import { StarMesh, type Link } from './star-mesh'

/** A part with resistance: volts, amperes and watts follow from it. */
export interface Resistor {
  readonly from: number
  readonly to: number
  readonly ohms: number
}
/** An ideal part: the volts of `to` over `from`, whatever flows. */
export interface Ideal {
  readonly from: number
  readonly to: number
  readonly volts: number
}
export interface Solution {
  /** Volts of each node against the earth; within a floating part, against one node of it. */
  readonly volts: Float64Array
  /** Amperes from `from` to `to` through each resistor. */
  readonly resistorAmps: Float64Array
  /** The same through each ideal part; where a loop of them leaves it open, `undetermined` says so. */
  readonly idealAmps: Float64Array
  readonly undetermined: ReadonlySet<number>
  /** Nodes that nothing ties to the earth, by part. */
  readonly floating: readonly (readonly number[])[]
  /** Largest current that does not add up at a node, over the largest current there is (a milliampere at least). */
  readonly residual: number
}
/** Two ideal parts that cannot both hold. */
export class Contradiction extends Error {
  constructor(readonly ideal: number) {
    super('ideal parts contradict each other')
  }
}

const add = (to: Float64Array | number[], at: number, value: number): void => {
  to[at] = (to[at] as number) + value
}

/** Nodes joined by ideal parts move together; each keeps its volts over the first of its group. */
class Groups {
  readonly #parent: Int32Array
  readonly #offset: Float64Array

  constructor(count: number) {
    this.#parent = Int32Array.from({ length: count }, (_, i) => i)
    this.#offset = new Float64Array(count)
  }
  root(node: number): number {
    let at = node
    while (this.#parent[at] !== at) at = this.#parent[at] as number
    return at
  }
  /** Volts over the root of its group. */
  offset(node: number): number {
    let sum = 0
    let at = node
    while (this.#parent[at] !== at) {
      sum += this.#offset[at] as number
      at = this.#parent[at] as number
    }
    return sum
  }
  /** True where it joined two groups; false where they were one, and the volts agree. */
  join({ from, to, volts }: Ideal, index: number): boolean {
    const [a, b] = [this.root(from), this.root(to)]
    const difference = this.offset(from) + volts - this.offset(to)
    if (a === b) {
      if (Math.abs(difference) > 1e-9 * Math.max(1, Math.abs(volts))) throw new Contradiction(index)
      return false
    }
    this.#parent[b] = a
    this.#offset[b] = difference
    return true
  }
}

/** A branch between two groups: amperes from the first to the second are g × (Va − Vb + emf). */
interface Branch {
  g: number
  emf: number
}

/** A network whose parts stay where they are while their ohms change: what depends on the topology is found once. */
export class PathSolver {
  readonly #isTree: readonly boolean[]
  readonly #offsets: Float64Array
  readonly #roots: Int32Array
  readonly #mesh: StarMesh | undefined
  /** Root of the nodes whose volts are given. */
  readonly #held: number = -1
  readonly #conductances: Float64Array

  /**
   * @param earth number of the node that is the earth
   * @throws Contradiction where two ideal parts between the same nodes say different volts
   */
  constructor(
    readonly count: number,
    readonly earth: number,
    readonly links: readonly Link[],
    readonly ideals: readonly Ideal[],
  ) {
    const groups = new Groups(count)
    this.#isTree = ideals.map((ideal, i) => groups.join(ideal, i))
    this.#offsets = Float64Array.from({ length: count }, (_, i) => groups.offset(i))
    const roots = (this.#roots = Int32Array.from({ length: count }, (_, i) => groups.root(i)))
    this.#conductances = new Float64Array(links.length)
    const driven = new Set<number>()
    this.#offsets.forEach((volts, i) => {
      if (volts !== 0) driven.add(roots[i] as number)
    })
    // With one source of volts, its nodes are held and all others follow, the earth too. Of several that float against
    // each other only the general way below keeps the digits.
    if (driven.size <= 1) {
      const [group = roots[earth] as number] = driven
      this.#held = group
      const held = [...roots.keys()].filter(i => roots[i] === group)
      const joined = (node: number) => (roots[node] === group ? node : (roots[node] as number))
      this.#mesh = new StarMesh(
        count,
        links.map(({ from, to }) => ({ from: joined(from), to: joined(to) })),
        held,
      )
    }
  }

  /**
   * Volts and amperes of everything.
   * @param ohms of the resistors, in their order; Infinity of what is open
   */
  solve(ohms: ArrayLike<number>): Solution {
    const resistors = this.links.map(({ from, to }, i) => ({ from, to, ohms: ohms[i] as number }))
    const { count, earth, ideals } = this
    const volts = this.#mesh ? this.#simple(ohms, this.#mesh) : this.#general(resistors)
    const resistorAmps = Float64Array.from(
      resistors,
      r => ((volts[r.from] as number) - (volts[r.to] as number)) / r.ohms,
    )
    const { amps: idealAmps, undetermined } = idealCurrents(
      count,
      resistors,
      resistorAmps,
      ideals,
      this.#isTree,
    )
    return {
      volts,
      resistorAmps,
      idealAmps,
      undetermined,
      floating: floatingParts(count, earth, resistors, ideals),
      residual: residualOf(count, resistors, resistorAmps, ideals, idealAmps, undetermined),
    }
  }

  #simple(ohms: ArrayLike<number>, mesh: StarMesh): Float64Array {
    const { count, earth, links } = this
    const roots = this.#roots
    const volts = new Float64Array(count)
    for (let i = 0; i < count; i++)
      if (roots[i] === this.#held) volts[i] = this.#offsets[i] as number
    for (let e = 0; e < links.length; e++) this.#conductances[e] = 1 / (ohms[e] as number)
    mesh.solve(this.#conductances, volts)
    for (let i = 0; i < count; i++)
      if (roots[i] !== this.#held) volts[i] = volts[roots[i] as number] as number
    const shift = volts[earth] as number
    if (shift === 0) return volts
    // What the earth is tied to is told against it; what floats keeps the volts it has among its own.
    const part = partsOf(
      count,
      links.filter((_, e) => (ohms[e] as number) < Infinity),
      this.ideals,
    )
    for (let i = 0; i < count; i++) if (part[i] === part[earth]) add(volts, i, -shift)
    return volts
  }

  #general(resistors: readonly Resistor[]): Float64Array {
    const { count, earth } = this
    const roots = this.#roots
    const offsets = this.#offsets
    const closed = resistors.filter(r => r.ohms < Infinity)
    const { order, stars } = eliminate(count, roots, offsets, closed, roots[earth] as number)
    const base = new Float64Array(count)
    // Back from the last one eliminated: each node sits where its neighbors pull it.
    for (let k = order.length - 1; k >= 0; k--) {
      const node = order[k] as number
      let weighed = 0
      let sum = 0
      for (const [other, { g, emf }] of stars[k] as ReadonlyMap<number, Branch>) {
        weighed += g * ((base[other] as number) - emf)
        sum += g
      }
      base[node] = sum > 0 ? weighed / sum : 0
    }
    const shift = offsets[earth] as number
    return Float64Array.from(
      { length: count },
      (_, i) => (base[roots[i] as number] as number) + (offsets[i] as number) - shift,
    )
  }
}

/**
 * Solves a network once.
 * @param earth number of the node that is the earth
 * @throws Contradiction where two ideal parts between the same nodes say different volts
 * @example two 100 Ω in series across 120 V: 60 V between them
 */
export const solvePaths = (
  count: number,
  earth: number,
  resistors: readonly Resistor[],
  ideals: readonly Ideal[],
): Solution => new PathSolver(count, earth, resistors, ideals).solve(resistors.map(r => r.ohms))

/** Eliminates every group but that of the earth, the one with the fewest neighbors first. */
function eliminate(
  count: number,
  roots: Int32Array,
  offsets: Float64Array,
  resistors: readonly Resistor[],
  earthRoot: number,
): { order: readonly number[]; stars: readonly ReadonlyMap<number, Branch>[] } {
  const near: Map<number, Branch>[] = Array.from({ length: count }, () => new Map())
  const join = (a: number, b: number, g: number, emf: number) => {
    for (const [x, y, e] of [
      [a, b, emf],
      [b, a, -emf],
    ] as const) {
      const map = near[x] as Map<number, Branch>
      const before = map.get(y)
      if (before === undefined) map.set(y, { g, emf: e })
      else {
        const sum = before.g + g
        map.set(y, { g: sum, emf: (before.g * before.emf + g * e) / sum })
      }
    }
  }
  for (const r of resistors) {
    const [a, b] = [roots[r.from] as number, roots[r.to] as number]
    if (a !== b) join(a, b, 1 / r.ohms, (offsets[r.from] as number) - (offsets[r.to] as number))
  }
  const left = new Set<number>()
  for (let i = 0; i < count; i++) if (roots[i] === i && i !== earthRoot) left.add(i)
  const order: number[] = []
  const stars: ReadonlyMap<number, Branch>[] = []
  const byDegree = new Map<number, Set<number>>()
  const degree = new Int32Array(count)
  const file = (node: number) => {
    const d = (near[node] as Map<number, Branch>).size
    degree[node] = d
    const set = byDegree.get(d)
    if (set) set.add(node)
    else byDegree.set(d, new Set([node]))
  }
  for (const node of left) file(node)
  while (left.size > 0) {
    let d = 0
    while (!byDegree.get(d)?.size) d++
    const [node] = byDegree.get(d) as Set<number>
    if (node === undefined) break
    byDegree.get(d)?.delete(node)
    left.delete(node)
    const star = near[node] as Map<number, Branch>
    order.push(node)
    stars.push(new Map(star))
    let sum = 0
    for (const { g } of star.values()) sum += g
    const arms = [...star]
    for (const [other] of arms) {
      if (left.has(other)) byDegree.get(degree[other] as number)?.delete(other)
      ;(near[other] as Map<number, Branch>).delete(node)
    }
    for (let x = 0; x < arms.length; x++)
      for (let y = x + 1; y < arms.length; y++) {
        const [a, toA] = arms[x] as [number, Branch]
        const [b, toB] = arms[y] as [number, Branch]
        join(a, b, (toA.g * toB.g) / sum, toB.emf - toA.emf)
      }
    for (const [other] of arms) if (left.has(other)) file(other)
    star.clear()
  }
  return { order, stars }
}

/** What flows in ideal parts follows from what their nodes take, from the leaves of each tree inwards. */
function idealCurrents(
  count: number,
  resistors: readonly Resistor[],
  resistorAmps: Float64Array,
  ideals: readonly Ideal[],
  isTree: readonly boolean[],
): { amps: Float64Array; undetermined: ReadonlySet<number> } {
  const amps = new Float64Array(ideals.length)
  /** What leaves each node through resistors. */
  const leaving = new Float64Array(count)
  resistors.forEach((r, i) => {
    add(leaving, r.from, resistorAmps[i] as number)
    add(leaving, r.to, -(resistorAmps[i] as number))
  })
  const at: number[][] = Array.from({ length: count }, () => [])
  ideals.forEach((ideal, i) => {
    at[ideal.from]?.push(i)
    at[ideal.to]?.push(i)
  })
  const open = at.map(list => list.length)
  const done = new Set<number>()
  const leaves = open.flatMap((n, node) => (n === 1 ? node : []))
  while (leaves.length > 0) {
    const node = leaves.pop() as number
    const i = at[node]?.find(k => !done.has(k))
    if (i === undefined) continue
    done.add(i)
    const ideal = ideals[i] as Ideal
    // Whatever the node sends into resistors comes in through its one open ideal part.
    const into = leaving[node] as number
    amps[i] = ideal.to === node ? into : -into
    const other = ideal.to === node ? ideal.from : ideal.to
    add(leaving, other, into)
    leaving[node] = 0
    add(open, node, -1)
    add(open, other, -1)
    if (open[other] === 1) leaves.push(other)
  }
  const undetermined = new Set<number>()
  ideals.forEach((_, i) => {
    if (done.has(i)) return
    undetermined.add(i)
    // In a loop without resistance any share is possible; the tree carries it all.
    if (!isTree[i]) amps[i] = 0
  })
  return { amps, undetermined }
}

/** For each node, the first of the part it hangs together with. */
function partsOf(count: number, links: readonly Link[], ideals: readonly Ideal[]): Int32Array {
  const parent = Int32Array.from({ length: count }, (_, i) => i)
  const find = (i: number): number => {
    let at = i
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] as number] as number
      at = parent[at] as number
    }
    return at
  }
  for (const { from, to } of links) parent[find(from)] = find(to)
  for (const { from, to } of ideals) parent[find(from)] = find(to)
  for (let i = 0; i < count; i++) parent[i] = find(i)
  return parent
}

function floatingParts(
  count: number,
  earth: number,
  resistors: readonly Resistor[],
  ideals: readonly Ideal[],
): readonly (readonly number[])[] {
  const closed = resistors.filter(r => r.ohms < Infinity)
  const part = partsOf(count, closed, ideals)
  const parts = new Map<number, number[]>()
  for (let i = 0; i < count; i++) {
    const root = part[i] as number
    if (root === part[earth]) continue
    const nodes = parts.get(root)
    if (nodes) nodes.push(i)
    else parts.set(root, [i])
  }
  return [...parts.values()]
}

/** Where less than this flows anywhere, what is left over is the rounding of the volts. */
const NOTHING_AMPS = 1e-3

function residualOf(
  count: number,
  resistors: readonly Resistor[],
  resistorAmps: Float64Array,
  ideals: readonly Ideal[],
  idealAmps: Float64Array,
  undetermined: ReadonlySet<number>,
): number {
  const sum = new Float64Array(count)
  let largest = 0
  const flow = (from: number, to: number, amps: number) => {
    add(sum, from, amps)
    add(sum, to, -amps)
    largest = Math.max(largest, Math.abs(amps))
  }
  resistors.forEach((r, i) => flow(r.from, r.to, resistorAmps[i] as number))
  const open = new Set<number>()
  ideals.forEach((d, i) => {
    if (undetermined.has(i)) {
      open.add(d.from)
      open.add(d.to)
    } else flow(d.from, d.to, idealAmps[i] as number)
  })
  let worst = 0
  for (let i = 0; i < count; i++)
    if (!open.has(i)) worst = Math.max(worst, Math.abs(sum[i] as number))
  return worst / Math.max(largest, NOTHING_AMPS)
}
