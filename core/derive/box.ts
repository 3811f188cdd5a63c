import type { Context } from '../engine/context'
import type { FactRef, Subject } from '../model/house'

/** What to do about a box nobody has opened: open it, one look for everything inside. Nothing where it was opened. */
export function unopened(point: Subject<'point'>, c: Context): FactRef[] | undefined {
  return c.ask(point.facts.isBoxOpened) === true
    ? undefined
    : [{ state: 'unseen', subject: point.id, field: 'isBoxOpened' }]
}

const CARRY_DEVICES = new Set(['receptacle', 'switch'])
/** Seen to be something that holds no protective device. */
export const holdsNoDevice = (type: string | undefined): boolean =>
  type !== undefined && !CARRY_DEVICES.has(type)
