import { randomUUID } from 'node:crypto'
import { firstObservations } from '../../../core'
import { Appended, NewJob } from '../../../shared/api'
import { ownFactsOf } from '../../../shared/files'
import { findJob } from '../../queries/jobs'

export default defineEventHandler(async event => {
  const input = await readInput(event, NewJob)
  const db = await useDb()
  const asker = requireAsker(event)
  const id = await startJob(db, undefined, { owner_id: asker.id })
  const at = new Date().toISOString()
  const by = asker.name || input.assessor || 'assessor'
  const own = ownFactsOf(await ownSettings(db, asker))
  const observations = firstObservations({ ...input, own }, { at, by, nextId: randomUUID })
  const answer = await append(db, id, { observations, account: asker })
  await countNow(db, id)
  await audit(event, 'job made', input.name, id)
  setResponseStatus(event, 201)
  return Appended.parse({ ...answer, job: summary((await findJob(db, id))!, asker) })
})
