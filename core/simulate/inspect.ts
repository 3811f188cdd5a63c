/**
 * An inspector for simulated houses: knows what things there are, asks what the visit asks, reads what the instruments
 * read, and stops when nothing is asked any more or the budget of looks is spent.
 */
import { speak } from '../assess/assess'
import type { OutletState } from '../diagnosis/states'
import { evaluate, type Result } from '../engine/evaluate'
import { fieldOf, type AnyValue } from '../model/fields'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { Site } from '../derive/site'
import { RULES } from '../rules'
import { ACCESS, INSTRUMENTS } from '../visit/access'
import { scopeOf } from '../visit/scope'
import { visitOf } from '../visit/visit'
import type { Injected } from './drafts'
import { seeded, type Random } from './random'
import {
  answerOf,
  instrumentOf,
  recorded,
  simulateHouse,
  type SimulatedHouse,
  type SimulateOptions,
} from './simulated'

export interface Inspected {
  readonly site: Site
  /** Looks taken. */
  readonly looks: number
  /** Still asked for when the budget was spent. */
  readonly isCutShort: boolean
}
/** Told by the same instrument in the same plug: whoever reads the one has read the others. */
const SAME_PLUG: Readonly<Record<string, readonly string[]>> = {
  dropPercent: ['hotNeutralV', 'groundOhms', 'neutralGroundRiseV', 'testLoadA'],
}
/** Rounds of asking: what one answer opens is asked in the next. */
const MOST_ROUNDS = 40

/**
 * Nobody is sent for these: what is presumed of them holds until somebody says otherwise, and whoever stands there says
 * so unasked.
 */
const NOTICED: ReadonlySet<string> = new Set([
  'alsoUse',
  'isBelowGrade',
  'serviceSets',
  'sets',
  'handleTie',
  'half',
  'section',
  'fromTerminals',
  'isThroughDoorway',
  'requiredUse',
  'connector',
  'egcSize',
  'heightFt',
  'unitFuseAmps',
  'heaterKind',
  'applianceKw',
  'applianceAmps',
])
/** What one sees by standing in front of it: which things there are, what they are called, what hangs on what. */
export function bareLog(log: readonly Observation[]): Observation[] {
  const kinds = new Map(log.flatMap(o => (o.act === 'add' ? [[o.subject, o.kind] as const] : [])))
  return log.filter(o => {
    if (o.act === 'add') return true
    if (o.act !== 'note') return false
    const kind = kinds.get(o.subject) ?? (o.subject === 'premises' ? 'premises' : undefined)
    const field = kind && fieldOf(kind, o.field)
    // Whom it is for and which law holds is known before one goes.
    if (kind === 'premises' && (o.field === 'edition' || o.field === 'purpose')) return true
    if (kind === 'adoption' || NOTICED.has(o.field)) return true
    return field?.type === 'ref' || field?.type === 'refs' || field?.type === 'text'
  })
}

/**
 * Inspects a house.
 * @param answers everything as recorded by somebody who looked everywhere
 * @param budget looks there is time for; none: until nothing is asked
 */
export function inspect(log: readonly Observation[], answers: Site, budget = Infinity): Inspected {
  const ledger = new Ledger(bareLog(log))
  const asked = new Set<string>()
  // Nothing is presumed and nothing left out: every look at every thing.
  const scope = scopeOf({
    access: [...ACCESS],
    instruments: [...INSTRUMENTS],
    sample: 'every outlet',
    widened: [...answers.house.subjects.keys()],
  })
  let looks = 0
  let made = 0
  const stamped = (): Pick<Observation, 'id' | 'at' | 'by' | 'clock'> => ({
    id: `i${String(made++).padStart(6, '0')}`,
    at: '2026-06-09T09:00:00.000Z',
    by: 'inspector',
    clock: `9${String(made).padStart(16, '0')}`,
  })
  const note = (subject: string, field: string, value: AnyValue): Observation => {
    const instrument = instrumentOf(answers.house.subjects.get(subject)?.kind, field)
    return {
      ...stamped(),
      act: 'note',
      subject,
      field,
      value,
      grade: instrument ? 'measured' : 'seen',
      ...(instrument && { instrument }),
    }
  }
  /** Looked for, and there was nothing that could be recorded. */
  const blocked = (subject: string, field: string): Observation => ({
    ...stamped(),
    act: 'block',
    subject,
    field,
    reason: 'nothing to read there',
  })
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const site = new Site(ledger.house)
    // Only what is open is asked about; faults make the same look likelier elsewhere.
    const results = evaluate(site, RULES)
      .filter(r => r.outcome === 'undecided' || r.outcome === 'fault')
      .map(r => speak(r, site))
    const visit = visitOf(site, results, scope)
    const found: Observation[] = []
    const take = (subject: string, field: string): boolean => {
      const key = `${subject} ${field}`
      if (asked.has(key)) return true
      if (looks >= budget) return false
      asked.add(key)
      looks++
      const value = answerOf(answers, subject, field)
      if (value !== undefined) found.push(note(subject, field, value))
      else found.push(blocked(subject, field))
      for (const other of SAME_PLUG[field] ?? []) take(subject, other)
      return true
    }
    for (const stop of visit.stops) {
      for (const { thing, field } of stop.attestation?.writes ?? []) take(thing, field)
      for (const q of stop.questions) if (!q.isThing) for (const t of q.things) take(t.id, q.field)
    }
    if (found.length === 0) return { site, looks, isCutShort: looks >= budget }
    ledger.append(found)
  }
  return { site: new Site(ledger.house), looks, isCutShort: looks >= budget }
}

export interface Tour {
  readonly seed: number
  readonly injected: readonly Injected[]
  readonly missed: readonly Injected[]
  /** Faults of what is clear with everything known, as `rule subject`; what names a fault that is there is none. */
  readonly invented: readonly string[]
  /** Judgments left undecided though nothing is left to look at. */
  readonly stuck: readonly string[]
  /** Left undecided until something found is mended and the same is measured again. */
  readonly again: readonly string[]
  readonly looks: number
  readonly isCutShort: boolean
}

/** The state of an outlet in which the neutral of the service is gone. */
const SERVICE_NEUTRAL_OPEN: OutletState = 'open service neutral'
const namesServiceNeutral = (r: Result): boolean =>
  r.failures.some(f => Object.values(f.data).some(v => String(v).includes(SERVICE_NEUTRAL_OPEN)))
const keyOf = (r: Result): string => `${r.rule.id} ${r.subject.id}`
const faultKey = (i: Injected): string => `${i.kind} ${i.rule} ${i.subject}`

/** A house, its inspection, and the difference. */
export function tour(seed: number, options: SimulateOptions, budget?: number): Tour {
  const house = simulateHouse(seed, options)
  return compare(house, seeded(seed + 7_000_000), budget)
}
export function compare(house: SimulatedHouse, random: Random, budget?: number): Tour {
  const { log, site: answers } = recorded(house, random)
  const { site, looks, isCutShort } = inspect(log, answers, budget)
  const results = evaluate(site, RULES)
  const faults = new Set(
    results.filter(r => r.outcome === 'fault' || r.outcome === 'allowed').map(keyOf),
  )
  const open = results.filter(r => r.outcome === 'undecided')
  // What it asks for has been read: it asks to read it once more, with the rest in order.
  const isAgain = (r: Result) =>
    r.missing.length > 0 && r.missing.every(m => answerOf(site, m.subject, m.field) !== undefined)
  // What is open with everything known (a failing service neutral lifts every ground) is no invention when found.
  const truthOpen = new Set(
    evaluate(house.truth, RULES)
      .filter(r => r.outcome === 'undecided')
      .map(keyOf),
  )
  // A failing service neutral is one fault of the whole house: it is found wherever its two halves give it away.
  const isFound = (i: Injected) =>
    i.kind === 'service neutral failing'
      ? [...faults].some(f => f.startsWith(`${i.rule} `))
      : faults.has(`${i.rule} ${i.subject}`)
  // So is a receptacle whose voltages name it, though a perfect meter would have read a volt short of proof there.
  const sightings = new Set(
    house.injected.some(i => i.kind === 'service neutral failing')
      ? results.filter(namesServiceNeutral).map(keyOf)
      : [],
  )
  return {
    seed: house.seed,
    injected: house.injected,
    missed: house.injected.filter(i => !isFound(i)),
    invented: [...faults].filter(
      f => !house.faults.has(f) && !truthOpen.has(f) && !sightings.has(f),
    ),
    stuck: isCutShort ? [] : open.filter(r => !isAgain(r)).map(keyOf),
    again: open.filter(isAgain).map(keyOf),
    looks,
    isCutShort,
  }
}

export interface RoundTrip {
  readonly houses: number
  readonly injected: number
  readonly found: number
  readonly missed: readonly (Injected & { readonly seed: number })[]
  readonly invented: readonly { readonly seed: number; readonly finding: string }[]
  readonly stuck: readonly { readonly seed: number; readonly judgment: string }[]
  readonly again: number
  readonly looks: number
  /** How often each kind was put in and found, by rule. */
  readonly rules: Readonly<Record<string, { readonly put: number; readonly found: number }>>
  readonly kinds: Readonly<Record<string, { readonly put: number; readonly found: number }>>
}
/** Faults in house `i` of a round trip: one to four. */
export const faultsIn = (i: number): number => 1 + (i % 4)

/** House `i` of a round trip and its inspection; every fifth is a small one. */
export const tourOf = (i: number, seed: number): Tour =>
  tour(seed * 100_003 + i, { faults: faultsIn(i), isSmall: i % 5 === 4 })

/**
 * So many houses with one to four faults each, inspected, and counted.
 * @param onHouse told after each, for progress; false ends it
 */
export function roundTrip(
  houses: number,
  seed: number,
  onHouse?: (done: number) => boolean | undefined,
): RoundTrip {
  const tours: Tour[] = []
  for (let i = 0; i < houses; i++) {
    tours.push(tourOf(i, seed))
    if (onHouse?.(i + 1) === false) break
  }
  return sumUp(tours)
}
/** What many inspections come to; they may have been made by other processes and come as JSON. */
export function sumUp(tours: readonly Tour[]): RoundTrip {
  const tally = (groupOf: (i: Injected) => string) => {
    const counts: Record<string, { put: number; found: number }> = {}
    for (const t of tours) {
      const missed = new Set(t.missed.map(faultKey))
      for (const i of t.injected) {
        const c = (counts[groupOf(i)] ??= { put: 0, found: 0 })
        c.put++
        if (!missed.has(faultKey(i))) c.found++
      }
    }
    return Object.fromEntries(Object.entries(counts).sort(([a], [b]) => (a < b ? -1 : 1)))
  }
  return {
    houses: tours.length,
    injected: tours.reduce((n, t) => n + t.injected.length, 0),
    found: tours.reduce((n, t) => n + t.injected.length - t.missed.length, 0),
    missed: tours.flatMap(t => t.missed.map(i => ({ ...i, seed: t.seed }))),
    invented: tours.flatMap(t => t.invented.map(finding => ({ seed: t.seed, finding }))),
    stuck: tours.flatMap(t => t.stuck.map(judgment => ({ seed: t.seed, judgment }))),
    again: tours.reduce((n, t) => n + t.again.length, 0),
    looks: tours.reduce((n, t) => n + t.looks, 0),
    rules: tally(i => i.rule),
    kinds: tally(i => i.kind),
  }
}
