import { createReadStream } from 'node:fs'
import { rm } from 'node:fs/promises'

/** Every job's log and pictures, and the audit trail, in one archive with checksums. */
export default defineEventHandler(async event => {
  const file = await packEverything(await useDb())
  await audit(event, 'everything exported')
  sendAs(event, 'application/zip', `corvit-${new Date().toISOString().slice(0, 10)}.zip`)
  const stream = createReadStream(file)
  stream.once('close', () => void rm(file, { force: true }))
  return sendStream(event, stream)
})
