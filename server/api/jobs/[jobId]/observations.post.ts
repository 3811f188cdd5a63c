import type { Observation } from '../../../../core'
import { Append, Appended } from '../../../../shared/api'

export default defineEventHandler(async (event) => {
  const db = await useDb()
  const row = await requireJob(db, getRouterParam(event, 'jobId'))
  const { observations } = await readInput(event, Append)
  return Appended.parse(await append(db, row.id, observations as Observation[]))
})
