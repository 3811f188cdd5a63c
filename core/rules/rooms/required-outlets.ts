import { defineRule } from '../../engine/rule'

/** From this edition a peninsula or island need not have a receptacle, only provision for one. 210.52(C). */
const PENINSULA_UNTIL = 2023

export const requiredOutlets = defineRule({
  id: 'required-outlets',
  family: 'rooms',
  subject: 'room',
  title: 'The room has the outlets it has to have',
  fault: 'Outlets missing in the room',
  consequence: 'Extension cords take the place of outlets.',
  cites: [{ section: '210.52' }, { section: '210.70' }],
  checks: { 'outlets-absent': { danger: 1, says: '{outlets}' } },
  triggers: ['new'],
  remedies: ['add-outlet'],
  traps: [
    'No outlet along a wall farther than 6 ft from a receptacle',
    'The rule for peninsulas and islands changed in 2023',
  ],
  judge(room, c) {
    const use = c.ask(room.facts.use)
    const outlets = c.ask(room.facts.outlets)
    if (outlets === undefined || use === undefined)
      return c.undecided('The walls have not been walked')
    if (outlets === 'all there') return c.clear('All there')
    if (outlets === 'none at the peninsula or island' && c.site.edition >= PENINSULA_UNTIL)
      return c.na('From the 2023 edition none is asked for there, only a way to add one')
    return c.fault('outlets-absent', { outlets })
  },
})
