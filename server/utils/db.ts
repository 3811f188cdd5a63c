import type { Kysely } from 'kysely'
import { openDatabase } from '../database/open'
import type { Database } from '../database/types'

let opened: Promise<Kysely<Database>> | undefined

/** The one database of this process; its file is named by CORVIT_DB. */
export const useDb = (): Promise<Kysely<Database>> => opened ??= openDatabase(process.env.CORVIT_DB ?? 'data/corvit.db')
export const isDemo = (): boolean => process.env.CORVIT_DEMO === '1'
