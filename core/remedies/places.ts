/** Where a protective device may stand on a circuit, and what may feed it. Read by every remedy that puts one there. */
import { valueOf, type Fact, type Subject, type Unseen } from '../model/house'
import { neutralGroupOf } from '../derive/neutrals'
import { boxFill } from '../tables/box-fill'
import type { Edition } from '../tables/editions'
import type { Advice, RemedyDesk } from './remedy'

/** Whether the circuit of this outlet shares its neutral; undefined while nobody has looked. */
export function sharesNeutral(
  desk: RemedyDesk,
  circuit: Subject<'circuit'> | undefined,
): boolean | undefined {
  if (!circuit) return undefined
  const group = neutralGroupOf(desk.site, circuit)
  desk.rest(group.rests)
  if (group.circuits.length > 1) return true
  return group.rests.some(f => f.state !== 'known') ? undefined : false
}

/**
 * The first outlet of the circuit this outlet hangs on, as a place for a device that protects what is after it:
 * a receptacle or a switch box, or a junction box within reach; never a luminaire, and never on a shared neutral that
 * goes on beyond it.
 */
export function atFirstOutlet(
  desk: RemedyDesk,
  offer: (first: Subject<'outlet'>) => Advice,
): Advice {
  const start = desk.on('outlet')
  const circuit = desk.site.get(desk.ask(start.facts.circuit), 'circuit')
  const seen = new Set<string>()
  let at: Subject<'outlet'> | undefined = start
  while (at && !seen.has(at.id)) {
    seen.add(at.id)
    const after: string | undefined = desk.ask(at.facts.after)
    if (after !== 'panel') {
      at = desk.site.get(after, 'outlet')
      continue
    }
    const unfit = unfitPlace(desk, at)
    if (unfit) return unfit
    const shares = sharesNeutral(desk, circuit)
    if (shares === true)
      return desk.refused(
        'The neutral is shared up to there: the device would trip on the current of the other hot',
      )
    return shares === undefined
      ? desk.conditional(
          'Only where the neutral is the circuit’s own: see whether another hot shares it',
        )
      : offer(at)
  }
  return desk.conditional('The order along the circuit has to be known back to the panel')
}

type Read = <V>(fact: Fact<V> | Unseen) => V | undefined
const known: Read = fact => (fact.state === 'known' ? fact.value : undefined)

/** Cubic inches with the device put in, everything else in the box too; undefined where it was not counted. 314.16. */
export function fillWithDevice({ facts }: Subject<'outlet'>, edition: Edition, read: Read) {
  const volume = read(facts.boxVolumeIn3)
  const count = read(facts.conductorsInBox)
  const grounds = read(facts.groundsInBox)
  const largest = read(facts.largestInBox)
  const hasInternalClamps = read(facts.hasInternalClamps)
  const through = read(facts.throughInBox)
  const supportFittings = read(facts.fittingsInBox)
  const yokes = read(facts.yokesInBox)
  if (
    volume === undefined ||
    count === undefined ||
    grounds === undefined ||
    largest === undefined ||
    hasInternalClamps === undefined ||
    through === undefined ||
    supportFittings === undefined ||
    yokes === undefined
  )
    return undefined
  return boxFill(
    {
      conductors: [{ size: largest, count }],
      through: [{ size: largest, count: through }],
      supportFittings,
      devices: Array.from({ length: Math.max(1, yokes) }, () => ({ largest })),
      hasInternalClamps,
      grounds: { size: largest, count: grounds },
    },
    volume,
    edition,
  )
}

/** Why no protective device can stand in this box; nothing where one can. 210.8(A), 404.9, 410.16. */
function unfitPlace(desk: RemedyDesk, at: Subject<'outlet'>): Advice | undefined {
  const name = valueOf(at, 'name') ?? at.id
  const type = desk.ask(at.facts.type)
  if (type === undefined)
    return desk.conditional(
      'What kind of outlet {name} is decides whether a device can stand there',
      {
        name,
      },
    )
  if (type === 'luminaire' || type === 'alarm')
    return desk.refused(
      'The first outlet, {name}, is no place for a device: use the breaker, or a box ahead',
      {
        name,
      },
    )
  const fill = fillWithDevice(at, desk.site.edition, known)
  if (fill && !fill.fits)
    return desk.refused('The box of {name} is too full: {total} in³ in {volume} in³', {
      name,
      total: fill.total,
      volume: fill.volume,
    })
  if (type !== 'junction box') {
    const access = known(at.facts.resetAccess)
    return access === undefined || access === 'readily accessible'
      ? undefined
      : desk.refused('At {name} its button could not be reached', { name })
  }
  const isReached = desk.ask(at.facts.isAccessible)
  const access = desk.ask(at.facts.resetAccess)
  if (isReached === false || (access !== undefined && access !== 'readily accessible'))
    return desk.refused('The first box, {name}, is out of reach: its button could not be pressed', {
      name,
    })
  return access === undefined
    ? desk.conditional('A blank-face device in {name}, if that box is readily accessible', { name })
    : undefined
}
