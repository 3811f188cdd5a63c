import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { REQUIRED_20A_SINCE } from '../../tables/years'

const USE_OF: Readonly<Record<string, keyof typeof REQUIRED_20A_SINCE>> = {
  kitchen: 'kitchen small-appliance',
  laundry: 'laundry',
  bathroom: 'bathroom receptacles',
  garage: 'garage',
}

/** Kitchen, laundry, bathroom and garage have the 20 A circuits their years ask for. */
export const requiredCircuitsAbsent = defineRule({
  id: 'required-circuits-absent',
  family: 'rooms',
  subject: 'room',
  title: 'The room has the 20 A circuits it must have',
  fault: 'Required 20 A circuit missing',
  consequence: 'The breaker trips in ordinary use, or somebody fits a larger one.',
  cites: [{ section: '210.11(C)' }, { section: '210.52(B)' }],
  checks: { 'circuit-absent': { danger: 1, says: 'No {needs} circuit of 20 A' } },
  triggers: ['new'],
  remedies: ['add-required-circuit'],
  traps: [
    'Two for the kitchen counter, one for the laundry, one for bathroom receptacles, one for the garage from 2017',
    'An older house may lack those that came later',
  ],
  judge(room, c) {
    const use = c.ask(room.facts.use)
    const needs = use === undefined ? undefined : USE_OF[use]
    if (use !== undefined && (needs === undefined || REQUIRED_20A_SINCE[needs] > c.site.edition))
      return c.na(say('{use}: no circuit of its own asked for', { use }))
    const own = c.ask(room.facts.ownCircuit)
    if (needs === undefined || own === undefined)
      return c.undecided('Whether the room has its 20 A circuits has not been traced')
    return own === 'there'
      ? c.clear('They are there')
      : c.fault('circuit-absent', { needs }, { since: REQUIRED_20A_SINCE[needs] })
  },
})
