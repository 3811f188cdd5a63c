/** The job file, both forms, as Zod schemas; docs/job-file.schema.json is generated from these. */
import { z } from 'zod'
import { CLOCK_SHAPE } from '../model/clock'
import { BOUNDS } from './bounds'
import { FIELDS, KINDS, type Field, type Kind } from '../model/fields'
import { GRADES } from '../model/observation'
import { upcastObservation } from './upcast'
import { ID, plainText, valueSchema } from '../model/values'

/** The version written. Version 1 had no clocks and no `over`; it is read like a version 2 without them. */
export const FILE_VERSION = 2
export const READ_VERSIONS: readonly number[] = [1, 2]
export const MAX_FILE_BYTES = BOUNDS.bytes
const version = z.literal([1, 2])

const remark = plainText(2000)

/** A fact by hand: the bare value, or the value with how it is known, or why it could not be seen. */
function factSchema(field: Field) {
  const value = valueSchema(field)
  return z.union([
    value,
    z.strictObject({
      value: z.union([value, z.number()]),
      unit: plainText(12).optional(),
      grade: z.enum(GRADES).optional(),
      instrument: plainText(80).optional(),
      remark: remark.optional(),
    }),
    z.strictObject({ blocked: plainText(400).min(1, 'say why it could not be seen') }),
  ])
}

function facts(kind: Kind): Record<string, z.ZodType> {
  const shape: Record<string, z.ZodType> = { id: ID.optional() }
  for (const [name, field] of Object.entries(FIELDS[kind]))
    shape[name] = factSchema(field).optional()
  return shape
}

/** Every fact of every kind: a tenth of a second to make, so it is made when the first house is read. */
function houseFile() {
  const exposure = z.strictObject(facts('exposure'))
  const screw = z.strictObject(facts('screw'))
  const segment = z.strictObject({ ...facts('segment'), exposures: z.array(exposure).optional() })
  const outlet = z.strictObject(facts('outlet'))
  const circuit = z.strictObject({
    ...facts('circuit'),
    segments: z.array(segment).optional(),
    outlets: z.array(outlet).optional(),
    /** Their name in version 1. */
    points: z.array(outlet).optional(),
  })
  const feeder = z.strictObject({ ...facts('feeder'), exposures: z.array(exposure).optional() })
  const bar = z.strictObject({
    ...facts('bar'),
    screws: z.union([z.array(screw), facts('bar').screws!]).optional(),
    screwList: z.array(screw).optional(),
  })
  const breaker = z.strictObject({
    ...facts('breaker'),
    circuit: circuit.optional(),
    circuits: z.array(circuit).optional(),
  })
  const enclosure = z.strictObject({
    ...facts('enclosure'),
    feeder: feeder.optional(),
    bars: z.array(bar).optional(),
    breakers: z.array(breaker).optional(),
  })
  const electrode = z.strictObject(facts('electrode'))
  const bond = z.strictObject(facts('bond'))
  const conductor = z.strictObject(facts('conductor'))
  const photo = z.strictObject(facts('photo'))
  const amendment = z.strictObject(facts('amendment'))
  const visit = z.strictObject(facts('visit'))
  const adoption = z.strictObject(facts('adoption'))
  const override = z.strictObject(facts('override'))
  const task = z.strictObject(facts('task'))
  const edit = z.strictObject(facts('edit'))
  const signing = z.strictObject(facts('signing'))
  const recheck = z.strictObject(facts('recheck'))
  const returnVisit = z.strictObject({
    ...facts('returnVisit'),
    rechecks: z.array(recheck).optional(),
  })
  const room = z.strictObject(facts('room'))
  const building = z.strictObject({
    ...facts('building'),
    rooms: z.array(room).optional(),
    enclosures: z.array(enclosure).optional(),
    electrodes: z.array(electrode).optional(),
  })

  return z.strictObject({
    $schema: z.string().max(300).optional(),
    corvit: version,
    form: z.literal('house'),
    premises: z.strictObject(facts('premises')).optional(),
    buildings: z.array(building).optional(),
    rooms: z.array(room).optional(),
    enclosures: z.array(enclosure).optional(),
    electrodes: z.array(electrode).optional(),
    bonds: z.array(bond).optional(),
    photos: z.array(photo).optional(),
    amendments: z.array(amendment).optional(),
    adoptions: z.array(adoption).optional(),
    visits: z.array(visit).optional(),
    overrides: z.array(override).optional(),
    tasks: z.array(task).optional(),
    edits: z.array(edit).optional(),
    signings: z.array(signing).optional(),
    returnVisits: z.array(returnVisit).optional(),
    feeders: z.array(feeder).optional(),
    circuits: z.array(circuit).optional(),
    conductors: z.array(conductor).optional(),
    outlets: z.array(outlet).optional(),
    /** Their name in version 1. */
    points: z.array(outlet).optional(),
    /** What a simulated house was made from; nothing of the house, and not read. */
    simulated: z.looseObject({}).optional(),
  })
}
export const HouseFile = z.lazy(houseFile)
export type HouseFile = z.infer<typeof HouseFile>

const stamp = {
  id: ID,
  at: z.iso.datetime({
    offset: true,
    message: 'an ISO 8601 instant is expected, like 2026-03-04T10:15:00.000Z',
  }),
  by: plainText(120),
  clock: z
    .string()
    .regex(CLOCK_SHAPE, 'a clock is expected, like 2026-03-04T10:15:00.000Z~000000~tablet')
    .optional(),
  skewSeconds: z.number().int().optional(),
}
/** An observation as version 2 writes it. */
export const ObservationShape = z.discriminatedUnion('act', [
  z.strictObject({
    ...stamp,
    act: z.literal('add'),
    subject: ID,
    kind: z.enum(KINDS as [Kind, ...Kind[]]),
    parent: ID.nullable(),
  }),
  z.strictObject({ ...stamp, act: z.literal('drop'), subject: ID }),
  z.strictObject({
    ...stamp,
    act: z.literal('note'),
    subject: ID,
    field: z.string().max(60),
    value: z.union([
      z.number(),
      z.string().max(4000),
      z.boolean(),
      z.tuple([z.number(), z.number()]),
      z.array(ID).max(12),
    ]),
    grade: z.enum(GRADES),
    instrument: plainText(80).optional(),
    remark: remark.optional(),
    over: z.array(ID).max(50).optional(),
  }),
  z.strictObject({
    ...stamp,
    act: z.literal('block'),
    subject: ID,
    field: z.string().max(60),
    reason: plainText(400).min(1, 'say why it could not be seen'),
  }),
  z.strictObject({ ...stamp, act: z.literal('retract'), target: ID }),
])
/** An observation as any version wrote it, read into the words of today. */
export const ObservationSchema = z.preprocess(upcastObservation, ObservationShape)

export const LogFile = z.strictObject({
  $schema: z.string().max(300).optional(),
  corvit: version,
  form: z.literal('log'),
  observations: z.array(ObservationShape).max(BOUNDS.observations),
})
export type LogFile = z.infer<typeof LogFile>
export const JobFile = z.discriminatedUnion('form', [HouseFile, LogFile])
