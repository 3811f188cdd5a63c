import { PREMISES_ID } from '../model/house'
import type { RawObservation } from '../model/observation'
import type { Stamper } from './from-house'

/** What is known of a job before anybody has looked at the house. */
export interface FirstFacts {
  name: string
  purpose: string
  edition: number
  street?: string
  yearBuilt?: number
  assessor?: string
}

/** The first observations of a job, the same whether a server or a device without a network makes them. */
export function firstObservations(first: FirstFacts, stamp: Stamper): RawObservation[] {
  const facts = {
    ...first,
    visitedOn: stamp.at.slice(0, 10),
    allowedToRemain: 'recommend upgrade',
    aluminumSchool: 'strict',
    citeSections: false,
  }
  const made = () => ({ id: stamp.nextId(), at: stamp.at, by: stamp.by })
  const list: RawObservation[] = [
    { ...made(), act: 'add', subject: PREMISES_ID, kind: 'premises', parent: null },
  ]
  for (const [field, value] of Object.entries(facts)) {
    if (value === undefined || value === '') continue
    list.push({ ...made(), act: 'note', subject: PREMISES_ID, field, value, grade: 'told' })
  }
  return list
}
