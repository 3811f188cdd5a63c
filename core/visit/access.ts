import { FIELDS, fieldOf, type Field, type Kind } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'

/** How far a look goes: what has to be opened, entered, asked for or done to take it. */
export const ACCESS = [
  'seen',
  'cover off',
  'device pulled',
  'box opened',
  'attic or crawl space',
  'record',
  'measured',
  'loaded test',
  'utility side',
] as const
export type Access = (typeof ACCESS)[number]

/** Instruments a person may carry or not; tools that everybody has are not among them. */
export const INSTRUMENTS = [
  'three-lamp tester',
  'voltage tester',
  'non-contact detector',
  'multimeter',
  'branch analyzer',
  'clamp meter',
  'circuit tracer',
  'infrared thermometer',
  'thermometer',
  'ground resistance tester',
] as const
export type Instrument = (typeof INSTRUMENTS)[number]

/** What one look takes. */
export interface LookAccess {
  /** Every class it takes. */
  readonly classes: readonly Access[]
  readonly instrument: Instrument | undefined
  /** Rough cost of the look by itself, seconds, with everything open and in hand. */
  readonly seconds: number
}

/** Fields whose look goes further than its stage says. */
const FURTHER: Readonly<Record<string, Access>> = {
  'segment.isBuried': 'attic or crawl space',
  'segment.isExtended': 'attic or crawl space',
  'outlet.splicePlace': 'attic or crawl space',
  'outlet.recessed': 'attic or crawl space',
  'outlet.dropPercent': 'loaded test',
  'outlet.neutralGroundRiseV': 'loaded test',
  'outlet.testLoadA': 'loaded test',
  'outlet.groundClampA': 'loaded test',
  'circuit.loadAmps': 'loaded test',
  'breaker.loadAmps': 'loaded test',
  'enclosure.wereLoadsOn': 'loaded test',
  'enclosure.interrupting': 'record',
  'enclosure.torque': 'record',
  'enclosure.hasTripRecord': 'record',
  'enclosure.protectiveBreakers': 'record',
  'circuit.frameGround': 'device pulled',
  'circuit.hasFusesAtUnit': 'box opened',
  'segment.workmanship': 'box opened',
}
/** Tools with which one works on conductors, power off. */
const POWER_OFF_TOOLS = /^(knife|caliper|screwdriver)/
/** Seconds a tool takes, at a place one stands at already. */
const TOOL_SECONDS: Readonly<Record<string, number>> = {
  flashlight: 3,
  binoculars: 20,
  tape: 20,
  'tape measure': 40,
  'wire gauge': 25,
  'pull test': 20,
  caliper: 40,
  'three-lamp tester': 8,
  'voltage tester': 20,
  'non-contact detector': 6,
  multimeter: 25,
  'branch analyzer': 30,
  'clamp meter': 30,
  'circuit tracer': 60,
  'infrared thermometer': 15,
  thermometer: 20,
  'ground resistance tester': 900,
}
const CLASS_SECONDS: Readonly<Record<Access, number>> = {
  seen: 4,
  'cover off': 5,
  'device pulled': 15,
  'box opened': 30,
  'attic or crawl space': 30,
  record: 60,
  measured: 5,
  'loaded test': 40,
  'utility side': 60,
}
/** What it takes to open something, once for all looks behind it, seconds. */
export const OPENING_SECONDS: Readonly<Partial<Record<Access, number>>> = {
  'cover off': 300,
  'device pulled': 180,
  'box opened': 240,
  'attic or crawl space': 600,
  'utility side': 1800,
}

const isInstrument = (tool: string): tool is Instrument =>
  (INSTRUMENTS as readonly string[]).includes(tool)

/** What the look of a field takes, wherever the thing stands. */
export function accessOf(kind: Kind, name: string): LookAccess {
  const field = fieldOf(kind, name)
  if (!field) return { classes: ['seen'], instrument: undefined, seconds: CLASS_SECONDS.seen }
  const tool = field.with?.split(',')[0] ?? ''
  const instrument = isInstrument(tool) ? tool : undefined
  const classes = new Set<Access>()
  const stage = stageClass(kind, name, field)
  if (stage) classes.add(stage)
  const further = FURTHER[`${kind}.${name}`]
  if (further) classes.add(further)
  if (instrument) classes.add('measured')
  if (POWER_OFF_TOOLS.test(field.with ?? '') && stage !== 'device pulled') classes.add('box opened')
  if (classes.size === 0) classes.add('seen')
  const seconds = Math.max(...[...classes].map(c => CLASS_SECONDS[c])) + (TOOL_SECONDS[tool] ?? 0)
  return { classes: [...classes], instrument, seconds }
}

function stageClass(kind: Kind, name: string, field: Field): Access | undefined {
  // The year of a part stands on its label for panels only; of the rest somebody has papers, or nobody.
  if (name === 'year') return kind === 'enclosure' ? undefined : 'record'
  switch (field.stage) {
    case 'cover off':
    case 'sub-panel':
      return kind === 'photo' ? undefined : 'cover off'
    case 'open box':
      return kind === 'outlet' || kind === 'circuit' ? 'device pulled' : 'box opened'
    default:
      return undefined
  }
}

/** Rooms one has to crawl into. */
const ENTERED: ReadonlySet<string> = new Set(['attic', 'crawl space'])

/** What the look takes at this very thing: a device in the attic, the cover of a meter the utility has sealed. */
export function accessAt(site: Site, subject: Subject, name: string): LookAccess {
  const access = accessOf(subject.kind, name)
  const classes = new Set(access.classes)
  if (subject.kind === 'outlet') {
    const use = valueOf(site.roomOf(subject), 'use')
    if (use !== undefined && ENTERED.has(use)) classes.add('attic or crawl space')
    const type = valueOf(subject, 'type')
    // A junction box or a fixture has no device to pull: its cover comes off, power off.
    const isDevice = type === undefined || type === 'receptacle' || type === 'switch'
    if (!isDevice && classes.delete('device pulled')) classes.add('box opened')
  }
  const isSealed = subject.kind === 'enclosure' && valueOf(subject, 'type') === 'meter'
  if (isSealed && classes.delete('cover off')) classes.add('utility side')
  return classes.size === access.classes.length && access.classes.every(c => classes.has(c))
    ? access
    : { ...access, classes: [...classes] }
}

/** Every field with what its look takes: for the documents, and to check that none is left out. */
export const allAccess = (): { kind: Kind; field: string; access: LookAccess }[] =>
  (Object.keys(FIELDS) as Kind[]).flatMap(kind =>
    Object.keys(FIELDS[kind]).map(field => ({ kind, field, access: accessOf(kind, field) })),
  )
