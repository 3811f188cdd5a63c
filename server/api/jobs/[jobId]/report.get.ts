import { ReportQuery } from '../../../../shared/api'

/** The report is judged again here, from the log on disk. */
export default defineEventHandler(async event => {
  const { voice } = readQuery(event, ReportQuery)
  const { row } = await requireJob(event)
  const text = await heavyText({ kind: 'report', file: databaseFile(), jobId: row.id, voice })
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  return text
})
