import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { PUSH_IN_14_SINCE } from '../../tables/years'
import { holdsNoDevice, unopened } from '../../derive/box'

export const pushInMisuse = defineRule({
  id: 'push-in-misuse',
  family: 'points',
  subject: 'point',
  title: 'Push-in terminals hold only what they are marked for',
  fault: 'Push-in terminal with a conductor it is not for',
  cites: [{ section: '110.3(B)' }, { section: '404.14' }, { section: '406.3' }],
  triggers: [],
  remedies: ['re-land'],
  traps: [
    'Clamp plates are not push-in',
    '12 AWG was accepted until about 1995; newer ones marked for it are right',
  ],
  judge(point, c) {
    if (holdsNoDevice(c.ask(point.facts.type))) return c.na(say('No device here'))
    const termination = c.ask(point.facts.termination)
    if (termination === undefined)
      return c.undecided(say('How the conductors land has not been seen'), [], unopened(point, c))
    if (termination !== 'push-in') return c.na(say('No push-in terminal'))
    const metal = c.ask(point.facts.metal)
    if (metal === 'aluminium' || metal === 'copper-clad aluminium')
      return c.fault(say('{metal} in a push-in terminal', { metal }), { danger: 3 })
    const stranding = c.ask(point.facts.stranding)
    const size = c.ask(point.facts.size)
    const marking = c.ask(point.facts.pushInMarking)
    if (stranding === 'stranded' && marking !== undefined && marking !== 'stranded')
      return c.fault(
        say('Stranded conductor in a push-in terminal marked for {marking}', { marking }),
        { danger: 2 },
      )
    if (size !== undefined && Number(size) < 12)
      return c.fault(say('{size} AWG in a push-in terminal', { size }), { danger: 2 })
    if (size === '12' && marking === '14 solid')
      return c.fault(say('12 AWG in a push-in terminal marked for 14'), {
        danger: 2,
        lawfulBefore: PUSH_IN_14_SINCE,
      })
    if (
      stranding === undefined ||
      size === undefined ||
      marking === undefined ||
      metal === undefined ||
      metal === 'silver-looking' ||
      metal === 'copper-looking'
    )
      return c.undecided(
        say('Metal, size, strands or marking has not been seen'),
        [],
        [
          ...c.asked.filter(f => f.state !== 'known'),
          ...(metal === 'silver-looking' || metal === 'copper-looking' ? [point.facts.metal] : []),
        ],
      )
    return c.clear(say('{size} AWG {stranding}, as marked', { size, stranding }))
  },
})
