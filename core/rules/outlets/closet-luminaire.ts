import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const closetLuminaire = defineRule({
  id: 'closet-luminaire',
  family: 'outlets',
  subject: 'outlet',
  title: 'Luminaires in closets keep clear of what is stored',
  fault: 'Luminaire too near the storage of a closet',
  consequence: 'A lamp can light what is stored.',
  cites: [{ section: '410.16' }],
  checks: {
    'bare-lamp': { danger: 3, says: 'A bare lamp or pendant in a closet' },
    clearance: { danger: 2, says: '{clearance} in to what is stored, {least} in required' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['closet-light'],
  traps: [
    '12 in for surface incandescent or LED, 6 in for fluorescent and recessed',
    'Bare lamps and pendants not at all',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'luminaire') return c.na('Not a luminaire')
    const room = c.site.get(c.ask(outlet.facts.room), 'room')
    const use = room && c.ask(room.facts.use)
    if (use !== undefined && use !== 'closet') return c.na('Not in a closet')
    const kind = c.ask(outlet.facts.lampKind)
    const clearance = c.ask(outlet.facts.clearanceIn)
    if (type === undefined || use === undefined || kind === undefined)
      return c.undecided('What kind of luminaire it is has not been seen')
    if (kind === 'bare lamp or pendant') return c.fault('bare-lamp')
    if (clearance === undefined) return c.undecided('Its clearance has not been measured')
    const least = kind === 'surface incandescent or LED, enclosed' ? 12 : 6
    const compare = {
      left: clearance,
      leftLabel: 'clearance',
      sign: clearance < least ? '<' : clearance > least ? '>' : '=',
      right: least,
      rightLabel: 'required',
      unit: 'in',
    } as const
    return clearance < least
      ? c.fault('clearance', { clearance, least }, { compare })
      : c.clear(say('{clearance} in clear', { clearance }), [], compare)
  },
})
