/** Class A ground-fault protection opens at this current or more and never under the lower one, milliamperes. */
export const TRIP_MA = 6
export const HOLD_MA = 4

/**
 * Longest time a class A device may take, seconds: t = (20 / I)^1.43. Undefined under 6 mA, where it need not open.
 * @example longestTripSeconds(20) // 1
 */
export const longestTripSeconds = (milliamperes: number): number | undefined =>
  milliamperes < TRIP_MA ? undefined : (20 / milliamperes) ** 1.43

/** Times within which a thermal-magnetic breaker must open, for teaching and estimates only: not a rule. */
export interface TripBand {
  readonly multiple: number
  readonly withinSeconds: number | undefined
  readonly note: string
}

/**
 * Estimate of what a breaker does at a current: a band, never a line. Shape after the usual calibration tests.
 * @param rating amperes on the handle @param amps the current
 */
export function tripBand(rating: number, amps: number): TripBand {
  const multiple = Math.round((100 * amps) / rating) / 100
  const at = (withinSeconds: number | undefined, note: string): TripBand => ({
    multiple,
    withinSeconds,
    note,
  })
  if (multiple <= 1) return at(undefined, 'holds')
  if (multiple < 1.35) return at(undefined, 'may hold for hours')
  const isSmall = rating <= 50
  if (multiple < 2) return at(isSmall ? 3600 : 7200, 'opens within an hour or two')
  const slow = rating <= 30 ? 120 : rating <= 50 ? 240 : 360
  if (multiple < 5) return at(slow, 'opens by heat')
  return at(
    slow,
    multiple < 20
      ? 'perhaps at once by its magnet, else by heat'
      : 'at once by its magnet, if it has one',
  )
}
