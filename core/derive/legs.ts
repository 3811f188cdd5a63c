import type { Subject } from '../model/house'
import type { Site } from './site'
import type { Walked } from './trail'
import { Trail } from './trail'

export type Leg = 'A' | 'B' | 'C'

/**
 * The legs a breaker lands on, one per pole: measured where somebody measured, else from the geometry of the bus.
 * Rows of a single-phase bus alternate A, B; of a three-phase bus A, B, C, where a third phase
 * feeds it. Both halves of a twin share a leg.
 */
export function legsOf(site: Site, breaker: Subject<'breaker'>): Walked<Leg[]> {
  const trail = new Trail()
  const poles = trail.ask(breaker.facts.poles)
  if (poles === 1) {
    const measured = trail.ask(breaker.facts.measuredLeg)
    if (measured !== undefined) return trail.found([measured])
  }
  const space = trail.ask(breaker.facts.space)
  const panel = site.get(breaker.parent ?? undefined, 'enclosure')
  if (poles === undefined || space === undefined || !panel) return trail.found<Leg[]>(undefined)
  const bus = trail.ask(panel.facts.bus)
  const row = rowOf(panel, space, trail)
  if (bus === undefined || row === undefined) return trail.found<Leg[]>(undefined)
  const pattern: readonly Leg[] = bus === 'three phase' ? ['A', 'B', 'C'] : ['A', 'B']
  const legs = Array.from({ length: poles }, (_, pole) => pattern[(row + pole) % pattern.length]!)
  // On a single-phase supply the third bar is dead, or on the leg of a neighbor: only a measurement tells which.
  const third = legs.includes('C') ? trail.ask(panel.facts.thirdLeg) : 'fed by a third phase'
  if (third === 'fed by a third phase') return trail.found(legs)
  const jumpered =
    third === 'jumpered to another leg' ? trail.ask(panel.facts.jumperedTo) : undefined
  if (jumpered === undefined) return trail.found<Leg[]>(undefined)
  return trail.found(legs.map(leg => (leg === 'C' ? jumpered : leg)))
}

function rowOf(panel: Subject<'enclosure'>, space: number, trail: Trail): number | undefined {
  const numbering = trail.ask(panel.facts.numbering)
  if (numbering === undefined) return undefined
  if (numbering === 'odd left, even right') return Math.ceil(space / 2) - 1
  const spaces = trail.ask(panel.facts.spaces)
  if (spaces === undefined) return undefined
  return (space - 1) % Math.ceil(spaces / 2)
}
