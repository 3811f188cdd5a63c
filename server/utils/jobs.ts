import { randomUUID } from 'node:crypto'
import type { H3Event } from 'h3'
import type { Kysely } from 'kysely'
import {
  MAX_AHEAD_MS,
  ObservationSchema,
  PREMISES_ID,
  problemsOf,
  sift,
  Site,
  TOLD_SKEW_MS,
  withClocks,
  type Observation,
  type Problem,
  type RawObservation,
} from '../../core'
import type { Appended, JobSummary, RefusedObservation } from '../../shared/api'
import type { Database, JobRow } from '../database/types'
import {
  addJob,
  addObservations,
  countObservations,
  findJob,
  indexJob,
  updateJob,
} from '../queries/jobs'
import type { Asker, Need } from './people'
import { LISTED, listedOf } from './written'

type Db = Kysely<Database>

/** The counts of the list wait until a job has been quiet this long, and while it never is, at most so long. */
const QUIET_MS = 1500
const COUNT_AT_LEAST_EVERY_MS = 15_000

/** The job of a request, where whoever asks may do what they ask. Somebody else's job is as if it were not there. */
export async function requireJob(
  event: H3Event,
  need: Need = 'use',
): Promise<{ db: Db; row: JobRow; asker: Asker }> {
  const db = await useDb()
  const jobId = getRouterParam(event, 'jobId')
  const row = jobId === undefined ? undefined : await findJob(db, jobId)
  const asker = requireAsker(event)
  const isThere = row !== undefined && row.state === 'ready' && row.deleted_at === null
  if (!isThere || !(await mayOn(db, asker, row, 'use'))) {
    const found = JSON.stringify(jobId ?? '').slice(0, 80)
    throw refuse('no-job', 'There is no such job', [
      { path: 'jobId', expected: 'the id of a job', found },
    ])
  }
  if (need === 'manage' && !(await mayOn(db, asker, row, 'manage'))) {
    throw refuse('forbidden', 'Only the owner of the job may do this')
  }
  return { db, row, asker }
}

export function summary(
  row: JobRow,
  asker: Asker,
  owners: ReadonlyMap<string, string> = new Map(),
): JobSummary {
  return {
    id: row.id,
    name: row.name,
    street: row.street,
    purpose: row.purpose,
    yearBuilt: row.year_built,
    edition: row.edition,
    createdAt: row.created_at,
    changedAt: row.changed_at,
    observations: row.observations,
    makeSafe: row.make_safe,
    repair: row.repair,
    upgrade: row.upgrade,
    record: row.record,
    undecided: row.undecided,
    inScope: row.in_scope,
    stage: row.stage,
    nextOn: row.next_on,
    imported: row.imported,
    owner: owners.get(row.owner_id ?? '') ?? '',
    isOwn: asker.role === 'owner' || (asker.role === 'assessor' && row.owner_id === asker.id),
  }
}

/** Starts an empty job and returns its id. */
export async function startJob(
  db: Db,
  id: string = randomUUID(),
  more: Partial<JobRow> = {},
): Promise<string> {
  await addJob(db, id, new Date().toISOString(), more)
  return id
}

interface Due {
  timer: NodeJS.Timeout
  readonly lastMs: number
}
const summaries = new Map<string, Due>()
/** Counts what the list says of a job, a moment later and beside the server: an append never waits for a judgment. */
export function countSoon(db: Db, jobId: string): void {
  const now = Date.now()
  const due = summaries.get(jobId)
  const lastMs = due?.lastMs ?? now + COUNT_AT_LEAST_EVERY_MS
  if (due) clearTimeout(due.timer)
  const timer = setTimeout(
    () => {
      summaries.delete(jobId)
      countNow(db, jobId).catch(error =>
        log.warn({ err: error, job: jobId }, 'the counts of a job could not be made'),
      )
    },
    Math.max(0, Math.min(QUIET_MS, lastMs - now)),
  ).unref()
  summaries.set(jobId, { timer, lastMs })
}
export async function countNow(db: Db, jobId: string): Promise<void> {
  const answer = await heavy({ kind: 'summary', file: databaseFile(), jobId })
  if (answer.kind !== 'counts') return
  await updateJob(db, jobId, answer.counts)
  await indexJob(db, { job_id: jobId, ...answer.words })
}

export interface Sent {
  observations: readonly unknown[]
  device?: string
  sentAt?: string
  /** Whoever is signed in: the name every observation gets. Nobody in a demo, where names are what people write. */
  account?: { id: string | null; name: string }
}
type Answer = Omit<Appended, 'job'>

/** What one device sends in one request, waiting for its turn. */
interface Waiting {
  readonly sent: Sent
  readonly resolve: (answer: Answer) => void
  readonly reject: (error: unknown) => void
}
/** Batches of a job that came while the disk was busy: the next turn takes them all, so that they share one write. */
const waiting = new WeakMap<JobBox, Waiting[]>()
/** No turn takes more than this, so that none is long. */
const TURN_OBSERVATIONS = 5000

/**
 * Appends observations to a job's log, one turn of a job at a time. What does not fit is set aside with its reason,
 * the rest is stored in one transaction. Ids that are there already are skipped, so a batch may be sent again; the
 * same id with other content is refused.
 */
export function append(db: Db, jobId: string, sent: Sent): Promise<Answer> {
  const box = boxOf(db, jobId)
  return new Promise((resolve, reject) => {
    const list = waiting.get(box) ?? []
    waiting.set(box, list)
    list.push({ sent, resolve, reject })
    if (list.length === 1)
      void box.enqueue(() => takeTurn(db, box)).catch(error => failAll(box, error))
  })
}

/** Where the job could not even be read. */
function failAll(box: JobBox, error: unknown): void {
  const list = waiting.get(box) ?? []
  waiting.delete(box)
  for (const one of list) one.reject(error)
}

async function takeTurn(db: Db, box: JobBox): Promise<void> {
  const list = waiting.get(box) ?? []
  const turn: Waiting[] = []
  let size = 0
  while (
    list.length > 0 &&
    (turn.length === 0 || size + list[0]!.sent.observations.length <= TURN_OBSERVATIONS)
  ) {
    const next = list.shift()!
    turn.push(next)
    size += next.sent.observations.length
  }
  if (list.length > 0) void box.enqueue(() => takeTurn(db, box)).catch(error => failAll(box, error))
  else waiting.delete(box)
  try {
    const answers = await appendTogether(
      db,
      box,
      turn.map(t => t.sent),
    )
    turn.forEach((t, i) => t.resolve(answers[i]!))
  } catch (error) {
    for (const t of turn) t.reject(error)
  }
}

interface Candidate {
  readonly batch: Batch
  readonly index: number
}
interface Batch {
  readonly answer: Answer
  readonly accountId: string | null
}

/**
 * Judges batches in the order they came, as if each stood alone after those before it, and stores
 * what fits at once.
 */
async function appendTogether(db: Db, box: JobBox, sents: readonly Sent[]): Promise<Answer[]> {
  const now = Date.now()
  const fresh: RawObservation[] = []
  const from: Candidate[] = []
  const inTurn = new Map<string, RawObservation>()
  // The same observation sent by two devices in one turn: whatever becomes of the first becomes of the second.
  const again: { readonly id: string; readonly who: Candidate }[] = []
  const batches = sents.map(sent => {
    const skewSeconds = skewOf(sent, now)
    const { raw, index, refused } = readBatch(sent, skewSeconds)
    const answer: Answer = { stored: 0, known: 0, refused, lastSequence: 0, skewSeconds }
    const batch: Batch = { answer, accountId: sent.account?.id ?? null }
    for (const o of raw) {
      const before = box.ledger.find(o.id) ?? inTurn.get(o.id)
      const who = { batch, index: index.get(o)! }
      if (!before) {
        fresh.push(o)
        from.push(who)
        inTurn.set(o.id, o)
      } else if (!sameContent(before, o)) {
        refused.push(refusal(who.index, o.id, 'conflict', [SAME_ID]))
      } else if (inTurn.has(o.id)) {
        again.push({ id: o.id, who })
      } else {
        answer.known++
      }
    }
    return batch
  })
  const stamped = withClocks(fresh, id => box.ledger.find(id))
  const placed = new Map(stamped.map((o, i) => [o, from[i]!]))
  const sifted = sift(stamped, box.ledger, now + MAX_AHEAD_MS)
  const refusals = new Map(sifted.refused.map(r => [r.observation.id, r.problems]))
  for (const { observation, problems } of sifted.refused) {
    const { batch, index } = placed.get(observation)!
    batch.answer.refused.push(refusal(index, observation.id, 'invalid-input', problems))
  }
  for (const { id, who } of again) {
    const problems = refusals.get(id)
    if (problems) who.batch.answer.refused.push(refusal(who.index, id, 'invalid-input', problems))
    else who.batch.answer.known++
  }
  const fit = sifted.fit.map(observation => ({
    observation,
    accountId: placed.get(observation)!.batch.accountId,
  }))
  if (fit.length > 0) await store(db, box, fit)
  for (const { observation } of fit) placed.get(observation)!.batch.answer.stored++
  return batches.map(({ answer }) => {
    answer.refused.sort((a, b) => a.index - b.index)
    return { ...answer, lastSequence: box.lastSequence }
  })
}

const SAME_ID: Problem = {
  path: 'id',
  expected: 'the same content as before',
  found: 'another under this id',
}
const refusal = (
  index: number,
  id: string | null,
  code: RefusedObservation['code'],
  problems: readonly Problem[],
) => ({
  index,
  id,
  code,
  problems: problems.map(p => ({ ...p, path: `observations[${index}].${p.path}` })),
})

/** How far the sending device's clock is ahead, in seconds; null where the difference is not worth telling. */
function skewOf({ sentAt }: Sent, now: number): number | null {
  if (sentAt === undefined) return null
  const ahead = Date.parse(sentAt) - now
  return Math.abs(ahead) > TOLD_SKEW_MS ? Math.round(ahead / 1000) : null
}

function readBatch({ observations, account }: Sent, skewSeconds: number | null) {
  const raw: RawObservation[] = []
  const index = new Map<RawObservation, number>()
  const refused: RefusedObservation[] = []
  const ids = new Set<string>()
  observations.forEach((given, i) => {
    const parsed = ObservationSchema.safeParse(given)
    if (!parsed.success) {
      const id = (given as { id?: unknown } | null)?.id
      refused.push(
        refusal(
          i,
          typeof id === 'string' ? id.slice(0, 120) : null,
          'invalid-input',
          problemsOf(parsed.error, given),
        ),
      )
      return
    }
    if (ids.has(parsed.data.id)) return
    ids.add(parsed.data.id)
    const o = { ...parsed.data } as RawObservation
    if (account && account.id !== null) o.by = account.name
    if (skewSeconds !== null) o.skewSeconds = skewSeconds
    else delete o.skewSeconds
    raw.push(o)
    index.set(o, i)
  })
  return { raw, index, refused }
}

/** Two observations say the same; who sent them with which clock error does not count. */
function sameContent(before: RawObservation, o: RawObservation): boolean {
  const bare = ({ by: _by, skewSeconds: _skew, clock, ...rest }: RawObservation) =>
    JSON.stringify(
      Object.entries(o.clock === undefined ? rest : { ...rest, clock }).sort(([a], [b]) =>
        a < b ? -1 : 1,
      ),
    )
  return bare(before) === bare(o)
}

interface Fitting {
  readonly observation: Observation
  readonly accountId: string | null
}

/** A job stands in the list under its name from the first; only its counts wait for a judgment. */
async function writeListed(db: Db, box: JobBox, fit: readonly Fitting[]): Promise<void> {
  const isListed = fit.some(
    ({ observation: o }) =>
      'field' in o && o.subject === PREMISES_ID && LISTED.some(field => field === o.field),
  )
  if (isListed) await updateJob(db, box.jobId, listedOf(new Site(box.ledger.house).premises))
}

async function store(db: Db, box: JobBox, fit: readonly Fitting[]): Promise<void> {
  const now = new Date().toISOString()
  const bodies = fit.map(f => JSON.stringify(f.observation))
  let last = 0
  try {
    await db.transaction().execute(async tx => {
      for (let i = 0; i < fit.length; i += 500) {
        last = await addObservations(
          tx,
          fit.slice(i, i + 500).map(({ observation: o, accountId }, k) => ({
            job_id: box.jobId,
            id: o.id,
            at: o.at,
            act: o.act,
            subject: 'subject' in o ? o.subject : null,
            field: 'field' in o ? o.field : null,
            body: bodies[i + k]!,
            received_at: now,
            account_id: accountId,
          })),
        )
      }
      await countObservations(tx, box.jobId, fit.length, now)
    })
  } catch (error) {
    forgetBox(box.jobId)
    throw isFull(error) ? diskFull() : error
  }
  // The ledger in memory follows the disk, so it takes the batch only once the rows are in.
  box.ledger.append(fit.map(f => f.observation))
  box.lastSequence = last
  await writeListed(db, box, fit).catch(error =>
    log.warn({ err: error, job: box.jobId }, 'the name of a job could not be written'),
  )
  publish(box.jobId, { lastSequence: last, bodies })
  countSoon(db, box.jobId)
}
