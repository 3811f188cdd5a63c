import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const requiredOutlets = defineRule({
  id: 'required-outlets', family: 'points', subject: 'room',
  title: 'The room has the outlets it has to have', fault: 'Outlets missing in the room',
  cites: [{ section: '210.52' }, { section: '210.70' }], triggers: ['new'], remedies: ['add-outlet'],
  traps: ['No point along a wall farther than 6 ft from a receptacle', 'The rule for peninsulas and islands changed in 2023'],
  judge(room, c) {
    const use = c.ask(room.facts.use)
    const outlets = c.ask(room.facts.outlets)
    if (outlets === undefined || use === undefined) return c.undecided(say('The walls have not been walked'))
    if (outlets === 'all there') return c.clear(say('All there'))
    return c.fault(say('{outlets}', { outlets }), { danger: 1 })
  },
})
