import { Report, writeReport } from '../../../../core'
import { ReportQuery } from '../../../../shared/api'

/** The report is judged again here, from the log on disk. */
export default defineEventHandler(async (event) => {
  const { voice } = readQuery(event, ReportQuery)
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  return Report.parse(writeReport((await ledgerOf(db, row.id)).house, voice))
})
