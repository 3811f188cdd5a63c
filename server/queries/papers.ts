import type { Insertable, Kysely } from 'kysely'
import type {
  Database,
  OutboxRow,
  OutboxTable,
  PermitsTable,
  SignedRow,
  SignedTable,
} from '../database/types'

type Db = Kysely<Database>

/** The signed reports of a job, without their PDF, first to last. */
export const listSigned = (db: Db, jobId: string): Promise<Omit<SignedRow, 'pdf' | 'paper'>[]> =>
  db
    .selectFrom('signed')
    .select(['job_id', 'name', 'number', 'voice', 'hash', 'signed_by', 'signed_on'])
    .where('job_id', '=', jobId)
    .orderBy('voice')
    .orderBy('number')
    .execute()
export const signedByName = (db: Db, jobId: string, name: string): Promise<SignedRow | undefined> =>
  db
    .selectFrom('signed')
    .selectAll()
    .where('job_id', '=', jobId)
    .where('name', '=', name)
    .executeTakeFirst()
/** The last revision that was signed of a report. */
export const latestSigned = (
  db: Db,
  jobId: string,
  voice: string,
): Promise<SignedRow | undefined> =>
  db
    .selectFrom('signed')
    .selectAll()
    .where('job_id', '=', jobId)
    .where('voice', '=', voice)
    .orderBy('number', 'desc')
    .limit(1)
    .executeTakeFirst()
export const addSigned = (db: Db, row: Insertable<SignedTable>) =>
  db.insertInto('signed').values(row).execute()
export const removeSigned = (db: Db, jobId: string, name: string) =>
  db.deleteFrom('signed').where('job_id', '=', jobId).where('name', '=', name).execute()

export const listOutbox = (db: Db, jobId: string): Promise<OutboxRow[]> =>
  db
    .selectFrom('outbox')
    .selectAll()
    .where('job_id', '=', jobId)
    .orderBy('made_at', 'desc')
    .execute()
export const outboxById = (db: Db, jobId: string, id: string): Promise<OutboxRow | undefined> =>
  db
    .selectFrom('outbox')
    .selectAll()
    .where('job_id', '=', jobId)
    .where('id', '=', id)
    .executeTakeFirst()
export const addToOutbox = (db: Db, row: Insertable<OutboxTable>) =>
  db.insertInto('outbox').values(row).execute()

export const listPermits = (db: Db, jobId: string) =>
  db
    .selectFrom('permits')
    .selectAll()
    .where('job_id', '=', jobId)
    .orderBy('sent_at', 'desc')
    .execute()
export const addPermit = (db: Db, row: Insertable<PermitsTable>) =>
  db.insertInto('permits').values(row).execute()
