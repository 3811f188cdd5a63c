import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { holdsNoDevice } from '../../derive/box'

export const gfciFailed = defineRule({
  id: 'gfci-failed',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'A ground-fault device trips by its own button',
  fault: 'Ground-fault device does not trip',
  consequence: 'The protection people rely on is not there.',
  cites: [{ section: '110.3(B)' }],
  checks: { 'button-fails': { danger: 3, says: 'It does not trip by its own button' } },
  triggers: [],
  remedies: ['replace-device'],
  traps: [
    'Lights mean different things by maker: never evidence',
    'A plug-in tester proves nothing where there is no ground',
  ],
  judge(outlet, c) {
    if (holdsNoDevice(c.ask(outlet.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(outlet.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const button = c.ask(outlet.facts.gfciButton)
    if (protection === undefined || button === undefined)
      return c.undecided(say('Its own button has not been pressed'))
    return button === 'does not trip'
      ? c.fault('button-fails')
      : c.clear(say('It trips by its own button'))
  },
})
