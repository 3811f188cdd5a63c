import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { outboxById } from '../../../../queries/papers'

/** What went out, the file itself. */
export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event)
  const sent = await outboxById(db, row.id, getRouterParam(event, 'sentId') ?? '')
  const gone = () => refuse('gone', 'The outbox no longer has this')
  if (!sent) throw gone()
  const bytes = await readFile(join(outboxFolder(), sent.file)).catch(() => {
    throw gone()
  })
  sendAs(event, sent.kind === 'mail' ? 'message/rfc822' : 'application/pdf', sent.file)
  return bytes
})
