import { Outbox } from '../../../../../shared/files'
import { listOutbox } from '../../../../queries/papers'

/** What went out for a job. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  return Outbox.parse({ sent: (await listOutbox(db, row.id)).map(sentOut) })
})
