import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { holdsNoDevice } from '../../derive/box'

export const gfciFailed = defineRule({
  id: 'gfci-failed',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'A ground-fault device trips by its own button',
  fault: 'Ground-fault device does not trip',
  cites: [{ section: '110.3(B)' }],
  triggers: [],
  remedies: ['replace-device'],
  traps: [
    'Lights mean different things by maker: never evidence',
    'A plug-in tester proves nothing where there is no ground',
  ],
  judge(point, c) {
    if (holdsNoDevice(c.ask(point.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(point.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const button = c.ask(point.facts.gfciButton)
    if (protection === undefined || button === undefined)
      return c.undecided(say('Its own button has not been pressed'))
    return button === 'does not trip'
      ? c.fault(say('It does not trip by its own button'), { danger: 3 })
      : c.clear(say('It trips by its own button'))
  },
})
