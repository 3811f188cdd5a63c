import Papa from 'papaparse'
import { panelSchedule } from '../../../../core'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  sendAs(event, 'text/csv; charset=utf-8', `${fileName(row.name)}-panel-schedule.csv`)
  return Papa.unparse(panelSchedule((await ledgerOf(db, row.id)).house), { escapeFormulae: true })
})
