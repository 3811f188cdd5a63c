import type { Fact, FactRef, Unseen } from '../model/house'

/** A conclusion of a walk and the facts it rests on; `value` undefined where some of them are missing. */
export interface Walked<T> {
  readonly value: T | undefined
  readonly rests: readonly FactRef[]
}

// A class, not a literal: thousands are made for a house, and literals the engine might take for long-lived.
class Found<T> implements Walked<T> {
  constructor(
    readonly value: T | undefined,
    readonly rests: readonly FactRef[],
  ) {}
}

/** Copied for each trail: the engine takes a list written out here for long-lived, for the same reason. */
const EMPTY: FactRef[] = []

/** Reads facts outside a rule, keeping what the reading rested on. */
export class Trail {
  readonly rests = EMPTY.slice()
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    this.rests.push(fact as FactRef)
    return fact.state === 'known' ? fact.value : undefined
  }

  /** The conclusion, with what was read for it. */
  found<T>(value: T | undefined): Walked<T> {
    return new Found(value, this.rests)
  }
}
