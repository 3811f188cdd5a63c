import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { REQUIRED_20A_SINCE } from '../../tables/years'

export const required20aCircuit = defineRule({
  id: 'required-20A-circuit-downsized',
  family: 'circuits',
  subject: 'circuit',
  title: 'Kitchen, laundry, bathroom and garage circuits are 20 A',
  fault: 'Circuit that must be 20 A is smaller',
  consequence:
    'The breaker may trip in ordinary use; a larger breaker on thin wire would be unsafe.',
  cites: [{ section: '210.11(C)' }],
  checks: { 'under-20-amps': { danger: 2, says: 'A {use} circuit on {rating} A' } },
  triggers: ['new'],
  remedies: ['restore-20a', 'leave-and-label'],
  traps: [
    'Earlier 15 A circuits are allowed to remain',
    'It also forbids curing an overfused conductor here by a 15 A breaker',
  ],
  judge(circuit, c) {
    const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const rating = breaker && c.ask(breaker.facts.ratingAmps)
    if (rating !== undefined && rating >= 20)
      return c.clear(say('{rating} A: enough whatever its use', { rating }))
    const use = c.ask(circuit.facts.requiredUse)
    if (use === 'none') return c.na('Not one of the circuits that must be 20 A')
    if (use === undefined || rating === undefined)
      return c.undecided('Its use or its rating is not known')
    if (use === 'garage' && c.site.edition < REQUIRED_20A_SINCE.garage)
      return c.na('Required from the 2017 edition')
    return c.fault(
      'under-20-amps',
      { use, rating },
      {
        since: REQUIRED_20A_SINCE[use],
        compare: {
          left: rating,
          leftLabel: 'breaker',
          sign: '<',
          right: 20,
          rightLabel: 'required',
          unit: 'A',
        },
      },
    )
  },
})
