import { Job } from '../../../../shared/api'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  return Job.parse({ job: summary(row), observations: (await ledgerOf(db, row.id)).log() })
})
