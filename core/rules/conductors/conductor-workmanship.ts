import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

const DANGER = {
  nicked: 2,
  'wrapped counterclockwise': 1,
  'insulation under the screw': 2,
  'paint under the screw': 2,
  'hooked in a straight clamp': 2,
  'too much bare': 2,
  'fails a gentle pull test': 3,
} as const

export const conductorWorkmanship = defineRule({
  id: 'conductor-workmanship',
  family: 'conductors',
  subject: 'segment',
  title: 'Conductors land whole, bare only as far as needed, and tight',
  fault: 'Conductor badly landed',
  consequence: 'The joint can work loose and heat, or the conductor can break.',
  cites: [{ section: '110.14(A)' }, { section: '110.12' }],
  checks: { workmanship: { danger: [1, 3], says: 'Conductor {how}' } },
  isHazard: true,
  triggers: [],
  remedies: ['re-land'],
  traps: [
    'A clockwise hook under a binding screw, straight into a clamp plate',
    'Looped or straight runs inside the panel are taste, never a fault',
  ],
  judge(segment, c) {
    const how = c.ask(segment.facts.workmanship)
    if (how === undefined) return c.undecided(say('Its ends have not been looked at'))
    return how === 'sound'
      ? c.clear(say('Lands as it should'))
      : c.fault('workmanship', { how }, { danger: DANGER[how] })
  },
})
