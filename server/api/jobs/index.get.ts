import { JobList } from '../../../shared/api'
import { JobsQuery } from '../../../shared/files'
import { listJobs } from '../../queries/jobs'
import { listUsers } from '../../queries/people'

/** Jobs, a page of them at a time: the last one touched first, or those that the words are found in. */
export default defineEventHandler(async event => {
  const { search, stage, on, archived, offset, limit } = readQuery(event, JobsQuery)
  const db = await useDb()
  const asker = requireAsker(event)
  const userId = asker.role === 'owner' ? undefined : (asker.id ?? undefined)
  const { rows, total } = await listJobs(db, {
    words: search,
    isArchived: archived === '1',
    offset,
    limit,
    ...(stage !== undefined && { stage }),
    ...(on !== undefined && { on }),
    ...(userId !== undefined && { userId }),
  })
  const owners = new Map((await listUsers(db)).map(u => [u.id, u.name]))
  const jobs = rows.map(row => summary(row, asker, owners))
  return JobList.parse({ jobs, total, isDemo: isDemo() })
})
