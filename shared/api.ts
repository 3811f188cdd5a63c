/** Everything that crosses the wire, in one place: server and browser parse with the same schemas. */
import { z } from 'zod'
import { EDITIONS, ObservationSchema, plainText, PAPERS, REPORT_VOICES } from '../core'

export const JobId = z.string().regex(/^[a-z0-9-]{6,40}$/, 'not a job id')
export const DeviceId = z.string().regex(/^[\w-]{1,24}$/, 'not the name of a device')
export const PURPOSES = ['purchase', 'insurance', 'rental', 'service', 'remodel', 'final'] as const

export const NewJob = z.strictObject({
  name: plainText(200).trim().min(1, 'give the job a name'),
  street: plainText(200).trim().optional(),
  purpose: z.enum(PURPOSES),
  yearBuilt: z.number().int().min(1870, 'before 1870').max(2100, 'after 2100').optional(),
  edition: z.literal([...EDITIONS]),
  assessor: plainText(120).trim().optional(),
})
export type NewJob = z.infer<typeof NewJob>

/** Made on a device that may be without a network: the device names the job, and what it says is in observations. */
export const PutJob = z.strictObject({ device: DeviceId.optional() })

const count = z.number().int().min(0)
export const JobSummary = z.object({
  id: JobId,
  name: z.string(),
  street: z.string(),
  purpose: z.string(),
  yearBuilt: z.string(),
  edition: z.string(),
  createdAt: z.string(),
  changedAt: z.string(),
  observations: count,
  makeSafe: count,
  repair: count,
  upgrade: count,
  record: count,
  undecided: count,
  /** Open within the scope of the visit; null until it is counted. */
  inScope: count.nullable(),
  /** How far it is: planned, on site, writing, signed, return. */
  stage: z.string(),
  /** Day of the next visit; empty where none is set. */
  nextOn: z.string(),
  /** First so many observations in sequence came from a file. */
  imported: count,
  /** Whose job it is; empty in a demo. */
  owner: z.string(),
  /** The asking person may delete and share it. */
  isOwn: z.boolean(),
})
export type JobSummary = z.infer<typeof JobSummary>
export const JobList = z.object({
  jobs: z.array(JobSummary),
  /** How many there are in all, of which these are a part. */
  total: count,
  isDemo: z.boolean(),
})
/** Observations in the order the server took them; `lastSequence` says where to go on from. */
export const Job = z.object({
  job: JobSummary,
  lastSequence: count,
  observations: z.array(ObservationSchema),
})
export const JobQuery = z.object({ after: z.coerce.number().int().min(0).default(0) })
/** One message of the live stream of a job. */
export const StreamMessage = z.object({
  lastSequence: count,
  observations: z.array(ObservationSchema),
})

export const MAX_BATCH = 2000
/** Each observation is read by itself, so that one that is wrong does not hold up the others. */
export const Append = z.strictObject({
  observations: z.array(z.unknown()).min(1).max(MAX_BATCH),
  /** Which device sends, and what its clock shows while it does. */
  device: DeviceId.optional(),
  sentAt: z.iso.datetime({ offset: true }).optional(),
})
export const Problem = z.object({ path: z.string(), expected: z.string(), found: z.string() })
export const RefusedObservation = z.object({
  /** Place in the batch. */
  index: count,
  id: z.string().nullable(),
  code: z.enum(['invalid-input', 'conflict']),
  problems: z.array(Problem),
})
export type RefusedObservation = z.infer<typeof RefusedObservation>
/** `stored` counts new rows; ids that were there already are harmless. */
export const Appended = z.object({
  stored: count,
  known: count,
  refused: z.array(RefusedObservation),
  lastSequence: count,
  /** How far the sending clock was ahead of the server's, in seconds, where that is worth telling. */
  skewSeconds: z.number().int().nullable(),
  job: JobSummary,
})
export type Appended = z.infer<typeof Appended>
export const TrashList = z.object({
  jobs: z.array(
    z.object({
      id: JobId,
      name: z.string(),
      deletedAt: z.string(),
      goneOn: z.string(),
      observations: count,
    }),
  ),
})
export const Health = z.object({
  status: z.enum(['ok', 'failing']),
  version: z.string(),
  /** The same for one database for ever: tells a starting demo whether this server has its data. */
  instance: z.string(),
  isDemo: z.boolean(),
  problems: z.array(z.string()),
})
export const ExportQuery = z.object({ form: z.enum(['log', 'house']).default('log') })
export const ReportQuery = z.object({ voice: z.enum(REPORT_VOICES).default('inspector') })

const FindingMark = z.object({ rule: z.string(), subjects: z.array(z.string()) }).optional()
/** A document as data, as the server writes it. */
export const PaperOut = z.object({
  id: z.string(),
  title: z.string(),
  subtitle: z.string(),
  running: z.string(),
  blocks: z.array(
    z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('heading'),
        level: z.literal([1, 2]),
        text: z.string(),
        finding: FindingMark,
      }),
      z.object({
        kind: z.literal('text'),
        text: z.string(),
        tone: z.enum(['soft', 'strong']).optional(),
        finding: FindingMark,
      }),
      z.object({ kind: z.literal('list'), items: z.array(z.string()) }),
      z.object({ kind: z.literal('checks'), items: z.array(z.string()) }),
      z.object({
        kind: z.literal('table'),
        head: z.array(z.string()),
        rows: z.array(z.array(z.string())),
        widths: z.array(z.number()),
        figures: z.array(z.number()).optional(),
      }),
      z.object({
        kind: z.literal('labels'),
        items: z.array(z.object({ text: z.string(), where: z.string() })),
      }),
      z.object({
        kind: z.literal('picture'),
        hash: z.string(),
        caption: z.string(),
        marks: z.string(),
      }),
      z.object({
        kind: z.literal('drawing'),
        svg: z.string(),
        caption: z.string(),
        share: z.number(),
      }),
      z.object({ kind: z.literal('break') }),
    ]),
  ),
})

/** Which paper: of the accepted plan, or the report in one voice. */
export const PaperParam = z.object({ paper: z.enum(PAPERS) })

export const MAX_PHOTO_BYTES = 20 * 1024 * 1024
export const PhotoHash = z.string().regex(/^[0-9a-f]{64}$/, 'not the name of a photograph')
/** What was kept of a photograph sent: name, size in points, size in bytes. */
export const StoredPhoto = z.object({ hash: PhotoHash, width: count, height: count, bytes: count })
export type StoredPhoto = z.infer<typeof StoredPhoto>
export const PhotoQuery = z.object({ size: z.enum(['full', 'thumb']).default('full') })
/** Marks drawn on a photograph, in shares of its width and height. */
const share = z.number().min(-0.1).max(1.1)
export const PhotoMark = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('arrow'), x: share, y: share, x2: share, y2: share }),
  z.strictObject({
    kind: z.literal('circle'),
    x: share,
    y: share,
    r: z.number().min(0.005).max(1),
  }),
  z.strictObject({ kind: z.literal('text'), x: share, y: share, text: plainText(80).min(1) }),
])
export type PhotoMark = z.infer<typeof PhotoMark>
export const PhotoMarks = z.array(PhotoMark).max(24)

export const ErrorCode = z.enum([
  'invalid-input',
  'no-job',
  'too-large',
  'conflict',
  'not-demo',
  'unreadable-file',
  'storage-full',
  'not-a-photo',
  'no-photo',
  'no-route',
  'wrong-method',
  'wrong-host',
  'wrong-origin',
  'wrong-type',
  'sign-in',
  'forbidden',
  'too-often',
  'took-too-long',
  'wrong-code',
  'wrong-password',
  'gone',
  'server',
])
/** The `data` of every error the API answers with. */
export const ErrorBody = z.object({ code: ErrorCode, problems: z.array(Problem) })
export type ErrorCode = z.infer<typeof ErrorCode>
