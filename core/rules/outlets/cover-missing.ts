import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const coverMissing = defineRule({
  id: 'cover-missing',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'Every box has its cover',
  fault: 'Cover missing or broken',
  consequence: 'Live parts can be touched.',
  cites: [{ section: '314.25' }, { section: '406.6' }],
  checks: { cover: { danger: 2, says: 'Cover {cover}' } },
  triggers: [],
  remedies: ['fit-cover'],
  traps: ['A missing plate leaves live screws in reach'],
  judge(outlet, c) {
    const cover = c.ask(outlet.facts.cover)
    if (cover === undefined) return c.undecided(say('Not looked at'))
    return cover === 'in place' ? c.clear(say('In place')) : c.fault('cover', { cover })
  },
})
