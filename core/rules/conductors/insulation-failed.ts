import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Insulation must still insulate. */
export const insulationFailed = defineRule({
  id: 'insulation-failed',
  family: 'conductors',
  subject: 'segment',
  isHazard: true,
  title: 'Conductor insulation is sound',
  fault: 'Insulation failing',
  consequence: 'Bare conductors can touch each other, metal or a person.',
  cites: [{ section: '110.12(B)' }, { section: '310.10' }],
  checks: {
    insulation: { danger: [3, 4], says: 'Insulation {state}' },
  },
  triggers: [],
  remedies: ['replace-conductor'],
  traps: ['Look all the way down to where the conductor enters; do not flex it'],
  judge(segment, c) {
    const state = c.ask(segment.facts.insulation)
    if (state === undefined) return c.undecided(say('The insulation has not been looked at'))
    if (state === 'sound') return c.clear(say('Sound'))
    return c.fault('insulation', { state }, { danger: state === 'brittle' ? 3 : 4 })
  },
})
