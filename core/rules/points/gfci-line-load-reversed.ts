import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { holdsNoDevice } from '../../derive/box'

export const gfciLineLoadReversed = defineRule({
  id: 'gfci-line-load-reversed',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'A tripped ground-fault device is dead, and so is what it feeds',
  fault: 'Ground-fault device wired line for load',
  cites: [{ section: '110.3(B)' }],
  triggers: [],
  remedies: ['swap-line-load'],
  traps: ['The test light may go out while the outlet stays live: measure'],
  judge(point, c) {
    if (holdsNoDevice(c.ask(point.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(point.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const button = c.ask(point.facts.gfciButton)
    if (protection === undefined || button === undefined)
      return c.undecided(say('Its own button has not been pressed with a load plugged in'))
    if (button === 'does not trip') return c.na(say('It does not trip at all: another finding'))
    return button === 'trips, stays live'
      ? c.fault(say('Tripped, its own outlet stays live: line and load are swapped'), { danger: 3 })
      : c.clear(say('Tripped, it is dead'))
  },
})
