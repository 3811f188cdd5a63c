import { defineRule } from '../../engine/rule'
import { isSpare } from '../../derive/spare'

/** One conductor on a breaker terminal, unless it is marked for two. */
export const doubledHot = defineRule({
  id: 'doubled-hot',
  family: 'panels',
  subject: 'breaker',
  title: 'One conductor on a breaker terminal, unless it is marked for two',
  fault: 'Two conductors on one breaker terminal',
  consequence: 'One of the two conductors can work loose and heat.',
  cites: [{ section: '110.14(A)' }],
  checks: {
    'too-many-conductors': { danger: 3, says: '{count} conductors on one terminal' },
    'not-marked-for-two': { danger: 2, says: 'Two conductors on a terminal not marked for two' },
  },
  triggers: ['replaced'],
  remedies: ['splice-and-pigtail', 'own-breaker'],
  traps: ['Some breakers are marked for two conductors: read it before calling it'],
  judge(breaker, c) {
    if (isSpare(c.site, breaker, c)) return c.na('Spare')
    const count = c.ask(breaker.facts.conductorsOnTerminal)
    if (count === undefined) return c.undecided('The terminal has not been looked at')
    if (count <= 1) return c.clear('One conductor')
    if (count > 2) return c.fault('too-many-conductors', { count })
    const isMarked = c.ask(breaker.facts.isMarkedForTwo)
    if (isMarked === undefined)
      return c.undecided('Two conductors; the marking of the terminal has not been read')
    return isMarked
      ? c.clear('Two conductors on a terminal marked for two')
      : c.fault('not-marked-for-two')
  },
})
