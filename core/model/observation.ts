import { clockAfter, clockOfInstant } from './clock'
import type { AnyValue, Kind } from './fields'

/** How a fact is known, best first. A finding shows the weakest grade it rests on. */
export const GRADES = ['measured', 'read', 'gauge', 'seen', 'felt', 'told', 'assumed'] as const
export type Grade = (typeof GRADES)[number]
export const gradeRank = (grade: Grade): number => GRADES.indexOf(grade)
/** The weaker of two grades. */
export const weaker = (a: Grade, b: Grade): Grade => (gradeRank(a) >= gradeRank(b) ? a : b)

interface Stamp {
  /** Unique for ever; appending the same id twice is harmless. */
  id: string
  /** ISO 8601 instant that the device's clock showed. People read it; the order comes from `clock`. */
  at: string
  /** Who saw it. */
  by: string
  /** Hybrid logical clock (see clock.ts): the order in which observations count. */
  clock: string
  /** How far the device's clock was ahead of the server's (negative: behind), where it was worth telling. */
  skewSeconds?: number
}
/** A thing was found to exist. `parent` is the id of what it hangs under. */
export interface Added extends Stamp {
  act: 'add'
  subject: string
  kind: Kind
  parent: string | null
}
/** A thing was found not to exist after all. */
export interface Dropped extends Stamp {
  act: 'drop'
  subject: string
}
/** A fact was seen. `value` is in the unit the field declares. */
export interface Noted extends Stamp {
  act: 'note'
  subject: string
  field: string
  value: AnyValue
  grade: Grade
  instrument?: string
  remark?: string
  /**
   * Ids of the observations of this fact that stood when it was made, and that it takes the place of. An empty list
   * says that none was known; no list at all, as in older logs, that everything before it in the order was.
   */
  over?: readonly string[]
}
/** A fact could not be seen, and why. */
export interface Blocked extends Stamp {
  act: 'block'
  subject: string
  field: string
  reason: string
}
/** An earlier observation is taken back; a retraction can itself be retracted (redo). */
export interface Retracted extends Stamp {
  act: 'retract'
  target: string
}

export type Observation = Added | Dropped | Noted | Blocked | Retracted
type Clockless<O> = O extends Observation ? Omit<O, 'clock'> & { clock?: string } : never
/** An observation as older logs and files by hand have it: the clock may be missing. */
export type RawObservation = Clockless<Observation>

/** Order in which observations count: by clock, then by id, wherever they were made. */
export function byClock(a: Observation, b: Observation): number {
  if (a.clock !== b.clock) return a.clock < b.clock ? -1 : 1
  if (a.id !== b.id) return a.id < b.id ? -1 : 1
  return 0
}

/**
 * Gives every observation that came without a clock the one of its instant. A retraction counts after what it takes
 * back, whatever the two instants say, since it cannot have been made before.
 * @param find observations that are known already
 */
export function withClocks(
  raw: readonly RawObservation[],
  find: (id: string) => Observation | undefined = () => undefined,
): Observation[] {
  const waiting = new Map<string, RawObservation & { act: 'retract' }>()
  const list = raw.map((o): Observation => {
    if (o.clock !== undefined) return o as Observation
    if (o.act === 'retract') waiting.set(o.id, o)
    return { ...o, clock: clockOfInstant(o.at) } as Observation
  })
  // Nearly every log has its clocks, and a list of all its ids would be made for nobody.
  if (waiting.size === 0) return list
  const made = new Map(list.map(o => [o.id, o]))
  // From each retraction down to what it takes back, then up again, so that a long chain needs no recursion.
  const settled = new Set<string>()
  for (const start of waiting.keys()) {
    const chain: string[] = []
    let at: string | undefined = start
    while (at !== undefined && waiting.has(at) && !settled.has(at)) {
      settled.add(at)
      chain.push(at)
      at = waiting.get(at)!.target
    }
    for (const id of chain.reverse()) {
      const own = made.get(id) as Observation & { act: 'retract' }
      const target = made.get(own.target) ?? find(own.target)
      if (target && byClock(own, target) <= 0) own.clock = clockAfter(target.clock)
    }
  }
  return list
}
