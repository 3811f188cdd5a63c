import Papa from 'papaparse'
import { findingsTable } from '../../../../core'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  sendAs(event, 'text/csv; charset=utf-8', `${fileName(row.name)}-findings.csv`)
  return Papa.unparse(findingsTable((await ledgerOf(db, row.id)).house), { escapeFormulae: true })
})
