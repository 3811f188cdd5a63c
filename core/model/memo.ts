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

interface Branch<V> {
  value: V | undefined
  readonly next: Map<unknown, Branch<V>>
}
/**
 * A memo whose key has many parts, gone through one after the other: a text made of them all takes longer to put
 * together than what it saves.
 */
export class MemoOfParts<V> {
  private root: Branch<V> = { value: undefined, next: new Map() }
  private count = 0
  constructor(private readonly most: number) {}
  get size(): number {
    return this.count
  }
  get(parts: readonly unknown[]): V | undefined {
    let at: Branch<V> | undefined = this.root
    for (let i = 0; i < parts.length && at; i++) at = at.next.get(parts[i])
    return at?.value
  }
  /** @returns the value */
  set(parts: readonly unknown[], value: V): V {
    if (this.count >= this.most) {
      this.root = { value: undefined, next: new Map() }
      this.count = 0
    }
    let at = this.root
    for (const part of parts) {
      let branch = at.next.get(part)
      if (!branch) at.next.set(part, (branch = { value: undefined, next: new Map() }))
      at = branch
    }
    if (at.value === undefined) this.count++
    at.value = value
    return value
  }
}
