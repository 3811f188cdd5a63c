import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { holdsNoDevice } from '../../derive/box'

export const gfciLineLoadReversed = defineRule({
  id: 'gfci-line-load-reversed',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'A tripped ground-fault device is dead, and so is what it feeds',
  fault: 'Ground-fault device wired line for load',
  consequence: 'The outlet stays live when the device has tripped.',
  cites: [{ section: '110.3(B)' }],
  checks: {
    'line-load-swapped': {
      danger: 3,
      says: 'Tripped, its own outlet stays live: line and load are swapped',
    },
  },
  triggers: [],
  remedies: ['swap-line-load'],
  traps: ['The test light may go out while the outlet stays live: measure'],
  judge(outlet, c) {
    if (holdsNoDevice(c.ask(outlet.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(outlet.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const button = c.ask(outlet.facts.gfciButton)
    if (protection === undefined || button === undefined)
      return c.undecided(say('Its own button has not been pressed with a load plugged in'))
    if (button === 'does not trip') return c.na(say('It does not trip at all: another finding'))
    return button === 'trips, stays live'
      ? c.fault('line-load-swapped')
      : c.clear(say('Tripped, it is dead'))
  },
})
