import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent } from '../../model/house'

/** Volts by which the two halves may differ in ordinary use. */
const ORDINARY_V = 6
/** Volts of difference that no ordinary load makes: the neutral is loose or open. */
const LOST_V = 20

/** The neutral of the service holds both halves at the same voltage, whatever runs on them. */
export const serviceNeutral = defineRule({
  id: 'service-neutral',
  family: 'service',
  subject: 'enclosure',
  isHazard: true,
  title: 'Both halves of the supply stand at the same voltage',
  fault: 'Neutral loose or open',
  consequence:
    'Appliances on one half burn out, those on the other stop, and pipes carry the current.',
  cites: [{ section: '110.14' }, { section: '230' }],
  checks: {
    'neutral-lost': {
      danger: 4,
      says: '{high} V on one half and {low} V on the other: the neutral is loose or open',
    },
  },
  triggers: [],
  until: 'Unplug electronics, and call the utility at once if lights brighten or dim by themselves',
  remedies: ['call-utility'],
  traps: [
    'No rod, lifted bond or moved circuit cures it: the utility is called',
    'Measure with large loads on and off: with little running both halves look alike',
    'At a panel after the service it may be the neutral of its feeder',
  ],
  judge(enclosure, c) {
    const a = c.ask(enclosure.facts.legAToNeutralV)
    const b = c.ask(enclosure.facts.legBToNeutralV)
    if (a === undefined || b === undefined)
      return c.undecided(say('The voltages of both halves have not been measured'))
    const [low, high] = a < b ? [a, b] : [b, a]
    const apart = high - low
    if (apart >= LOST_V)
      return c.fault(
        'neutral-lost',
        { low, high },
        {
          compare: {
            left: apart,
            leftLabel: 'between the halves',
            sign: '>',
            right: ORDINARY_V,
            rightLabel: 'ordinary',
            unit: 'V',
          },
        },
      )
    if (apart <= ORDINARY_V && c.ask(enclosure.facts.wereLoadsOn) !== true)
      return c.undecided(
        say('{high} and {low} V: with little running a loose neutral does not show', { high, low }),
        [],
        [absent(enclosure, 'wereLoadsOn')],
      )
    return apart > ORDINARY_V
      ? c.undecided(
          say('{high} and {low} V: measure again with large loads on, then off', { high, low }),
          [],
          [absent(enclosure, 'legAToNeutralV')],
        )
      : c.clear(say('{high} and {low} V: both halves alike', { high, low }))
  },
})
