import type { FieldName, Kind, Value } from '../model/fields'
import type { Fact, FactRef, Subject } from '../model/house'

/** A conclusion of a walk and the facts it rests on; `value` undefined where some of them are missing. */
export interface Walked<T> { readonly value: T | undefined, readonly rests: readonly FactRef[] }

/** Reads facts outside a rule, keeping what the reading rested on. */
export class Trail {
  readonly rests: FactRef[] = []
  ask<K extends Kind, F extends FieldName<K>>(subject: Subject<K>, field: F): Value<K, F> | undefined {
    const fact = subject.facts[field] as Fact<Value<K, F>> | undefined
    this.rests.push((fact as FactRef | undefined) ?? { state: 'unseen', subject: subject.id, field })
    return fact?.state === 'known' ? fact.value : undefined
  }
}
