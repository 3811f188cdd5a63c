import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const disconnectNotInSight = defineRule({
  id: 'disconnect-not-in-sight',
  family: 'circuits',
  subject: 'circuit',
  title: 'The disconnect of a unit is within sight of it',
  fault: 'No disconnect within sight of the unit',
  consequence: 'Whoever works on the unit cannot be sure it stays off.',
  cites: [{ section: '440.14' }, { section: '430.102' }],
  checks: { 'not-in-sight': { danger: 2, says: 'Disconnect: {disconnect}' } },
  triggers: ['replaced', 'new'],
  remedies: ['fit-disconnect'],
  traps: ['Within sight means visible and no more than 50 ft away'],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    if (supplies !== undefined && supplies !== 'air conditioning' && supplies !== 'motor')
      return c.na(say('No such unit'))
    const disconnect = c.ask(circuit.facts.disconnect)
    if (supplies === undefined || disconnect === undefined)
      return c.undecided(say('Nobody has looked for its disconnect'))
    return disconnect === 'within sight'
      ? c.clear(say('Visible and within 50 ft'))
      : c.fault('not-in-sight', { disconnect })
  },
})
