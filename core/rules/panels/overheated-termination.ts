import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { isSpare } from '../../derive/spare'

export const overheatedTermination = defineRule({
  id: 'overheated-termination',
  family: 'panels',
  subject: 'breaker',
  isHazard: true,
  title: 'Terminations are tight and cool',
  fault: 'Termination loose or overheated',
  consequence: 'The joint can arc and burn.',
  cites: [{ section: '110.14' }],
  checks: {
    termination: { danger: [3, 4], says: 'Terminal {state}' },
  },
  triggers: [],
  remedies: ['re-terminate', 'move-to-sound-space'],
  traps: [
    'Trace the chain: the same fault repeats at each device',
    'A hot breaker at half load: first the terminal, then the stab, then the breaker, not the wire size',
  ],
  judge(breaker, c) {
    if (isSpare(c.site, breaker, c)) return c.na('Spare')
    const state = c.ask(breaker.facts.termination)
    if (state === undefined) return c.undecided('The terminal has not been looked at')
    if (state === 'sound') return c.clear('Sound')
    return c.fault(
      'termination',
      { state },
      {
        danger: state === 'melted' ? 4 : 3,
        working: [say('look along the chain: the same fault repeats at each device')],
      },
    )
  },
})
