import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const closetLuminaire = defineRule({
  id: 'closet-luminaire',
  family: 'points',
  subject: 'point',
  title: 'Luminaires in closets keep clear of what is stored',
  fault: 'Luminaire too near the storage of a closet',
  cites: [{ section: '410.16' }],
  triggers: ['replaced', 'new'],
  remedies: ['closet-light'],
  traps: [
    '12 in for surface incandescent or LED, 6 in for fluorescent and recessed',
    'Bare lamps and pendants not at all',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'luminaire') return c.na(say('Not a luminaire'))
    const room = c.site.get(c.ask(point.facts.room), 'room')
    const use = room && c.ask(room.facts.use)
    if (use !== undefined && use !== 'closet') return c.na(say('Not in a closet'))
    const kind = c.ask(point.facts.lampKind)
    const clearance = c.ask(point.facts.clearanceIn)
    if (type === undefined || use === undefined || kind === undefined)
      return c.undecided(say('What kind of luminaire it is has not been seen'))
    if (kind === 'bare lamp or pendant')
      return c.fault(say('A bare lamp or pendant in a closet'), { danger: 3 })
    if (clearance === undefined) return c.undecided(say('Its clearance has not been measured'))
    const least = kind === 'surface incandescent or LED, enclosed' ? 12 : 6
    const compare = {
      left: clearance,
      leftLabel: 'clearance',
      sign: clearance < least ? '<' : clearance > least ? '>' : '=',
      right: least,
      rightLabel: 'wanted',
      unit: 'in',
    } as const
    return clearance < least
      ? c.fault(say('{clearance} in to what is stored, {least} in wanted', { clearance, least }), {
          danger: 2,
          compare,
        })
      : c.clear(say('{clearance} in clear', { clearance }), [], compare)
  },
})
