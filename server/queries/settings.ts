import type { Kysely } from 'kysely'
import type { Database } from '../database/types'

type Db = Kysely<Database>

export const settingOf = async (db: Db, key: string): Promise<string | undefined> =>
  (await db.selectFrom('settings').select('value').where('key', '=', key).executeTakeFirst())?.value
export const setSetting = (db: Db, key: string, value: string) =>
  db
    .insertInto('settings')
    .values({ key, value })
    .onConflict(c => c.column('key').doUpdateSet({ value }))
    .execute()
