import type { AnyValue, Kind } from './fields'

/** How a fact is known, best first. A finding shows the weakest grade it rests on. */
export const GRADES = ['measured', 'read', 'gauge', 'seen', 'felt', 'told', 'assumed'] as const
export type Grade = (typeof GRADES)[number]
export const gradeRank = (grade: Grade): number => GRADES.indexOf(grade)
/** The weaker of two grades. */
export const weaker = (a: Grade, b: Grade): Grade => gradeRank(a) >= gradeRank(b) ? a : b

interface Stamp {
  /** Unique for ever; appending the same id twice is harmless. */
  id: string
  /** ISO 8601 instant. */
  at: string
  /** Who saw it. */
  by: string
}
/** A thing was found to exist. `parent` is the id of what it hangs under. */
export interface Added extends Stamp { act: 'add', subject: string, kind: Kind, parent: string | null }
/** A thing was found not to exist after all. */
export interface Dropped extends Stamp { act: 'drop', subject: string }
/** A fact was seen. `value` is in the unit the field declares. */
export interface Noted extends Stamp { act: 'note', subject: string, field: string, value: AnyValue, grade: Grade, instrument?: string, remark?: string }
/** A fact could not be seen, and why. */
export interface Blocked extends Stamp { act: 'block', subject: string, field: string, reason: string }
/** An earlier observation is taken back; a retraction can itself be retracted (redo). */
export interface Retracted extends Stamp { act: 'retract', target: string }

export type Observation = Added | Dropped | Noted | Blocked | Retracted

/** Order in which observations count: by time, then by id, wherever they were made. */
export const byTime = (a: Observation, b: Observation): number =>
  a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0
