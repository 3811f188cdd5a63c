import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent, whereSeen } from '../../model/house'

export const spacesExceeded = defineRule({
  id: 'spaces-exceeded',
  family: 'panels',
  subject: 'enclosure',
  title: 'No more circuits than the panel is made for',
  fault: 'More circuits than the panel label allows',
  consequence: 'The panel carries more than it was made for.',
  cites: [{ section: '408.54' }, { section: '408.35', until: 2007 }],
  checks: { 'too-many-poles': { danger: 2, says: '{least} poles, the label allows {most}' } },
  triggers: ['replaced', 'extended'],
  remedies: ['fewer-circuits', 'replace-panel'],
  traps: [
    'Each pole counts, each half of a twin too',
    'Before the 2008 edition 42 was the most in any lighting and appliance panel',
  ],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter' || type === 'disconnect') return c.na('No circuits of its own')
    const most = c.ask(enclosure.facts.maxCircuits)
    let least = 0
    let isOpen = false
    for (const breaker of c.site.children(enclosure, 'breaker')) {
      // The main is none of the circuits.
      const role = breaker.facts.role
      if (whereSeen(role) && c.ask(role) === 'main') continue
      const poles = c.ask(breaker.facts.poles)
      if (poles === undefined) isOpen = true
      least += poles ?? 1
    }
    if (type === undefined || most === undefined)
      return c.undecided('The label has not been read for the most circuits')
    if (least > most)
      return c.fault(
        'too-many-poles',
        { least, most },
        {
          compare: {
            left: least,
            leftLabel: 'poles',
            sign: '>',
            right: most,
            rightLabel: 'allowed',
            unit: '',
          },
        },
      )
    if (least === 0) return c.undecided('No breaker has been recorded', absent(enclosure, 'spaces'))
    if (isOpen) return c.undecided('Not every breaker has been counted')
    return c.clear(say('{least} poles of {most}', { least, most }), [], {
      left: least,
      leftLabel: 'poles',
      sign: least < most ? '<' : '=',
      right: most,
      rightLabel: 'allowed',
      unit: '',
    })
  },
})
