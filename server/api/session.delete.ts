export default defineEventHandler(async event => {
  await audit(event, 'signed out')
  await clearUserSession(event)
  setResponseStatus(event, 204)
  return null
})
