import { JobList } from '../../../shared/api'
import { listJobs } from '../../queries/jobs'

export default defineEventHandler(async event => {
  if (!isDemo()) throw refuse('not-demo', 'Only the demo database can be reset')
  const db = await useDb()
  const asker = requireAsker(event)
  await seedDemo(db, true)
  return JobList.parse({ jobs: (await listJobs(db)).map(row => summary(row, asker)), isDemo: true })
})
