import type { FactRef, Subject } from '../model/house'
import { whereSeen } from '../model/house'
import { neutralGroupOf } from './neutrals'
import type { Site } from './site'
import { Trail } from './trail'

/** How many conductors carry current together, at least and at most, and what would settle it. */
export interface Crowd {
  readonly least: number
  readonly most: number
  readonly missing: readonly FactRef[]
  readonly rests: readonly FactRef[]
}

/**
 * Current-carrying conductors of a bundle or pipe: as counted there, else from the circuits that run in it. Each hot
 * counts. A neutral of one hot carries what the hot carries and counts; one that two hots of a 120/240 V supply share
 * carries only their difference and does not; on two legs of 208Y/120 it counts. Undefined where neither the
 * conductors nor the circuits have been recorded. 310.15(E), 310.15(B)(5) until 2017.
 */
export function crowdOf(site: Site, exposure: Subject<'exposure'>): Crowd | undefined {
  const trail = new Trail()
  const { currentCarrying, circuits } = exposure.facts
  if (!whereSeen(currentCarrying) && whereSeen(circuits))
    return counted(site, exposure, trail.ask(circuits) ?? [], trail)
  const count = trail.ask(currentCarrying)
  return count === undefined
    ? undefined
    : { least: count, most: count, missing: [], rests: trail.rests }
}

function counted(
  site: Site,
  exposure: Subject<'exposure'>,
  ids: readonly string[],
  trail: Trail,
): Crowd {
  const run = site.house.subjects.get(exposure.parent ?? '')
  const own = run?.kind === 'segment' ? site.get(run.parent ?? undefined, 'circuit') : undefined
  const here = new Set(ids.flatMap(id => site.get(id, 'circuit') ?? []))
  if (own) here.add(own)
  const missing: FactRef[] = []
  const done = new Set<Subject<'circuit'>>()
  let least = 0
  let most = 0
  for (const circuit of here) {
    if (done.has(circuit)) continue
    const group = neutralGroupOf(site, circuit)
    trail.rests.push(...group.rests)
    const together = group.circuits.filter(c => here.has(c))
    for (const member of together) done.add(member)
    const [low, high] = together.length > 1 ? shared(together) : alone(circuit)
    least += low
    most += high
  }
  // A feeder is no circuit of the list: its own two hots run there too.
  if (run?.kind === 'feeder') {
    const sets = (whereSeen(run.facts.sets) && trail.ask(run.facts.sets)) ?? 1
    const [low, high] = withNeutral(2, 2)
    least += low * sets
    most += high * sets
  }
  return { least, most, missing, rests: trail.rests }

  /** Hots that share a neutral: it counts where it carries as much as they do. */
  function shared(together: readonly Subject<'circuit'>[]): [number, number] {
    const hots = together.map(hotsOf)
    return withNeutral(
      hots.reduce((n, h) => n + h[0], 0),
      hots.reduce((n, h) => n + h[1], 0),
    )
  }
  /** So many hots and the neutral they share; of three hots on two legs two share one, and it carries as much. */
  function withNeutral(low: number, high: number): [number, number] {
    if (low > 2) return [low + 1, high + 1]
    const supply = trail.ask(site.premises.facts.supply)
    if (supply === undefined) missing.push(site.premises.facts.supply)
    const counts = supply === undefined ? undefined : supply === '208Y/120 V'
    return [low + (counts === true ? 1 : 0), high + (counts === false ? 0 : 1)]
  }

  /** A circuit by itself: one hot and its neutral, or two hots of which the neutral carries the difference. */
  function alone(circuit: Subject<'circuit'>): [number, number] {
    const [low, high] = hotsOf(circuit)
    // With two hots a neutral, if there is one, is shared by them.
    if (low > 1) return shared([circuit])
    const shares = trail.ask(circuit.facts.sharesNeutralWith)
    // Its neutral may be that of a neighbor: then it is counted with the neighbor, or not at all.
    if (shares === undefined) missing.push(circuit.facts.sharesNeutralWith)
    // Of unknown poles it may be two hots with a neutral that counts.
    return [shares === undefined ? low : low + 1, high > 1 ? withNeutral(low, high)[1] : 2]
  }

  function hotsOf(circuit: Subject<'circuit'>): [number, number] {
    const breaker = site.get(trail.ask(circuit.facts.fedBy), 'breaker')
    const poles = breaker && trail.ask(breaker.facts.poles)
    if (poles === undefined) missing.push(breaker ? breaker.facts.poles : circuit.facts.fedBy)
    return poles === undefined ? [1, 2] : [poles, poles]
  }
}
