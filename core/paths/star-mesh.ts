/* eslint-disable @typescript-eslint/no-non-null-assertion -- every index is made together with its array */
/**
 * Star-mesh elimination in flat arrays: the order and the fill are found once for a topology, then every change of a
 * conductance is one pass of sums, products and quotients. Nothing is subtracted, so that a part that hangs on leaks
 * of a million megohms keeps its volts, where factorizations lose whole ones. Conductances in 1/Ω, volts, amperes.
 */

/** Which two nodes a resistor joins. */
export interface Link {
  readonly from: number
  readonly to: number
}

export class StarMesh {
  /** Place of each node in the order of elimination; -1 of what is held at given volts. */
  readonly #place: Int32Array
  readonly #order: Int32Array
  /** Of each place, where its neighbors begin in `#near`. */
  readonly #begin: Int32Array
  readonly #near: Int32Array
  /** For each pair of neighbors of each place in turn, where their mesh branch is kept. */
  readonly #fill: Int32Array
  /** Where each link is kept: among the branches, or -1 where one end is held. */
  readonly #slot: Int32Array
  /** Of a link with one held end: the place of the free end, and the held node; -1 where none. */
  readonly #free: Int32Array
  readonly #held: Int32Array
  readonly #branch: Float64Array
  readonly #share: Float64Array
  readonly #toHeld: Float64Array
  readonly #sum: Float64Array
  readonly #current: Float64Array

  /** @param held nodes whose volts are given; all others follow */
  constructor(
    readonly count: number,
    readonly links: readonly Link[],
    held: readonly number[],
  ) {
    const isHeld = new Uint8Array(count)
    for (const node of held) isHeld[node] = 1
    const { order, near } = minimumDegree(count, links, isHeld)
    const n = order.length
    const place = new Int32Array(count).fill(-1)
    order.forEach((node, k) => (place[node] = k))
    const at: Map<number, number>[] = []
    const begin = new Int32Array(n + 1)
    const list: number[] = []
    near.forEach((nodes, k) => {
      const slots = new Map<number, number>()
      // In the order of elimination, so that the pairs below are always found at the earlier of the two.
      const places = Array.from(nodes, node => place[node] as number).sort((a, b) => a - b)
      for (const p of places) {
        slots.set(p, list.length)
        list.push(p)
      }
      begin[k + 1] = list.length
      at.push(slots)
    })
    const fill: number[] = []
    for (let k = 0; k < n; k++)
      for (let p = begin[k] as number; p < (begin[k + 1] as number); p++)
        for (let q = p + 1; q < (begin[k + 1] as number); q++)
          fill.push(at[list[p] as number]?.get(list[q] as number) as number)
    this.#place = place
    this.#order = Int32Array.from(order)
    this.#begin = begin
    this.#near = Int32Array.from(list)
    this.#fill = Int32Array.from(fill)
    this.#slot = new Int32Array(links.length).fill(-1)
    this.#free = new Int32Array(links.length).fill(-1)
    this.#held = new Int32Array(links.length).fill(-1)
    links.forEach(({ from, to }, e) => {
      const [i, j] = [place[from] as number, place[to] as number]
      if (from === to || (i < 0 && j < 0)) return
      if (i >= 0 && j >= 0) this.#slot[e] = at[Math.min(i, j)]?.get(Math.max(i, j)) as number
      else {
        this.#free[e] = Math.max(i, j)
        this.#held[e] = i < 0 ? from : to
      }
    })
    this.#branch = new Float64Array(list.length)
    this.#share = new Float64Array(list.length)
    this.#toHeld = new Float64Array(n)
    this.#sum = new Float64Array(n)
    this.#current = new Float64Array(n)
  }

  /**
   * Volts of every node; within a part that nothing ties to a held node, against one of its own.
   * @param conductances of the links, 0 of what is open
   * @param volts of the held nodes; those of the others are written over and returned
   * @param injected amperes put into each node, where there are any
   */
  solve(
    conductances: ArrayLike<number>,
    volts: Float64Array,
    injected?: ArrayLike<number>,
  ): Float64Array {
    const n = this.#order.length
    const order = this.#order
    const begin = this.#begin
    const near = this.#near
    const fill = this.#fill
    const slot = this.#slot
    const branch = this.#branch
    const share = this.#share
    const toHeld = this.#toHeld
    const sums = this.#sum
    const current = this.#current
    branch.fill(0)
    toHeld.fill(0)
    if (injected) for (let k = 0; k < n; k++) current[k] = injected[order[k]!]!
    else current.fill(0)
    for (let e = 0; e < slot.length; e++) {
      const s = slot[e]!
      const g = conductances[e]!
      if (s >= 0) branch[s]! += g
      else {
        const free = this.#free[e]!
        if (free < 0) continue
        toHeld[free]! += g
        current[free]! += g * volts[this.#held[e]!]!
      }
    }
    let t = 0
    for (let k = 0; k < n; k++) {
      const from = begin[k]!
      const end = begin[k + 1]!
      const held = toHeld[k]!
      const into = current[k]!
      let sum = held
      for (let p = from; p < end; p++) sum += branch[p]!
      sums[k] = sum
      if (sum === 0) {
        for (let p = from; p < end; p++) share[p] = 0
        t += ((end - from) * (end - from - 1)) / 2
        continue
      }
      for (let p = from; p < end; p++) {
        const r = branch[p]! / sum
        const other = near[p]!
        share[p] = r
        toHeld[other]! += r * held
        current[other]! += r * into
        for (let q = p + 1; q < end; q++) branch[fill[t++]!]! += r * branch[q]!
      }
    }
    // Back from the last one eliminated: each node sits where its neighbors pull it.
    for (let k = n - 1; k >= 0; k--) {
      const sum = sums[k]!
      let v = sum === 0 ? 0 : current[k]! / sum
      const end = begin[k + 1]!
      for (let p = begin[k]!; p < end; p++) v += share[p]! * current[near[p]!]!
      current[k] = v
      volts[order[k]!] = v
    }
    return volts
  }

  /**
   * For a link that is dragged and never opens: the answer at any conductance from one solved state, by the change of
   * rank one. Not for switches, where it loses digits.
   * @returns volts at that conductance of the link, in an array that is used again
   */
  drag(
    link: number,
    conductances: ArrayLike<number>,
    volts: Float64Array,
  ): (conductance: number) => Float64Array {
    const { from, to } = this.links[link] as Link
    const base = Float64Array.from(this.solve(conductances, volts))
    const unit = new Float64Array(this.count)
    const injected = new Float64Array(this.count)
    if ((this.#place[from] as number) >= 0) injected[from]! += 1
    if ((this.#place[to] as number) >= 0) injected[to]! -= 1
    this.solve(conductances, unit, injected)
    const across = base[from]! - base[to]!
    const rise = unit[from]! - unit[to]!
    const before = conductances[link]!
    const out = Float64Array.from(base)
    return conductance => {
      const delta = conductance - before
      const k = (delta * across) / (1 + delta * rise)
      for (let i = 0; i < out.length; i++) out[i] = base[i]! - k * unit[i]!
      return out
    }
  }
}

/** The free nodes, the one with the fewest neighbors first, each with those that are left when it goes. */
function minimumDegree(
  count: number,
  links: readonly Link[],
  isHeld: Uint8Array,
): { order: number[]; near: readonly ReadonlySet<number>[] } {
  const around: Set<number>[] = Array.from({ length: count }, () => new Set())
  for (const { from, to } of links)
    if (from !== to && !isHeld[from] && !isHeld[to]) {
      around[from]?.add(to)
      around[to]?.add(from)
    }
  const byDegree: Set<number>[] = []
  const file = (node: number) => {
    const degree = (around[node] as Set<number>).size
    ;(byDegree[degree] ??= new Set()).add(node)
    return degree
  }
  let left = 0
  for (let i = 0; i < count; i++)
    if (!isHeld[i]) {
      file(i)
      left++
    }
  const order: number[] = []
  const near: ReadonlySet<number>[] = []
  let least = 0
  for (; left > 0; left--) {
    while (!byDegree[least]?.size) least++
    const [node] = byDegree[least] as Set<number>
    const star = around[node as number] as Set<number>
    byDegree[least]?.delete(node as number)
    order.push(node as number)
    near.push(star)
    for (const other of star) {
      byDegree[around[other]!.size]?.delete(other)
      around[other]!.delete(node as number)
    }
    for (const a of star) for (const b of star) if (a !== b) around[a]!.add(b)
    for (const other of star) least = Math.min(least, file(other))
  }
  return { order, near }
}
