import { updateJob } from '../../../queries/jobs'

export default defineEventHandler(async event => {
  const { db, row } = await requireTrashed(event)
  await updateJob(db, row.id, { deleted_at: null })
  await audit(event, 'job restored', row.name, row.id)
  setResponseStatus(event, 204)
  return null
})
