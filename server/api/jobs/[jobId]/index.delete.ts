import { removeJob } from '../../../queries/jobs'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  await removeJob(db, row.id)
  forgetLedgers()
  setResponseStatus(event, 204)
  return null
})
