import { absent, valueOf, type FactRef, type Subject } from '../model/house'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/** How the slot for ground stands: a path shown to be there, or none that counts. */
export type GroundState = 'good' | 'none'

/** Ground path, ohms: at or under this a path is good enough to trip a breaker quickly. */
export const GOOD_GROUND_OHMS = 1

/**
 * Ground path, ohms: above this no breaker opens on a fault (120 V / 5 Ω = 24 A), whatever wire is
 * in the box. 250.4(A)(5).
 */
export const NO_GROUND_OHMS = 5

/**
 * Whether a receptacle has an equipment ground. A wire seen in the box is a ground only once a tester or an
 * impedance reading shows it goes somewhere; a tester alone proves nothing, since a jumper to neutral reads
 * "correct" too. Raceway and armor need the impedance and a listed type: old spiral armor without a bonding strip
 * is none, however it measures cold. 250.118, 406.4(D).
 */
export function groundOf(site: Site, outlet: Subject<'outlet'>): Walked<GroundState> {
  const answers = site.kept<Walked<GroundState>>('grounds')
  let walked = answers.get(outlet.id)
  if (!walked) {
    const trail = new Trail()
    answers.set(outlet.id, (walked = { value: decide(site, outlet, trail), rests: trail.rests }))
  }
  return walked
}

function decide(site: Site, outlet: Subject<'outlet'>, trail: Trail): GroundState | undefined {
  const lamps = trail.ask(outlet.facts.lamps)
  if (lamps === 'open ground') return 'none'
  const ground = trail.ask(outlet.facts.ground)
  if (ground === 'none' || ground === 'present, not connected') return 'none'
  if (ground === undefined) return undefined
  const ohms = trail.ask(outlet.facts.groundOhms)
  if (ohms !== undefined && ohms > NO_GROUND_OHMS) return 'none'
  if (ground === 'connected') return lamps === 'correct' || ohms !== undefined ? 'good' : undefined
  if (ohms !== undefined && ohms > GOOD_GROUND_OHMS) return 'none'
  const circuit = site.get(trail.ask(outlet.facts.circuit), 'circuit')
  const wirings = circuit
    ? site.children(circuit, 'segment').map(s => trail.ask(s.facts.wiring))
    : []
  if (wirings.includes('old spiral armor')) return 'none'
  return ohms === undefined || wirings.length === 0 || wirings.includes(undefined)
    ? undefined
    : 'good'
}

/** What to look at for a ground: the facts not known, or the circuit where none of its wiring was recorded. */
export function openGround(rests: readonly FactRef[], outlet: Subject<'outlet'>): FactRef[] {
  const open = rests.filter(f => f.state !== 'known')
  return open.length > 0 ? open : [absent(valueOf(outlet, 'circuit') ?? outlet, 'label')]
}
