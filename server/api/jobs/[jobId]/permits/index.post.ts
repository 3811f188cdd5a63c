import { z } from 'zod'
import { Permits } from '../../../../../shared/files'

/** Sends the permit note of the accepted plan to the permit office. */
export default defineEventHandler(async event => {
  await readInput(event, z.strictObject({}))
  const { db, row, asker } = await requireJob(event)
  const reference = await applyForPermit(db, row, asker)
  await audit(event, 'permit applied for', reference, row.id)
  setResponseStatus(event, 201)
  return Permits.parse({ permits: await permitsOf(db, row.id) })
})
