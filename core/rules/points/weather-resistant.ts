import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const weatherResistant = defineRule({
  id: 'weather-resistant',
  family: 'points',
  subject: 'point',
  title: 'Receptacles outdoors are weather-resistant',
  fault: 'Outdoor receptacle not weather-resistant',
  cites: [{ section: '406.9(A)' }, { section: '406.9(B)' }],
  since: 2008,
  triggers: ['replaced', 'new'],
  triggersSince: { replaced: 2011 },
  remedies: ['wr-receptacle'],
  traps: ['Replacing one outdoors brings it along'],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))

    const room = c.site.get(c.ask(point.facts.room), 'room')
    const use = room && c.ask(room.facts.use)
    if (use !== undefined && use !== 'outdoors') return c.na(say('Not outdoors'))
    const is = c.ask(point.facts.isWeatherResistant)
    if (type === undefined || use === undefined || is === undefined)
      return c.undecided(say('Not looked at'))
    return is ? c.clear(say('Weather-resistant')) : c.fault(say('Not marked WR'), { danger: 1 })
  },
})
