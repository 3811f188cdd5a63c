import { randomBytes, randomUUID } from 'node:crypto'
import { MadeLink, NewLink } from '../../../../../shared/people'
import { addLink } from '../../../../queries/people'

export default defineEventHandler(async event => {
  const { voice, days } = await readInput(event, NewLink)
  const { db, row, asker } = await requireJob(event, 'manage')
  const token = randomBytes(32).toString('base64url')
  const now = Date.now()
  const link = {
    id: randomUUID(),
    job_id: row.id,
    token_hash: tokenHash(token),
    voice,
    made_by: asker.name,
    made_at: new Date(now).toISOString(),
    expires_at: new Date(now + days * 86_400_000).toISOString(),
    revoked_at: null,
  }
  await addLink(db, link)
  await audit(event, 'link made', `${voice}, ${days} days, ${link.id}`, row.id)
  setResponseStatus(event, 201)
  return MadeLink.parse({ ...linkOut(link), token })
})
