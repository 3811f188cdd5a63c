import type { JOB_STAGES } from '../model/fields'
import { isKind, PREMISES_ID, valueOf, type House, type Subject } from '../model/house'

export type JobStage = (typeof JOB_STAGES)[number]

const premisesOf = (house: House): Subject<'premises'> | undefined => {
  const s = house.subjects.get(PREMISES_ID)
  return isKind(s, 'premises') ? s : undefined
}
/** Things that are recorded about a job, and not in the house. */
const BESIDE: ReadonlySet<string> = new Set(['premises', 'visit', 'adoption', 'amendment', 'edit'])

/** How far a job is: what somebody said, else what its record shows. */
export function stageOf(house: House): JobStage {
  const said = valueOf(premisesOf(house), 'stage')
  if (said !== undefined) return said
  const kinds = new Set([...house.subjects.values()].map(s => s.kind))
  if (kinds.has('returnVisit')) return 'return'
  if (kinds.has('signing')) return 'signed'
  return [...kinds].some(k => !BESIDE.has(k)) ? 'on site' : 'planned'
}

export interface Appointment {
  /** Stays the same for one visit, whenever it is written. */
  readonly id: string
  /** Year-month-day. */
  readonly on: string
  readonly what: string
}
const DAY = /^\d{4}-\d{2}-\d{2}$/

/** The days of a job: its visit, its return visits, and the next one. What is no day is left away. */
export function appointmentsOf(house: House): readonly Appointment[] {
  const premises = premisesOf(house)
  const name = valueOf(premises, 'name') ?? 'Property'
  const visits = [...house.subjects.values()]
    .filter((s): s is Subject<'returnVisit'> => isKind(s, 'returnVisit'))
    .sort((a, b) => (valueOf(a, 'number') ?? 0) - (valueOf(b, 'number') ?? 0))
  const next = valueOf(visits.at(-1), 'nextOn')
  const days = [
    { id: 'visit', on: valueOf(premises, 'visitedOn'), what: `Visit: ${name}` },
    ...visits.map(v => ({
      id: v.id,
      on: valueOf(v, 'on'),
      what: `Return visit ${valueOf(v, 'number') ?? ''}: ${name}`,
    })),
    { id: 'next', on: next, what: `Return visit ${visits.length + 1}: ${name}` },
  ]
  return days.flatMap(({ id, on, what }) =>
    on !== undefined && DAY.test(on) && !Number.isNaN(Date.parse(on)) ? [{ id, on, what }] : [],
  )
}

/** The last day on record, which a list of days sorts a job by. */
export const nextDayOf = (house: House): string =>
  appointmentsOf(house)
    .map(a => a.on)
    .sort()
    .at(-1) ?? ''
