import type { H3Event } from 'h3'
import type { Kysely } from 'kysely'
import type { Database, JobRow } from '../database/types'
import { findJob } from '../queries/jobs'

/** A job in the trash that whoever asks may decide about. */
export async function requireTrashed(
  event: H3Event,
): Promise<{ db: Kysely<Database>; row: JobRow }> {
  const db = await useDb()
  const row = await findJob(db, getRouterParam(event, 'jobId') ?? '')
  if (!row || row.deleted_at === null || !(await mayOn(db, requireAsker(event), row, 'manage'))) {
    throw refuse('no-job', 'There is no such job in the trash')
  }
  return { db, row }
}
