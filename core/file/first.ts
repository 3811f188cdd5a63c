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
  /** What this person's jobs begin with. */
  own?: OwnFacts
}
/** A person's settings as far as a job holds them. */
export interface OwnFacts {
  allowedToRemain: string
  aluminumSchool: string
  citeSections: boolean
  temperatures: string
  adoptions: readonly { edition: number; year: number }[]
  amendments: readonly {
    rule: string
    effect: string
    asIn?: number | undefined
    source: string
  }[]
}

/** The first observations of a job, the same whether a server or a device without a network makes them. */
export function firstObservations(first: FirstFacts, stamp: Stamper): RawObservation[] {
  const { own, ...told } = first
  const { adoptions = [], amendments = [], ...settings } = own ?? {}
  const facts = {
    ...told,
    visitedOn: stamp.at.slice(0, 10),
    allowedToRemain: 'recommend upgrade',
    aluminumSchool: 'strict',
    citeSections: false,
    ...settings,
    ...(adoptions.length > 0 && { areAdoptionsRecorded: true }),
  }
  const made = () => ({ id: stamp.nextId(), at: stamp.at, by: stamp.by })
  const list: RawObservation[] = [
    { ...made(), act: 'add', subject: PREMISES_ID, kind: 'premises', parent: null },
  ]
  for (const [field, value] of Object.entries(facts)) {
    if (value === undefined || value === '') continue
    list.push({ ...made(), act: 'note', subject: PREMISES_ID, field, value, grade: 'told' })
  }
  const hang = (kind: 'adoption' | 'amendment', i: number, thing: object) => {
    const subject = `${kind}-${i + 1}`
    list.push({ ...made(), act: 'add', subject, kind, parent: PREMISES_ID })
    for (const [field, value] of Object.entries(thing))
      if (value !== undefined)
        list.push({ ...made(), act: 'note', subject, field, value, grade: 'told' })
  }
  adoptions.forEach((a, i) => hang('adoption', i, a))
  amendments.forEach((a, i) => hang('amendment', i, a))
  return list
}
