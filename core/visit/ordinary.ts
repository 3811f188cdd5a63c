import {
  FIELDS,
  fieldOf,
  type FieldName,
  type FieldsOf,
  type Kind,
  type ValueOf,
} from '../model/fields'
import type { Site } from '../derive/site'
import { valueAt, valueOf, type Subject } from '../model/house'
import { accessOf } from './access'

type Ordinary = {
  readonly [K in Kind]?: {
    readonly [F in FieldName<K>]?: readonly [ordinary: ValueOf<FieldsOf<K>[F]>, says: string]
  }
}

/**
 * Fields recorded by exception, with the ordinary value and the words one attests it by: what is ordinary is written
 * for all at once when somebody attests that nothing else is wrong; what is not is recorded at the thing. Nothing is
 * ever ordinary by silence.
 */
export const ORDINARY = {
  premises: {
    serviceDrop: ['sound', 'service drop and mast sound and out of reach'],
    serviceEntrance: ['sound', 'service cable, weatherhead and meter sound'],
  },
  room: {
    outlets: ['all there', 'outlets along walls and counter as they have to be'],
    hydromassage: ['none', 'no hydromassage tub'],
  },
  enclosure: {
    coverScrews: ['all blunt', 'cover screws all there and blunt'],
    openings: [0, 'no open holes'],
    corrosion: ['none', 'clean and dry'],
    entryConnectors: ['one each, or as listed', 'one cable to a connector'],
    gutter: ['room left', 'room left for the wires'],
    isKeptClear: [true, 'space in front kept clear'],
    door: ['90° or more', 'door opens all the way'],
    escape: ['upright, with a step back', 'room to stand and to step back'],
    location: ['ordinary', 'not in a closet or bathroom, not over steps'],
  },
  breaker: {
    conductorsOnTerminal: [1, 'one conductor on each terminal'],
  },
  segment: {
    insulation: ['sound', 'insulation whole'],
    tape: ['none', 'no tape for insulation'],
    entry: ['clamp or bushing', 'every entry clamped or bushed'],
    exposure: ['protected or out of harm’s way', 'cable out of harm’s way'],
    firestop: ['sealed', 'holes through fire-rated walls sealed'],
  },
  electrode: {
    connection: ['sound', 'clamps of the electrodes tight and clean'],
    isSpliced: [false, 'electrode conductors unspliced'],
  },
  bond: {
    connection: ['sound', 'clamps of the bonds tight and clean'],
  },
  outlet: {
    cover: ['in place', 'every cover in place'],
    protection: ['none', 'no test and reset buttons but those recorded'],
    deviceAmps: [15, 'ordinary 15 A faces'],
    isAccessible: [true, 'every box within reach'],
    splicePlace: ['in a box', 'splices in boxes'],
    isLooseInBox: [false, 'nothing loose'],
    condition: ['sound', 'faces and grip sound'],
    isOutOfReach: [false, 'no receptacle at the ceiling'],
    isHigh: [false, 'no receptacle above 5½ ft'],
    isDedicated: [false, 'no receptacle for one appliance in its place'],
    isSingle: [false, 'no single receptacles'],
    appliance: ['none that needs a ground', 'nothing plugged in for good that needs a ground'],
    isOverlamped: [false, 'no lamp larger than marked'],
    recessed: ['not recessed', 'no recessed fixture'],
    resetAccess: ['readily accessible', 'every reset within reach'],
  },
} as const satisfies Ordinary

/**
 * Looks that are asked once for the whole property, with the things picked that differ: the answer is nearly always the
 * same for all.
 */
export const ONCE: ReadonlySet<string> = new Set([
  'outlet.isTamperResistant',
  'room.hasSink',
  'room.isBelowGrade',
  'breaker.device',
])

type Value = string | number | boolean
const table = (kind: Kind): Readonly<Record<string, readonly [Value, string]>> =>
  (ORDINARY as Partial<Record<Kind, Record<string, readonly [Value, string]>>>)[kind] ?? {}
const entryOf = (kind: Kind, field: string): readonly [Value, string] | undefined =>
  Object.hasOwn(table(kind), field) ? table(kind)[field] : undefined

/** The words by which one attests that a field is ordinary everywhere in a place. */
export const attestSays = (kind: Kind, field: string): string => entryOf(kind, field)?.[1] ?? ''

/**
 * The ordinary value of a field, or undefined where it has none, or where it takes a hand, a tool or a power-off: that
 * is never attested by eye.
 */
export function ordinaryOf(kind: Kind, field: string): Value | undefined {
  const value = entryOf(kind, field)?.[0]
  if (value === undefined) return undefined
  const { classes, instrument } = accessOf(kind, field)
  const isByEye = classes.every(
    c => c === 'seen' || c === 'cover off' || c === 'attic or crawl space',
  )
  const tool = fieldOf(kind, field)?.with
  const isPlain = tool === undefined || tool === 'flashlight' || tool === 'binoculars'
  return isByEye && isPlain && instrument === undefined ? value : undefined
}

/** What is ordinary of a plain 15 A face, and false of one made for an appliance. */
const OF_PLAIN_FACES: ReadonlySet<string> = new Set([
  'deviceAmps',
  'isSingle',
  'isDedicated',
  'appliance',
])
const PLAIN_SUPPLIES: ReadonlySet<string> = new Set([
  'receptacles',
  'lighting',
  'receptacles and lighting',
])

/**
 * The ordinary value at this very thing: at a receptacle for an appliance, by its slots, its rating or its circuit,
 * nothing of that is ordinary, and it is asked one by one.
 */
export function ordinaryAt(site: Site, subject: Subject, field: string): Value | undefined {
  const value = ordinaryOf(subject.kind, field)
  if (value === undefined || subject.kind !== 'outlet' || !OF_PLAIN_FACES.has(field)) return value
  const slots = valueOf(subject, 'slots')
  const amps = valueOf(subject, 'deviceAmps')
  const type = valueOf(subject, 'type')
  const circuit = site.get(valueOf(subject, 'circuit'), 'circuit')
  const supplies = valueOf(circuit, 'supplies')
  const poles = valueOf(site.get(valueOf(circuit, 'fedBy'), 'breaker'), 'poles')
  const isMade =
    slots === '240 V' ||
    slots === 'T-slot' ||
    type === 'hard-wired outlet' ||
    (amps !== undefined && amps > 15) ||
    (poles !== undefined && poles > 1) ||
    (supplies !== undefined && !PLAIN_SUPPLIES.has(supplies))
  // The rating of a face is told by its slots, so they are seen first.
  return isMade || (field === 'deviceAmps' && slots === undefined) ? undefined : value
}

/** Whether a field of a thing stands at something else than the ordinary. */
export function isException(subject: Subject, field: string): boolean {
  const value = valueAt(subject, field)
  return value !== undefined && value !== entryOf(subject.kind, field)?.[0]
}

/** Names of all fields with an ordinary value, for the documents and the tests. */
export const ordinaryFields = (): string[] =>
  (Object.keys(FIELDS) as Kind[]).flatMap(kind =>
    Object.keys(table(kind)).map(field => `${kind}.${field}`),
  )
