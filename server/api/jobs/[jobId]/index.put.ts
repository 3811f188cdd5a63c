import { Appended, JobId, PutJob } from '../../../../shared/api'
import { addJob, findJob } from '../../../queries/jobs'

/** A job made on a device, under the name the device gave it. Sent twice it is the same job. */
export default defineEventHandler(async event => {
  await readInput(event, PutJob)
  const id = check(JobId, getRouterParam(event, 'jobId'))
  const db = await useDb()
  const asker = requireAsker(event)
  const isNew = await addJob(db, id, new Date().toISOString(), { owner_id: asker.id })
  const row = await findJob(db, id)
  if (!row || !(await mayOn(db, asker, row, 'use')))
    throw refuse('conflict', 'That job is somebody else’s')
  if (row.deleted_at !== null) throw refuse('gone', 'That job is in the trash')
  if (isNew) await audit(event, 'job made', 'on a device', id)
  setResponseStatus(event, isNew ? 201 : 200)
  const none = { stored: 0, known: 0, refused: [], lastSequence: 0, skewSeconds: null }
  return Appended.parse({ ...none, job: summary(row, asker) })
})
