import { quantity, US_UNITS, type Units } from '../model/units'

/** Values a sentence may carry. */
export type Slots = Readonly<Record<string, string | number>>

/** A sentence not yet spoken: a template and its values. Rules build these; screens and reports render them. */
export interface Step {
  readonly text: string
  readonly slots: Slots | undefined
}

/** @example say('{a} A breaker', { a: 20 }) */
export const say = (text: string, slots?: Slots): Step => ({ text, slots })

/**
 * The sentence with its values in place, quantities in the units that are shown: `{air|°C}`,
 * `{rise|Δ°C}`. A slot without a value is a programmer's mistake and throws.
 * @example render(say('{a} A', { a: 20 })) // '20 A'
 */
export function render(step: Step, units: Units = US_UNITS): string {
  if (!step.slots && !step.text.includes('{')) return step.text
  return step.text.replace(/\{(\w+)(?:\|([^}]+))?\}/g, (_, key: string, unit?: string) => {
    const value = step.slots?.[key]
    if (value === undefined) throw new Error(`No value for {${key}} in: ${step.text}`)
    return unit !== undefined && typeof value === 'number'
      ? quantity(value, unit, units)
      : String(value)
  })
}
