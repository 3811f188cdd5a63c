import { all, any, map, not, of, settled, unknown, type Truth } from '../conclusions/truth'
import { isOpenYear, valueOf, type Subject } from '../model/house'
import { FEEDER_GROUND_SINCE } from '../tables/years'
import { feederGroundOf } from './feeder-ground'
import { Question, type Site } from './site'

const YARD = 'on a pole or yard structure'
const PLACES = ['indoors', 'outdoors', YARD]

/** The conditions under which a feeder without a grounding conductor was lawful, and is allowed to remain. */
export interface OldFeeder {
  /** It feeds a building that stands apart. */
  readonly isDetached: Truth
  readonly hasNoGround: Truth
  /** No other metal path runs between the buildings. */
  readonly hasNoOtherPath: Truth
  /** No ground-fault protection stands ahead of it. */
  readonly hasNoGroundFault: Truth
  /** Put in before the 2008 edition. */
  readonly isOld: Truth
  /** All of them together. */
  readonly holds: Truth
}

const OLD_FEEDERS = new Question<OldFeeder>()

/**
 * Whether a feeder to an enclosure is a lawful old three-wire feeder: to a detached building, from before the 2008
 * edition, with no ground run with it, no other metal path and no ground-fault protection ahead. 250.32(B).
 * @param feeder nothing where the enclosure is not fed by one, or nobody knows by which
 */
export function oldFeederOf(
  site: Site,
  enclosure: Subject<'enclosure'>,
  feeder: Subject<'feeder'> | undefined,
): OldFeeder {
  const answers = site.kept(OLD_FEEDERS)
  const key = feeder ? `${enclosure.id} ${feeder.id}` : enclosure.id
  let answer = answers.get(key)
  if (!answer) answers.set(key, (answer = workOut(site, enclosure, feeder)))
  return answer
}

function workOut(
  site: Site,
  enclosure: Subject<'enclosure'>,
  feeder: Subject<'feeder'> | undefined,
): OldFeeder {
  const building = site.buildingOf(enclosure)
  // The exception excuses the feeder between the buildings, not one that starts inside.
  const start = feeder && valueOf(feeder, 'from')
  const source =
    site.get(start, 'enclosure') ??
    site.get(site.get(start, 'breaker')?.parent ?? undefined, 'enclosure')
  const isInside = building !== undefined && source && site.buildingOf(source) === building
  // From a pole or yard structure the house itself is the separate building.
  const isFromYard = source
    ? map(of<string>(source.facts.place, PLACES), place => place === YARD)
    : settled(false)
  const isApart =
    building && !isInside ? of<boolean>(building.facts.isDetached, [true, false]) : settled(false)
  // Inside one building it makes no difference where the source stands.
  const isDetached = isInside ? settled(false) : any(isApart, isFromYard)
  const fedFrom = of<string>(enclosure.facts.fedFrom)
  if (!feeder) {
    // A feeder nobody has traced may be an old one; what is fed by none has none.
    const no =
      valueOf(enclosure, 'fedFrom') === undefined
        ? unknown([enclosure.facts.fedFrom])
        : settled(false)
    const holds = all(isDetached, no)
    return {
      isDetached,
      hasNoGround: no,
      hasNoOtherPath: no,
      hasNoGroundFault: no,
      isOld: no,
      holds,
    }
  }
  const path = map(feederGroundOf(site, feeder), value => value === 'none')
  const hasNoGround =
    path.state === 'settled'
      ? settled(path.value, [...path.rests, ...fedFrom.rests])
      : unknown(path.missing, [...path.rests, ...fedFrom.rests])
  const hasNoOtherPath = not(of<boolean>(feeder.facts.hasOtherMetallicPath, [true, false]))
  const hasNoGroundFault = not(
    of<boolean>(feeder.facts.hasGroundFaultProtectionAhead, [true, false]),
  )
  const years = site.yearsOf(feeder)
  const isOld =
    years.from >= FEEDER_GROUND_SINCE
      ? settled(false, years.rests)
      : years.to < FEEDER_GROUND_SINCE
        ? settled(true, years.rests)
        : unknown(years.rests.filter(isOpenYear), years.rests)
  const holds = all(isDetached, hasNoGround, hasNoOtherPath, hasNoGroundFault, isOld)
  return { isDetached, hasNoGround, hasNoOtherPath, hasNoGroundFault, isOld, holds }
}
