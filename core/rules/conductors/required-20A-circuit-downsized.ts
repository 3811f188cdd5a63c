import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Years from which each use needed a 20 A circuit. 210.11(C). */
const SINCE = { 'kitchen small-appliance': 1959, 'laundry': 1959, 'bathroom receptacles': 1996, 'garage': 2017 } as const

export const required20aCircuit = defineRule({
  id: 'required-20A-circuit-downsized', family: 'conductors', subject: 'circuit',
  title: 'Kitchen, laundry, bathroom and garage circuits are 20 A',
  fault: 'Circuit that must be 20 A is smaller',
  cites: [{ section: '210.11(C)' }],
  triggers: ['new'],
  remedies: ['restore-20a', 'leave-and-label'],
  traps: ['Earlier 15 A circuits may stay', 'It also forbids curing an overfused conductor here by a 15 A breaker'],
  judge(circuit, c) {
    const breaker = c.site.get(c.ask(circuit, 'fedBy'), 'breaker')
    const rating = breaker && c.ask(breaker, 'ratingAmps')
    if (rating !== undefined && rating >= 20) return c.clear(say('{rating} A: enough whatever its use', { rating }))
    const use = c.ask(circuit, 'requiredUse')
    if (use === 'none') return c.na(say('Not one of the circuits that must be 20 A'))
    if (use === undefined || rating === undefined) return c.undecided(say('Its use or its rating is not known'))
    if (use === 'garage' && c.site.edition < 2017) return c.na(say('Required from the 2017 edition'))
    return c.fault(say('A {use} circuit on {rating} A', { use, rating }), {
      danger: 2, since: SINCE[use], compare: { left: rating, leftLabel: 'breaker', sign: '<', right: 20, rightLabel: 'required', unit: 'A' },
    })
  },
})
