/**
 * A resistive network of nodes and conductances, solved by star-mesh elimination: nothing is ever subtracted, so that
 * nearly floating parts keep their volts, where factorisations lose whole ones. Conductances in 1/Ω, volts, amperes.
 */
export class Network {
  #count = 0
  readonly #links: [a: number, b: number, conductance: number][] = []
  readonly #fixed = new Map<number, number>()

  /** A new node, floating until something joins it; with volts it is held there. */
  node(volts?: number): number {
    if (volts !== undefined) this.#fixed.set(this.#count, volts)
    return this.#count++
  }

  /** Joins two nodes; a second link between them adds to the first. */
  join(a: number, b: number, conductance: number): void {
    if (a !== b && conductance > 0) this.#links.push([a, b, conductance])
  }

  /** The same network with more in it, so that an instrument can be laid on without disturbing the house. */
  copy(): Network {
    const other = new Network()
    other.#count = this.#count
    other.#links.push(...this.#links)
    for (const [node, volts] of this.#fixed) other.#fixed.set(node, volts)
    return other
  }

  /**
   * Volts at every node; 0 at nodes nothing holds.
   * @example two 100 Ω in series across 120 V: 60 V between them
   */
  solve(): Float64Array {
    const n = this.#count
    const g = new Float64Array(n * n)
    for (const [a, b, conductance] of this.#links) {
      g[a * n + b]! += conductance
      g[b * n + a]! += conductance
    }
    const free: number[] = []
    for (let i = 0; i < n; i++) if (!this.#fixed.has(i)) free.push(i)
    const gone = new Uint8Array(n)
    // Each node in turn becomes a mesh between its neighbors; what it was joined to is remembered for the way back.
    for (const i of free) {
      gone[i] = 1
      const near: number[] = []
      let sum = 0
      for (let k = 0; k < n; k++) {
        if (gone[k] || g[i * n + k] === 0) continue
        near.push(k)
        sum += g[i * n + k]!
      }
      if (sum === 0) continue
      for (let x = 0; x < near.length; x++) {
        for (let y = x + 1; y < near.length; y++) {
          const a = near[x]!
          const b = near[y]!
          const conductance = (g[i * n + a]! * g[i * n + b]!) / sum
          g[a * n + b]! += conductance
          g[b * n + a]! += conductance
        }
      }
    }
    const volts = new Float64Array(n)
    for (const [node, held] of this.#fixed) volts[node] = held
    for (let k = free.length - 1; k >= 0; k--) {
      const i = free[k]!
      gone[i] = 0
      let sum = 0
      let weighed = 0
      for (let j = 0; j < n; j++) {
        if (j === i || gone[j]) continue
        const conductance = g[i * n + j]!
        sum += conductance
        weighed += conductance * volts[j]!
      }
      volts[i] = sum > 0 ? weighed / sum : 0
    }
    return volts
  }
}
