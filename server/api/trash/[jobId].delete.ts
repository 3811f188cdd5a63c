/** For good; the audit trail says that it was there. */
export default defineEventHandler(async event => {
  const { db, row } = await requireTrashed(event)
  await purge(db, row.id)
  await audit(
    event,
    'job deleted for good',
    `${row.name}, ${row.observations} observations`,
    row.id,
  )
  setResponseStatus(event, 204)
  return null
})
