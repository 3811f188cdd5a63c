import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const panelLocation = defineRule({
  id: 'panel-location',
  family: 'panels',
  subject: 'enclosure',
  title: 'Overcurrent devices are not in clothes closets, bathrooms or over steps',
  fault: 'Panel in a forbidden place',
  consequence: 'In an emergency the panel is hard or dangerous to reach.',
  cites: [{ section: '240.24(D)' }, { section: '240.24(E)' }, { section: '240.24(F)' }],
  checks: { location: { danger: 2, says: 'Located: {place}' } },
  triggers: ['replaced', 'new'],
  remedies: ['relocate-panel'],
  traps: ['Over steps: since the 2008 edition'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return c.na(say('Utility meter enclosure'))
    const place = c.ask(enclosure.facts.location)
    if (place === undefined || type === undefined)
      return c.undecided(say('Its place has not been recorded'))
    if (place === 'ordinary') return c.clear(say('Ordinary location'))
    return c.fault('location', { place }, { since: place === 'over steps' ? 2008 : undefined })
  },
})
