import { defineRule } from '../../engine/rule'

export const unusedOpening = defineRule({
  id: 'unused-opening',
  family: 'panels',
  subject: 'enclosure',
  title: 'No unused opening is left open',
  fault: 'Open knockout or breaker window',
  consequence: 'Fingers, tools or pests can reach live parts; an arc can get out.',
  cites: [{ section: '110.12(A)' }, { section: '408.7' }],
  checks: { openings: { danger: 3, says: '{openings} unclosed' } },
  triggers: [],
  remedies: ['close-openings'],
  traps: ['Breaker windows in the cover count as well as knockouts'],
  judge(enclosure, c) {
    const openings = c.ask(enclosure.facts.openings)
    if (openings === undefined) return c.undecided('The openings have not been counted')
    return openings === 0
      ? c.clear('All closed')
      : c.fault(
          'openings',
          { openings },
          {
            compare: {
              left: openings,
              leftLabel: 'open',
              sign: '>',
              right: 0,
              rightLabel: 'allowed',
              unit: '',
            },
          },
        )
  },
})
