import { JobList } from '../../../shared/api'
import { listJobs } from '../../queries/jobs'

export default defineEventHandler(async () => {
  if (!isDemo()) throw refuse('not-demo', 'Only the demo database can be reset')
  const db = await useDb()
  await seedDemo(db, true)
  return JobList.parse({ jobs: (await listJobs(db)).map(summary), isDemo: true })
})
