import { z } from 'zod'
import { Sent } from '../../../../../shared/files'

/** Prints the marking labels of the accepted plan. */
export default defineEventHandler(async event => {
  await readInput(event, z.strictObject({}))
  const { db, row, asker } = await requireJob(event)
  const sent = await printLabels(db, row, asker)
  await audit(event, 'labels printed', sent.file, row.id)
  setResponseStatus(event, 201)
  return Sent.parse(sent)
})
