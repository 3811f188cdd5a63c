import { JobList } from '../../../shared/api'
import { allJobs } from '../../queries/jobs'

export default defineEventHandler(async event => {
  if (!isDemo()) throw refuse('not-demo', 'Only the demo database can be reset')
  const db = await useDb()
  const asker = requireAsker(event)
  await seedDemo(db, true)
  const jobs = (await allJobs(db)).map(row => summary(row, asker))
  return JobList.parse({ jobs, total: jobs.length, isDemo: true })
})
