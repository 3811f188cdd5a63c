import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { PUSH_IN_14_SINCE } from '../../tables/years'
import { holdsNoDevice, unopened } from '../../derive/box'

export const pushInMisuse = defineRule({
  id: 'push-in-misuse',
  family: 'outlets',
  subject: 'outlet',
  title: 'Push-in terminals hold only what they are marked for',
  fault: 'Push-in terminal with a conductor it is not for',
  consequence: 'The joint can loosen and heat.',
  cites: [{ section: '110.3(B)' }, { section: '404.14' }, { section: '406.3' }],
  checks: {
    'metal-in-push-in': { danger: 3, says: '{metal} in a push-in terminal' },
    'stranded-in-push-in': {
      danger: 2,
      says: 'Stranded conductor in a push-in terminal marked for {marking}',
    },
    'size-in-push-in': { danger: 2, says: '{size} AWG in a push-in terminal' },
    'twelve-in-push-in': { danger: 2, says: '12 AWG in a push-in terminal marked for 14' },
  },
  triggers: [],
  remedies: ['re-land'],
  traps: [
    'Clamp plates are not push-in',
    '12 AWG was accepted until about 1995; newer ones marked for it are right',
  ],
  judge(outlet, c) {
    if (holdsNoDevice(c.ask(outlet.facts.type))) return c.na('No device here')
    const termination = c.ask(outlet.facts.termination)
    if (termination === undefined)
      return c.undecided('How the conductors land has not been seen', unopened(outlet, c))
    if (termination !== 'push-in') return c.na('No push-in terminal')
    const metal = c.ask(outlet.facts.metal)
    if (metal === 'aluminum' || metal === 'copper-clad aluminum')
      c.fails('metal-in-push-in', { metal })
    const stranding = c.ask(outlet.facts.stranding)
    const size = c.ask(outlet.facts.size)
    const marking = c.ask(outlet.facts.pushInMarking)
    if (stranding === 'stranded' && marking !== undefined && marking !== 'stranded')
      c.fails('stranded-in-push-in', { marking })
    if (size !== undefined && Number(size) < 12) c.fails('size-in-push-in', { size })
    if (size === '12' && marking === '14 solid')
      c.fails('twelve-in-push-in', {}, { lawfulBefore: PUSH_IN_14_SINCE })
    if (
      stranding === undefined ||
      size === undefined ||
      marking === undefined ||
      metal === undefined ||
      metal === 'silver-looking' ||
      metal === 'copper-looking'
    )
      return c.undecided('Metal, size, strands or marking has not been seen', [
        ...c.asked.filter(f => f.state !== 'known'),
        ...(metal === 'silver-looking' || metal === 'copper-looking' ? [outlet.facts.metal] : []),
      ])
    return c.clear(say('{size} AWG {stranding}, as marked', { size, stranding }))
  },
})
