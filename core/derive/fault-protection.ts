import { valueOf, type Subject, whereSeen } from '../model/house'
import { Question, type Site } from './site'
import { Trail, type Walked } from './trail'

/** Where an outlet's protection sits: in the device, in the breaker, in a device ahead, or nowhere. */
export type ProtectionSource = 'own' | 'breaker' | 'ahead' | 'none'
/** Where only a tester plugged in has shown that there is arc-fault protection, it sits somewhere. */
export type ArcProtectionSource = ProtectionSource | 'somewhere'

const CARRIES_NONE = new Set(['luminaire', 'junction box', 'hard-wired outlet', 'alarm'])
const GFCI = new Question<Walked<ProtectionSource>>()
const AFCI = new Question<Walked<ArcProtectionSource>>()
type Is = (protection: string | undefined) => boolean
const isGfci: Is = protection => protection === 'GFCI' || protection === 'dual'
const isAfci: Is = protection => protection === 'AFCI' || protection === 'dual'

/**
 * Ground-fault protection of an outlet along its chain. Only what sits on the load terminals of a device is protected
 * by it, and only a device that has not failed its own button protects.
 */
export const gfciOf = (site: Site, outlet: Subject<'outlet'>): Walked<ProtectionSource> =>
  kept(site, outlet, GFCI, trail => source(site, outlet, trail, isGfci, true))
/** Arc-fault protection of an outlet, by the same walk, and by a tester plugged in. */
export const afciOf = (site: Site, outlet: Subject<'outlet'>): Walked<ArcProtectionSource> =>
  kept(site, outlet, AFCI, trail => {
    const found = source(site, outlet, trail, isAfci, false)
    if (found !== undefined && found !== 'none') return found
    // What goes dead by arcs is protected; what stays live proves nothing, these testers only indicate.
    const { afciTest } = outlet.facts
    return whereSeen(afciTest) && trail.ask(afciTest) === 'goes dead' ? 'somewhere' : found
  })

function kept<S extends string>(
  site: Site,
  outlet: Subject<'outlet'>,
  question: Question<Walked<S>>,
  walk: (trail: Trail) => S | undefined,
): Walked<S> {
  const answers = site.kept(question)
  let walked = answers.get(outlet.id)
  if (!walked) {
    const trail = new Trail()
    const value = walk(trail)
    answers.set(outlet.id, (walked = trail.found(value)))
  }
  return walked
}

/** @param isTested the device ahead was tripped by its button, and this outlet watched: true of ground-fault devices */
function source(
  site: Site,
  outlet: Subject<'outlet'>,
  trail: Trail,
  is: Is,
  isTested: boolean,
): ProtectionSource | undefined {
  const own = working(outlet, trail)
  if (is(own)) return 'own'
  const test = isTested ? trail.ask(outlet.facts.gfciTest) : undefined
  if (test === 'goes dead') return 'ahead'
  const circuit = site.get(trail.ask(outlet.facts.circuit), 'circuit')
  const breaker = circuit && site.get(trail.ask(circuit.facts.fedBy), 'breaker')
  const atBreaker = breaker && breakerProtection(breaker, trail)
  if (is(atBreaker)) return 'breaker'
  const ahead = test === 'stays live' ? false : chain(site, outlet, trail, is)
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

/**
 * Walks toward the panel: true where a device ahead protects this outlet, undefined where it might. Where it is fed
 * from is not known, or said in a circle, a device nobody has recorded may stand ahead.
 */
function chain(site: Site, outlet: Subject<'outlet'>, trail: Trail, is: Is): boolean | undefined {
  let isOpen = false
  let at = outlet
  // A chain that is longer than the house has outlets goes in a circle.
  for (let left = site.all.outlet.length; left > 0; left--) {
    const after = trail.ask(at.facts.after)
    if (after === 'panel') return isOpen ? undefined : false
    const ahead = site.get(after, 'outlet')
    if (!ahead) return undefined
    const protection = working(ahead, trail, 'for what follows')
    if (protection === undefined) isOpen = true
    else if (is(protection)) {
      const fromLoad = trail.ask(at.facts.isFedFromLoadSide)
      if (fromLoad === true) return true
      if (fromLoad === undefined) isOpen = true
    }
    at = ahead
  }
  return undefined
}

/**
 * What a device protects with: nothing, once it has failed its own button. One that trips and leaves its own outlet
 * live is wired line for load: no protection here, and nobody can tell what for those that follow.
 */
function working(outlet: Subject<'outlet'>, trail: Trail, who?: 'for what follows') {
  const protection = protectionOf(outlet, trail)
  if (protection === undefined || protection === 'none') return protection
  const { gfciButton } = outlet.facts
  const button = whereSeen(gfciButton) && trail.ask(gfciButton)
  if (button === 'does not trip') return 'none'
  if (button === 'trips, stays live') return who ? undefined : 'none'
  return protection
}

/** What a breaker is made to protect with; a fuse has no electronics in it, nor a button to press. */
export function builtIn(breaker: Subject<'breaker'>, trail: Pick<Trail, 'ask'>) {
  const { device } = breaker.facts
  const kind = whereSeen(device) && trail.ask(device)
  return kind === undefined || kind === 'breaker' ? trail.ask(breaker.facts.protection) : 'standard'
}

/** The protection of a breaker, unless its own button has shown that it does not trip. */
export function breakerProtection(breaker: Subject<'breaker'>, trail: Trail) {
  const protection = builtIn(breaker, trail)
  if (protection === undefined || protection === 'standard') return protection
  const { testButton } = breaker.facts
  const button = whereSeen(testButton) && trail.ask(testButton)
  return button === 'does not trip' ? 'standard' : protection
}

function protectionOf(outlet: Subject<'outlet'>, trail: Trail) {
  const type = trail.ask(outlet.facts.type)
  if (type === 'blank-face GFCI') return 'GFCI'
  return type !== undefined && CARRIES_NONE.has(type) ? 'none' : trail.ask(outlet.facts.protection)
}
