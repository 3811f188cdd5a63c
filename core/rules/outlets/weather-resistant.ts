import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const weatherResistant = defineRule({
  id: 'weather-resistant',
  family: 'outlets',
  subject: 'outlet',
  title: 'Receptacles outdoors are weather-resistant',
  fault: 'Outdoor receptacle not weather-resistant',
  consequence: 'It corrodes and cracks outdoors.',
  cites: [{ section: '406.9(A)' }, { section: '406.9(B)' }],
  checks: { 'not-wr': { danger: 1, says: 'Not marked WR' } },
  since: 2008,
  triggers: ['replaced', 'new'],
  triggersSince: { replaced: 2011 },
  remedies: ['wr-receptacle'],
  traps: ['Replacing one outdoors brings it along'],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))

    const room = c.site.get(c.ask(outlet.facts.room), 'room')
    const use = room && c.ask(room.facts.use)
    if (use !== undefined && use !== 'outdoors') return c.na(say('Not outdoors'))
    const is = c.ask(outlet.facts.isWeatherResistant)
    if (type === undefined || use === undefined || is === undefined)
      return c.undecided(say('Not looked at'))
    return is ? c.clear(say('Weather-resistant')) : c.fault('not-wr')
  },
})
