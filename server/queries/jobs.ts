import { sql, type Kysely } from 'kysely'
import type { Database, JobRow, JobSearchTable, NewObservationRow } from '../database/types'

type Db = Kysely<Database>

export interface Wanted {
  /** Jobs that this person may see; all of them where no person is named. */
  readonly userId?: string
  readonly words?: string
  readonly stage?: string
  readonly on?: string
  readonly isArchived?: boolean
  readonly offset: number
  readonly limit: number
}
/** A search as SQLite's full text reads it: each word the beginning of one, quoted, so that no sign is special. */
export const matchOf = (words: string): string =>
  words
    .split(/\s+/)
    .map(w => w.replaceAll('"', ''))
    .filter(w => /[\p{L}\p{N}]/u.test(w))
    .slice(0, 8)
    .map(w => `"${w}"*`)
    .join(' ')

/** Jobs, the last one touched first, or the best match first where words are searched for; with how many there are. */
export async function listJobs(
  db: Db,
  { userId, words = '', stage, on, isArchived = false, offset, limit }: Wanted,
): Promise<{ rows: JobRow[]; total: number }> {
  const match = matchOf(words)
  const wanted = db
    .selectFrom('jobs')
    .where('deleted_at', 'is', null)
    .where('state', '=', 'ready')
    .where('archived_at', isArchived ? 'is not' : 'is', null)
    .$if(stage !== undefined, q => q.where('stage', '=', stage!))
    .$if(on !== undefined, q => q.where('next_on', '=', on!))
    .$if(match !== '', q =>
      q.where('id', 'in', e =>
        e
          .selectFrom('job_search')
          .select('job_id')
          .where(sql<boolean>`job_search MATCH ${match}`),
      ),
    )
    .$if(userId !== undefined, q =>
      q.where(e =>
        e.or([
          e('owner_id', '=', userId!),
          e('id', 'in', e.selectFrom('members').select('job_id').where('user_id', '=', userId!)),
        ]),
      ),
    )
  const rows = await wanted
    .selectAll()
    .orderBy('changed_at', 'desc')
    .orderBy('id')
    .limit(limit)
    .offset(offset)
    .execute()
  if (offset === 0 && rows.length < limit) return { rows, total: rows.length }
  const counted = await wanted.select(q => q.fn.countAll<number>().as('n')).executeTakeFirst()
  return { rows, total: Number(counted?.n ?? 0) }
}
/** Every job that is listed, for those who pack all of it. */
export const allJobs = (db: Db): Promise<JobRow[]> =>
  db
    .selectFrom('jobs')
    .selectAll()
    .where('deleted_at', 'is', null)
    .where('state', '=', 'ready')
    .orderBy('changed_at', 'desc')
    .orderBy('id')
    .execute()
/** Puts what the search finds a job by in the place of what was there. */
export const indexJob = (db: Db, row: JobSearchTable): Promise<void> =>
  db.transaction().execute(async tx => {
    await tx.deleteFrom('job_search').where('job_id', '=', row.job_id).execute()
    await tx.insertInto('job_search').values(row).execute()
  })
export const unindexJob = (db: Db, jobId: string) =>
  db.deleteFrom('job_search').where('job_id', '=', jobId).execute()
/** Jobs that the search does not know yet. */
export const unindexedJobs = async (db: Db): Promise<string[]> =>
  (
    await db
      .selectFrom('jobs')
      .select('id')
      .where('state', '=', 'ready')
      .where('id', 'not in', e => e.selectFrom('job_search').select('job_id'))
      .execute()
  ).map(r => r.id)
export const listTrash = (db: Db, userId?: string): Promise<JobRow[]> =>
  db
    .selectFrom('jobs')
    .selectAll()
    .where('deleted_at', 'is not', null)
    .$if(userId !== undefined, q => q.where('owner_id', '=', userId!))
    .orderBy('deleted_at', 'desc')
    .execute()
export const trashBefore = (db: Db, at: string): Promise<JobRow[]> =>
  db.selectFrom('jobs').selectAll().where('deleted_at', '<', at).execute()
export const jobsInState = (db: Db, state: JobRow['state']): Promise<JobRow[]> =>
  db.selectFrom('jobs').selectAll().where('state', '=', state).execute()
export const findJob = (db: Db, id: string): Promise<JobRow | undefined> =>
  db.selectFrom('jobs').selectAll().where('id', '=', id).executeTakeFirst()
/** True where the job is new; one that is there already is left as it is. */
export const addJob = async (
  db: Db,
  id: string,
  now: string,
  more: Partial<JobRow> = {},
): Promise<boolean> => {
  const row: JobRow = {
    id,
    created_at: now,
    changed_at: now,
    name: '',
    street: '',
    purpose: '',
    year_built: '',
    edition: '',
    observations: 0,
    make_safe: 0,
    repair: 0,
    upgrade: 0,
    record: 0,
    undecided: 0,
    in_scope: null,
    owner_id: null,
    deleted_at: null,
    state: 'ready',
    imported: 0,
    stage: 'planned',
    next_on: '',
    archived_at: null,
    ...more,
  }
  const { numInsertedOrUpdatedRows } = await db
    .insertInto('jobs')
    .values(row)
    .onConflict(c => c.column('id').doNothing())
    .executeTakeFirstOrThrow()
  return numInsertedOrUpdatedRows === 1n
}
export const updateJob = (db: Db, id: string, change: Partial<JobRow>) =>
  db.updateTable('jobs').set(change).where('id', '=', id).execute()
export async function removeJob(db: Db, id: string): Promise<void> {
  await unindexJob(db, id)
  await db.deleteFrom('jobs').where('id', '=', id).execute()
}

export interface StoredBody {
  seq: number
  body: string
}
/** Observations of a job after a sequence number, in sequence; read in pages, so that nobody waits for a long log. */
export const bodiesAfter = (
  db: Db,
  jobId: string,
  after: number,
  most: number,
): Promise<StoredBody[]> =>
  db
    .selectFrom('observations')
    .select(['seq', 'body'])
    .where('job_id', '=', jobId)
    .where('seq', '>', after)
    .orderBy('seq')
    .limit(most)
    .execute()
/** Adds rows and answers with the sequence number of the last; within one transaction numbers follow each other. */
export const addObservations = async (
  db: Db,
  rows: readonly NewObservationRow[],
): Promise<number> =>
  Number((await db.insertInto('observations').values(rows).executeTakeFirstOrThrow()).insertId)
/** Marks a job as touched, with so many observations more. */
export const countObservations = (db: Db, id: string, more: number, now: string) =>
  db
    .updateTable('jobs')
    .set({ changed_at: now, observations: sql<number>`observations + ${more}` })
    .where('id', '=', id)
    .execute()
