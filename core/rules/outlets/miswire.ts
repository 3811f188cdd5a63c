import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import { absent, valueOf, whereSeen, type Subject } from '../../model/house'
import { readStateOf } from '../../derive/readings'
import { LETHAL_STATES, nameOf, type OutletState } from '../../diagnosis/states'
import type { Danger } from '../../engine/verdict'
import { LIVE_GROUND_VOLTS, SOUND_GROUND_VOLTS } from '../../derive/ground'

/** Amperes in the grounding conductor, with a load of 12 A on the outlet, that are no leakage any more. */
const GROUND_CARRIES_A = 1

/** Volts between the slots of a 240 V receptacle; a lost neutral gives the rest of them to its other half. */
const BOTH_LEGS_V = [220, 260] as const

export const miswire = defineRule({
  id: 'miswire',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'The hot is where it belongs, and the neutral is whole',
  fault: 'Receptacle miswired',
  consequence: 'Parts taken for dead can be live.',
  cites: [{ section: '200.11' }, { section: '406.4' }],
  checks: {
    'current-in-ground': {
      danger: 3,
      says: '{clamp} A in the grounding conductor while a load runs: neutral and ground are swapped, or joined here',
    },
    'reversed-with-jumper': {
      danger: 4,
      says: '{toEarth} V on the ground terminal: hot and neutral are reversed, with a jumper to ground',
    },
    'reversed-by-voltage': {
      danger: 3,
      says: '{narrow} V from the narrow slot to a proved reference: hot and neutral are reversed',
    },
    reversed: { danger: 3, says: 'Hot and neutral are reversed' },
    'neutral-open': { danger: 3, says: 'Neutral open' },
    dead: { danger: 1, says: 'No hot: dead, or the breaker or a device ahead has tripped' },
    'hot-ground-swapped': {
      danger: 4,
      says: 'Hot and ground are swapped: {toEarth} V on the ground terminal',
    },
    unexplained: {
      danger: 3,
      says:
        'No sound outlet and no fault known here reads like this: read it again in low-impedance mode, then each ' +
        'conductor to a proved reference',
    },
    'by-readings': { danger: [1, 4], says: 'Read together, the voltages prove: {state}' },
    'wrong-in-any-case': {
      danger: [1, 4],
      says: 'Read together, the voltages leave only: {states}',
    },
    'neutral-open-under-load': {
      danger: 3,
      says: 'Neutral open with a load on: the lamps say hot and ground reversed',
    },
  },
  triggers: [],
  remedies: ['rewire-device', 'call-utility'],
  traps: [
    'An open neutral with a load on shows as hot and ground reversed',
    'A lamp tester says correct on a reversed receptacle with a jumper to ground',
    'Without a ground the lamps cannot tell hot from neutral',
    'Neutral and ground swapped read correct too: clamp the grounding conductor under load',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')

    // Lamps and volts of the diagnosis are those of a 120 V face.
    const is240 = whereSeen(outlet.facts.slots)?.value === '240 V'
    const between = valueOf(outlet, 'hotNeutralV')
    const isBothLegs =
      between !== undefined &&
      between >= BOTH_LEGS_V[0] &&
      between <= BOTH_LEGS_V[1] &&
      valueOf(outlet, 'otherHalfV') === undefined
    if (isBothLegs && c.ask(outlet.facts.slots) === undefined)
      return c.undecided(
        say(
          '{between} V between the slots: right for a 240 V receptacle, for any other it is not',
          {
            between,
          },
        ),
      )
    const read = is240 ? undefined : readStateOf(c.site, outlet)
    if (read) {
      c.rest(read.rests)
      const { proven, unexplained } = read.ranking
      const wrong = proven.filter(state => !ELSEWHERE.has(state))
      if (wrong.length > 0)
        c.fails('by-readings', { state: wrong.join(' with ') }, { danger: dangerOf(proven) })
      else if (proven.length === 0 && !read.ranking.fitting.includes('good')) {
        // Which of them it is, is open; that none of them may stay is not.
        const ways = read.ways()
        if (ways.length > 0 && ways.every(w => w.parts.some(part => !ELSEWHERE.has(part)))) {
          const danger = Math.min(...ways.map(w => dangerOf(w.parts))) as Danger
          const states = [...new Set(ways.map(w => w.state))].slice(0, MOST_NAMED).join('; ')
          c.fails('wrong-in-any-case', { states }, { danger })
        }
      }
      // A sound outlet explains what is read at it. What none does is wrong in a way nobody knows, or was read wrong.
      if (unexplained.length > 0) c.fails('unexplained')
    }
    const lamps = is240 ? undefined : c.ask(outlet.facts.lamps)
    const clamp = c.ask(outlet.facts.groundClampA)
    if (clamp !== undefined && clamp >= GROUND_CARRIES_A)
      return c.fault(
        'current-in-ground',
        { clamp },
        {
          compare: {
            left: clamp,
            leftLabel: 'in the ground',
            sign: '>',
            right: 0,
            rightLabel: 'expected',
            unit: 'A',
          },
        },
      )
    if (is240)
      return clamp === undefined
        ? c.undecided(
            'A three-lamp tester does not fit a 240 V receptacle; its ground was not clamped',
          )
        : c.clear('Nothing to speak of in its ground under load')
    // A pattern no legend has, or nothing to plug in: the voltages between its terminals tell.
    if (outlet.facts.lamps.state === 'blocked')
      return c.undecided(
        'The lamps tell nothing here: measure between its terminals, and each to a proved reference',
        [
          outlet.facts.hotNeutralV,
          outlet.facts.hotGroundV,
          outlet.facts.neutralGroundV,
          outlet.facts.groundToReferenceV,
          outlet.facts.narrowToReferenceV,
        ].filter(f => f.state !== 'known'),
      )
    if (lamps === undefined && read && !read.ranking.fitting.includes('good')) {
      const { lamps: tester, narrowToReferenceV, groundToReferenceV } = outlet.facts
      const ask = [tester, narrowToReferenceV, groundToReferenceV].filter(f => f.state !== 'known')
      const [likeliest] = read.ranking.states
      if (likeliest)
        return c.undecided(
          say('The voltages look like {state}, and a conductor that floats may read the same', {
            state: likeliest.state,
          }),
          ask,
        )
    }
    if (type === undefined || lamps === undefined) return c.undecided('It has not been tested')
    if (lamps === 'correct' || lamps === 'open ground') {
      // The lamps compare with the ground terminal: they prove polarity only where that is a true ground.
      const narrow = c.ask(outlet.facts.narrowToReferenceV)
      const toEarth = lamps === 'correct' ? c.ask(outlet.facts.groundToReferenceV) : undefined
      const jumper = lamps === 'correct' ? c.ask(outlet.facts.hasNeutralGroundJumper) : undefined
      if (toEarth !== undefined && toEarth >= LIVE_GROUND_VOLTS)
        return c.fault('reversed-with-jumper', { toEarth })
      if (narrow !== undefined && narrow < LIVE_GROUND_VOLTS)
        return c.fault('reversed-by-voltage', { narrow })
      if (toEarth !== undefined && toEarth > SOUND_GROUND_VOLTS)
        return c.undecided(
          say('{toEarth} V on the ground terminal: it floats, or carries current', { toEarth }),
          absent(outlet, 'groundToReferenceV'),
        )
      if (narrow !== undefined || toEarth !== undefined) {
        if (lamps === 'correct' && clamp === undefined && !isSeenApart(outlet, c))
          return c.undecided(
            'Hot and neutral are right; swapped neutral and ground would read the same',
            [
              outlet.facts.groundClampA,
              ...(c.ask(outlet.facts.isBoxOpened) ? [] : [outlet.facts.isBoxOpened]),
            ],
          )
        return narrow !== undefined
          ? c.clear(say('{narrow} V from the narrow slot to a proved reference', { narrow }))
          : c.clear('The lamps say correct, against a ground that is not live')
      }
      return c.undecided(
        lamps === 'correct'
          ? 'The lamps say the same of a reversed receptacle with a jumper to ground'
          : 'Without a ground the lamps cannot tell hot from neutral',
        lamps === 'correct'
          ? [
              outlet.facts.groundToReferenceV,
              ...(jumper === true ? [] : [outlet.facts.narrowToReferenceV]),
            ]
          : [outlet.facts.narrowToReferenceV],
      )
    }
    if (lamps === 'reversed') return c.fault('reversed')
    if (lamps === 'open neutral')
      return c.fault(
        'neutral-open',
        {},
        { working: [say('look at the joint before the first outlet that shows it')] },
      )
    if (lamps === 'open hot') return c.fault('dead')
    const toEarth = c.ask(outlet.facts.groundToReferenceV)
    if (toEarth === undefined)
      return c.undecided(
        'Hot and ground reversed, or more likely a neutral open with a load on: the lamps cannot tell',
        undefined,
        [say('take every load off, or measure the ground terminal to a proved ground')],
      )
    return toEarth >= LIVE_GROUND_VOLTS
      ? c.fault('hot-ground-swapped', { toEarth })
      : c.fault('neutral-open-under-load')
  },
})

/** Ways that are named where several fit: the likeliest, enough to know what to measure next. */
const MOST_NAMED = 3
/** States that other rules find: the ground and what stands in for it, and joints. */
const ELSEWHERE: ReadonlySet<string> = new Set<OutletState>([
  'good',
  'ground missing',
  'bootleg',
  'high-resistance joint',
  'high-resistance ground',
])
/** A dead outlet harms nobody; what puts the supply on a frame or on a load it was not made for does. */
function dangerOf(proven: readonly OutletState[]): Danger {
  if (LETHAL_STATES.has(nameOf(proven)) || proven.some(state => LETHAL_STATES.has(state))) return 4
  return proven.every(state => state === 'open hot' || ELSEWHERE.has(state)) ? 1 : 3
}

/** With the box open the ground was seen on the ground screw, so that neutral and ground are not swapped here. */
function isSeenApart(outlet: Subject<'outlet'>, c: Context): boolean {
  if (c.ask(outlet.facts.isBoxOpened) !== true) return false
  const ground = c.ask(outlet.facts.ground)
  return ground === 'connected' || ground === 'metal raceway or armor'
}
