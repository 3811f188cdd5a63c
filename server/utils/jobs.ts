import { randomUUID } from 'node:crypto'
import type { Kysely } from 'kysely'
import { checkLinks, checkObservations, evaluate, Ledger, RULES, Site, totalsOf, valueOf, valueText, FIELDS, type AnyValue, type Observation } from '../../core'
import type { Database, JobRow } from '../database/types'
import { addJob, addObservations, bodiesById, bodiesOf, findJob, updateJob } from '../queries/jobs'
import type { JobSummary } from '../../shared/api'

type Db = Kysely<Database>
const KEPT = 8
/** Ledgers of the jobs used last; the log on disk is the truth, this only spares folding it again. */
const ledgers = new Map<string, Ledger>()

export async function ledgerOf(db: Db, jobId: string): Promise<Ledger> {
  let ledger = ledgers.get(jobId)
  if (!ledger) ledger = new Ledger((await bodiesOf(db, jobId)).map(body => JSON.parse(body) as Observation))
  ledgers.delete(jobId)
  ledgers.set(jobId, ledger)
  if (ledgers.size > KEPT) ledgers.delete(ledgers.keys().next().value!)
  return ledger
}
export const forgetLedgers = (): void => ledgers.clear()

export async function requireJob(db: Db, jobId: string | undefined): Promise<JobRow> {
  const job = jobId === undefined ? undefined : await findJob(db, jobId)
  if (!job) throw refuse('no-job', 'There is no such job', [{ path: 'jobId', expected: 'the id of a job', found: JSON.stringify(jobId ?? '').slice(0, 80) }])
  return job
}

export const summary = (row: JobRow): JobSummary => ({
  id: row.id, name: row.name, street: row.street, purpose: row.purpose, yearBuilt: row.year_built, edition: row.edition, createdAt: row.created_at, changedAt: row.changed_at,
  observations: row.observations, makeSafe: row.make_safe, repair: row.repair, upgrade: row.upgrade, record: row.record, undecided: row.undecided,
})

function summarise(ledger: Ledger): Partial<JobRow> {
  const site = new Site(ledger.house)
  const totals = totalsOf(evaluate(site, RULES))
  const text = (field: 'name' | 'street' | 'purpose' | 'yearBuilt' | 'edition') => {
    const value = valueOf(site.premises, field)
    return value === undefined ? '' : valueText(FIELDS.premises[field], value as AnyValue)
  }
  return {
    name: text('name'), street: text('street'), purpose: text('purpose'), year_built: text('yearBuilt'), edition: text('edition'), observations: ledger.size,
    make_safe: totals.severity['make safe now'], repair: totals.severity.repair, upgrade: totals.severity['upgrade at next work'], record: totals.severity['for the record'], undecided: totals.undecided,
  }
}

/** Starts an empty job and returns its id. */
export async function startJob(db: Db, id: string = randomUUID()): Promise<string> {
  await addJob(db, id, new Date().toISOString())
  return id
}

/**
 * Appends observations to a job's log in one transaction. Ids that are there already are skipped, so a batch may
 * be sent again; the same id with another content is refused whole.
 */
export async function append(db: Db, jobId: string, observations: readonly Observation[]): Promise<{ stored: number, known: number, job: JobSummary }> {
  const ledger = await ledgerOf(db, jobId)
  const before = new Map((await inChunks(observations.map(o => o.id), ids => bodiesById(db, jobId, ids))).map(r => [r.id, r.body]))
  const fresh: Observation[] = []
  for (const o of observations) {
    const body = before.get(o.id)
    if (body === undefined) fresh.push(o)
    else if (canonical(JSON.parse(body)) !== canonical(o)) throw refuse('conflict', `Observation ${o.id} is on disk with another content`, [{ path: `observations.${o.id}`, expected: 'the same content as before', found: 'another' }])
  }
  const kinds = ledger.house.subjects
  const problems = checkObservations(fresh, id => kinds.get(id)?.kind ?? ledger.everKind(id), i => `observations[${i}]`)
  if (problems.length > 0) throw refuse('invalid-input', 'Observations that do not fit', problems)
  if (fresh.some(o => o.act === 'note' && LINKS.has(o.field))) {
    const touched = new Set(fresh.map(o => 'subject' in o ? o.subject : ''))
    const links = checkLinks(new Ledger([...ledger.log(), ...fresh]).house, new Set([...ledger.log(), ...fresh].flatMap(o => o.act === 'add' ? [o.subject] : []))).filter(p => touched.has(p.path.slice(0, p.path.lastIndexOf('.'))))
    if (links.length > 0) throw refuse('invalid-input', 'References that do not fit', links)
  }
  if (fresh.length > 0) {
    await db.transaction().execute(async (tx) => {
      await inChunks(fresh, rows => addObservations(tx, rows.map(o => ({
        job_id: jobId, id: o.id, at: o.at, act: o.act, subject: 'subject' in o ? o.subject : null, field: 'field' in o ? o.field : null, body: JSON.stringify(o),
      }))).then(() => []))
      // The ledger in memory follows the disk, so it takes the batch only once the rows are in.
      ledger.append(fresh)
      await updateJob(tx, jobId, { ...summarise(ledger), changed_at: new Date().toISOString() })
    }).catch((error: unknown) => {
      ledgers.delete(jobId)
      if ((error as { code?: string }).code === 'SQLITE_FULL') throw refuse('storage-full', 'The disk is full; nothing of this batch was stored')
      throw error
    })
  }
  return { stored: fresh.length, known: observations.length - fresh.length, job: summary(await requireJob(db, jobId)) }
}

const LINKS: ReadonlySet<string> = new Set(Object.values(FIELDS).flatMap(fields => Object.entries(fields).filter(([, f]) => f.type === 'ref' || f.type === 'refs').map(([name]) => name)))
const canonical = (value: object): string => JSON.stringify(Object.entries(value).sort(([a], [b]) => a < b ? -1 : 1))

/** SQLite takes a limited number of values in one statement. */
async function inChunks<T, R>(list: readonly T[], run: (part: T[]) => Promise<readonly R[]>): Promise<R[]> {
  const all: R[] = []
  for (let i = 0; i < list.length; i += 500) all.push(...await run(list.slice(i, i + 500)))
  return all
}
