export default defineEventHandler(async event => {
  const { row } = await requireJob(event)
  const text = await heavyText({ kind: 'findings', file: databaseFile(), jobId: row.id })
  sendAs(event, 'text/csv; charset=utf-8', `${fileName(row.name)}-findings.csv`)
  return text
})
