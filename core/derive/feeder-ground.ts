import { of, open, settled, type Conclusion } from '../conclusions/truth'
import { whereSeen, type Subject } from '../model/house'
import { Question, type Site } from './site'

/** How the way back for a fault runs beside a conductor. */
export type GroundingPath = 'wire' | 'raceway' | 'none'

/** Raceway and armor that is listed as a grounding conductor by itself, whatever the circuit carries. 250.118. */
const GROUNDS = new Set(['steel conduit', 'aluminum conduit', 'armored cable'])
/** Listed for short runs of small circuits only, or by its type: what it is marked for has to be read. */
const BY_TYPE = new Set(['flexible conduit', 'MC'])
/** Flexible conduit is a ground up to this device, amperes, and 6 ft. 250.118. */
export const FLEXIBLE_MOST_AMPS = 20
export const FLEXIBLE_MOST_FT = 6
const PATHS = new Question<Conclusion<GroundingPath>>()

/**
 * The grounding conductor of a feeder. "Metal raceway or armor" is one only where the wiring method is listed for it:
 * old spiral armor, plastic pipe and cables without armor are none, flexible conduit none at the size of a feeder.
 * 250.118, 215.6.
 */
export function feederGroundOf(site: Site, feeder: Subject<'feeder'>): Conclusion<GroundingPath> {
  const answers = site.kept(PATHS)
  let answer = answers.get(feeder.id)
  if (!answer) answers.set(feeder.id, (answer = decide(feeder)))
  return answer
}

/** A ground that runs with the feeder and that somebody saw to land on nothing at one end. 250.148, 408.40. */
export function isGroundAdrift(feeder: Subject<'feeder'>): boolean {
  const ends = whereSeen(feeder.facts.egcEnds)?.value
  return ends !== undefined && ends !== 'at both ends'
}

function decide(feeder: Subject<'feeder'>): Conclusion<GroundingPath> {
  const egc = of<string>(feeder.facts.egc)
  if (egc.state === 'open') return open(egc.missing, undefined, egc.rests)
  if (egc.value === 'wire' && isGroundAdrift(feeder)) {
    const ends = of<string>(feeder.facts.egcEnds)
    return settled('none', [...egc.rests, ...ends.rests])
  }
  if (egc.value !== 'metal raceway or armor')
    return settled(egc.value === 'wire' ? 'wire' : 'none', egc.rests)
  const wiring = of<string>(feeder.facts.wiring)
  const rests = [...egc.rests, ...wiring.rests]
  if (wiring.state === 'open') return open(wiring.missing, ['raceway', 'none'], rests)
  if (GROUNDS.has(wiring.value)) return settled('raceway', rests)
  return settled('none', rests)
}

/**
 * Whether the wiring of a branch circuit can serve as its ground: true, false, or by what is not recorded.
 * @param amps the device ahead; undefined while nobody has read it
 * @param feet the length of the run
 */
export function canGround(
  wiring: string,
  amps: number | undefined,
  feet: number | undefined,
): boolean | undefined {
  if (GROUNDS.has(wiring)) return true
  if (!BY_TYPE.has(wiring)) return false
  if (wiring === 'MC') return undefined
  if (
    (amps !== undefined && amps > FLEXIBLE_MOST_AMPS) ||
    (feet !== undefined && feet > FLEXIBLE_MOST_FT)
  )
    return false
  return amps !== undefined && feet !== undefined ? true : undefined
}
