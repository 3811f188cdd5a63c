import {
  FIELDS,
  Site,
  valueOf,
  valueText,
  type AnyValue,
  type FieldName,
  type House,
} from '../../core'

/** What somebody wrote of the premises, as the list of jobs shows it; an empty text where nobody did. */
export const writtenOf = (house: House, field: FieldName<'premises'>): string => {
  const value = valueOf(new Site(house).premises, field)
  return value === undefined ? '' : valueText(FIELDS.premises[field], value as AnyValue)
}
/** The columns of the list that need no judgment. */
export const LISTED = ['name', 'street', 'purpose', 'yearBuilt', 'edition'] as const
export const listedOf = (house: House) => ({
  name: writtenOf(house, 'name'),
  street: writtenOf(house, 'street'),
  purpose: writtenOf(house, 'purpose'),
  year_built: writtenOf(house, 'yearBuilt'),
  edition: writtenOf(house, 'edition'),
})
