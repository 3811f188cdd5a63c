import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Volts to a proved earth: at or above this a terminal is live. The bootleg rule uses the same. */
const LIVE_V = 50

/** Amperes in the grounding conductor, with a load of 12 A on the outlet, that are no leakage any more. */
const GROUND_CARRIES_A = 1

export const miswire = defineRule({
  id: 'miswire',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'The hot is where it belongs, and the neutral is whole',
  fault: 'Receptacle miswired',
  cites: [{ section: '200.11' }, { section: '406.4' }],
  triggers: [],
  remedies: ['rewire-device'],
  traps: [
    'An open neutral with a load on shows as hot and ground reversed',
    'A lamp tester says correct on a reversed receptacle with a jumper to ground',
    'Without a ground the lamps cannot tell hot from neutral',
    'Neutral and ground swapped read correct too: clamp the grounding conductor under load',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))

    const lamps = c.ask(point.facts.lamps)
    const clamp = c.ask(point.facts.groundClampA)
    if (clamp !== undefined && clamp >= GROUND_CARRIES_A)
      return c.fault(
        say(
          '{clamp} A in the grounding conductor while a load runs: neutral and ground are swapped, or joined here',
          { clamp },
        ),
        {
          danger: 3,
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
    if (type === undefined || lamps === undefined) return c.undecided(say('It has not been tested'))
    if (lamps === 'correct' || lamps === 'open ground') {
      // The lamps compare with the ground terminal: they prove polarity only where that is a true ground.
      const narrow = c.ask(point.facts.narrowToEarthV)
      const toEarth = lamps === 'correct' ? c.ask(point.facts.groundToEarthV) : undefined
      const jumper = lamps === 'correct' ? c.ask(point.facts.hasNeutralGroundJumper) : undefined
      if (toEarth !== undefined && toEarth >= LIVE_V)
        return c.fault(
          say(
            '{toEarth} V on the ground terminal: hot and neutral are reversed, with a jumper to ground',
            { toEarth },
          ),
          { danger: 4 },
        )
      if (narrow !== undefined)
        return narrow >= LIVE_V
          ? c.clear(say('{narrow} V from the narrow slot to earth', { narrow }))
          : c.fault(
              say('{narrow} V from the narrow slot to earth: hot and neutral are reversed', {
                narrow,
              }),
              { danger: 3 },
            )
      if (toEarth !== undefined || jumper === false)
        return c.clear(say('The lamps say correct, against a ground that is not live'))
      return c.undecided(
        lamps === 'correct'
          ? say('The lamps say the same of a reversed receptacle with a jumper to ground')
          : say('Without a ground the lamps cannot tell hot from neutral'),
        [],
        lamps === 'correct'
          ? [
              point.facts.groundToEarthV,
              ...(jumper === undefined ? [point.facts.hasNeutralGroundJumper] : []),
            ]
          : [point.facts.narrowToEarthV],
      )
    }
    if (lamps === 'reversed') return c.fault(say('Hot and neutral are reversed'), { danger: 3 })
    if (lamps === 'open neutral')
      return c.fault(say('Neutral open'), {
        danger: 3,
        working: [say('look at the joint before the first outlet that shows it')],
      })
    if (lamps === 'open hot')
      return c.fault(say('No hot: dead, or the breaker or a device ahead has tripped'), {
        danger: 1,
      })
    const toEarth = c.ask(point.facts.groundToEarthV)
    if (toEarth === undefined)
      return c.undecided(
        say(
          'Hot and ground reversed, or more likely a neutral open with a load on: the lamps cannot tell',
        ),
        [say('take every load off, or measure the ground terminal to a proved ground')],
      )
    return toEarth >= LIVE_V
      ? c.fault(
          say('Hot and ground are swapped: {toEarth} V on the ground terminal', { toEarth }),
          { danger: 4 },
        )
      : c.fault(say('Neutral open with a load on: the lamps say hot and ground reversed'), {
          danger: 3,
        })
  },
})
