import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { LIVE_GROUND_VOLTS, SOUND_GROUND_VOLTS } from '../../derive/ground'
import { absent } from '../../model/house'

/** Volts neutral-to-ground under 12 A or more that no jumper at the device would leave standing. */
const RISE_WITHOUT_JUMPER = 0.5

/** The ground terminal is not a neutral in disguise. */
export const bootlegGround = defineRule({
  id: 'bootleg-ground',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'No jumper joins neutral and ground at a device',
  fault: 'Bootleg ground',
  consequence: 'The metal of a plugged-in appliance can become live at any moment.',
  cites: [{ section: '250.142(B)' }],
  checks: {
    'ground-live': {
      danger: 4,
      says: '{toEarth} V between the ground terminal and a proved reference: anything plugged in has a live frame',
    },
    jumper: { danger: 3, says: 'A jumper joins neutral and ground at the device' },
  },
  triggers: [],
  remedies: ['remove-jumper'],
  traps: [
    'A lamp tester says correct',
    'Reversed polarity with a jumper puts 120 V on the frame',
    'Near the panel a good outlet shows little rise: look in the box',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')
    const slots = c.ask(outlet.facts.slots)
    if (slots === 'two') return c.na('No ground terminal')
    if (type === undefined || slots === undefined) return c.undecided()
    const toEarth = c.ask(outlet.facts.groundToReferenceV)
    if (toEarth !== undefined && toEarth >= LIVE_GROUND_VOLTS) {
      c.fails(
        'ground-live',
        { toEarth },
        {
          compare: {
            left: toEarth,
            leftLabel: 'ground to reference',
            sign: '>',
            right: 0,
            rightLabel: 'expected',
            unit: 'V',
          },
        },
      )
    }
    const jumper = c.ask(outlet.facts.hasNeutralGroundJumper)
    if (jumper === true)
      c.fails(
        'jumper',
        {},
        {
          working: [
            say(
              'the frame of whatever is plugged in carries the neutral; a lost or reversed neutral makes it 120 V',
            ),
          ],
        },
      )
    if (toEarth !== undefined && toEarth > SOUND_GROUND_VOLTS)
      return c.undecided(
        say('{toEarth} V on the ground terminal: it floats, or carries current', { toEarth }),
        absent(outlet, 'groundToReferenceV'),
      )
    if (jumper === false) return c.clear('No jumper seen with the box open')
    const rise = c.ask(outlet.facts.neutralGroundRiseV)
    if (rise !== undefined && rise >= RISE_WITHOUT_JUMPER)
      return c.clear(
        say('Neutral to ground rises to {rise} V under load: no jumper here', { rise }),
      )
    if (c.ask(outlet.facts.lamps) === 'open ground')
      return c.clear('The ground terminal is open: no jumper on it')
    return c.undecided('A lamp tester cannot tell a ground from a jumper to neutral')
  },
})
