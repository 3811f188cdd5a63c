import { absent } from '../model/house'
import type { Context } from '../engine/context'
import type { FactRef, Subject } from '../model/house'

/** What to do about a box nobody has opened: open it, one look for everything inside. Nothing where it was opened. */
export function unopened(outlet: Subject<'outlet'>, c: Context): FactRef | undefined {
  const { isBoxOpened } = outlet.facts
  if (c.ask(isBoxOpened) === true) return undefined
  return isBoxOpened.state === 'unseen' ? isBoxOpened : absent(outlet, 'isBoxOpened')
}

const CARRY_DEVICES = new Set(['receptacle', 'switch', 'blank-face GFCI'])
/** Seen to be something that holds no protective device. */
export const holdsNoDevice = (type: string | undefined): boolean =>
  type !== undefined && !CARRY_DEVICES.has(type)
