/** Checking a recorded value against its declaration, with the unit conversions people write by hand. */
import { z } from 'zod'
import type { Field } from './fields'

/** Other units a value may be written in, and how to bring them to the declared one. */
const CONVERSIONS: Record<string, Record<string, (x: number) => number>> = {
  '°C': { '°F': f => (f - 32) / 1.8, F: f => (f - 32) / 1.8, C: c => c },
  A: { amps: x => x, kA: x => x * 1000, mA: x => x / 1000 },
  V: { volts: x => x, mV: x => x / 1000, kV: x => x * 1000 },
  Ω: { ohm: x => x, ohms: x => x, mΩ: x => x / 1000, kΩ: x => x * 1000 },
  in: { ft: x => x * 12, mm: x => x / 25.4, cm: x => x / 2.54, m: x => x / 0.0254 },
  'in³': { 'cm³': x => x / 16.387064, 'cu in': x => x },
}

/** The value in the declared unit; undefined where the unit does not fit the field. */
export function convert(field: Field, value: unknown, unit: string | undefined): unknown {
  if (unit === undefined) return value
  const declared = field.type === 'number' || field.type === 'choice' ? (field.unit ?? '') : ''
  if (unit === declared) return value
  const by = CONVERSIONS[declared]?.[unit]
  if (!by || typeof value !== 'number') return undefined
  return Math.round(by(value) * 1e6) / 1e6
}

/** No control characters but line breaks and tabs; everything else is text, never markup. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/
const plain = (max: number) =>
  z
    .string()
    .max(max, `longer than ${max} characters`)
    .refine(s => !CONTROL.test(s), 'contains control characters')

export const ID = z
  .string()
  .min(1, 'an id cannot be empty')
  .max(120, 'longer than 120 characters')
  .regex(/^[\w][\w .:/#-]*$/, 'ids are letters, digits, and . : / # - _')
const year = z.number().int().min(1870, 'before 1870').max(2100, 'after 2100')

const schemas = new WeakMap<Field, z.ZodType>()
/** The Zod schema of a field's value in its declared unit; made once: a log asks for the same one a thousand times. */
export function valueSchema(field: Field): z.ZodType {
  const known = schemas.get(field)
  if (known) return known
  const made = schemaOf(field)
  schemas.set(field, made)
  return made
}
function schemaOf(field: Field): z.ZodType {
  switch (field.type) {
    case 'number': {
      const base = field.integer ? z.number().int('a whole number is expected') : z.number()
      return base
        .min(field.min, `less than ${field.min} ${field.unit}`.trim())
        .max(field.max, `more than ${field.max} ${field.unit}`.trim())
    }
    case 'choice':
      return z.literal([...field.options] as [string | number, ...(string | number)[]])
    case 'flag':
      return z.boolean()
    case 'text':
      return plain(field.max)
    case 'year':
      return z.union([
        year,
        z.tuple([year, year]).refine(([a, b]) => a <= b, 'the interval ends before it begins'),
      ])
    case 'ref':
      return ID
    case 'refs':
      return z.array(ID).max(12)
  }
}

/** What the field takes, in words. */
export function expects(field: Field): string {
  switch (field.type) {
    case 'number':
      return (
        `${field.integer ? 'a whole number' : 'a number'} from ${field.min} to ` +
        `${field.max}${field.unit ? ` ${field.unit}` : ''}`
      )
    case 'choice':
      return `one of ${field.options.map(o => JSON.stringify(o)).join(', ')}`
    case 'flag':
      return 'true or false'
    case 'text':
      return `text of at most ${field.max} characters`
    case 'year':
      return 'a year, or [from, to]'
    case 'ref':
      return [`the id of a ${field.kinds.join(' or ')}`, ...wordsOf(field.words)].join(', ')
    case 'refs':
      return `a list of ids of ${field.kinds.join(' or ')}`
  }
}

const wordsOf = (words: readonly string[]): string[] =>
  words.length > 0 ? [`or ${words.map(w => JSON.stringify(w)).join(', ')}`] : []

export { plain as plainText }
