/**
 * What was worked out before, by key. Houses ask few different questions; the bound only keeps a fuzzer from filling
 * memory: past it everything is forgotten, and worked out again.
 */
export class Memo<K, V> {
  readonly #known = new Map<K, V>()
  constructor(private readonly most: number) {}
  get size(): number {
    return this.#known.size
  }
  get(key: K): V | undefined {
    return this.#known.get(key)
  }
  /** @returns the value */
  set(key: K, value: V): V {
    if (this.#known.size >= this.most) this.#known.clear()
    this.#known.set(key, value)
    return value
  }
}
/** Enough for every run of conductors of any house. */
export const RUNS_KEPT = 5000
