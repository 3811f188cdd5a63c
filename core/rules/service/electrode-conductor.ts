import { isForbidden, soundnessOf } from '../../derive/electrode'
import { absent } from '../../model/house'
import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'
import { ROD_SPACING_FT, SINGLE_ROD_OHMS } from '../../tables/grounding'

/** The service has an electrode, and a conductor to it that is whole, large enough and lands where the neutral is. */
export const electrodeConductor = defineRule({
  id: 'electrode-conductor',
  family: 'service',
  subject: 'enclosure',
  title: 'A sound grounding electrode conductor of full size runs to an electrode',
  fault: 'Grounding electrode conductor (GEC) missing, too small or unsound',
  consequence: 'Lightning and surges on the line find no way into the soil.',
  tags: ['bond'],
  cites: [
    { section: '250.24(D)' },
    { section: '250.50' },
    { section: '250.52(A)(1)' },
    { section: '250.53(A)(2)' },
    { section: '250.53(B)' },
    { section: '250.53(D)(2)' },
    { section: '250.64' },
    { section: '250.66' },
    { section: '250.68(A)' },
    { section: '250.68(C)(1)' },
    { section: '250.70' },
  ],
  checks: {
    'no-conductor': { danger: 3, says: 'No grounding electrode conductor found at the service' },
    'lands-on-nothing': {
      danger: 3,
      says: 'The grounding electrode conductor lands on {where}: it ties nothing',
    },
    'forbidden-electrode': {
      danger: 3,
      says: 'A {type} is used as electrode: it never may be (250.52(B))',
    },
    'lands-on-enclosure': {
      danger: 2,
      says: 'The grounding electrode conductor ends on the metal of the enclosure, not on the neutral',
    },
    'lands-behind-screw': {
      danger: 2,
      says: 'It lands on a ground bar that only the bonding screw ties to the neutral',
    },
    'aluminum-near-earth': {
      danger: 2,
      says: 'Aluminum grounding electrode conductor within 18 in. of the earth',
    },
    unprotected: {
      danger: 1,
      says: '8 AWG grounding electrode conductor without raceway or armor',
    },
    connection: { danger: 2, says: 'Electrode connection: {connection}' },
    'clamp-hidden': {
      danger: 1,
      says: 'The clamp of the electrode is behind a finish, out of reach',
    },
    spliced: {
      danger: 2,
      says: 'Grounding electrode conductor spliced other than by crimp or weld',
    },
    'no-jumper': {
      danger: 2,
      says: 'No jumper round the meter or filter: taking it out opens the electrode',
    },
    'too-small': {
      danger: 2,
      says: '{size} {metal} to the {type}; {least} required for {service} {serviceMetal}',
    },
    'pipe-not-in-earth': {
      danger: 3,
      says: 'Less than 10 ft of metal water pipe lie in the earth: it is no electrode',
    },
    'clamp-far-inside': {
      danger: 1,
      says: 'Clamped to the water pipe {feet} ft inside: more than {most} ft from where it enters',
    },
    'water-pipe-alone': {
      danger: 2,
      says: 'The water pipe is the only electrode: it needs another beside it',
    },
    'rods-too-near': { danger: 1, says: 'Rods {spacing} ft apart: less than {least} ft' },
    'rod-resistance': { danger: 2, says: 'One rod of {ohms} Ω: more than {most} Ω needs a second' },
  },
  triggers: ['replaced', 'new'],
  remedies: [
    'electrode-conductor',
    'gec-to-neutral',
    'electrode-clamp',
    'install-electrodes',
    'second-rod',
    'ground-rod-only',
  ],
  traps: [
    'The sole connection to a rod need not be larger than 6 Cu, to a concrete-encased electrode ' +
      'than 4 Cu; larger is no fault',
    'One rod or plate is enough only at 25 Ω or less',
    'A water pipe alone is not enough: it needs another electrode beside it',
    'A rod never makes a fault trip: the bond to the neutral does',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'service') return c.na('Not the service disconnect')
    const seen = c.ask(enclosure.facts.electrodes)
    const landings = c.site.all.electrode.map(e => ({ electrode: e, at: c.ask(e.facts.landsIn) }))
    // It may land anywhere from the drop to the service disconnect. 250.24(A)(1).
    const isHere = (at: string | undefined) => at === enclosure.id || isAhead(at, c)
    const connected = landings.filter(x => isHere(x.at)).map(x => x.electrode)
    if (connected.length === 0 && seen === 'none found') return c.fault('no-conductor')
    if (connected.length === 0 && seen === undefined)
      return c.undecided('Nobody has looked for the grounding electrode conductor')
    // One whose landing nobody has followed may land here: it opens the judgment, and turns nothing.
    const adrift = landings.filter(x => x.at === undefined).map(x => x.electrode.facts.landsIn)
    if (connected.length === 0)
      return c.undecided(
        'It is there, and where it goes has not been recorded',
        adrift.length ? adrift : [absent(enclosure, 'electrodes')],
      )
    let isOpen = adrift.length > 0
    for (const electrode of connected) {
      const { value, rests } = soundnessOf(c.site, electrode, enclosure)
      c.rest(rests)
      for (const { id, data } of value.faults) c.fails(id, data)
      if (!value.isSeen) isOpen = true
    }
    // A forbidden one is no electrode, and supplements none.
    const found = connected.map(e => c.ask(e.facts.type))
    const forbidden = found.find(isForbidden)
    if (forbidden) c.fails('forbidden-electrode', { type: forbidden })
    const pipes = connected.map((e, i) => (found[i] === 'water pipe' ? pipeOf(e, c) : 'no pipe'))
    if (pipes.includes(undefined)) isOpen = true
    const electrodes = connected.filter(
      (_, i) => !isForbidden(found[i]) && pipes[i] !== 'too short',
    )
    const types = electrodes.map(e => c.ask(e.facts.type))
    if (electrodes.length === 0 && pipes.includes('too short') && adrift.length === 0)
      c.fails('pipe-not-in-earth')
    if (adrift.length === 0 && types.length > 0 && types.every(t => t === 'water pipe'))
      c.fails('water-pipe-alone', {}, { since: SUPPLEMENT_SINCE })
    // Rods, plates and pipes of one's own driving are enough alone only at a low resistance; others need no measuring.
    const driven = electrodes.filter((_, i) => types[i] === 'rod' || types[i] === 'plate')
    if (
      types.every(t => t === 'rod' || t === 'plate' || t === 'water pipe' || t === undefined) &&
      types.filter(t => t !== 'water pipe').length === driven.length
    ) {
      const ohms = driven.map(e => c.ask(e.facts.ohms))
      if (!ohms.some(o => o !== undefined && o <= SINGLE_ROD_OHMS)) {
        const counts = driven.map(
          e => c.ask(e.facts.rods) ?? (types[electrodes.indexOf(e)] === 'plate' ? 1 : undefined),
        )
        const spacings = driven.map(e => c.ask(e.facts.spacingFt))
        const near = spacings.find(x => x !== undefined && x < ROD_SPACING_FT)
        const count = counts.reduce<number>((n, x) => n + (x ?? 1), 0)
        if (count > 1 && near !== undefined)
          c.fails('rods-too-near', {
            spacing: near,
            least: ROD_SPACING_FT,
          })
        if (counts.includes(undefined)) isOpen = true
        else if (count === 1) {
          const only = ohms[0]
          if (only === undefined)
            return c.undecided(
              'One rod, and its resistance has not been measured: measure it or drive a second',
              [driven[0]!.facts.ohms, ...adrift],
            )
          if (adrift.length === 0)
            c.fails('rod-resistance', {
              ohms: only,
              most: SINGLE_ROD_OHMS,
            })
        } else if (spacings.every(x => x === undefined)) isOpen = true
      }
    } else if (types.includes(undefined)) isOpen = true
    return isOpen
      ? c.undecided('Not all of the electrode and its conductor has been looked at')
      : c.clear('Grounding electrode conductor whole and large enough')
  },
})

/**
 * A water pipe as electrode: `in earth` where enough of its metal lies in the earth and the clamp is near where it
 * enters, `too short` where it is none; undefined while not seen. 250.52(A)(1), 250.68(C)(1).
 */
function pipeOf(pipe: Subject<'electrode'>, c: Context): 'in earth' | 'too short' | undefined {
  const isLong = c.ask(pipe.facts.isTenFtInEarth)
  if (isLong === false) return 'too short'
  const feet = c.ask(pipe.facts.clampFt)
  if (feet !== undefined && feet > CLAMP_MOST_FT)
    c.fails('clamp-far-inside', { feet, most: CLAMP_MOST_FT }, { since: CLAMP_SINCE })
  return isLong === undefined || feet === undefined ? undefined : 'in earth'
}
const CLAMP_MOST_FT = 5
/** First edition that keeps the clamp near where the pipe enters. */
const CLAMP_SINCE = 1993

/** Another electrode beside the water pipe is asked for from this edition. 250.53(D)(2). */
const SUPPLEMENT_SINCE = 1978

/** An enclosure on the supply side of the service disconnect, such as the meter. */
function isAhead(id: string | undefined, c: Context): boolean {
  const enclosure = c.site.get(id, 'enclosure')
  if (!enclosure) return false
  const role = roleOf(c.site, enclosure)
  c.rest(role.rests)
  return role.value === 'supply'
}
