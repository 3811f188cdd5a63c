import type { AnyValue, FieldName, Kind, Value } from './fields'
import type { Grade } from './observation'

/** A fact that was seen. `earlier` are other values seen before, newest first; they are kept and shown. */
export interface Known<V = AnyValue> {
  readonly state: 'known'
  readonly subject: string
  readonly field: string
  readonly value: V
  readonly grade: Grade
  readonly observation: string
  readonly earlier: readonly { value: AnyValue, grade: Grade, observation: string, by: string, at: string }[]
}
/** A fact somebody tried to see and could not. */
export interface BlockedFact { readonly state: 'blocked', readonly subject: string, readonly field: string, readonly reason: string, readonly observation: string }
/** A fact nobody has looked at yet. Not stored; made when a rule asks for it. */
export interface Unseen { readonly state: 'unseen', readonly subject: string, readonly field: string }
export type Fact<V = AnyValue> = Known<V> | BlockedFact
export type FactRef = Fact | Unseen

export type FactsOf<K extends Kind> = { readonly [F in FieldName<K>]?: Fact<Value<K, F>> }

/** One thing in the house. Replaced whole when something about it changes. */
export interface Subject<K extends Kind = Kind> {
  readonly id: string
  readonly kind: K
  readonly parent: string | null
  /** Time and id of the observation that added it; lists are in this order. */
  readonly born: string
  readonly facts: FactsOf<K>
}
/** The state of the house: what is there, in the order it was first recorded. */
export interface House { readonly subjects: ReadonlyMap<string, Subject> }

export const PREMISES_ID = 'premises'

/** The known value of a fact, or undefined where it is unseen or blocked. Not for rules: they ask through their reader. */
export function valueOf<K extends Kind, F extends FieldName<K>>(subject: Subject<K> | undefined, field: F): Value<K, F> | undefined {
  const fact = subject?.facts[field] as Fact<Value<K, F>> | undefined
  return fact?.state === 'known' ? fact.value : undefined
}
export const isKind = <K extends Kind>(subject: Subject | undefined, kind: K): subject is Subject<K> => subject?.kind === kind
