import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const deviceWorn = defineRule({
  id: 'device-worn',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'Devices grip, and are whole',
  fault: 'Device worn, cracked or scorched',
  consequence: 'A loose or broken device can arc or be touched live.',
  cites: [{ section: '110.12(B)' }],
  checks: {
    worn: {
      danger: [1, 4],
      says: 'Device: {state}',
    },
  },
  triggers: [],
  remedies: ['replace-device'],
  traps: ['A scorched face: open the box, and look along the chain'],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle' && type !== 'switch')
      return c.na(say('No device'))
    const state = c.ask(outlet.facts.condition)
    if (state === undefined || type === undefined)
      return c.undecided(say('The device has not been looked at'))
    if (state === 'sound') return c.clear(say('Sound'))
    return c.fault(
      'worn',
      { state },
      {
        danger:
          state === 'scorched' ? 4 : state === 'buzzing' ? 3 : state === 'painted over' ? 1 : 2,
      },
    )
  },
})
