import { roleOf } from '../derive/service-role'
import { STAGES, type Stage } from '../model/fields'
import { factAt, PREMISES_ID, valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import type { SpokenResult } from '../assess/assess'
import { labelOf } from '../texts/labels'
import { looksOf, type OpenLook } from './looks'

/** One place on the walk: everything to look at there, before going on. */
export interface Stop {
  readonly stage: Stage
  readonly place: { readonly id: string; readonly label: string }
  readonly looks: readonly OpenLook[]
  readonly instruments: readonly string[]
  readonly cautions: readonly string[]
  /** Judgments this stop bears on. */
  readonly settles: number
}
export interface Coverage {
  readonly id: string
  readonly label: string
  readonly settled: number
  readonly total: number
  readonly notSeen: number
}
export interface Walk {
  readonly stops: readonly Stop[]
  readonly coverage: readonly Coverage[]
  readonly blocked: readonly { label: string; fact: string; reason: string }[]
  readonly settled: number
  readonly total: number
}

/** Said before each stage; the person decides, the trade's cautions are shown. */
export const STAGE_CAUTIONS: Readonly<Record<Stage, readonly string[]>> = {
  before: [],
  outside: ['Drop and mast are live and the utility’s: look, do not touch'],
  'cover on': ['Test the cover for voltage before touching it', 'Stand to the side when switching'],
  'cover off': [
    'Only for qualified people',
    'The line side stays live with the main off',
    'A screw or the cover can touch live parts: take it straight off, both hands',
  ],
  'sub-panel': ['Incoming lugs stay live with its own main off', 'Only for qualified people'],
  trace: ['Switch off with loads off; ask what must not lose power'],
  rooms: ['A tester that says correct proves no ground'],
  'open box': [
    'Power off, locked and tagged',
    'Prove absence of voltage with a tester proved before and after',
    'A second circuit may share the box',
  ],
}
/** Words for a stage, as a person would say it. */
export const STAGE_WORDS: Readonly<Record<Stage, string>> = {
  before: 'Before you start',
  outside: 'Outside',
  'cover on': 'At the panel, cover on',
  'cover off': 'At the panel, cover off',
  'sub-panel': 'Sub-panels',
  trace: 'Tracing circuits',
  rooms: 'Room by room',
  'open box': 'Boxes to open',
}

/** The place a thing is looked at from: its enclosure, its room, its building, or the premises. */
export function placeOf(site: Site, subject: Subject, stage?: Stage): Subject {
  switch (subject.kind) {
    case 'outlet': {
      const room = site.roomOf(subject)
      return room ?? site.premises
    }
    case 'circuit':
    case 'segment': {
      const circuit =
        subject.kind === 'segment' ? site.get(subject.parent ?? undefined, 'circuit') : subject
      // What is seen in the rooms is seen where the circuit has its outlets.
      const [outlet] = stage === 'rooms' && circuit ? site.outletsOf(circuit) : []
      const room = outlet && site.roomOf(outlet)
      if (room) return room
      const breaker = site.get(circuit && valueOf(circuit, 'fedBy'), 'breaker')
      return site.get(breaker?.parent ?? undefined, 'enclosure') ?? site.premises
    }
    case 'feeder':
      return site.enclosuresOn(subject)[0] ?? site.premises
    case 'breaker':
    case 'bar':
      return site.get(subject.parent ?? undefined, 'enclosure') ?? site.premises
    case 'screw': {
      const bar = site.get(subject.parent ?? undefined, 'bar')
      return bar ? placeOf(site, bar, stage) : site.premises
    }
    case 'exposure': {
      const run = site.house.subjects.get(subject.parent ?? '')
      return run ? placeOf(site, run, stage) : site.premises
    }
    case 'electrode':
      return site.buildingOf(subject) ?? site.premises
    case 'bond':
    case 'conductor':
      return site.premises
    default:
      return subject
  }
}

/**
 * The undecided list as a route: stages in the order of work, places within a stage in the order recorded, looks of a
 * place by danger and by how much they settle; with coverage by place and what could not be seen.
 */
export function walkOf(site: Site, results: readonly SpokenResult[]): Walk {
  const open = looksOf(results)
  const stops = new Map<string, { stage: Stage; place: Subject; looks: OpenLook[] }>()
  const order = new Map([...site.house.subjects.keys()].map((id, i) => [id, i]))
  const blocked: Walk['blocked'][number][] = []
  for (const look of open) {
    if (look.state === 'blocked') {
      blocked.push({ label: look.label, fact: look.fact, reason: look.reason ?? '' })
      continue
    }
    const subject = site.house.subjects.get(look.subject) ?? site.premises
    const place = placeOf(site, subject, look.stage)
    const key = `${look.stage} ${place.id}`
    const stop = stops.get(key)
    if (stop) stop.looks.push(look)
    else stops.set(key, { stage: look.stage, place, looks: [look] })
  }
  const list = [...stops.values()]
    .sort(
      (a, b) =>
        STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage) ||
        (order.get(a.place.id) ?? 0) - (order.get(b.place.id) ?? 0),
    )
    .map(({ stage, place, looks }): Stop => ({
      stage,
      place: { id: place.id, label: labelOf(site, place) },
      looks: [...looks].sort((a, b) => b.danger - a.danger || b.settles - a.settles),
      instruments: [...new Set(looks.map(l => l.with).filter(w => w !== undefined))],
      cautions: STAGE_CAUTIONS[stage],
      settles: looks.reduce((sum, l) => sum + l.settles, 0),
    }))
  const cover = new Map<string, { settled: number; total: number; notSeen: number }>()
  let settled = 0
  let total = 0
  for (const r of results) {
    if (r.outcome === 'n/a') continue
    const subject = site.house.subjects.get(r.subject.id)
    if (!subject) continue
    const place = placeOf(site, subject)
    const entry = cover.get(place.id) ?? { settled: 0, total: 0, notSeen: 0 }
    cover.set(place.id, entry)
    entry.total++
    total++
    if (r.outcome !== 'undecided') {
      entry.settled++
      settled++
    } else if (r.missing.some(m => m.state === 'blocked')) entry.notSeen++
  }
  const coverage = [...cover]
    .map(([id, c]): Coverage => ({
      id,
      label: id === PREMISES_ID ? 'The property' : labelOf(site, site.house.subjects.get(id)!),
      ...c,
    }))
    .sort((a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0))
  return { stops: list, coverage, blocked, settled, total }
}

/** Something begun and not followed to its end; to be closed, or disclosed with a reason, before a report is signed. */
export interface OpenLoop {
  readonly subject: string
  readonly field: string
  readonly label: string
  readonly text: string
  readonly disclosed: string | undefined
}

/**
 * The register of open loops: nameplates not read, enclosures not opened, breakers and circuits
 * that find no partner.
 */
export function openLoopsOf(site: Site): OpenLoop[] {
  const loops: OpenLoop[] = []
  const loop = (subject: Subject, field: string, text: string) => {
    const fact = factAt(subject, field)
    loops.push({
      subject: subject.id,
      field,
      label: labelOf(site, subject),
      text,
      disclosed: fact?.state === 'blocked' ? fact.reason : undefined,
    })
  }
  for (const e of site.all.enclosure) {
    if (valueOf(e, 'fedFrom') === undefined) loop(e, 'fedFrom', 'What feeds it has not been found')
    if (valueOf(e, 'type') !== 'meter' && valueOf(e, 'mainKind') === undefined)
      loop(e, 'mainKind', 'Not opened: what the supply lands on has not been seen')
    if (
      site.all.enclosure.length > 0 &&
      roleOf(site, e).value === undefined &&
      valueOf(e, 'marking') === undefined &&
      valueOf(e, 'type') !== 'meter'
    )
      loop(e, 'marking', 'Service disconnect or not: its marking has not been read')
  }
  for (const f of site.all.feeder) {
    if (valueOf(f, 'from') === undefined) loop(f, 'from', 'Where it starts has not been found')
    if (site.enclosuresOn(f).length === 0) loop(f, 'egc', 'What it feeds has not been recorded')
  }
  for (const b of site.all.breaker) {
    const role = valueOf(b, 'role')
    if (role === 'spare' || role === 'main' || role === 'backfed source') continue
    if (role === 'feeder' ? site.feedersFrom(b).length === 0 : site.circuitsOf(b).length === 0)
      loop(
        b,
        'role',
        role === 'feeder'
          ? 'A feeder breaker: what it feeds has not been recorded'
          : 'What this breaker feeds has not been found',
      )
  }
  for (const c of site.all.circuit) {
    if (valueOf(c, 'fedBy') === undefined)
      loop(c, 'fedBy', 'Which breaker feeds it has not been found')
    const supplies = valueOf(c, 'supplies')
    if (supplies === 'air conditioning' || supplies === 'motor') {
      if (valueOf(c, 'nameplateMca') === undefined) loop(c, 'nameplateMca', 'Nameplate not read')
    }
    if (site.outletsOf(c).length === 0) loop(c, 'supplies', 'No outlet found on it')
  }
  for (const p of site.all.outlet)
    if (valueOf(p, 'circuit') === undefined)
      loop(p, 'circuit', 'Which circuit it is on has not been found')
  return loops
}
