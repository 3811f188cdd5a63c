import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const junctionBuried = defineRule({
  id: 'junction-buried',
  family: 'outlets',
  subject: 'outlet',
  title: 'Boxes can be reached without opening the finish',
  fault: 'Buried junction box',
  consequence: 'A failing splice cannot be found or mended.',
  cites: [{ section: '314.29' }],
  checks: { buried: { danger: 1, says: 'Behind a finish that would have to be opened' } },
  triggers: ['replaced', 'new'],
  remedies: ['open-up-box'],
  traps: ['Behind a drop ceiling or in an attic is accessible'],
  judge(outlet, c) {
    const is = c.ask(outlet.facts.isAccessible)
    if (is === undefined) return c.undecided(say('Whether it can be reached has not been seen'))
    return is ? c.clear(say('Can be reached')) : c.fault('buried')
  },
})
