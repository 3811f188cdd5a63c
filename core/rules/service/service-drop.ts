import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

const DANGER = {
  'insulation damaged': 4,
  'taped splices': 3,
  'mast or attachment loose': 3,
  'too low or within reach': 4,
} as const

export const serviceDrop = defineRule({
  id: 'service-drop',
  family: 'service',
  subject: 'premises',
  isHazard: true,
  title: 'The service drop, its splices, attachment and mast are sound and out of reach',
  fault: 'Service drop or mast unsound',
  consequence: 'Live conductors can be touched or can fall.',
  cites: [
    { section: '230.24' },
    { section: '230.26' },
    { section: '230.28' },
    { section: '230.54' },
  ],
  checks: { drop: { danger: [3, 4], says: 'Service drop: {drop}' } },
  triggers: [],
  remedies: ['call-utility'],
  traps: ['Do not touch: the utility owns it and it is live', 'Underground service has none'],
  judge(premises, c) {
    const drop = c.ask(premises.facts.serviceDrop)
    if (drop === undefined) return c.undecided(say('Nobody has looked up'))
    if (drop === 'underground') return c.na(say('Underground service'))
    return drop === 'sound'
      ? c.clear(say('Sound, seen from the ground'))
      : c.fault('drop', { drop }, { danger: DANGER[drop] })
  },
})
