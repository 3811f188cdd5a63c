/** Signed reports, what goes out, the permit office, bundles and a person's own settings, as they cross the wire. */
import { z } from 'zod'
import { EDITIONS, JOB_STAGES, plainText, schoolById, VOICES, type OwnFacts } from '../core'
import { RULE_IDS } from '../core/model/rule-ids'
import { PaperOut } from './api'

export const Day = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'a day is expected, like 2026-03-04')
  .refine(d => !Number.isNaN(Date.parse(d)), 'no such day')

export const SignedName = z
  .string()
  .regex(/^\d{1,3}-[a-z]{3,20}$/, 'not the name of a signed report')
export const Signed = z.object({
  name: SignedName,
  number: z.number().int(),
  voice: z.enum(VOICES),
  hash: z.string(),
  signedBy: z.string(),
  signedOn: z.string(),
})
export type Signed = z.infer<typeof Signed>
export const SignedList = z.object({ signed: z.array(Signed) })
/** What a link shows: the report as it was signed last, or as it stands where nobody has signed it. */
export const SharedReport = z.object({ paper: PaperOut, signed: Signed.nullable() })
export type SharedReport = z.infer<typeof SharedReport>
export const Sign = z.strictObject({
  voice: z.enum(VOICES),
  by: plainText(120).trim().min(1, 'a report is signed by somebody'),
  on: Day,
  discloses: plainText(2000).trim(),
  changes: plainText(2000).trim(),
})

export const Mail = z.strictObject({
  to: z.email('an address is expected, like name@example.org').max(200),
  subject: plainText(200).trim().min(1, 'say what it is about'),
  text: plainText(8000).trim(),
  /** A signed report, or a paper as it is now. */
  paper: z.union([SignedName, z.string().regex(/^[a-z-]{3,40}$/, 'not the name of a paper')]),
})
export const Sent = z.object({
  id: z.string(),
  kind: z.enum(['mail', 'labels']),
  to: z.string(),
  subject: z.string(),
  file: z.string(),
  at: z.string(),
  by: z.string(),
})
export type Sent = z.infer<typeof Sent>
export const Outbox = z.object({ sent: z.array(Sent) })

export const PERMIT_STATES = ['received', 'in review', 'issued', 'returned'] as const
export const Permit = z.object({
  reference: z.string(),
  sentAt: z.string(),
  works: z.number().int(),
  state: z.enum(PERMIT_STATES),
  /** Number of the permit, or what is missing, once it is decided. */
  result: z.string(),
})
export type Permit = z.infer<typeof Permit>
export const Permits = z.object({ permits: z.array(Permit) })

/** What two copies of one job say differently. */
export const MergeAnswer = z.object({
  stored: z.number().int(),
  known: z.number().int(),
  photos: z.number().int(),
  conflicts: z.array(
    z.object({
      thing: z.string(),
      field: z.string(),
      values: z.array(
        z.object({ value: z.string(), by: z.string(), at: z.string(), isUsed: z.boolean() }),
      ),
    }),
  ),
})
export type MergeAnswer = z.infer<typeof MergeAnswer>

export const JobsQuery = z.object({
  search: z.string().max(200).default(''),
  stage: z.enum(JOB_STAGES).optional(),
  /** Jobs with a visit on this day. */
  on: Day.optional(),
  /** Those that were put into the archive, instead of the others. */
  archived: z.enum(['0', '1']).default('0'),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
})

export const Archive = z.strictObject({ isArchived: z.boolean() })

/** A small picture of one's signature, as a data address. */
const Picture = z
  .string()
  .max(400_000, 'at most 300 kB')
  .regex(/^data:image\/(png|jpeg);base64,[A-Za-z0-9+/=]+$/, 'a PNG or JPEG picture is expected')

/** What one person writes reports with, and what their new jobs begin with. */
export const OwnSettings = z.strictObject({
  voice: z.enum(VOICES).default('inspector'),
  allowedToRemain: z.enum(['mention', 'recommend upgrade']).default('recommend upgrade'),
  aluminumSchool: z.enum(['strict', 'listed connectors']).default('strict'),
  citeSections: z.boolean().default(false),
  temperatures: z.enum(['°F', '°C']).default('°F'),
  /** Which way this desk goes where there are several; ids of `SCHOOLS`. */
  schools: z
    .array(z.string().refine(id => schoolById(id) !== undefined, 'no such way'))
    .max(20)
    .default([]),
  edition: z
    .literal([...EDITIONS])
    .nullable()
    .default(null),
  /** Years in which editions became law where this person works. */
  adoptions: z
    .array(
      z.strictObject({
        edition: z.number().int().min(1897).max(2100),
        year: z.number().int().min(1897).max(2100),
      }),
    )
    .max(40)
    .default([]),
  amendments: z
    .array(
      z.strictObject({
        rule: z.enum(RULE_IDS),
        effect: z.enum(['not enforced here', 'as in another edition']),
        asIn: z.literal([...EDITIONS]).optional(),
        source: plainText(200).trim().min(1, 'cite the ordinance'),
      }),
    )
    .max(40)
    .default([]),
  /** Name, address, license: at the head of every paper. */
  letterhead: z.array(plainText(120)).max(6).default([]),
  signature: Picture.or(z.literal('')).default(''),
  phrases: z
    .array(
      z.strictObject({
        name: plainText(60).trim().min(1, 'give it a name'),
        words: plainText(2000).trim().min(1, 'write the wording'),
      }),
    )
    .max(200)
    .default([]),
})
export type OwnSettings = z.infer<typeof OwnSettings>
export const DEFAULT_OWN: OwnSettings = OwnSettings.parse({})

/** What a new job begins with, of a person's settings. */
export const ownFactsOf = (own: OwnSettings): OwnFacts => ({
  allowedToRemain: own.allowedToRemain,
  aluminumSchool: own.aluminumSchool,
  citeSections: own.citeSections,
  temperatures: own.temperatures,
  adoptions: own.adoptions,
  amendments: own.amendments,
})
