import { ExportQuery } from '../../../../shared/api'

export default defineEventHandler(async event => {
  const { form } = readQuery(event, ExportQuery)
  const { row } = await requireJob(event)
  const text = await heavyText({ kind: 'export', file: databaseFile(), jobId: row.id, form })
  await audit(event, 'job exported', form, row.id)
  sendAs(event, 'application/json; charset=utf-8', `${fileName(row.name)}.${form}.corvit.json`)
  return text
})
