import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const miswire = defineRule({
  id: 'miswire', family: 'points', subject: 'point', isHazard: true,
  title: 'Hot, neutral and ground are where they belong', fault: 'Receptacle miswired',
  cites: [{ section: '200.11' }, { section: '406.4' }], triggers: [], remedies: ['rewire-device'],
  traps: ['An open neutral with a load on shows as hot and ground reversed', 'A lamp tester says correct on a bootleg ground'],
  judge(point, c) {
    const type = c.ask(point, 'type')
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))

    const lamps = c.ask(point, 'lamps')
    if (type === undefined || lamps === undefined) return c.undecided(say('It has not been tested'))
    if (lamps === 'correct' || lamps === 'open ground') return c.clear(say('Hot and neutral are where they belong; the ground is judged by itself'))
    if (lamps === 'reversed') return c.fault(say('Hot and neutral are reversed'), { danger: 3 })
    if (lamps === 'open neutral') return c.fault(say('Neutral open'), { danger: 3, working: [say('look at the joint before the first outlet that shows it')] })
    if (lamps === 'open hot') return c.fault(say('No hot: dead, or the breaker or a device ahead has tripped'), { danger: 1 })
    const toEarth = c.ask(point, 'groundToEarthV')
    if (toEarth === undefined) return c.undecided(say('Hot and ground reversed, or more likely a neutral open with a load on: the lamps cannot tell'), [say('take every load off, or measure the ground terminal to a proved ground')])
    return toEarth >= 50 ? c.fault(say('Hot and ground are swapped: {toEarth} V on the ground terminal', { toEarth }), { danger: 4 }) : c.fault(say('Neutral open with a load on: the lamps say hot and ground reversed'), { danger: 3 })
  },
})
