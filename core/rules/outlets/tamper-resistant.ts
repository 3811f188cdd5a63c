import { whereSeen } from '../../model/house'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Receptacles of 250 V, 15 and 20 A, are named from this edition. 406.12. */
const ALSO_250V_SINCE = 2017

export const tamperResistant = defineRule({
  id: 'tamper-resistant',
  family: 'outlets',
  subject: 'outlet',
  title: 'New and replaced receptacles are tamper-resistant',
  fault: 'Receptacle not tamper-resistant',
  consequence: 'A child can push something into a slot.',
  cites: [{ section: '406.12' }],
  checks: { 'no-shutters': { danger: 1, says: 'No shutters' } },
  since: 2008,
  triggers: ['replaced', 'new'],
  triggersSince: { replaced: 2011 },
  remedies: ['tr-receptacle'],
  traps: [
    'Two-slot ones, those more than 5½ ft up and those for one appliance in its place are exempt',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')

    const slots = c.ask(outlet.facts.slots)
    if (slots === 'two') return c.na('Two-slot receptacle')
    if (slots === '240 V' && c.site.edition < ALSO_250V_SINCE)
      return c.na(
        say('A 250 V receptacle: named from the {since} edition', { since: ALSO_250V_SINCE }),
      )
    const { deviceAmps } = outlet.facts
    const amps = whereSeen(deviceAmps) && c.ask(deviceAmps)
    if (amps !== undefined && amps > 20) return c.na('Only 15 and 20 A receptacles are named')
    const is = c.ask(outlet.facts.isTamperResistant)
    if (is === true) return c.clear('Tamper-resistant')
    // Measured, or told by eye.
    const { heightFt, isHigh } = outlet.facts
    const height = whereSeen(heightFt) ? c.ask(heightFt) : undefined
    const isAbove = height === undefined ? c.ask(isHigh) : height > 5.5
    if (isAbove && height !== undefined)
      return c.na(say('{height} ft up: exempt above 5½ ft', { height }))
    if (isAbove) return c.na('Exempt above 5½ ft')
    const isDedicated = c.ask(outlet.facts.isDedicated)
    if (isDedicated === true) return c.na('For one appliance in its place')
    if (
      type === undefined ||
      slots === undefined ||
      is === undefined ||
      isAbove === undefined ||
      isDedicated === undefined
    )
      return c.undecided('Not looked at')
    return c.fault('no-shutters')
  },
})
