import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { tableMetals } from '../../derive/allowed'

/** The terminal of the breaker itself must be marked for aluminium where aluminium lands on it. */
export const aluminiumAtUnmarkedBreaker = defineRule({
  id: 'aluminium-at-unmarked-breaker',
  family: 'conductors',
  subject: 'breaker',
  title: 'Aluminium lands only on breaker terminals marked for it',
  fault: 'Aluminium on a breaker not marked for it',
  cites: [{ section: '110.14' }, { section: '110.3(B)' }],
  triggers: ['replaced'],
  remedies: ['marked-breaker', 'crimped-pigtail', 'lug-pigtail'],
  traps: ['Most breakers are marked CU-AL: read it before calling it'],
  judge(breaker, c) {
    let isAluminium: boolean | undefined = false
    const take = (metal: string | undefined) => {
      const kinds = metal === undefined ? undefined : tableMetals(metal)
      if (kinds?.every(k => k.metal === 'aluminium' && !k.isCopperClad)) isAluminium = true
      else if (
        isAluminium === false &&
        (kinds === undefined || kinds.some(k => k.metal === 'aluminium' && !k.isCopperClad))
      )
        isAluminium = undefined
    }
    const circuits = c.site.circuitsOf(breaker)
    const feeders = c.site.feedersFrom(breaker)
    for (const circuit of circuits) {
      const first = c.site.children(circuit, 'segment')[0]
      if (first) take(c.ask(first.facts.metal))
      else take(undefined)
    }
    for (const feeder of feeders) take(c.ask(feeder.facts.metal))
    if (circuits.length + feeders.length === 0) {
      if (c.ask(breaker.facts.role) === 'spare' || c.ask(breaker.facts.conductorsOnTerminal) === 0)
        return c.na(say('Nothing lands on it'))
      const untraced = c.site.all.circuit.filter(x => c.ask(x.facts.fedBy) === undefined)
      return c.undecided(
        say('What lands on it has not been found'),
        [],
        untraced.length > 0
          ? untraced.map(x => x.facts.fedBy)
          : [breaker.facts.isAluminiumMarked, breaker.facts.conductorsOnTerminal].filter(
              f => f.state !== 'known',
            ),
      )
    }
    if (isAluminium === false) return c.na(say('No aluminium lands on it'))
    const isMarked = c.ask(breaker.facts.isAluminiumMarked)
    if (isMarked === true) return c.clear(say('Its terminal is marked for aluminium'))
    if (
      isAluminium === undefined &&
      c.asked.every(f => f.state === 'known' || f.field === 'isAluminiumMarked')
    ) {
      return c.undecided(
        say('Identify the conductor metal'),
        [],
        c.asked.filter(f => f.field === 'metal' || f.state !== 'known'),
      )
    }
    if (isAluminium === undefined || isMarked === undefined)
      return c.undecided(say('The metal or the marking of the terminal has not been seen'))
    return c.fault(say('Aluminium under a terminal not marked for it'), { danger: 3 })
  },
})
