import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Flexible cord does not take the place of the fixed wiring of a building. */
export const cordAsFixedWiring = defineRule({
  id: 'cord-as-fixed-wiring',
  family: 'conductors',
  subject: 'segment',
  title: 'No flexible cord takes the place of fixed wiring',
  fault: 'Flexible cord used as fixed wiring',
  consequence: 'Cord wears, is cut or overheats where nobody sees it.',
  cites: [
    { section: '400.8', until: 2016 },
    { section: '400.12', from: 2017 },
  ],
  checks: { cord: { danger: 3, says: 'This run of the circuit is flexible cord' } },
  triggers: ['extended', 'new'],
  remedies: ['replace-conductor'],
  traps: [
    'The cord of an appliance or a pendant is part of that, and is not recorded as a run of the circuit',
    'Cord through a wall, a ceiling or a hole, or fastened to the building, is fixed wiring',
  ],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring === undefined) return c.undecided(say('The wiring method has not been seen'))
    return wiring === 'cord' ? c.fault('cord') : c.clear(say('{wiring}', { wiring }))
  },
})
