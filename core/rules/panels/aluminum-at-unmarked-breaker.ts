import { defineRule } from '../../engine/rule'
import { tableMetals } from '../../derive/allowed'

/** The terminal of the breaker itself must be marked for aluminum where aluminum lands on it. */
export const aluminumAtUnmarkedBreaker = defineRule({
  id: 'aluminum-at-unmarked-breaker',
  family: 'panels',
  subject: 'breaker',
  title: 'Aluminum lands only on breaker terminals marked for it',
  fault: 'Aluminum on a breaker not marked for it',
  consequence: 'The joint at the breaker can loosen and heat.',
  cites: [{ section: '110.14' }, { section: '110.3(B)' }],
  checks: {
    'aluminum-under-unmarked-terminal': {
      danger: 3,
      says: 'Aluminum under a terminal not marked for it',
    },
  },
  triggers: ['replaced'],
  remedies: ['marked-breaker', 'crimped-pigtail', 'lug-pigtail'],
  traps: ['Most breakers are marked CU-AL: read it before calling it'],
  judge(breaker, c) {
    let isAluminum: boolean | undefined = false
    const take = (metal: string | undefined) => {
      const kinds = metal === undefined ? undefined : tableMetals(metal)
      if (kinds?.every(k => k.metal === 'aluminum' && !k.isCopperClad)) isAluminum = true
      else if (
        isAluminum === false &&
        (kinds === undefined || kinds.some(k => k.metal === 'aluminum' && !k.isCopperClad))
      )
        isAluminum = undefined
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
        return c.na('Nothing lands on it')
      if (c.ask(breaker.facts.isAluminumMarked) === true)
        return c.clear('Its terminal is marked for aluminum, whatever lands on it')
      const untraced = c.site.all.circuit.filter(x => c.ask(x.facts.fedBy) === undefined)
      return c.undecided(
        'What lands on it has not been found',
        untraced.length > 0
          ? untraced.map(x => x.facts.fedBy)
          : [breaker.facts.isAluminumMarked, breaker.facts.conductorsOnTerminal].filter(
              f => f.state !== 'known',
            ),
      )
    }
    if (isAluminum === false) return c.na('No aluminum lands on it')
    const isMarked = c.ask(breaker.facts.isAluminumMarked)
    if (isMarked === true) return c.clear('Its terminal is marked for aluminum')
    if (
      isAluminum === undefined &&
      c.asked.every(f => f.state === 'known' || f.field === 'isAluminumMarked')
    ) {
      return c.undecided(
        'Identify the conductor metal',
        c.asked.filter(f => f.field === 'metal' || f.state !== 'known'),
      )
    }
    if (isAluminum === undefined || isMarked === undefined)
      return c.undecided('The metal or the marking of the terminal has not been seen')
    return c.fault('aluminum-under-unmarked-terminal')
  },
})
