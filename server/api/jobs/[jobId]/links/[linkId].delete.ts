import { revokeLink } from '../../../../queries/people'

export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event, 'manage')
  const linkId = getRouterParam(event, 'linkId') ?? ''
  await revokeLink(db, row.id, linkId, new Date().toISOString())
  await audit(event, 'link revoked', linkId, row.id)
  setResponseStatus(event, 204)
  return null
})
