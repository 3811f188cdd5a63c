import type { Kysely } from 'kysely'
import { openDatabase } from '../database/open'
import type { Database } from '../database/types'

let opened: Promise<Kysely<Database>> | undefined

/** The one database of this process; its file is named by CORVIT_DB. In the demo no request is answered before the houses are in. */
export const useDb = (): Promise<Kysely<Database>> => opened ??= begin()
async function begin(): Promise<Kysely<Database>> {
  const db = await openDatabase(process.env.CORVIT_DB ?? 'data/corvit.db')
  if (isDemo()) await seedDemo(db)
  return db
}
export const isDemo = (): boolean => process.env.CORVIT_DEMO === '1'
