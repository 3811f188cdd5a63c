import { SIZES, sizeIndex, type Size, type TableMetal } from './ampacity'

/** Device rating in amperes → equipment grounding conductor, copper then aluminum. 250.122. */
const EGC: readonly (readonly [number, Size, Size])[] = [
  [15, '14', '12'],
  [20, '12', '10'],
  [60, '10', '8'],
  [100, '8', '6'],
  [200, '6', '4'],
  [300, '4', '2'],
  [400, '3', '1'],
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

/** Circular mils of the sizes below those named by their area. Chapter 9, table 8. */
export const AREAS: Readonly<Partial<Record<Size, number>>> = {
  '14': 4110,
  '12': 6530,
  '10': 10380,
  '8': 16510,
  '6': 26240,
  '4': 41740,
  '3': 52620,
  '2': 66360,
  '1': 83690,
  '1/0': 105600,
  '2/0': 133100,
  '3/0': 167800,
  '4/0': 211600,
}
const areaOf = (size: string): number => AREAS[size as Size] ?? Number(size) * 1000

/**
 * Service conductors of a phase up to this size, copper then aluminum (several count by their areas together) →
 * grounding electrode conductor, or bonding jumper on the supply side, of copper, then aluminum. 250.66, 250.102(C)(1).
 */
const GEC: readonly (readonly [string, string, Size, Size])[] = [
  ['2', '1/0', '8', '6'],
  ['1/0', '3/0', '6', '4'],
  ['3/0', '250', '4', '2'],
  ['350', '500', '2', '1/0'],
  ['600', '900', '1/0', '3/0'],
  ['1100', '1750', '2/0', '4/0'],
]

/** Kinds of electrode whose sole connection need not be larger than a copper size. 250.66(A)–(C). */
export const SOLE_CONNECTION: Readonly<Partial<Record<string, Size>>> = {
  rod: '6',
  plate: '6',
  'concrete-encased': '4',
  ring: '2',
}
/** The same of aluminum; encased in concrete or buried it may not be at all. 250.66(A). */
export const SOLE_ALUMINUM: Readonly<Partial<Record<string, Size>>> = { rod: '4', plate: '4' }

/**
 * Smallest grounding electrode conductor for a service conductor. Undefined beyond the table.
 * @param electrode kind of electrode; a rod or concrete-encased one caps the size
 * @param sets service conductors in parallel for each phase; their areas count together
 * @example electrodeConductorSize('2/0', 'copper', 'copper', 'water pipe') // '4'
 */
export function electrodeConductorSize(
  service: Size,
  serviceMetal: TableMetal,
  metal: TableMetal,
  electrode: string,
  sets = 1,
): Size | undefined {
  const area = areaOf(service) * sets
  const row = GEC.find(r => area <= areaOf(r[serviceMetal === 'copper' ? 0 : 1]))
  const size = row?.[metal === 'copper' ? 2 : 3]
  const cap = (metal === 'copper' ? SOLE_CONNECTION : SOLE_ALUMINUM)[electrode]
  if (size === undefined || cap === undefined) return size
  return SIZES[Math.min(sizeIndex(cap), sizeIndex(size))]
}

/** A single rod, plate or pipe needs this or less to earth, or a second electrode. 250.53(A)(2). */
export const SINGLE_ROD_OHMS = 25
/** Distance between rods, feet. 250.53(B). */
export const ROD_SPACING_FT = 6
