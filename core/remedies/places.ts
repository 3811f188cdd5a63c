/** Where a protective device may stand on a circuit, and what may feed it. Read by every remedy that puts one there. */
import { valueOf, type Subject } from '../model/house'
import { neutralGroupOf } from '../derive/neutrals'
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
  if (type !== 'junction box') return undefined
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
