import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { unopened } from '../../derive/box'

export const boxSetback = defineRule({
  id: 'box-setback',
  family: 'points',
  subject: 'point',
  title: 'The box comes to the finished surface',
  fault: 'Box set back',
  cites: [{ section: '314.20' }],
  triggers: ['replaced', 'new'],
  remedies: ['box-extender'],
  traps: ['Up to a quarter inch behind plaster, drywall or tile; not at all behind wood'],
  judge(point, c) {
    const setback = c.ask(point.facts.setbackIn)
    if (setback === undefined)
      return c.undecided(
        say('How far it is set back has not been measured'),
        [],
        unopened(point, c),
      )
    if (setback === 0) return c.clear(say('Flush'))
    const extender = c.ask(point.facts.hasExtender)
    if (extender === true) return c.clear(say('A listed extender brings it flush'))
    if (setback > 0.25)
      return extender === undefined
        ? c.undecided(say('{setback} in back; an extender has not been looked for', { setback }))
        : c.fault(say('{setback} in behind the finish', { setback }), { danger: 1 })
    const finish = c.ask(point.facts.finish)
    if (finish === 'non-combustible')
      return c.clear(say('{setback} in behind a non-combustible finish', { setback }))
    if (finish === undefined || extender === undefined)
      return c.undecided(say('Allowed behind a finish that cannot burn, not behind one that can'))
    return c.fault(say('{setback} in behind a finish that burns', { setback }), { danger: 2 })
  },
})
