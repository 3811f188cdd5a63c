import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** Cables enter through a fitting that spares them the edge of the metal. */
export const cableUnprotectedAtEntry = defineRule({
  id: 'cable-unprotected-at-entry', family: 'conductors', subject: 'segment',
  title: 'Every cable enters through a clamp, connector or bushing', fault: 'Cable entry without a fitting',
  cites: [{ section: '312.5(C)' }, { section: '300.4(G)' }, { section: '314.17' }],
  triggers: ['extended', 'new'], remedies: ['entry-fitting'],
  traps: ['A single-gang plastic box needs no clamp where the cable is fastened within 8 in.'],
  judge(segment, c) {
    const entry = c.ask(segment.facts.entry)
    if (entry === undefined) return c.undecided(say('The entry has not been looked at'))
    return entry === 'none' ? c.fault(say('No clamp or bushing where it enters'), { danger: 2 }) : c.clear(say('Entry: {entry}', { entry }))
  },
})
