/** Everything of one job in one archive: log, photographs, signed reports, checksums. */
export default defineEventHandler(async event => {
  const { row } = await requireJob(event)
  const bytes = await heavyText({
    kind: 'bundle',
    file: databaseFile(),
    jobId: row.id,
    photos: photoFolder(),
  })
  await audit(event, 'job exported', 'bundle', row.id)
  sendAs(event, 'application/zip', `${fileName(row.name)}.corvit.zip`)
  return bytes
})
