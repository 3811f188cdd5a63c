import { GOOD_GROUND_OHMS, SOUND_GROUND_VOLTS } from '../derive/ground'
import { fieldOf, type AnyValue, type Field, type Kind } from '../model/fields'
import type { House, Subject } from '../model/house'
import { ORDINARY_PERCENT } from '../rules/outlets/voltage-drop'
import { accessOf } from '../visit/access'
import { withChanges, type Change } from './change'

/** What has to be read, measured or tried after a work, and what passes. */
export interface AcceptanceTest {
  readonly subject: string
  readonly kind: Kind
  readonly field: string
  /** How the reading is taken. */
  readonly look: string
  readonly instrument: string | undefined
  readonly passes: Pass
}
export type Pass =
  | { readonly kind: 'most'; readonly limit: number; readonly unit: string }
  | { readonly kind: 'between'; readonly low: number; readonly high: number; readonly unit: string }
  /** No limit of its own: it is read, and judged with everything else. */
  | { readonly kind: 'read'; readonly planned: number; readonly unit: string }
  | { readonly kind: 'is'; readonly value: AnyValue }

/** What a work makes so and whoever does it knows, since he put it there: told as built, thing by thing. */
export interface BuiltFact {
  readonly subject: string
  readonly kind: Kind
  readonly field: string
  readonly value: AnyValue
}

/** Limits by themselves, each that of the judgment it is for; every other number is judged with the rest. */
const MOST: Readonly<Record<string, number>> = {
  groundOhms: GOOD_GROUND_OHMS,
  groundToReferenceV: SOUND_GROUND_VOLTS,
  dropPercent: ORDINARY_PERCENT,
}
/** Tried by hand after the work, without an instrument. */
const TRIED: ReadonlySet<string> = new Set([
  'gfciButton',
  'gfciTest',
  'testButton',
  'rescan',
  'spliceState',
])

/** Told by an instrument, a tape or a trial: nobody knows it for having done the work. */
const isReading = (kind: Kind, name: string, field: Field): boolean =>
  TRIED.has(name) ||
  accessOf(kind, name).instrument !== undefined ||
  (field.type === 'number' && field.with !== undefined && field.with !== 'flashlight')

interface Noted extends BuiltFact {
  readonly declared: Field
}
/** The last word of a work on each fact, its new things included. */
function notesOf(house: House, changes: readonly Change[]): readonly Noted[] {
  const after = withChanges(house, changes)
  const last = new Map<string, Noted>()
  for (const c of changes) {
    if (c.act !== 'note') continue
    const thing: Subject | undefined = after.subjects.get(c.subject)
    const declared = thing && fieldOf(thing.kind, c.field)
    if (!thing || !declared) continue
    const { subject, field, value } = c
    last.set(`${subject} ${field}`, { subject, kind: thing.kind, field, value, declared })
  }
  return [...last.values()]
}

/** The tests of a work: of all it makes so, what only a reading or a trial proves. */
export const acceptanceTests = (
  house: House,
  changes: readonly Change[],
): readonly AcceptanceTest[] =>
  notesOf(house, changes)
    .filter(n => isReading(n.kind, n.field, n.declared))
    .map(({ subject, kind, field, value, declared }) => ({
      subject,
      kind,
      field,
      look: declared.look,
      instrument: declared.with,
      passes: passOf(field, value, 'unit' in declared ? (declared.unit ?? '') : ''),
    }))

/** The rest of what a work makes so: what was put in, and how. */
export const builtFacts = (house: House, changes: readonly Change[]): readonly BuiltFact[] =>
  notesOf(house, changes)
    .filter(n => !isReading(n.kind, n.field, n.declared))
    .map(({ subject, kind, field, value }) => ({ subject, kind, field, value }))

/** A line voltage may lie this share off its nominal value: ±10 %, as in the readings of the trade. */
const OFF = 0.1
/** From here up a voltage is one that has to be there, not one that must be small. */
const LINE_VOLTS = 100
function passOf(field: string, value: AnyValue, unit: string): Pass {
  if (typeof value !== 'number') return { kind: 'is', value }
  const limit = MOST[field]
  if (limit !== undefined) return { kind: 'most', limit, unit }
  if (unit !== 'V' || value < LINE_VOLTS) return { kind: 'read', planned: value, unit }
  const low = Math.round(value * (1 - OFF))
  return { kind: 'between', low, high: Math.round(value * (1 + OFF)), unit }
}

/** Whether a reading passes its test; one without a limit of its own is left to the judgment. */
export function passesTest({ passes }: AcceptanceTest, value: AnyValue): boolean {
  switch (passes.kind) {
    case 'is':
      return value === passes.value
    case 'most':
      return typeof value === 'number' && value <= passes.limit
    case 'between':
      return typeof value === 'number' && value >= passes.low && value <= passes.high
    case 'read':
      return typeof value === 'number'
  }
}
