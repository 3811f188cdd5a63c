import { Archive } from '../../../../shared/files'
import { updateJob } from '../../../queries/jobs'

/** Out of the list, or back into it; nothing of the job changes. */
export default defineEventHandler(async event => {
  const { isArchived } = await readInput(event, Archive)
  const { db, row } = await requireJob(event, 'manage')
  await updateJob(db, row.id, { archived_at: isArchived ? new Date().toISOString() : null })
  await audit(event, isArchived ? 'job archived' : 'job taken out of the archive', row.name, row.id)
  setResponseStatus(event, 204)
  return null
})
