export default defineEventHandler(async event => {
  const { row } = await requireJob(event)
  const text = await heavyText({ kind: 'schedule', file: databaseFile(), jobId: row.id })
  sendAs(event, 'text/csv; charset=utf-8', `${fileName(row.name)}-panel-schedule.csv`)
  return text
})
