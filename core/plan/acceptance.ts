import { fieldOf, type AnyValue, type Field } from '../model/fields'
import type { House } from '../model/house'
import type { Change } from './change'

/** What has to be read or tried after a work, and what passes. */
export interface AcceptanceTest {
  readonly subject: string
  readonly field: string
  /** How the reading is taken. */
  readonly look: string
  readonly instrument: string | undefined
  readonly passes: Pass
}
export type Pass =
  | { readonly kind: 'most'; readonly limit: number; readonly unit: string }
  | { readonly kind: 'between'; readonly low: number; readonly high: number; readonly unit: string }
  | { readonly kind: 'is'; readonly value: AnyValue }

/** Limits of readings: tables.md §8 of the trade; a loop of more is no ground one relies on. */
const MOST: Readonly<Record<string, number>> = {
  groundOhms: 1,
  groundToReferenceV: 5,
  dropPercent: 5,
  neutralGroundRiseV: 2,
  groundClampA: 0.1,
}
/** A sound terminal at the same load is at most this much warmer than the work expects, in °C. */
const WARMER = 10
/** Fields that are tried by hand after the work, without an instrument. */
const TRIED: ReadonlySet<string> = new Set([
  'gfciButton',
  'gfciTest',
  'testButton',
  'rescan',
  'spliceState',
])
const INSTRUMENTS = /tester|multimeter|analyzer|clamp|thermometer|impedance/

const isReading = (name: string, field: Field): boolean =>
  TRIED.has(name) || name in MOST || (field.with !== undefined && INSTRUMENTS.test(field.with))

/** The tests of a work: of all it makes so, what only a reading or a trial proves. */
export function acceptanceTests(
  house: House,
  changes: readonly Change[],
): readonly AcceptanceTest[] {
  const last = new Map<string, AcceptanceTest>()
  for (const c of changes) {
    if (c.act !== 'note') continue
    const thing = house.subjects.get(c.subject)
    const field = thing && fieldOf(thing.kind, c.field)
    if (!field || !isReading(c.field, field)) continue
    const unit = 'unit' in field ? (field.unit ?? '') : ''
    const passes = passOf(c.field, c.value, unit)
    const { subject, field: name } = c
    last.set(`${subject} ${name}`, {
      subject,
      field: name,
      look: field.look,
      instrument: field.with,
      passes,
    })
  }
  return [...last.values()]
}

/** A line voltage may lie this share off its nominal value. */
const OFF = 0.1
/** From here up a voltage is one that has to be there, not one that must be small. */
const LINE_VOLTS = 100
function passOf(field: string, value: AnyValue, unit: string): Pass {
  if (typeof value !== 'number') return { kind: 'is', value }
  if (unit === 'V' && value >= LINE_VOLTS && MOST[field] === undefined)
    return {
      kind: 'between',
      low: Math.round(value * (1 - OFF)),
      high: Math.round(value * (1 + OFF)),
      unit,
    }
  return { kind: 'most', limit: limitOf(field, value), unit }
}

const limitOf = (field: string, expected: number): number =>
  MOST[field] ?? (field === 'temperatureC' ? expected + WARMER : expected)

/** Whether a reading passes its test. */
export function passesTest({ passes }: AcceptanceTest, value: AnyValue): boolean {
  if (passes.kind === 'is') return value === passes.value
  if (typeof value !== 'number') return false
  return passes.kind === 'most'
    ? value <= passes.limit
    : value >= passes.low && value <= passes.high
}
