import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { placesOf } from '../../derive/places'
import { afciOf } from '../../derive/fault-protection'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'
import { openOf, type Verdict } from '../../engine/verdict'
import { afciSince, placeName, EXTENSION_EXEMPT } from '../../tables/protection-years'

/** Arc-fault protection in the listed rooms, by the edition that bears on the outlet and on what is done to it now. */
export const afciMissing = defineRule({
  id: 'afci-missing',
  family: 'outlets',
  subject: 'outlet',
  title: 'Outlets in the listed rooms have arc-fault protection',
  fault: 'Arc-fault protection missing',
  consequence: 'An arc in a damaged cord or cable can start a fire with nothing to cut it off.',
  cites: [{ section: '210.12' }, { section: '406.4(D)(4)' }],
  checks: {
    'first-run-unprotected': {
      danger: 2,
      says: 'A new circuit protected by a device only: the run from the panel to it is not protected',
    },
    'not-protected': {
      danger: 2,
      says: 'Required in a {use} since {since}, and nothing protects it',
    },
  },
  triggers: ['replaced', 'extended', 'new'],
  triggersSince: { replaced: 2011, extended: 2011 },
  remedies: ['afci-breaker', 'afci-first-outlet', 'afci-receptacle-here', 'protect-beside-panel'],
  traps: [
    'Bathrooms, garages, outdoors, unfinished basements, utility rooms and attics are not listed',
    'An extension of 6 ft or less that adds no outlet is exempt from the 2014 edition on; ' +
      'replacing a receptacle is not',
    'The test button on the device decides; hand testers only indicate',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type === 'junction box') return c.na('Not an outlet')
    const room = c.site.get(c.ask(outlet.facts.room), 'room')
    const places = placesOf(room, c)
    // Of several uses the one that asks for it first counts.
    const listed = firstListed(places, type)
    const use = listed ?? places[0]
    if (use !== undefined && listed === undefined)
      return c.na(say('Not a listed room: {use}', { use: placeName(use) }))
    const since = use === undefined || type === undefined ? undefined : afciSince(use, type)
    if (since !== undefined && since > c.site.edition)
      return c.na(say('Required from the {since} edition', { since }))
    const isBranch = isSmallBranch(outlet, type, c)
    if (isBranch === false) return c.na('Not on a 120 V circuit of 15 or 20 A')
    const afci = afciOf(c.site, outlet)
    c.rest(afci.rests)
    const isAtOutlet = afci.value === 'own' || afci.value === 'ahead'
    const isByWork = isAtOutlet || afci.value === 'somewhere'
    const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
    const work = isByWork && circuit ? c.ask(circuit.facts.work) : undefined
    if (isAtOutlet && work === 'new' && since !== undefined) return newByOutlet(outlet, since, c)
    if (isAtOutlet && work === 'new')
      return c.undecided('What it is, or the use of the room, has not been seen')
    // A new circuit is protected from its start: there it counts what tripped.
    if (afci.value === 'somewhere' && (work === undefined || work === 'new'))
      return c.undecided(
        'The arc-fault tester made it dead; where what tripped sits has not been seen',
        [
          ...(circuit && work === undefined ? [circuit.facts.work] : []),
          ...afci.rests.filter(f => f.state !== 'known'),
        ],
      )
    if (afci.value !== undefined && afci.value !== 'none') return c.clear(KEPT_BY[afci.value])
    if (type === undefined || use === undefined || since === undefined)
      return c.undecided('What it is, or the use of the room, has not been seen')
    const ownWork = c.ask(outlet.facts.work)
    if (
      circuit &&
      c.ask(circuit.facts.work) === 'extended' &&
      ownWork !== 'replaced' &&
      c.site.edition >= EXTENSION_EXEMPT.since
    ) {
      const ft = c.ask(circuit.facts.extensionFt)
      const adds = c.ask(circuit.facts.addsOutlets)
      if (
        ft !== undefined &&
        ft <= EXTENSION_EXEMPT.feet &&
        adds === false &&
        ownWork !== undefined
      )
        return c.na(say('An extension of {ft} ft that adds no outlet', { ft }))
      if ((ft === undefined || ft <= EXTENSION_EXEMPT.feet) && adds !== true)
        return c.undecided('An extension of 6 ft or less that adds no outlet would be exempt')
    }
    if (isBranch === undefined)
      return c.undecided(
        'Only circuits of 120 V, 15 or 20 A, are asked for, and its circuit has not been seen',
      )
    if (afci.value === undefined)
      return c.undecided(
        say('Required here since {since}; whether it is there has not been settled', { since }),
        openOf(afci.rests),
      )
    return c.fault(
      'not-protected',
      {
        use: placeName(use),
        since,
      },
      // Only a receptacle brings the duty along when it is replaced. 406.4(D)(4).
      type === 'receptacle' ? { since } : { since, broughtBy: ['extended', 'new'] },
    )
  },
})

const KEPT_BY = {
  own: 'Protected by a device',
  ahead: 'Protected by a device',
  breaker: 'Protection in the breaker',
  somewhere: 'The arc-fault tester made it dead',
} as const

/**
 * A new circuit is protected from its start: by the breaker, or by a device at the first outlet with the prescribed
 * wiring on the way to it. 210.12.
 */
function newByOutlet(outlet: Subject<'outlet'>, since: number, c: Context): Verdict {
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
  const run = circuit && c.ask(circuit.facts.homeRun)
  if (run === 'other wiring') return c.fault('first-run-unprotected', {}, { since })
  if (circuit && run === undefined)
    return c.faultUnless(
      'first-run-unprotected',
      {},
      {
        since,
        unless: ['the run to the first outlet is metal raceway, or a listed arrangement'],
        ask: circuit.facts.homeRun,
      },
    )
  return c.clear('Protected by a device, and the run to it by its raceway or listing')
}

/** Outlets of 120 V on circuits of 15 or 20 A; undefined where voltage or rating has not been seen. 210.12. */
function isSmallBranch(
  outlet: Subject<'outlet'>,
  type: string | undefined,
  c: Context,
): boolean | undefined {
  const slots = type === 'receptacle' ? c.ask(outlet.facts.slots) : undefined
  if (slots === '240 V') return false
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
  const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
  const rating = breaker && c.ask(breaker.facts.ratingAmps)
  if (rating !== undefined && rating > MOST_AMPS) return false
  // A two-pole breaker feeds 240 V, or both halves of a multiwire circuit: a face with slots, a
  // switch or a light tells.
  const poles = breaker && c.ask(breaker.facts.poles)
  const isPlain =
    slots !== undefined ||
    (type !== undefined && type !== 'hard-wired outlet' && type !== 'receptacle')
  if (isPlain || poles === 1) return rating === undefined ? undefined : true
  if (poles === undefined || circuit === undefined) return undefined
  const isHotToHot = c.ask(circuit.facts.feedsLineToLine)
  return isHotToHot === true
    ? false
    : isHotToHot === undefined || rating === undefined
      ? undefined
      : true
}
const MOST_AMPS = 20

/** The listed place that asks for it first; where none asks it of such an outlet, the first that is listed. */
function firstListed(places: readonly string[], type = 'receptacle'): string | undefined {
  let first: string | undefined
  let earliest = Infinity
  for (const place of places) {
    if (afciSince(place, 'receptacle') === undefined) continue
    const since = afciSince(place, type) ?? Infinity
    if (first === undefined || since < earliest) {
      first = place
      earliest = since
    }
  }
  return first
}
