import { z } from 'zod'
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { FIELDS } from '../model/fields'
import { gfciRowsOf, type Bearing } from '../tables/protection-years'
import { GROUND_RUN_SINCE } from '../tables/years'
import { ACCESS, accessAt, INSTRUMENTS, type Access, type Instrument } from './access'

export const PURPOSES = FIELDS.premises.purpose.options
export type Purpose = (typeof PURPOSES)[number]
/** Which outlets are looked at. */
export const SAMPLES = ['every outlet', 'one per room', 'only those named'] as const
export type Sample = (typeof SAMPLES)[number]

/** What a visit covers. Everything that lies outside is said in the limitations, and never taken as settled. */
export const scopeSchema = z.strictObject({
  purpose: z.enum(PURPOSES).optional(),
  /** How far looks go. */
  access: z.array(z.enum(ACCESS)).optional(),
  /** Instruments carried. */
  instruments: z.array(z.enum(INSTRUMENTS)).optional(),
  sample: z.enum(SAMPLES).optional(),
  /** Ids of outlets named by the client; looked at whatever the sample. */
  named: z.array(z.string().max(200)).max(2000).optional(),
  /** Ids of buildings, rooms, enclosures or circuits the visit is about; empty or absent: the whole property. */
  area: z.array(z.string().max(200)).max(200).optional(),
  /** Ids of single things for which every look is taken. */
  widened: z.array(z.string().max(200)).max(2000).optional(),
})
export type ScopeInput = z.infer<typeof scopeSchema>
export interface Scope {
  readonly purpose: Purpose
  readonly access: ReadonlySet<Access>
  readonly instruments: ReadonlySet<Instrument>
  readonly sample: Sample
  readonly named: ReadonlySet<string>
  readonly area: ReadonlySet<string>
  readonly widened: ReadonlySet<string>
}

interface Preset {
  readonly title: string
  readonly access: readonly Access[]
  readonly instruments: readonly Instrument[]
  readonly sample: Sample
}
const POCKET = ['three-lamp tester', 'voltage tester', 'non-contact detector'] as const
const BENCH = [
  ...POCKET,
  'multimeter',
  'branch analyzer',
  'clamp meter',
  'circuit tracer',
  'infrared thermometer',
  'thermometer',
] as const
/** What a visit of each purpose promises, until somebody says otherwise. */
export const PRESETS: Readonly<Record<Purpose, Preset>> = {
  purchase: {
    title: 'What can be seen, panel covers off, a sample of outlets',
    access: ['seen', 'cover off', 'measured'],
    instruments: POCKET,
    sample: 'one per room',
  },
  insurance: {
    title: 'What an insurer asks for: service, panels, kinds of wiring, a sample of outlets',
    access: ['seen', 'cover off', 'measured'],
    instruments: POCKET,
    sample: 'one per room',
  },
  rental: {
    title: 'Every outlet, alarms and panels from the outside; nothing is opened',
    access: ['seen', 'measured'],
    instruments: POCKET,
    sample: 'every outlet',
  },
  service: {
    title: 'One circuit or one symptom, followed as far as it goes',
    access: ACCESS.filter(a => a !== 'utility side' && a !== 'attic or crawl space'),
    instruments: BENCH,
    sample: 'every outlet',
  },
  remodel: {
    title: 'Everything the work touches, opened, traced and measured',
    access: ACCESS.filter(a => a !== 'utility side'),
    instruments: BENCH,
    sample: 'every outlet',
  },
  final: {
    title: 'The whole of the work, covers off, with its papers',
    access: ['seen', 'cover off', 'record', 'measured'],
    instruments: [...POCKET, 'multimeter'],
    sample: 'every outlet',
  },
}

/**
 * The scope of a visit: the preset of its purpose, changed by what somebody said.
 * @example scopeOf({ purpose: 'purchase', instruments: ['multimeter'] })
 */
export function scopeOf(input: ScopeInput = {}): Scope {
  const purpose = input.purpose ?? 'purchase'
  const preset = PRESETS[purpose]
  return {
    purpose,
    // What stands in front of one is always looked at.
    access: new Set<Access>(['seen', ...(input.access ?? preset.access)]),
    instruments: new Set(input.instruments ?? preset.instruments),
    sample: input.sample ?? preset.sample,
    named: new Set(input.named),
    area: new Set(input.area),
    widened: new Set(input.widened),
  }
}

/** Why a look lies outside a visit. */
export type Outside =
  | { readonly by: 'access'; readonly access: Access }
  | { readonly by: 'instrument'; readonly instrument: Instrument }
  | { readonly by: 'sample' }
  | { readonly by: 'area' }

/** Why looks at a thing lie outside the visit, or undefined where the visit covers it. Made once for a scope. */
export class Covering {
  readonly #sampled: ReadonlySet<string> | undefined
  readonly #inArea = new Map<string, boolean>()
  constructor(
    readonly site: Site,
    readonly scope: Scope,
  ) {
    this.#sampled = scope.sample === 'every outlet' ? undefined : sampled(site, scope)
  }

  outside(subject: Subject, field: string): Outside | undefined {
    const { scope } = this
    if (scope.widened.has(subject.id)) return undefined
    if (!this.covers(subject)) return { by: 'area' }
    if (subject.kind === 'outlet' && this.#sampled && !this.#sampled.has(subject.id))
      return { by: 'sample' }
    const { classes, instrument } = accessAt(this.site, subject, field)
    // What needs the most to be opened is named first: it is why nobody looked.
    for (const access of [...ACCESS].reverse())
      if (access !== 'measured' && classes.includes(access) && !scope.access.has(access))
        return { by: 'access', access }
    if (!instrument) return undefined
    return scope.access.has('measured') && scope.instruments.has(instrument)
      ? undefined
      : { by: 'instrument', instrument }
  }

  /** Whether a thing belongs to what the visit is about. */
  covers(subject: Subject): boolean {
    if (this.scope.area.size === 0 || subject.kind === 'premises') return true
    let is = this.#inArea.get(subject.id)
    if (is === undefined)
      this.#inArea.set(subject.id, (is = this.#homes(subject).some(id => this.scope.area.has(id))))
    return is
  }

  /** The things a thing belongs to, itself first. */
  #homes(subject: Subject): string[] {
    const { site } = this
    const homes = new Set<string>()
    const add = (thing: Subject | undefined): void => {
      if (!thing || homes.has(thing.id)) return
      homes.add(thing.id)
      if (thing.parent !== null) add(site.house.subjects.get(thing.parent))
      if (thing.kind === 'outlet') {
        add(site.get(valueOf(thing, 'circuit'), 'circuit'))
        add(site.roomOf(thing))
      }
      if (thing.kind === 'circuit') add(site.get(valueOf(thing, 'fedBy'), 'breaker'))
      if (thing.kind === 'feeder') for (const e of site.enclosuresOn(thing)) add(e)
    }
    add(subject)
    // What a circuit hangs on belongs to a visit to that circuit.
    if (subject.kind === 'breaker') for (const c of site.circuitsOf(subject)) homes.add(c.id)
    if (subject.kind === 'enclosure' || subject.kind === 'room')
      for (const id of this.scope.area)
        if (this.#isOn(site.get(id, 'circuit'), subject)) homes.add(id)
    const building = site.buildingOf(subject)
    if (building) homes.add(building.id)
    return [...homes]
  }

  #isOn(circuit: Subject<'circuit'> | undefined, place: Subject): boolean {
    if (!circuit) return false
    const { site } = this
    const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
    return (
      breaker?.parent === place.id ||
      site.outletsOf(circuit).some(o => valueOf(o, 'room') === place.id)
    )
  }
}

/**
 * The outlets of a sample: those named, one of each room, and always each with a ground-fault device or where one is
 * asked for, and in a house of two-wire years each receptacle with three slots.
 */
function sampled(site: Site, scope: Scope): Set<string> {
  const chosen = new Set(scope.named)
  if (scope.sample === 'only those named') return chosen
  const isOld = site.yearsOf(site.premises).from < GROUND_RUN_SINCE
  const rooms = new Set<string>()
  for (const outlet of site.all.outlet) {
    const room = site.roomOf(outlet)
    const use = valueOf(room, 'use')
    const protection = valueOf(outlet, 'protection')
    const isReceptacle = valueOf(outlet, 'type') === 'receptacle'
    const isGfci =
      protection === 'GFCI' ||
      protection === 'dual' ||
      valueOf(outlet, 'type') === 'blank-face GFCI' ||
      (isReceptacle && use !== undefined && gfciRowsOf(use).some(r => OF_THE_PLACE.has(r.bears)))
    if (isGfci || (isOld && isReceptacle && valueOf(outlet, 'slots') === 'three'))
      chosen.add(outlet.id)
  }
  // One of each room that has none yet, the first recorded.
  for (const outlet of site.all.outlet) if (chosen.has(outlet.id)) rooms.add(roomId(site, outlet))
  for (const outlet of site.all.outlet) {
    const room = roomId(site, outlet)
    if (rooms.has(room)) continue
    rooms.add(room)
    chosen.add(outlet.id)
  }
  return chosen
}
/** Requirements of a place itself, rather than of what stands near water in it or is plugged in there. */
const OF_THE_PLACE: ReadonlySet<Bearing> = new Set([
  'all',
  'reached from grade',
  'not dedicated',
  'within reach, not dedicated',
  'counter',
])
const roomId = (site: Site, outlet: Subject<'outlet'>): string => site.roomOf(outlet)?.id ?? ''
