import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const intersystemTermination = defineRule({
  id: 'intersystem-termination',
  family: 'service',
  subject: 'premises',
  title: 'Communications have an accessible bonding point at the service',
  fault: 'No bonding point for communications',
  consequence: 'Telephone and cable equipment can be destroyed by differences between grounds.',
  tags: ['bond'],
  cites: [{ section: '250.94' }],
  checks: { 'none-found': { danger: 1, says: 'None found' } },
  since: 2008,
  triggers: ['replaced', 'new'],
  remedies: ['fit-intersystem'],
  traps: [
    'Before the 2008 edition it was no rule: a note',
    'An exposed raceway or grounding electrode conductor may serve in older houses',
  ],
  judge(premises, c) {
    const point = c.ask(premises.facts.intersystem)
    if (point === undefined) return c.undecided(say('Nobody has looked for it'))
    return point === 'none found'
      ? c.fault('none-found')
      : c.clear(say('Found: {point}', { point }))
  },
})
