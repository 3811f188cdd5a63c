import type { Edition } from './editions'

/** Trade sizes, thinnest first: AWG up to 4/0, then kcmil. */
export const SIZES = [
  '14',
  '12',
  '10',
  '8',
  '6',
  '4',
  '3',
  '2',
  '1',
  '1/0',
  '2/0',
  '3/0',
  '4/0',
  '250',
  '300',
  '350',
  '400',
  '500',
  '600',
  '700',
  '750',
] as const
export type Size = (typeof SIZES)[number]
export const sizeIndex = (size: Size): number => SIZES.indexOf(size)

/** Column of the ampacity table, °C. */
export type Column = 60 | 75 | 90
/** Which half of the ampacity table a conductor uses; copper-clad aluminum uses the aluminum half. */
export type TableMetal = 'copper' | 'aluminum'

type Row = readonly [number, number, number]

/** Amperes, three or fewer current-carrying conductors, 30 °C ambient. Sections 310.16 / 310.15(B)(16). */
const COPPER: Partial<Record<Size, Row>> = {
  '14': [15, 20, 25],
  '12': [20, 25, 30],
  '10': [30, 35, 40],
  '8': [40, 50, 55],
  '6': [55, 65, 75],
  '4': [70, 85, 95],
  '3': [85, 100, 115],
  '2': [95, 115, 130],
  '1': [110, 130, 145],
  '1/0': [125, 150, 170],
  '2/0': [145, 175, 195],
  '3/0': [165, 200, 225],
  '4/0': [195, 230, 260],
  '250': [215, 255, 290],
  '300': [240, 285, 320],
  '350': [260, 310, 350],
  '400': [280, 335, 380],
  '500': [320, 380, 430],
  '600': [350, 420, 475],
  '700': [385, 460, 520],
  '750': [400, 475, 535],
}
const ALUMINUM: Partial<Record<Size, Row>> = {
  '12': [15, 20, 25],
  '10': [25, 30, 35],
  '8': [35, 40, 45],
  '6': [40, 50, 55],
  '4': [55, 65, 75],
  '3': [65, 75, 85],
  '2': [75, 90, 100],
  '1': [85, 100, 115],
  '1/0': [100, 120, 135],
  '2/0': [115, 135, 150],
  '3/0': [130, 155, 175],
  '4/0': [150, 180, 205],
  '250': [170, 205, 230],
  '300': [195, 230, 260],
  '350': [210, 250, 280],
  '400': [225, 270, 305],
  '500': [260, 310, 350],
  '600': [285, 340, 385],
  '700': [315, 375, 425],
  '750': [320, 385, 435],
}
/** Values the 2008 edition printed differently. */
const COPPER_2008: Partial<Record<Size, Row>> = {
  '14': [20, 20, 25],
  '12': [25, 25, 30],
  '3': [85, 100, 110],
  '1': [110, 130, 150],
}
const ALUMINUM_2008: Partial<Record<Size, Row>> = {
  '12': [20, 20, 25],
  '8': [30, 40, 45],
  '6': [40, 50, 60],
}

const COLUMN_INDEX: Record<Column, 0 | 1 | 2> = { 60: 0, 75: 1, 90: 2 }

/**
 * Table ampacity in amperes, or undefined where the table has no such conductor (14 AWG aluminum).
 * @example tableAmpacity('12', 'copper', 60, 2020) // 20
 */
export function tableAmpacity(
  size: Size,
  metal: TableMetal,
  column: Column,
  edition: Edition,
): number | undefined {
  const early =
    edition === 2008 ? (metal === 'copper' ? COPPER_2008 : ALUMINUM_2008)[size] : undefined
  const row = early ?? (metal === 'copper' ? COPPER : ALUMINUM)[size]
  return row?.[COLUMN_INDEX[column]]
}

/** Upper bound of each ambient band in °C, and the factors for 60, 75 and 90 °C insulation. 310.15(B)(1). */
const AMBIENT: readonly (readonly [number, number | null, number | null, number])[] = [
  [10, 1.29, 1.2, 1.15],
  [15, 1.22, 1.15, 1.12],
  [20, 1.15, 1.11, 1.08],
  [25, 1.08, 1.05, 1.04],
  [30, 1.0, 1.0, 1.0],
  [35, 0.91, 0.94, 0.96],
  [40, 0.82, 0.88, 0.91],
  [45, 0.71, 0.82, 0.87],
  [50, 0.58, 0.75, 0.82],
  [55, 0.41, 0.67, 0.76],
  [60, null, 0.58, 0.71],
  [65, null, 0.47, 0.65],
  [70, null, 0.33, 0.58],
  [75, null, null, 0.5],
  [80, null, null, 0.41],
  [85, null, null, 0.29],
]

/** Correction factor for an ambient in °C; 0 where that insulation may not be used so hot. */
export function ambientFactor(ambientC: number, column: Column): number {
  const band = AMBIENT.find(b => ambientC <= b[0])
  if (!band) return 0
  return band[COLUMN_INDEX[column] + 1] ?? 0
}

/** Adjustment for the number of current-carrying conductors together. 310.15(C)(1); 310.15(B)(3)(a) before 2020. */
export function bundlingFactor(currentCarrying: number): number {
  if (currentCarrying <= 3) return 1
  if (currentCarrying <= 6) return 0.8
  if (currentCarrying <= 9) return 0.7
  if (currentCarrying <= 20) return 0.5
  if (currentCarrying <= 30) return 0.45
  if (currentCarrying <= 40) return 0.4
  return 0.35
}

/** Standard overcurrent device ratings, amperes; 10 A joins in 2023. 240.6(A). */
export function standardRatings(edition: Edition): readonly number[] {
  return edition >= 2023 ? [10, ...STANDARD] : STANDARD
}
const STANDARD = [
  15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350,
  400,
]

/** Largest device 240.4(D) allows on a small conductor, amperes; undefined for sizes it does not name. */
export function smallConductorLimit(
  size: Size,
  metal: TableMetal,
  isCopperClad: boolean,
  edition: Edition,
): number | undefined {
  if (metal === 'copper') return { '14': 15, '12': 20, '10': 30 }[size as '14']
  if (size === '14') return isCopperClad && edition >= 2023 ? 10 : undefined
  return { '12': 15, '10': 25 }[size as '12']
}

/**
 * Service or whole-dwelling feeder rating → smallest conductor, by metal. 310.12; 310.15(B)(7)
 * 2011–2017; 310.15(B)(6) in 2008.
 */
const WHOLE_DWELLING: readonly (readonly [number, Size, Size])[] = [
  [100, '4', '2'],
  [110, '3', '1'],
  [125, '2', '1/0'],
  [150, '1', '2/0'],
  [175, '1/0', '3/0'],
  [200, '2/0', '4/0'],
  [225, '3/0', '250'],
  [250, '4/0', '300'],
  [300, '250', '350'],
  [350, '350', '500'],
  [400, '400', '600'],
]

/**
 * Largest rating, in amperes, of a service or feeder that carries the whole dwelling on this
 * conductor; undefined below 100 A.
 */
export function wholeDwellingRating(size: Size, metal: TableMetal): number | undefined {
  const at = sizeIndex(size)
  let found: number | undefined
  for (const [amps, copper, aluminum] of WHOLE_DWELLING) {
    if (at >= sizeIndex(metal === 'copper' ? copper : aluminum)) found = amps
  }
  return found
}
