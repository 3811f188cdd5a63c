import { FIELDS, valueOf, valueText, type AnyValue, type FieldName, type Subject } from '../../core'

/** What somebody wrote of the premises, as the list of jobs shows it; an empty text where nobody did. */
export const writtenOf = (premises: Subject<'premises'>, field: FieldName<'premises'>): string => {
  const value = valueOf(premises, field)
  return value === undefined ? '' : valueText(FIELDS.premises[field], value as AnyValue)
}
/** The columns of the list that need no judgment. */
export const LISTED = ['name', 'street', 'purpose', 'yearBuilt', 'edition'] as const
export const listedOf = (premises: Subject<'premises'>) => ({
  name: writtenOf(premises, 'name'),
  street: writtenOf(premises, 'street'),
  purpose: writtenOf(premises, 'purpose'),
  year_built: writtenOf(premises, 'yearBuilt'),
  edition: writtenOf(premises, 'edition'),
})
