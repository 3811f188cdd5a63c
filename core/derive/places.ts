import { whereSeen } from '../model/house'
import type { Context } from '../engine/context'
import type { Subject } from '../model/house'

/** Rooms that count as an unfinished basement below grade; the others as a finished one. */
const UNFINISHED: ReadonlySet<string> = new Set(['utility', 'workshop', 'crawl space'])
/** What is a basement already, or stays what it is wherever it lies. */
const STAYS: ReadonlySet<string> = new Set([
  'basement, finished',
  'basement, unfinished',
  'garage',
  'bathroom',
  'outdoors',
  'attic',
])

/**
 * Every place of the code a room is: its use, a second use (a kitchen that is a living room too, a workshop in a
 * detached garage), and a basement where it lies below grade. Empty while nobody knows its use.
 */
export function placesOf(room: Subject<'room'> | undefined, c: Context): readonly string[] {
  const use = room && c.ask(room.facts.use)
  if (!room || use === undefined) return []
  const places: string[] = [use]
  const { alsoUse, isBelowGrade } = room.facts
  const also = whereSeen(alsoUse) && c.ask(alsoUse)
  if (also !== undefined) places.push(also)
  if (!STAYS.has(use) && whereSeen(isBelowGrade) && c.ask(isBelowGrade) === true)
    places.push(UNFINISHED.has(use) ? 'basement, unfinished' : 'basement, finished')
  return places
}
