import type { Size, TableMetal } from './ampacity'

/** Device rating in amperes → equipment grounding conductor, copper then aluminium. 250.122. */
const EGC: readonly (readonly [number, Size, Size])[] = [
  [15, '14', '12'], [20, '12', '10'], [60, '10', '8'], [100, '8', '6'], [200, '6', '4'], [300, '4', '2'], [400, '3', '1'],
]

/**
 * Smallest equipment grounding conductor for a device rating in amperes; between rows the next larger.
 * Undefined above 400 A.
 * @example equipmentGroundSize(25, 'copper') // '10'
 */
export function equipmentGroundSize(ratingAmps: number, metal: TableMetal): Size | undefined {
  const row = EGC.find(r => ratingAmps <= r[0])
  return row?.[metal === 'copper' ? 1 : 2]
}
