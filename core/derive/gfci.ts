import { valueOf, type Subject } from '../model/house'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/** Where an outlet's ground-fault protection sits: in the device, in the breaker, in a device ahead, or nowhere. */
export type GfciSource = 'own' | 'breaker' | 'ahead' | 'none'

const CARRIES_NONE = new Set(['luminaire', 'junction box', 'hard-wired outlet', 'alarm'])
const isGfci = (protection: string | undefined) => protection === 'GFCI' || protection === 'dual'

/**
 * Ground-fault protection of an outlet along its chain. Only what sits on the load terminals of a
 * device is protected by it.
 */
export function gfciOf(site: Site, outlet: Subject<'outlet'>): Walked<GfciSource> {
  const answers = site.kept<Walked<GfciSource>>('gfci')
  let walked = answers.get(outlet.id)
  if (!walked) {
    const trail = new Trail()
    answers.set(outlet.id, (walked = { value: source(site, outlet, trail), rests: trail.rests }))
  }
  return walked
}

function source(site: Site, outlet: Subject<'outlet'>, trail: Trail): GfciSource | undefined {
  const own = protectionOf(outlet, trail)
  if (isGfci(own)) return 'own'
  const test = trail.ask(outlet.facts.gfciTest)
  if (test === 'goes dead') return 'ahead'
  const circuit = site.get(trail.ask(outlet.facts.circuit), 'circuit')
  const breaker = circuit && site.get(trail.ask(circuit.facts.fedBy), 'breaker')
  const atBreaker = breaker && trail.ask(breaker.facts.protection)
  if (isGfci(atBreaker)) return 'breaker'
  const ahead = test === 'stays live' ? false : chain(site, outlet, trail)
  if (ahead === true) return 'ahead'
  if (own === undefined || atBreaker === undefined || ahead === undefined) return undefined
  return 'none'
}

/**
 * The device ahead whose reset brings this outlet back, where the chain shows it; nothing where it
 * is its own or the breaker's.
 */
export function resetOf(site: Site, outlet: Subject<'outlet'>): Subject<'outlet'> | undefined {
  const seen = new Set<string>()
  for (let at: Subject<'outlet'> = outlet; !seen.has(at.id);) {
    seen.add(at.id)
    const ahead = site.get(valueOf(at, 'after'), 'outlet')
    if (!ahead) return undefined
    if (isGfci(valueOf(ahead, 'protection'))) return ahead
    at = ahead
  }
  return undefined
}

/** Walks toward the panel: true where a device ahead protects this outlet, undefined where it might. */
function chain(site: Site, outlet: Subject<'outlet'>, trail: Trail): boolean | undefined {
  let isOpen = false
  for (let at = outlet, steps = 0; ; steps++) {
    const after = trail.ask(at.facts.after)
    if (after === 'panel') return isOpen ? undefined : false
    const ahead = site.get(after, 'outlet')
    // Where it is fed from is not known: a device nobody has recorded may stand ahead.
    if (!ahead || steps > site.all.outlet.length) return undefined
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

function protectionOf(outlet: Subject<'outlet'>, trail: Trail) {
  const type = trail.ask(outlet.facts.type)
  return type !== undefined && CARRIES_NONE.has(type) ? 'none' : trail.ask(outlet.facts.protection)
}
