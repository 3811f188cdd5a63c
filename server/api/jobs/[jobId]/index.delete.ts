import { updateJob } from '../../../queries/jobs'

/** Into the trash; it can be brought back from there. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event, 'manage')
  await updateJob(db, row.id, { deleted_at: new Date().toISOString() })
  forgetBox(row.id)
  await audit(event, 'job deleted', row.name, row.id)
  setResponseStatus(event, 204)
  return null
})
