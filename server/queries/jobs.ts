import { sql, type Kysely } from 'kysely'
import type { Database, JobRow, NewObservationRow } from '../database/types'

type Db = Kysely<Database>

/** Jobs that a person may see, the last one touched first; all of them where no person is named. */
export const listJobs = (db: Db, userId?: string): Promise<JobRow[]> =>
  db
    .selectFrom('jobs')
    .selectAll()
    .where('deleted_at', 'is', null)
    .where('state', '=', 'ready')
    .$if(userId !== undefined, q =>
      q.where(e =>
        e.or([
          e('owner_id', '=', userId!),
          e('id', 'in', e.selectFrom('members').select('job_id').where('user_id', '=', userId!)),
        ]),
      ),
    )
    .orderBy('changed_at', 'desc')
    .orderBy('id')
    .execute()
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
export const removeJob = (db: Db, id: string) =>
  db.deleteFrom('jobs').where('id', '=', id).execute()

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
