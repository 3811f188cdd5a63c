import { randomUUID } from 'node:crypto'
import type { Kysely } from 'kysely'
import { openDatabase, takeLock } from '../database/open'
import type { Database } from '../database/types'
import { unindexedJobs } from '../queries/jobs'
import { settingOf, setSetting } from '../queries/settings'

let opened: Promise<Kysely<Database>> | undefined
let lock: { release(): void } | undefined

/** The database is open in another process; a second writer would not see what the first one knows. */
export class DatabaseTaken extends Error {}

/** The one database of this process. In the demo no request is answered before the houses are in. */
export const useDb = (): Promise<Kysely<Database>> => (opened ??= begin())

async function begin(): Promise<Kysely<Database>> {
  const file = databaseFile()
  lock = takeLock(file)
  if (!lock) throw new DatabaseTaken(`${file} is in use by another Corvit; stop that one first`)
  const db = await openDatabase(file)
  if ((await settingOf(db, 'instance')) === undefined)
    await setSetting(db, 'instance', randomUUID())
  await sweepOrphans(db)
  if (isDemo()) await seedDemo(db)
  // Jobs of a database from before there was a search are found once they are counted.
  for (const id of await unindexedJobs(db)) countSoon(db, id)
  return db
}
export const isDemo = (): boolean => process.env.CORVIT_DEMO === '1'

/** Ends the use of the database; what was acknowledged is on the disk already. */
export async function closeDb(): Promise<void> {
  if (!opened) return
  const db = await opened.catch(() => undefined)
  await db?.destroy()
  lock?.release()
  opened = lock = undefined
}
