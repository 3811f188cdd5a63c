import { Permits } from '../../../../../shared/files'

/** What the permit office was sent, and what it says now. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  return Permits.parse({ permits: await permitsOf(db, row.id) })
})
