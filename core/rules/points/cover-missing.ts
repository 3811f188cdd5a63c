import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const coverMissing = defineRule({
  id: 'cover-missing',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'Every box has its cover',
  fault: 'Cover missing or broken',
  cites: [{ section: '314.25' }, { section: '406.6' }],
  triggers: [],
  remedies: ['fit-cover'],
  traps: ['A missing plate leaves live screws in reach'],
  judge(point, c) {
    const cover = c.ask(point.facts.cover)
    if (cover === undefined) return c.undecided(say('Not looked at'))
    return cover === 'in place'
      ? c.clear(say('In place'))
      : c.fault(say('Cover {cover}', { cover }), { danger: 2 })
  },
})
