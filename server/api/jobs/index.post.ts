import { randomUUID } from 'node:crypto'
import { PREMISES_ID, type Observation } from '../../../core'
import { Appended, NewJob } from '../../../shared/api'

export default defineEventHandler(async (event) => {
  const input = await readInput(event, NewJob)
  const db = await useDb()
  const id = await startJob(db)
  const stamp = () => ({ id: randomUUID(), at: new Date().toISOString(), by: input.assessor || 'assessor' })
  const facts = { name: input.name, street: input.street, purpose: input.purpose, yearBuilt: input.yearBuilt, edition: input.edition, assessor: input.assessor, visitedOn: new Date().toISOString().slice(0, 10), allowedToStay: 'recommend upgrade', aluminiumSchool: 'strict', citeSections: false }
  const observations: Observation[] = [{ ...stamp(), act: 'add', subject: PREMISES_ID, kind: 'premises', parent: null }]
  for (const [field, value] of Object.entries(facts)) {
    if (value !== undefined && value !== '') observations.push({ ...stamp(), act: 'note', subject: PREMISES_ID, field, value, grade: 'told' })
  }
  const answer = await append(db, id, observations)
  setResponseStatus(event, 201)
  return Appended.parse(answer)
})
