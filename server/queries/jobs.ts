import type { Kysely } from 'kysely'
import type { Database, JobRow, NewObservationRow } from '../database/types'

type Db = Kysely<Database>

export const listJobs = (db: Db): Promise<JobRow[]> => db.selectFrom('jobs').selectAll().orderBy('changed_at', 'desc').orderBy('id').execute()
export const findJob = (db: Db, id: string): Promise<JobRow | undefined> => db.selectFrom('jobs').selectAll().where('id', '=', id).executeTakeFirst()
export const addJob = (db: Db, id: string, now: string) => db.insertInto('jobs').values({
  id, created_at: now, changed_at: now, name: '', street: '', purpose: '', year_built: '', edition: '', observations: 0, make_safe: 0, repair: 0, upgrade: 0, record: 0, undecided: 0,
}).execute()
export const updateJob = (db: Db, id: string, change: Partial<JobRow>) => db.updateTable('jobs').set(change).where('id', '=', id).execute()
export const removeJob = (db: Db, id: string) => db.deleteFrom('jobs').where('id', '=', id).execute()

export const bodiesOf = async (db: Db, jobId: string): Promise<string[]> =>
  (await db.selectFrom('observations').select('body').where('job_id', '=', jobId).orderBy('seq').execute()).map(r => r.body)
export const bodiesById = (db: Db, jobId: string, ids: readonly string[]) =>
  db.selectFrom('observations').select(['id', 'body']).where('job_id', '=', jobId).where('id', 'in', ids).execute()
export const addObservations = (db: Db, rows: readonly NewObservationRow[]) => db.insertInto('observations').values(rows).execute()
