import { removeJob } from '../../../queries/jobs'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  const hashes = await photosOfJob(db, row.id)
  await removeJob(db, row.id)
  await sweepPhotos(db, hashes)
  forgetLedgers()
  setResponseStatus(event, 204)
  return null
})
