import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const wrongTape = defineRule({
  id: 'wrong-tape',
  family: 'conductors',
  subject: 'segment',
  title: 'What insulates is made to insulate',
  fault: 'Insulated with tape that does not insulate',
  consequence: 'The tape dries, falls off or burns, and bare metal is left.',
  cites: [{ section: '110.14(B)' }],
  checks: { 'other-tape': { danger: 3, says: 'Insulated with packing, masking or other tape' } },
  isHazard: true,
  triggers: [],
  remedies: ['re-insulate'],
  traps: [
    'Electrical tape over a listed connector is no fault',
    'Colored tape that only marks a conductor insulates nothing and need not',
  ],
  judge(segment, c) {
    const tape = c.ask(segment.facts.tape)
    if (tape === undefined)
      return c.undecided(say('Nobody has looked whether tape insulates anything'))
    return tape === 'packing, masking or other'
      ? c.fault('other-tape')
      : c.clear(tape === 'none' ? say('No tape as insulation') : say('Electrical tape'))
  },
})
