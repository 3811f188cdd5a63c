import type { Fact, FactRef, Unseen } from '../model/house'

/** A conclusion of a walk and the facts it rests on; `value` undefined where some of them are missing. */
export interface Walked<T> {
  readonly value: T | undefined
  readonly rests: readonly FactRef[]
}

/** Copied for each trail: the engine would take a list written out here for long-lived, with all that it holds. */
const EMPTY: FactRef[] = []

/** Reads facts outside a rule, keeping what the reading rested on. It ends as the conclusion. */
export class Trail implements Walked<unknown> {
  value: unknown = undefined
  readonly rests = EMPTY.slice()
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    this.rests.push(fact as FactRef)
    return fact.state === 'known' ? fact.value : undefined
  }

  /** The fact that was read last. */
  get last(): FactRef {
    return this.rests[this.rests.length - 1]!
  }

  /** The conclusion, with what was read for it; the trail ends with it. */
  found<T>(value: T | undefined): Walked<T> {
    this.value = value
    return this as Walked<T | unknown> as Walked<T>
  }
}
