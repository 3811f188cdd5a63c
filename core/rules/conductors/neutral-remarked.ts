import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { sizeName } from '../../tables/allowed-device'
import { sizeIndex } from '../../tables/ampacity'

const RACEWAYS = new Set([
  'steel conduit',
  'aluminum conduit',
  'flexible conduit',
  'plastic conduit',
])

/** The other way round from a white used as hot: in pipe a small neutral is white along its whole length. */
export const neutralRemarked = defineRule({
  id: 'neutral-remarked',
  family: 'conductors',
  subject: 'segment',
  title: 'A neutral of 6 AWG or smaller is white or gray along its whole length',
  fault: 'Colored conductor re-marked as neutral',
  consequence: 'Somebody working on it may take a neutral for a hot, or a hot for a neutral.',
  cites: [{ section: '200.6(A)' }],
  checks: { 're-marked-white': { danger: 1, says: '{size} colored conductor re-marked white' } },
  triggers: ['extended', 'new'],
  remedies: ['pull-white-neutral'],
  traps: [
    '4 AWG and larger may be re-marked white at its ends',
    'In a cable the neutral comes white: this is about pipe',
  ],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring !== undefined && !RACEWAYS.has(wiring)) return c.na('Not in pipe')
    const isMade = c.ask(segment.facts.isColorMadeWhite)
    if (wiring === undefined || isMade === undefined)
      return c.undecided('Nobody has looked at the color of the neutral, or what it runs in')
    if (!isMade) return c.clear('No colored conductor serves as neutral')
    const size = c.ask(segment.facts.size)
    if (size === undefined)
      return c.undecided('A re-marked neutral: right from 4 AWG on, and it has not been gauged')
    return sizeIndex(size) >= sizeIndex('4')
      ? c.clear(say('{size}: may be re-marked at its ends', { size: sizeName(size) }))
      : c.fault('re-marked-white', { size: sizeName(size) })
  },
})
