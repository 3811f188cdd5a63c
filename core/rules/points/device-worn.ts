import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const deviceWorn = defineRule({
  id: 'device-worn',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'Devices grip, and are whole',
  fault: 'Device worn, cracked or scorched',
  cites: [{ section: '110.12(B)' }],
  triggers: [],
  remedies: ['replace-device'],
  traps: ['A scorched face: open the box, and look along the chain'],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle' && type !== 'switch')
      return c.na(say('No device'))
    const state = c.ask(point.facts.condition)
    if (state === undefined || type === undefined)
      return c.undecided(say('The device has not been looked at'))
    if (state === 'sound') return c.clear(say('Sound'))
    return c.fault(say('Device: {state}', { state }), {
      danger: state === 'scorched' ? 4 : state === 'buzzing' ? 3 : state === 'painted over' ? 1 : 2,
    })
  },
})
