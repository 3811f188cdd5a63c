import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Volts between ground terminal and earth from which the terminal counts as live. */
const LIVE_GROUND_VOLTS = 50
/** Volts neutral-to-ground under 12 A or more that no jumper at the device would leave standing. */
const RISE_WITHOUT_JUMPER = 0.5

/** The ground terminal is not a neutral in disguise. */
export const bootlegGround = defineRule({
  id: 'bootleg-ground',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'No jumper joins neutral and ground at a device',
  fault: 'Bootleg ground',
  cites: [{ section: '250.142(B)' }],
  triggers: [],
  remedies: ['remove-jumper'],
  traps: [
    'A lamp tester says correct',
    'Reversed polarity with a jumper puts 120 V on the frame',
    'Near the panel a good outlet shows little rise: look in the box',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))
    const slots = c.ask(point.facts.slots)
    if (slots === 'two') return c.na(say('No ground terminal'))
    if (type === undefined || slots === undefined) return c.undecided()
    const toEarth = c.ask(point.facts.groundToEarthV)
    if (toEarth !== undefined && toEarth >= LIVE_GROUND_VOLTS) {
      return c.fault(
        say(
          '{toEarth} V between the ground terminal and earth: anything plugged in has a live frame',
          { toEarth },
        ),
        {
          danger: 4,
          compare: {
            left: toEarth,
            leftLabel: 'ground to earth',
            sign: '>',
            right: 0,
            rightLabel: 'expected',
            unit: 'V',
          },
        },
      )
    }
    const jumper = c.ask(point.facts.hasNeutralGroundJumper)
    if (jumper === true)
      return c.fault(say('A jumper joins neutral and ground at the device'), {
        danger: 3,
        working: [
          say(
            'the frame of whatever is plugged in carries the neutral; a lost or reversed neutral makes it 120 V',
          ),
        ],
      })
    if (jumper === false) return c.clear(say('No jumper seen with the box open'))
    const rise = c.ask(point.facts.neutralGroundRiseV)
    if (rise !== undefined && rise >= RISE_WITHOUT_JUMPER)
      return c.clear(
        say('Neutral to ground rises to {rise} V under load: no jumper here', { rise }),
      )
    if (c.ask(point.facts.lamps) === 'open ground')
      return c.clear(say('The ground terminal is open: no jumper on it'))
    return c.undecided(say('A lamp tester cannot tell a ground from a jumper to neutral'))
  },
})
