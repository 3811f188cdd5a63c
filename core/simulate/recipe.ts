import type { AnyValue, Kind } from '../model/fields'

/** A fact that makes a sound thing faulty, found by trying every value there is on sound houses. */
export interface Recipe {
  readonly rule: string
  readonly kind: Kind
  /** Things like the one it was found on; see `likeness`. */
  readonly like: string
  readonly field: string
  readonly value: AnyValue
}
export type RecipeRow = readonly [
  rule: string,
  kind: Kind,
  like: string,
  field: string,
  value: AnyValue,
]
