import { removePasskey } from '../../../queries/people'

export default defineEventHandler(async event => {
  await removePasskey(
    await useDb(),
    requireAsker(event).id ?? '',
    getRouterParam(event, 'passkeyId') ?? '',
  )
  await audit(event, 'passkey removed')
  setResponseStatus(event, 204)
  return null
})
