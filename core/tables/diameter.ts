import type { Size } from './ampacity'

/** Solid conductors in the hand: trade sizes and their gauge number. */
const NUMBERS: readonly (readonly [Size, number])[] = [
  ['14', 14],
  ['12', 12],
  ['10', 10],
  ['8', 8],
  ['6', 6],
  ['4', 4],
  ['3', 3],
  ['2', 2],
  ['1', 1],
  ['1/0', 0],
  ['2/0', -1],
  ['3/0', -2],
  ['4/0', -3],
]

/**
 * Bare diameter of a gauge number in millimeters: d = 0.127 × 92^((36 − n) / 39). Chapter 9 table 8.
 * @example diameterMm(12) // 2.053
 */
export const diameterMm = (number: number): number => 0.127 * 92 ** ((36 - number) / 39)

/** The gauge number, not rounded, of a bare solid conductor of so many millimeters. */
export const gaugeNumber = (mm: number): number => 36 - (39 * Math.log(mm / 0.127)) / Math.log(92)

/** Nearest trade size; `size` undefined where the reading lies too near half way between two. */
export interface Gauged {
  readonly number: number
  readonly size: Size | undefined
  readonly nearest: readonly Size[]
}

/**
 * The trade size of a bare solid conductor from its diameter in millimeters. A reading in the middle third between
 * two sizes is neither: measure again, or slide the gauge.
 * @example gaugeOf(2.05).size // '12'
 */
export function gaugeOf(mm: number): Gauged {
  const number = gaugeNumber(mm)
  const near = [...NUMBERS].sort((a, b) => Math.abs(a[1] - number) - Math.abs(b[1] - number))
  const [first, second] = near as [(typeof near)[0], (typeof near)[0]]
  const off = Math.abs(first[1] - number)
  const step = Math.abs(first[1] - second[1])
  const isBeyond = number > 14.7 || number < -3.4
  return {
    number: Math.round(number * 100) / 100,
    size: !isBeyond && off <= step / 3 ? first[0] : undefined,
    nearest: isBeyond ? [first[0]] : [first[0], second[0]],
  }
}
