import { valueOf, type FactRef, type Subject } from '../model/house'
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
 * "correct" too. Raceway and armour need the impedance and a listed type: old spiral armour without a bonding strip
 * is none, however it measures cold. 250.118, 406.4(D).
 */
export function groundOf(site: Site, point: Subject<'point'>): Walked<GroundState> {
  let walked = site.grounds.get(point.id)
  if (!walked) {
    const trail = new Trail()
    site.grounds.set(point.id, (walked = { value: decide(site, point, trail), rests: trail.rests }))
  }
  return walked
}

function decide(site: Site, point: Subject<'point'>, trail: Trail): GroundState | undefined {
  const lamps = trail.ask(point.facts.lamps)
  if (lamps === 'open ground') return 'none'
  const ground = trail.ask(point.facts.ground)
  if (ground === 'none' || ground === 'present, not connected') return 'none'
  if (ground === undefined) return undefined
  const ohms = trail.ask(point.facts.groundOhms)
  if (ohms !== undefined && ohms > NO_GROUND_OHMS) return 'none'
  if (ground === 'connected') return lamps === 'correct' || ohms !== undefined ? 'good' : undefined
  if (ohms !== undefined && ohms > GOOD_GROUND_OHMS) return 'none'
  const circuit = site.get(trail.ask(point.facts.circuit), 'circuit')
  const wirings = circuit
    ? site.children(circuit, 'segment').map(s => trail.ask(s.facts.wiring))
    : []
  if (wirings.includes('old spiral armour')) return 'none'
  return ohms === undefined || wirings.length === 0 || wirings.includes(undefined)
    ? undefined
    : 'good'
}

/** What to look at for a ground: the facts not known, or the circuit where none of its wiring was recorded. */
export function openGround(rests: readonly FactRef[], point: Subject<'point'>): FactRef[] {
  const open = rests.filter(f => f.state !== 'known')
  return open.length > 0
    ? open
    : [{ state: 'unseen', subject: valueOf(point, 'circuit') ?? point.id, field: 'label' }]
}

/** Where a point's ground-fault protection sits: in the device, in the breaker, in a device ahead, or nowhere. */
export type GfciSource = 'own' | 'breaker' | 'ahead' | 'none'

const CARRIES_NONE = new Set(['luminaire', 'junction box', 'hard-wired outlet', 'alarm'])
const isGfci = (protection: string | undefined) => protection === 'GFCI' || protection === 'dual'

/**
 * Ground-fault protection of a point along its chain. Only what sits on the load terminals of a
 * device is protected by it.
 */
export function gfciOf(site: Site, point: Subject<'point'>): Walked<GfciSource> {
  let walked = site.gfci.get(point.id)
  if (!walked) {
    const trail = new Trail()
    site.gfci.set(point.id, (walked = { value: source(site, point, trail), rests: trail.rests }))
  }
  return walked
}

function source(site: Site, point: Subject<'point'>, trail: Trail): GfciSource | undefined {
  const own = protectionOf(point, trail)
  if (isGfci(own)) return 'own'
  const test = trail.ask(point.facts.gfciTest)
  if (test === 'goes dead') return 'ahead'
  const circuit = site.get(trail.ask(point.facts.circuit), 'circuit')
  const breaker = circuit && site.get(trail.ask(circuit.facts.fedBy), 'breaker')
  const atBreaker = breaker && trail.ask(breaker.facts.protection)
  if (isGfci(atBreaker)) return 'breaker'
  const ahead = test === 'stays live' ? false : chain(site, point, trail)
  if (ahead === true) return 'ahead'
  if (own === undefined || atBreaker === undefined || ahead === undefined) return undefined
  return 'none'
}

/**
 * The device ahead whose reset brings this point back, where the chain shows it; nothing where it
 * is its own or the breaker's.
 */
export function resetOf(site: Site, point: Subject<'point'>): Subject<'point'> | undefined {
  const seen = new Set<string>()
  for (let at: Subject<'point'> = point; !seen.has(at.id);) {
    seen.add(at.id)
    const ahead = site.get(valueOf(at, 'after'), 'point')
    if (!ahead) return undefined
    if (isGfci(valueOf(ahead, 'protection'))) return ahead
    at = ahead
  }
  return undefined
}

/** Walks towards the panel: true where a device ahead protects this point, undefined where it might. */
function chain(site: Site, point: Subject<'point'>, trail: Trail): boolean | undefined {
  let isOpen = false
  for (let at = point, steps = 0; ; steps++) {
    const after = trail.ask(at.facts.after)
    if (after === 'panel') return isOpen ? undefined : false
    const ahead = site.get(after, 'point')
    // Where it is fed from is not known: a device nobody has recorded may stand ahead.
    if (!ahead || steps > site.all.point.length) return undefined
    const protection = protectionOf(ahead, trail)
    if (protection === undefined) isOpen = true
    else if (isGfci(protection)) {
      const fromLoad = trail.ask(at.facts.isFedFromLoadSide)
      if (fromLoad === true) return true
      if (fromLoad === undefined) isOpen = true
    }
    at = ahead
  }
}

function protectionOf(point: Subject<'point'>, trail: Trail) {
  const type = trail.ask(point.facts.type)
  return type !== undefined && CARRIES_NONE.has(type) ? 'none' : trail.ask(point.facts.protection)
}
