import {
  absent,
  areReadsNoted,
  valueOf,
  type FactRef,
  type Subject,
  whereSeen,
} from '../model/house'
import { canGround } from './feeder-ground'
import { Question, type Site } from './site'
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

/** Volts between ground terminal and earth from which the terminal counts as live. */
export const LIVE_GROUND_VOLTS = 50
/**
 * Volts between ground terminal and earth that only the hot itself brings: a failing service neutral lifts every ground
 * of a house, whole ones too, by tens of volts.
 */
const ENERGIZED_GROUND_VOLTS = 100
/** Volts a sound ground may show against a proved reference: more is never clear. */
export const SOUND_GROUND_VOLTS = 5
const GROUNDS = new Question<Walked<GroundState>>()

/**
 * Whether a receptacle has an equipment ground. A wire seen in the box is a ground only once a tester or an
 * impedance reading shows it goes somewhere; a tester alone proves nothing, since a jumper to neutral reads
 * "correct" too. Raceway and armor need the impedance and a listed type: old spiral armor without a bonding strip
 * is none, however it measures cold. 250.118, 406.4(D).
 */
export function groundOf(site: Site, outlet: Subject<'outlet'>): Walked<GroundState> {
  const answers = site.kept(GROUNDS)
  let walked = answers.get(outlet.id)
  if (!walked) {
    const trail = new Trail()
    answers.set(outlet.id, (walked = trail.found(decide(site, outlet, trail))))
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
  // A path that holds would have opened the breaker: what stands at volts goes nowhere, whatever wire is in the box.
  const toReference = outlet.facts.groundToReferenceV
  const volts = whereSeen(toReference) && trail.ask(toReference)
  if (volts !== undefined && volts >= ENERGIZED_GROUND_VOLTS) return 'none'
  // What a tester or an impedance shows may be the jumper; only with it removed do they speak of the wire.
  const jumper = outlet.facts.hasNeutralGroundJumper
  const hasJumper = whereSeen(jumper) !== undefined && trail.ask(jumper) === true
  if (volts !== undefined && volts > SOUND_GROUND_VOLTS) return undefined
  // A detector may alarm for nothing; until the terminal is measured to a reference, nobody knows.
  if (volts === undefined) {
    const alarm = outlet.facts.isGroundDetected
    if (whereSeen(alarm) && trail.ask(alarm) === true) {
      trail.ask(toReference)
      return undefined
    }
  }
  if (ground === 'connected') {
    if (hasJumper || (ohms !== undefined && ohms > GOOD_GROUND_OHMS)) return undefined
    return lamps === 'correct' || ohms !== undefined ? 'good' : undefined
  }
  if (ohms !== undefined && ohms > GOOD_GROUND_OHMS) return 'none'
  const runs = racewaysOf(site, outlet, trail)
  if (runs.includes(false)) return 'none'
  return hasJumper || ohms === undefined || runs.length === 0 || runs.includes(undefined)
    ? undefined
    : 'good'
}

/** Whether each run of the circuit can serve as the ground by its raceway or armor. */
function racewaysOf(
  site: Site,
  outlet: Subject<'outlet'>,
  trail: Trail,
): readonly (boolean | undefined)[] {
  const circuit = site.get(trail.ask(outlet.facts.circuit), 'circuit')
  if (!circuit) return []
  const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
  return site.children(circuit, 'segment').map(run => {
    const wiring = trail.ask(run.facts.wiring)
    if (wiring === undefined) return undefined
    if (wiring !== 'flexible conduit') return canGround(wiring, undefined, undefined)
    trail.ask(circuit.facts.fedBy)
    const amps = breaker && trail.ask(breaker.facts.ratingAmps)
    return canGround(wiring, amps, trail.ask(run.facts.lengthFt))
  })
}

/** What to look at for a ground: the facts not known, or the circuit where none of its wiring was recorded. */
export function openGround(rests: readonly FactRef[], outlet: Subject<'outlet'>): FactRef[] {
  // What stands at volts is measured again once that is mended, whatever else nobody has looked at.
  const volts = valueOf(outlet, 'groundToReferenceV')
  if (volts !== undefined && volts > SOUND_GROUND_VOLTS)
    return [absent(outlet, 'groundToReferenceV')]
  // A poor path, or one a jumper stands in for, is measured again once that is mended.
  const again =
    valueOf(outlet, 'groundOhms') !== undefined ||
    valueOf(outlet, 'hasNeutralGroundJumper') === true
  const open = rests.filter(f => f.state !== 'known')
  if (open.length === 0 && again) return [absent(outlet, 'groundOhms')]
  return open.length > 0 ? open : [absent(valueOf(outlet, 'circuit') ?? outlet, 'label')]
}
/** The same, found when somebody asks. */
export function lacksGround(rests: readonly FactRef[], outlet: Subject<'outlet'>) {
  return areReadsNoted() ? openGround(rests, outlet) : () => openGround(rests, outlet)
}
