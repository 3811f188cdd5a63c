import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const deadFrontMissing = defineRule({
  id: 'dead-front-missing',
  family: 'panels',
  subject: 'enclosure',
  isHazard: true,
  title: 'The dead front (cover) is in place and whole',
  fault: 'Dead front missing or damaged',
  consequence: 'Live parts can be touched.',
  cites: [{ section: '408.38' }],
  checks: {
    'live-parts-in-reach': { danger: 4, says: 'Dead front (cover) {cover}: live parts in reach' },
  },
  triggers: [],
  remedies: ['fit-dead-front'],
  traps: ['Test the cover for voltage before touching it'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return c.na(say('Utility meter enclosure'))
    const cover = c.ask(enclosure.facts.cover)
    if (cover === undefined || type === undefined)
      return c.undecided(say('The cover has not been looked at'))
    return cover === 'in place'
      ? c.clear(say('In place'))
      : c.fault('live-parts-in-reach', { cover })
  },
})
