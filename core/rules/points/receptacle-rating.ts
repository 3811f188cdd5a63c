import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const receptacleRating = defineRule({
  id: 'receptacle-rating',
  family: 'points',
  subject: 'point',
  title: 'The receptacle suits the circuit',
  fault: 'Receptacle rating against the circuit',
  cites: [{ section: '210.21(B)' }],
  triggers: ['replaced', 'new'],
  remedies: ['replace-device'],
  traps: [
    'A 15 A duplex on a 20 A circuit is fine; a single one alone is not',
    'The T-slot is a 20 A receptacle',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))

    const circuit = c.site.get(c.ask(point.facts.circuit), 'circuit')
    const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const rating = breaker && c.ask(breaker.facts.ratingAmps)
    const slots = c.ask(point.facts.slots)
    const amps = slots === 'T-slot' ? 20 : c.ask(point.facts.deviceAmps)
    if (type === undefined || rating === undefined || slots === undefined || amps === undefined)
      return c.undecided(say('The device or the breaker has not been read'))
    const compare = {
      left: amps,
      leftLabel: 'receptacle',
      sign: amps > rating ? '>' : amps < rating ? '<' : '=',
      right: rating,
      rightLabel: 'circuit',
      unit: 'A',
    } as const
    if (amps > rating)
      return c.fault(say('A {amps} A receptacle on a {rating} A circuit', { amps, rating }), {
        danger: 1,
        compare,
      })
    if (amps === rating)
      return c.clear(say('{amps} A on {rating} A', { amps, rating }), [], compare)
    if (rating > 20)
      return c.fault(say('A {amps} A receptacle on a {rating} A circuit', { amps, rating }), {
        danger: 3,
        compare,
      })
    const isSingle = c.ask(point.facts.isSingle)
    if (isSingle === undefined)
      return c.undecided(
        say('15 A on 20 A: right for a duplex or with others, wrong for a single one alone'),
      )
    const others = c.site
      .pointsOf(circuit!)
      .filter(p => p !== point && c.ask(p.facts.type) === 'receptacle').length
    const unseen = c.site
      .pointsOf(circuit!)
      .filter(p => p !== point && c.ask(p.facts.type) === undefined)
    const adrift = [
      ...unseen,
      ...c.site.all.point.filter(p => p !== point && c.ask(p.facts.circuit) === undefined),
    ]
    if (isSingle && others === 0 && adrift.length > 0)
      return c.undecided(
        say('Alone on its circuit, unless an outlet nobody has traced is on it'),
        [],
        adrift.map(p => p.facts[unseen.includes(p) ? 'type' : 'circuit']),
      )
    if (isSingle && others === 0)
      return c.fault(
        say('A single {amps} A receptacle alone on a {rating} A circuit', { amps, rating }),
        { danger: 2, compare },
      )
    return c.clear(say('15 A receptacles on a 20 A circuit with more than one'), [], compare)
  },
})
