import { readdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { Kysely } from 'kysely'
import { DEFAULT_SETTINGS, Settings } from '../../shared/people'
import type { Database } from '../database/types'
import { jobsInState, removeJob, trashBefore } from '../queries/jobs'
import { dropAuditBefore } from '../queries/people'
import { isPhotoUsed } from '../queries/photos'
import { settingOf } from '../queries/settings'

type Db = Kysely<Database>
const DAY_MS = 86_400_000

export async function settingsOf(db: Db): Promise<Settings> {
  const parsed = Settings.safeParse(JSON.parse((await settingOf(db, 'settings')) ?? '{}'))
  return parsed.success ? parsed.data : DEFAULT_SETTINGS
}

/** What a killed server left behind: half-read files, parts of pictures, pictures no job has, scratch files. */
export async function sweepOrphans(db: Db): Promise<void> {
  for (const job of await jobsInState(db, 'importing')) await removeJob(db, job.id)
  await rm(scratchFolder(), { recursive: true, force: true })
  for (const folder of await readdir(photoFolder()).catch(() => [])) {
    for (const name of await readdir(join(photoFolder(), folder)).catch(() => [])) {
      const hash = /^([0-9a-f]{64})(\.thumb)?\.jpg$/.exec(name)?.[1]
      const isPart = name.endsWith('.part')
      if (!isPart && (hash === undefined || (await isPhotoUsed(db, hash)))) continue
      await rm(join(photoFolder(), folder, name), { force: true })
    }
  }
}

/** Empties the trash of what was there long enough, and the trail of what need not be kept. */
export async function retain(db: Db, now = Date.now()): Promise<void> {
  const { trashDays, auditDays } = await settingsOf(db)
  for (const job of await trashBefore(db, new Date(now - trashDays * DAY_MS).toISOString()))
    await purge(db, job.id)
  if (auditDays > 0) await dropAuditBefore(db, new Date(now - auditDays * DAY_MS).toISOString())
}

/** Removes a job for good, with the pictures that no other job has. */
export async function purge(db: Db, jobId: string): Promise<void> {
  const hashes = await photosOfJob(db, jobId)
  await removeJob(db, jobId)
  await sweepPhotos(db, hashes)
  forgetBox(jobId)
}
