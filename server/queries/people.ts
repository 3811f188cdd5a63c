import type { Kysely } from 'kysely'
import type {
  AuditRow,
  Database,
  LinkRow,
  PasskeysTable,
  UserRow,
  UsersTable,
} from '../database/types'

type Db = Kysely<Database>

export const countUsers = async (db: Db): Promise<number> =>
  Number(
    (
      await db
        .selectFrom('users')
        .select(q => q.fn.countAll().as('n'))
        .executeTakeFirstOrThrow()
    ).n,
  )
export const listUsers = (db: Db): Promise<UserRow[]> =>
  db.selectFrom('users').selectAll().orderBy('name').orderBy('id').execute()
export const findUser = (db: Db, id: string): Promise<UserRow | undefined> =>
  db.selectFrom('users').selectAll().where('id', '=', id).executeTakeFirst()
export const findLogin = (db: Db, login: string): Promise<UserRow | undefined> =>
  db.selectFrom('users').selectAll().where('login', '=', login).executeTakeFirst()
export const addUser = (db: Db, row: UsersTable) => db.insertInto('users').values(row).execute()
export const changeUser = (db: Db, id: string, change: Partial<UsersTable>) =>
  db.updateTable('users').set(change).where('id', '=', id).execute()
export const jobsByOwner = (db: Db) =>
  db
    .selectFrom('jobs')
    .select(['owner_id', q => q.fn.countAll().as('n')])
    .where('deleted_at', 'is', null)
    .groupBy('owner_id')
    .execute()

export const passkeysOf = (db: Db, userId: string) =>
  db
    .selectFrom('passkeys')
    .selectAll()
    .where('user_id', '=', userId)
    .orderBy('created_at')
    .execute()
export const findPasskey = (db: Db, id: string) =>
  db.selectFrom('passkeys').selectAll().where('id', '=', id).executeTakeFirst()
export const addPasskey = (db: Db, row: PasskeysTable) =>
  db.insertInto('passkeys').values(row).execute()
export const countPasskey = (db: Db, id: string, counter: number) =>
  db.updateTable('passkeys').set({ counter }).where('id', '=', id).execute()
export const removePasskey = (db: Db, userId: string, id: string) =>
  db.deleteFrom('passkeys').where('user_id', '=', userId).where('id', '=', id).execute()

export const membersOf = (db: Db, jobId: string): Promise<UserRow[]> =>
  db
    .selectFrom('members')
    .innerJoin('users', 'users.id', 'members.user_id')
    .selectAll('users')
    .where('job_id', '=', jobId)
    .orderBy('name')
    .execute()
export const isMember = async (db: Db, jobId: string, userId: string): Promise<boolean> =>
  (await db
    .selectFrom('members')
    .select('user_id')
    .where('job_id', '=', jobId)
    .where('user_id', '=', userId)
    .executeTakeFirst()) !== undefined
export const setMembers = (db: Db, jobId: string, userIds: readonly string[]) =>
  db.transaction().execute(async tx => {
    await tx.deleteFrom('members').where('job_id', '=', jobId).execute()
    if (userIds.length === 0) return
    await tx
      .insertInto('members')
      .values(userIds.map(user_id => ({ job_id: jobId, user_id })))
      .execute()
  })

export const linksOf = (db: Db, jobId: string): Promise<LinkRow[]> =>
  db
    .selectFrom('links')
    .selectAll()
    .where('job_id', '=', jobId)
    .orderBy('made_at', 'desc')
    .execute()
export const addLink = (db: Db, row: LinkRow) => db.insertInto('links').values(row).execute()
export const linkByToken = (db: Db, hash: string): Promise<LinkRow | undefined> =>
  db.selectFrom('links').selectAll().where('token_hash', '=', hash).executeTakeFirst()
export const revokeLink = (db: Db, jobId: string, id: string, now: string) =>
  db
    .updateTable('links')
    .set({ revoked_at: now })
    .where('job_id', '=', jobId)
    .where('id', '=', id)
    .execute()

export const addAudit = (db: Db, row: Omit<AuditRow, 'seq'>) =>
  db.insertInto('audit').values(row).execute()
export const auditBefore = (db: Db, seq: number | undefined, most: number): Promise<AuditRow[]> =>
  db
    .selectFrom('audit')
    .selectAll()
    .$if(seq !== undefined, q => q.where('seq', '<', seq!))
    .orderBy('seq', 'desc')
    .limit(most)
    .execute()
export const dropAuditBefore = (db: Db, at: string) =>
  db.deleteFrom('audit').where('at', '<', at).execute()
