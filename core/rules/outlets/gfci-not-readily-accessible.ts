import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { READILY_ACCESSIBLE_SINCE } from '../../tables/protection-years'
import { holdsNoDevice } from '../../derive/box'

export const gfciNotReadilyAccessible = defineRule({
  id: 'gfci-not-readily-accessible',
  family: 'outlets',
  subject: 'outlet',
  title: 'The reset of a ground-fault device can be reached at once',
  fault: 'Reset not readily accessible',
  consequence: 'It cannot be tested or reset when needed.',
  cites: [{ section: '210.8(A)' }],
  checks: { 'reset-out-of-reach': { danger: 1, says: 'Its reset is {access}' } },
  since: READILY_ACCESSIBLE_SINCE,
  triggers: ['replaced', 'new'],
  remedies: ['move-protection'],
  traps: ['Behind an appliance is not readily accessible'],
  judge(outlet, c) {
    if (holdsNoDevice(c.ask(outlet.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(outlet.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const access = c.ask(outlet.facts.resetAccess)
    if (protection === undefined || access === undefined)
      return c.undecided(say('Where its reset is has not been seen'))
    return access === 'readily accessible'
      ? c.clear(say('Reached at once'))
      : c.fault('reset-out-of-reach', { access })
  },
})
