import { JobList } from '../../../shared/api'
import { listJobs } from '../../queries/jobs'
import { listUsers } from '../../queries/people'

export default defineEventHandler(async event => {
  const db = await useDb()
  const asker = requireAsker(event)
  const rows = await listJobs(db, asker.role === 'owner' ? undefined : (asker.id ?? undefined))
  const owners = new Map((await listUsers(db)).map(u => [u.id, u.name]))
  return JobList.parse({ jobs: rows.map(row => summary(row, asker, owners)), isDemo: isDemo() })
})
