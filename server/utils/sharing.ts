import type { H3Event } from 'h3'
import { ReportQuery } from '../../shared/api'
import { findJob } from '../queries/jobs'
import { latestSigned } from '../queries/papers'
import { linkByToken } from '../queries/people'

/** The job a link opens, and its report as it was signed last; refused where the link is over. */
export async function requireLink(event: H3Event) {
  const db = await useDb()
  const link = await linkByToken(db, tokenHash(getRouterParam(event, 'token') ?? ''))
  const isOver = !link || link.revoked_at !== null || Date.parse(link.expires_at) < Date.now()
  const job = link && (await findJob(db, link.job_id))
  if (isOver || !job || job.deleted_at !== null) {
    throw refuse('gone', 'This link is no longer good. Ask whoever sent it for a new one')
  }
  const { voice } = ReportQuery.parse({ voice: link.voice })
  await audit(event, 'report read by link', link.id, job.id)
  return { job, voice, signed: await latestSigned(db, job.id, voice) }
}
