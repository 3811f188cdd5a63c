import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const breakerNotListed = defineRule({
  id: 'breaker-not-listed-for-panel',
  family: 'panels',
  subject: 'breaker',
  title: 'Every breaker is of a type the panel is listed for',
  fault: 'Breaker not listed for this panel',
  consequence: 'The breaker may not hold or open as tested.',
  cites: [{ section: '110.3(B)' }],
  checks: { 'not-on-label': { danger: 3, says: 'Not among the types on the panel label' } },
  triggers: ['replaced'],
  remedies: ['listed-breaker'],
  traps: ['That it fits proves nothing: read the panel label'],
  judge(breaker, c) {
    const device = c.ask(breaker.facts.device)
    if (device === 'plug fuse' || device === 'cartridge fuse') return c.na(say('A fuse'))
    const fits = c.ask(breaker.facts.fitsPanel)
    if (fits === undefined) return c.undecided(say('The panel label has not been compared'))
    return fits === 'listed' ? c.clear(say('Listed')) : c.fault('not-on-label')
  },
})
