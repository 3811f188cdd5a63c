import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const corrosionDebris = defineRule({
  id: 'corrosion-debris',
  family: 'panels',
  subject: 'enclosure',
  isHazard: true,
  title: 'The enclosure is clean and dry inside',
  fault: 'Corrosion or debris in the enclosure',
  consequence: 'Corroded parts heat, and breakers may stick.',
  cites: [{ section: '110.12(B)' }],
  checks: {
    'found-inside': {
      danger: [1, 3],
      says: 'Found: {state}',
    },
  },
  triggers: [],
  remedies: ['replace-corroded'],
  traps: ['Find where the water comes in, or it comes back'],
  judge(enclosure, c) {
    const state = c.ask(enclosure.facts.corrosion)
    if (state === undefined) return c.undecided(say('The inside has not been looked at'))
    if (state === 'none') return c.clear(say('Clean and dry'))
    return c.fault(
      'found-inside',
      { state },
      { danger: state === 'on bus or terminals' ? 3 : state === 'surface rust' ? 1 : 2 },
    )
  },
})
