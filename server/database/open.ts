import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import SQLite from 'better-sqlite3'
import { Kysely, Migrator, SqliteDialect } from 'kysely'
import { MIGRATIONS } from './migrations'
import type { Database } from './types'

/**
 * Opens the database file and brings it to today's shape.
 * An observation that was acknowledged survives a killed process: WAL, synchronous FULL.
 * @param file path, or ':memory:'
 */
export async function openDatabase(file: string): Promise<Kysely<Database>> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const sqlite = new SQLite(file)
  sqlite.pragma('journal_mode = WAL')
  sqlite.pragma('synchronous = FULL')
  sqlite.pragma('foreign_keys = ON')
  sqlite.pragma('busy_timeout = 5000')
  const db = new Kysely<Database>({ dialect: new SqliteDialect({ database: sqlite }) })
  const { error } = await new Migrator({ db, provider: { getMigrations: async () => MIGRATIONS } }).migrateToLatest()
  if (error) throw error
  return db
}
