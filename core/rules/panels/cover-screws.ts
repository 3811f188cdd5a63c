import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const coverScrews = defineRule({
  id: 'cover-screws',
  family: 'panels',
  subject: 'enclosure',
  title: 'The cover is held by all its screws, and they are blunt',
  fault: 'Cover screws pointed or missing',
  consequence: 'A pointed screw can pierce a conductor behind the cover.',
  cites: [{ section: '408.38' }, { section: '110.12(A)' }],
  checks: {
    screws: { danger: [1, 2], says: 'Cover screws: {screws}' },
  },
  triggers: [],
  remedies: ['blunt-screws'],
  traps: ['Pointed screws pierce insulation behind the cover'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return c.na(say('Utility meter enclosure'))
    const screws = c.ask(enclosure.facts.coverScrews)
    if (screws === undefined || type === undefined)
      return c.undecided(say('The screws have not been looked at'))
    if (screws === 'all blunt') return c.clear(say('All there, all blunt'))
    return c.fault('screws', { screws }, { danger: screws === 'pointed' ? 2 : 1 })
  },
})
