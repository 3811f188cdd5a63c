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
    const passes: Pass =
      typeof c.value === 'number'
        ? { kind: 'most', limit: limitOf(c.field, c.value), unit }
        : { kind: 'is', value: c.value }
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

const limitOf = (field: string, expected: number): number =>
  MOST[field] ?? (field === 'temperatureC' ? expected + WARMER : expected)

/** Whether a reading passes its test. */
export const passesTest = ({ passes }: AcceptanceTest, value: AnyValue): boolean =>
  passes.kind === 'is' ? value === passes.value : typeof value === 'number' && value <= passes.limit
