import { defineRule } from '../../engine/rule'
import { WHITE_MARKED_SINCE } from '../../tables/years'

const RACEWAYS = new Set([
  'steel conduit',
  'aluminum conduit',
  'flexible conduit',
  'plastic conduit',
])

/** A white conductor used as a hot must say so wherever it can be seen. */
export const hotOnUnmarkedWhite = defineRule({
  id: 'hot-on-unmarked-white',
  family: 'conductors',
  subject: 'segment',
  title: 'A white conductor used as a hot is re-marked at every visible end',
  fault: 'White used as hot without a mark',
  consequence: 'Somebody working on it may take a live wire for a neutral.',
  cites: [{ section: '200.7(C)' }],
  checks: {
    'white-hot-in-conduit': { danger: 2, says: 'A white conductor in conduit used as a hot' },
    'switch-loop-unmarked': { danger: 2, says: 'The white of a switch loop is hot and unmarked' },
    'white-hot-unmarked': { danger: 2, says: 'A white conductor is hot and unmarked' },
  },
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['mark-white'],
  traps: [
    'Allowed in cables only: in conduit a white conductor may never be a hot',
    'An unmarked white was lawful before 1999 in a switch loop only',
  ],
  judge(segment, c) {
    const isHot = c.ask(segment.facts.isWhiteHot)
    if (isHot === false) return c.na('No white conductor used as a hot')
    if (isHot === undefined) return c.undecided('Nobody has looked for a white used as a hot')
    const wiring = c.ask(segment.facts.wiring)
    if (wiring !== undefined && RACEWAYS.has(wiring)) return c.fault('white-hot-in-conduit')
    const isMarked = c.ask(segment.facts.isWhiteMarked)
    if (isMarked === false) {
      const isLoop = c.ask(segment.facts.isSwitchLoop)
      if (isLoop) return c.fault('switch-loop-unmarked', {}, { lawfulBefore: WHITE_MARKED_SINCE })
      if (isLoop === false) return c.fault('white-hot-unmarked')
      // A switch loop from before the marking was asked for is the one lawful way it can be.
      const years = c.site.yearsOf(segment)
      c.rest(years.rests)
      if (years.from >= WHITE_MARKED_SINCE) return c.fault('white-hot-unmarked')
      const unless = [`it feeds a switch loop put in before ${WHITE_MARKED_SINCE}`]
      return c.faultUnless('white-hot-unmarked', {}, { unless, ask: segment.facts.isSwitchLoop })
    }
    if (isMarked === undefined || wiring === undefined) return c.undecided()
    return c.clear('Re-marked at every visible end')
  },
})
