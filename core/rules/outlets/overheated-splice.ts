import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { unopened } from '../../derive/box'

/**
 * Splices stay cool. The same hand usually made all of them: what is found in one box is looked for
 * along the chain.
 */
export const overheatedSplice = defineRule({
  id: 'overheated-splice',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'Splices are tight and cool',
  fault: 'Splice overheated',
  consequence: 'The joint can arc and burn inside the wall.',
  cites: [{ section: '110.14(B)' }],
  checks: { splices: { danger: [3, 4], says: 'Splices: {state}' } },
  triggers: [],
  remedies: ['remake-splice'],
  traps: [
    'Trace the chain: the same fault repeats from box to box',
    'If the damage goes beyond the box, the run is replaced',
  ],
  judge(outlet, c) {
    if (c.ask(outlet.facts.splice) === 'none') return c.na('No splices here')
    const state = c.ask(outlet.facts.spliceState)
    if (state === undefined)
      return c.undecided('Its splices have not been looked at', unopened(outlet, c))
    if (state === 'sound') return c.clear('Sound')
    return c.fault(
      'splices',
      { state },
      {
        danger: state === 'melted' ? 4 : 3,
        working: [
          say(
            'look in the box before and the box after: the same joint made the same way fails the same way',
          ),
        ],
      },
    )
  },
})
