export default defineEventHandler(async event => {
  const { db, row } = await requireJob(event, 'manage')
  return accessTo(db, row)
})
