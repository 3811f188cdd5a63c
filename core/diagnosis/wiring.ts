import type { Lamps, OutletState } from './states'

/** What a conductor is at: held by the supply, by earth, pulled there by a load, or by nothing. */
export type Potential =
  'hot' | 'other hot' | 'neutral' | 'earth' | 'pulled up' | 'pulled down' | 'floating'
/** What a meter meets between two conductors. */
export type Between = 'live' | 'double' | 'pulled' | 'nothing' | 'idle' | 'floating'

/** Which conductor each terminal of the outlet is on, and what a test load between the slots does. */
export interface Wired {
  readonly narrow: Potential
  readonly wide: Potential
  readonly ground: Potential
  /** A jumper joins the ground terminal to the wide slot. */
  readonly isTied: boolean
  /** The conductor a test load returns in; undefined where none flows. */
  readonly returns: 'neutral' | 'earth' | undefined
}

/** Connects the terminals as these states do, with or without something else switched on after the break. */
export function wire(states: readonly OutletState[], loadsOn: boolean): Wired {
  const has = (s: OutletState) => states.includes(s)
  // Both open: only a load between the two breaks shows the neutral, by pulling it up; one behind
  // them brings the hot along.
  const isBoth = has('open hot') && has('open neutral')
  const hot: Potential = isBoth
    ? loadsOn
      ? 'pulled up'
      : 'floating'
    : !has('open hot')
      ? 'hot'
      : loadsOn
        ? 'pulled down'
        : 'floating'
  const neutral: Potential = isBoth
    ? 'pulled up'
    : !has('open neutral')
      ? 'neutral'
      : loadsOn
        ? 'pulled up'
        : 'floating'
  const earth: Potential = has('ground missing') ? 'floating' : 'earth'
  const isTied = has('bootleg') || has('reversed bootleg')
  let narrow: Potential = hot
  let wide: Potential = neutral
  let ground: Potential = earth
  if (has('reversed polarity') || has('reversed bootleg')) [narrow, wide] = [neutral, hot]
  if (has('hot and ground swapped')) [narrow, ground] = [earth, hot]
  if (has('neutral and ground swapped')) [wide, ground] = [earth, neutral]
  if (has('240 V across the slots')) wide = 'other hot'
  if (has('both slots on one hot')) wide = narrow
  if (has('floating ground energized')) ground = narrow
  if (isTied) ground = wide
  const isLive = (narrow === 'hot') !== (wide === 'hot')
  const low = narrow === 'hot' ? wide : narrow
  return {
    narrow,
    wide,
    ground,
    isTied,
    returns: isLive && (low === 'neutral' || low === 'earth') ? low : undefined,
  }
}

const isHigh = (p: Potential): boolean => p === 'hot' || p === 'other hot' || p === 'pulled up'

/** What stands between two terminals that no jumper joins. */
export function between(a: Potential, b: Potential): Between {
  if (a === 'floating' || b === 'floating') return 'floating'
  if ((a === 'other hot') !== (b === 'other hot') && isHigh(a) && isHigh(b)) return 'double'
  if (isHigh(a) !== isHigh(b)) return a === 'pulled up' || b === 'pulled up' ? 'pulled' : 'live'
  if (isHigh(a)) return 'nothing'
  return a === 'earth' || b === 'earth' ? 'idle' : 'nothing'
}

/** Where the terminals go once a test load is laid between the slots: what floats follows what is held. */
export function underLoad(w: Wired): Wired {
  if (w.returns) return w
  const isHeld = (p: Potential) =>
    p === 'hot' || p === 'other hot' || p === 'neutral' || p === 'earth'
  const pull = (to: Potential): Potential => (isHigh(to) ? 'pulled up' : 'pulled down')
  const wide = !isHeld(w.wide) && isHeld(w.narrow) ? pull(w.narrow) : w.wide
  const narrow = !isHeld(w.narrow) && isHeld(w.wide) ? pull(w.wide) : w.narrow
  return { ...w, narrow, wide, ground: w.isTied ? wide : w.ground }
}

const LEGEND: Readonly<Record<string, Lamps>> = {
  '110': 'correct',
  '100': 'open ground',
  '101': 'reversed',
  '010': 'open neutral',
  '000': 'open hot',
  '011': 'hot and ground reversed',
}
/**
 * The legend of a lamp tester, from which of its three lamps are lit: between the slots, narrow to
 * ground, wide to ground. Nothing where the legend has no such pattern.
 */
export const lampsFor = (
  slots: boolean,
  narrowGround: boolean,
  wideGround: boolean,
): Lamps | undefined => LEGEND[[slots, narrowGround, wideGround].map(Number).join('')]
const isLit = (b: Between): boolean => b === 'live' || b === 'double' || b === 'pulled'
export const lampsOf = (w: Wired): Lamps | undefined =>
  lampsFor(
    isLit(between(w.narrow, w.wide)),
    isLit(between(w.narrow, w.ground)),
    !w.isTied && isLit(between(w.wide, w.ground)),
  )
