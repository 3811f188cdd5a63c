import { valueOf, whereSeen, type Subject } from '../model/house'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/** Hand movements that shut an enclosure off: so many are recorded; `value` is how many there are, where counted. */
export interface Throws extends Walked<number> {
  readonly least: number
}

/** Whether an enclosure has its mains in the upper section of a split bus. */
export function isSplit(enclosure: Subject<'enclosure'>, trail: Trail): boolean | undefined {
  const kind = trail.ask(enclosure.facts.mainKind)
  if (kind === 'split bus') return true
  if (kind === 'main breaker' || kind === 'fused main') return false
  const bus = trail.ask(enclosure.facts.bus)
  return bus === undefined ? undefined : bus === 'split bus'
}

/**
 * Hand movements to shut an enclosure off: one at a main; else as counted there, and never fewer than the handles
 * recorded: every breaker of a bus without a main, those above the gap of a split bus. 230.71, 408.36.
 */
export function throwsOf(site: Site, enclosure: Subject<'enclosure'>): Throws {
  const trail = new Trail()
  const kind = trail.ask(enclosure.facts.mainKind)
  if (kind === 'main breaker' || kind === 'fused main')
    return { value: 1, least: 1, rests: trail.rests }
  const counted = trail.ask(enclosure.facts.upperMains)
  const split = isSplit(enclosure, trail)
  // A main that is a breaker of the bus is one hand, like any other main.
  const hasMain = site.children(enclosure, 'breaker').some(b => valueOf(b, 'role') === 'main')
  const isCounted = (kind === 'main lugs' || split === true) && !hasMain
  const recorded = isCounted ? handles(site, enclosure, split !== false, trail) : 0
  return {
    value: counted === undefined ? undefined : Math.max(counted, recorded),
    least: Math.max(counted ?? 0, recorded),
    rests: trail.rests,
  }
}

/** Handles recorded above the gap, or on the whole bus. Tied handles move together, at most three of them. */
function handles(
  site: Site,
  enclosure: Subject<'enclosure'>,
  onlyUpper: boolean,
  trail: Trail,
): number {
  let apart = 0
  let tied = 0
  for (const breaker of site.children(enclosure, 'breaker')) {
    if (onlyUpper && !isUpper(breaker, trail)) continue
    if (valueOf(breaker, 'role') === 'spare') continue
    const poles = trail.ask(breaker.facts.poles)
    // What nobody has looked at may be tied: only what surely takes a hand of its own counts as one.
    const isApart = poles !== undefined && poles > 1
    const tie = !isApart && whereSeen(breaker.facts.handleTie) && trail.ask(breaker.facts.handleTie)
    if (!isApart && tie !== 'not tied') tied++
    else apart++
  }
  return apart + Math.ceil(tied / MOST_TIED)
}
/** Poles one hand may throw by a tie. */
const MOST_TIED = 3

/** Recorded as above the gap. */
function isUpper(breaker: Subject<'breaker'>, trail: Trail): boolean {
  const { section } = breaker.facts
  return whereSeen(section) !== undefined && trail.ask(section) === 'upper'
}

/** A breaker above the gap that feeds a circuit of its own: those belong below, behind the lower main. */
export function isAddedAbove(breaker: Subject<'breaker'>, trail: Trail): boolean {
  if (!isUpper(breaker, trail)) return false
  const role = valueOf(breaker, 'role')
  if (role === 'spare' || role === 'main of the lower section') return false
  const amps = trail.ask(breaker.facts.ratingAmps)
  return amps !== undefined && amps <= LIGHTING_MOST_AMPS
}
/** Circuits of lights and receptacles, up to this rating, stand behind a main. */
const LIGHTING_MOST_AMPS = 20

/** The breaker above the gap that feeds the lower section, where it was recorded. */
export const lowerMainOf = (
  site: Site,
  enclosure: Subject<'enclosure'>,
): Subject<'breaker'> | undefined =>
  site.children(enclosure, 'breaker').find(b => valueOf(b, 'role') === 'main of the lower section')
