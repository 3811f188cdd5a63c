import { ReportQuery } from '../../../shared/api'
import { findJob } from '../../queries/jobs'
import { linkByToken } from '../../queries/people'

/** One report, for whoever holds the link, until it expires. */
export default defineEventHandler(async event => {
  const db = await useDb()
  const link = await linkByToken(db, tokenHash(getRouterParam(event, 'token') ?? ''))
  const isOver = !link || link.revoked_at !== null || Date.parse(link.expires_at) < Date.now()
  const job = link && (await findJob(db, link.job_id))
  if (isOver || !job || job.deleted_at !== null) {
    throw refuse('gone', 'This link is no longer good. Ask whoever sent it for a new one')
  }
  const { voice } = ReportQuery.parse({ voice: link.voice })
  await audit(event, 'report read by link', link.id, job.id)
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  return heavyText({ kind: 'report', file: databaseFile(), jobId: job.id, voice })
})
