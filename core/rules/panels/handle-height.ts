import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { HANDLE_IN } from '../../tables/working-space'

export const handleHeight = defineRule({
  id: 'handle-height',
  family: 'panels',
  subject: 'enclosure',
  title: 'The highest handle is no more than 6 ft 7 in above the floor',
  fault: 'Breaker handle too high',
  consequence: 'The breaker may be out of reach when it is needed.',
  cites: [{ section: '404.8(A)' }, { section: '240.24(A)' }],
  checks: { 'handle-too-high': { danger: 1, says: 'Highest handle at {top} in' } },
  triggers: ['replaced', 'new'],
  remedies: ['relocate-panel', 'raise-floor'],
  traps: ['Measured to the center of the grip in its highest position'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return c.na('No handles')
    const top = c.ask(enclosure.facts.topHandleIn)
    if (type === undefined || top === undefined)
      return c.undecided('The highest handle has not been measured')
    const compare = {
      left: top,
      leftLabel: 'highest handle',
      sign: top > HANDLE_IN ? '>' : top < HANDLE_IN ? '<' : '=',
      right: HANDLE_IN,
      rightLabel: 'allowed',
      unit: 'in',
    } as const
    return top > HANDLE_IN
      ? c.fault('handle-too-high', { top }, { compare })
      : c.clear(say('Highest handle at {top} in', { top }), [], compare)
  },
})
