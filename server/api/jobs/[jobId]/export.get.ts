import { writeHouse, writeLog } from '../../../../core'
import { ExportQuery } from '../../../../shared/api'

export default defineEventHandler(async (event) => {
  const { form } = readQuery(event, ExportQuery)
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  const ledger = await ledgerOf(db, row.id)
  sendAs(event, 'application/json; charset=utf-8', `${fileName(row.name)}.${form}.corvit.json`)
  return JSON.stringify(form === 'log' ? writeLog(ledger) : writeHouse(ledger.house, id => ledger.find(id)), null, 1)
})
