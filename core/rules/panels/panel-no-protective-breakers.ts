import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** No AFCI or GFCI breakers are made for this panel line any more. Not a fault of safety: it limits the remedies. */
export const panelNoProtective = defineRule({
  id: 'panel-no-protective-breakers',
  family: 'panels',
  subject: 'enclosure',
  isHazard: true,
  title: 'AFCI and GFCI breakers can be had for the panel',
  fault: 'No protective breakers made for this panel',
  consequence: 'Modern protection cannot be added in this panel.',
  cites: [{ section: '110.3(B)' }],
  checks: {
    'none-made': {
      danger: 1,
      says: 'None are made: protection goes beside the panel, or the panel is replaced',
    },
  },
  triggers: [],
  remedies: ['protect-beside-panel', 'replace-panel'],
  traps: ['It limits the remedies; it does not condemn the panel'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type !== undefined && type !== 'panel') return c.na(say('Not a panel'))
    const state = c.ask(enclosure.facts.protectiveBreakers)
    if (state === undefined || type === undefined)
      return c.undecided(say('Nobody has found out whether they are made'))
    return state === 'available' ? c.clear(say('Available')) : c.fault('none-made')
  },
})
