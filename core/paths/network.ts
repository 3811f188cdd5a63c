import { StarMesh } from './star-mesh'

/** A network that is put together part by part, for instruments to be laid on. Conductances in 1/Ω, volts, amperes. */
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
    const links = this.#links.map(([from, to]) => ({ from, to }))
    const volts = new Float64Array(this.#count)
    for (const [node, held] of this.#fixed) volts[node] = held
    return new StarMesh(this.#count, links, [...this.#fixed.keys()]).solve(
      this.#links.map(([, , conductance]) => conductance),
      volts,
    )
  }
}
