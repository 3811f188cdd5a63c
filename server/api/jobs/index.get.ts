import { JobList } from '../../../shared/api'
import { listJobs } from '../../queries/jobs'

export default defineEventHandler(async () => {
  const jobs = await listJobs(await useDb())
  return JobList.parse({ jobs: jobs.map(summary), isDemo: isDemo() })
})
