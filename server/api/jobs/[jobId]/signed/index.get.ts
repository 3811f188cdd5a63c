import { SignedList } from '../../../../../shared/files'
import { listSigned } from '../../../../queries/papers'

/** The signed reports of a job, as they were frozen. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  return SignedList.parse({ signed: (await listSigned(db, row.id)).map(signedOut) })
})
