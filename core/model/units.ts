/** How quantities are shown. Files and calculations keep the declared units whatever is shown. */
export interface Units {
  /** Temperatures in °C; in °F where not. Ratings of insulation and terminals are always in °C, as printed. */
  readonly celsius: boolean
}
export const US_UNITS: Units = { celsius: false }

/** From this many inches on a length is said in feet and inches. */
const LONG_IN = 24
const fahrenheit = (c: number): number => Math.round(c * 1.8 + 32)
const round = (value: number, step: number): number => Math.round(value / step) * step

/**
 * A value with its unit, as it is shown: °F, feet and inches.
 * @param unit the declared one; `Δ°C` for a difference of temperatures
 * @example quantity(50, '°C') // '122 °F'
 * @example quantity(7.5, 'ft') // '7 ft 6 in'
 */
export function quantity(value: number, unit: string, units: Units = US_UNITS): string {
  switch (unit) {
    case '°C':
      return units.celsius ? `${value} °C` : `${fahrenheit(value)} °F`
    case 'Δ°C':
      return units.celsius ? `${value} °C` : `${Math.round(value * 1.8)} °F`
    case 'ft':
      return Number.isInteger(value) ? `${value} ft` : feetAndInches(value * 12)
    case 'in':
      return Math.abs(value) >= LONG_IN ? feetAndInches(value) : `${value} in`
    default:
      return unit === '' ? String(value) : `${value} ${unit}`
  }
}

function feetAndInches(inches: number): string {
  const all = round(inches, 0.25)
  const feet = Math.trunc(all / 12)
  const rest = Math.abs(all - feet * 12)
  if (feet === 0) return `${rest} in`
  return rest === 0 ? `${feet} ft` : `${feet} ft ${rest} in`
}

/** The unit a number is typed in, and how it becomes the declared one. */
export function typedIn(
  unit: string,
  units: Units = US_UNITS,
): { unit: string; declared(value: number): number } {
  if (unit !== '°C' || units.celsius) return { unit, declared: value => value }
  return { unit: '°F', declared: value => Math.round(((value - 32) / 1.8) * 10) / 10 }
}
/** A declared value as somebody would type it. */
export const asTyped = (value: number, unit: string, units: Units = US_UNITS): number =>
  unit === '°C' && !units.celsius ? fahrenheit(value) : value
