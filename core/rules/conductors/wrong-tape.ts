import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const wrongTape = defineRule({
  id: 'wrong-tape',
  family: 'conductors',
  subject: 'segment',
  title: 'What insulates is made to insulate',
  fault: 'Insulated with tape that does not insulate',
  cites: [{ section: '110.14(B)' }],
  isHazard: true,
  triggers: [],
  remedies: ['re-insulate'],
  traps: [
    'Electrical tape over a listed connector is no fault',
    'Coloured tape that only marks a conductor insulates nothing and need not',
  ],
  judge(segment, c) {
    const tape = c.ask(segment.facts.tape)
    if (tape === undefined)
      return c.undecided(say('Nobody has looked whether tape insulates anything'))
    return tape === 'packing, masking or other'
      ? c.fault(say('Insulated with packing, masking or other tape'), { danger: 3 })
      : c.clear(tape === 'none' ? say('No tape as insulation') : say('Electrical tape'))
  },
})
