import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** A panel line on record for breakers that fail to open under overload. */
export const panelTripRecord = defineRule({
  id: 'panel-trip-record',
  family: 'panels',
  subject: 'enclosure',
  isHazard: true,
  title: 'The panel line has no record of breakers that fail to trip',
  fault: 'Panel line known for failing to trip',
  consequence: 'A breaker may not open when it should.',
  cites: [{ section: '110.3(B)' }],
  checks: {
    'on-record': { danger: 3, says: 'Breakers of this panel line are on record for not opening' },
  },
  triggers: [],
  remedies: ['replace-panel', 'leave-and-label'],
  traps: [
    'A separate matter from whether protective breakers can still be bought: two findings, two answers',
  ],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type !== undefined && type !== 'panel') return c.na(say('Not a panel'))
    const hasRecord = c.ask(enclosure.facts.hasTripRecord)
    if (hasRecord === undefined || type === undefined)
      return c.undecided(say('The panel line has not been identified'))
    return hasRecord ? c.fault('on-record') : c.clear(say('No such record'))
  },
})
