import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import SQLite from 'better-sqlite3'
import { Kysely, Migrator, SqliteDialect } from 'kysely'
import { MIGRATIONS } from './migrations'
import type { Database } from './types'

/**
 * A connection with what every one of ours needs.
 * An observation that was acknowledged survives a killed process: WAL, synchronous FULL.
 */
export function connect(file: string): SQLite.Database {
  const sqlite = new SQLite(file)
  sqlite.pragma('journal_mode = WAL')
  sqlite.pragma('synchronous = FULL')
  sqlite.pragma('foreign_keys = ON')
  sqlite.pragma('busy_timeout = 5000')
  const megabytes = Number(process.env.CORVIT_DB_MAX_MB ?? 0)
  if (megabytes > 0) {
    const pageSize = sqlite.pragma('page_size', { simple: true }) as number
    sqlite.pragma(`max_page_count = ${Math.floor((megabytes * 1024 * 1024) / pageSize)}`)
  }
  return withKeptStatements(sqlite)
}

const KEPT_STATEMENTS = 200

/** The same few statements come again and again; each is read by SQLite once. */
function withKeptStatements(sqlite: SQLite.Database): SQLite.Database {
  const prepare = sqlite.prepare.bind(sqlite)
  const kept = new Map<string, SQLite.Statement>()
  sqlite.prepare = ((source: string) => {
    const before = kept.get(source)
    // One that is still being read row by row cannot be begun anew.
    if (before && !before.busy) return before
    const made = prepare(source)
    if (kept.size >= KEPT_STATEMENTS) kept.delete(kept.keys().next().value!)
    kept.set(source, made)
    return made
  }) as SQLite.Database['prepare']
  return sqlite
}

/**
 * Opens the database file and brings it to today's shape.
 * @param file path, or ':memory:'
 */
export async function openDatabase(file: string): Promise<Kysely<Database>> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const db = new Kysely<Database>({ dialect: new SqliteDialect({ database: connect(file) }) })
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: async () => MIGRATIONS },
  }).migrateToLatest()
  if (error) throw error
  return db
}

/** The file that says a process has this database; a lock of the system, so it falls with the process. */
export const lockFile = (file: string): string => `${file}.lock`

/**
 * Takes the database for this process alone, until it ends.
 * @returns undefined where another process has it
 */
export function takeLock(file: string): { release(): void } | undefined {
  mkdirSync(dirname(file), { recursive: true })
  const lock = new SQLite(lockFile(file), { timeout: 300 })
  try {
    lock.exec('BEGIN EXCLUSIVE')
  } catch {
    lock.close()
    return undefined
  }
  return { release: () => void lock.close() }
}
