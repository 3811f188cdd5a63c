import { defineRule } from '../../engine/rule'
import { REQUIRED_20A_SINCE } from '../../tables/years'

export const dedicatedCircuits = defineRule({
  id: 'dedicated-circuits',
  family: 'circuits',
  subject: 'circuit',
  title: 'Required circuits serve only what they may',
  fault: 'Required circuit shared with other outlets',
  consequence: 'The breaker trips in ordinary use.',
  cites: [{ section: '210.11(C)' }, { section: '210.52(B)' }],
  checks: { 'serves-others': { danger: 1, says: 'The {use} circuit serves other outlets too' } },
  triggers: ['new'],
  remedies: ['split-circuit'],
  traps: ['A bathroom circuit may serve all of one bathroom, or the receptacles of several'],
  judge(circuit, c) {
    const use = c.ask(circuit.facts.requiredUse)
    if (use === 'none') return c.na('Not one of the required circuits')
    const shared = c.ask(circuit.facts.isSharedOutside)
    if (use === undefined || shared === undefined)
      return c.undecided('What else it serves has not been traced')
    return shared
      ? c.fault('serves-others', { use }, { since: REQUIRED_20A_SINCE[use] })
      : c.clear('Serves only what it may')
  },
})
