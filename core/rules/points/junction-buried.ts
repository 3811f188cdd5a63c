import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const junctionBuried = defineRule({
  id: 'junction-buried',
  family: 'points',
  subject: 'point',
  title: 'Boxes can be reached without opening the finish',
  fault: 'Buried junction box',
  cites: [{ section: '314.29' }],
  triggers: ['replaced', 'new'],
  remedies: ['open-up-box'],
  traps: ['Behind a drop ceiling or in an attic is accessible'],
  judge(point, c) {
    const is = c.ask(point.facts.isAccessible)
    if (is === undefined) return c.undecided(say('Whether it can be reached has not been seen'))
    return is
      ? c.clear(say('Can be reached'))
      : c.fault(say('Behind a finish that would have to be opened'), { danger: 1 })
  },
})
