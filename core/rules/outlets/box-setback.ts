import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { unopened } from '../../derive/box'

export const boxSetback = defineRule({
  id: 'box-setback',
  family: 'outlets',
  subject: 'outlet',
  title: 'The box comes to the finished surface',
  fault: 'Box set back',
  consequence: 'An arc in the box can reach what burns.',
  cites: [{ section: '314.20' }],
  checks: {
    'set-back': { danger: 1, says: '{setback} in behind the finish' },
    'burning-finish': { danger: 2, says: '{setback} in behind a finish that burns' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['box-extender'],
  traps: ['Up to a quarter inch behind plaster, drywall or tile; not at all behind wood'],
  judge(outlet, c) {
    const setback = c.ask(outlet.facts.setbackIn)
    if (setback === undefined)
      return c.undecided('How far it is set back has not been measured', unopened(outlet, c))
    if (setback === 0) return c.clear('Flush')
    const extender = c.ask(outlet.facts.hasExtender)
    if (extender === true) return c.clear('A listed extender brings it flush')
    if (setback > 0.25)
      return extender === undefined
        ? c.undecided(say('{setback} in back; an extender has not been looked for', { setback }))
        : c.fault('set-back', { setback })
    const finish = c.ask(outlet.facts.finish)
    if (finish === 'non-combustible')
      return c.clear(say('{setback} in behind a non-combustible finish', { setback }))
    if (finish === undefined || extender === undefined)
      return c.undecided('Allowed behind a finish that cannot burn, not behind one that can')
    return c.fault('burning-finish', { setback })
  },
})
