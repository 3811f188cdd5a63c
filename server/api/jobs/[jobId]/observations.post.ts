import { Append, Appended } from '../../../../shared/api'
import { findJob } from '../../../queries/jobs'

export default defineEventHandler(async event => {
  const { db, row, asker } = await requireJob(event)
  const input = await readInput(event, Append)
  const answer = await append(db, row.id, { ...input, account: asker })
  return Appended.parse({ ...answer, job: summary((await findJob(db, row.id)) ?? row, asker) })
})
