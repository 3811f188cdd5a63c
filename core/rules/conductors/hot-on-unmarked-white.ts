import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { WHITE_MARKED_SINCE } from '../../tables/years'

const RACEWAYS = new Set([
  'steel conduit',
  'aluminium conduit',
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
  cites: [{ section: '200.7(C)' }],
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['mark-white'],
  traps: [
    'Allowed in cables only: in conduit a white conductor may never be a hot',
    'An unmarked white was lawful before 1999 in a switch loop only',
  ],
  judge(segment, c) {
    const isHot = c.ask(segment.facts.isWhiteHot)
    if (isHot === false) return c.na(say('No white conductor used as a hot'))
    if (isHot === undefined) return c.undecided(say('Nobody has looked for a white used as a hot'))
    const wiring = c.ask(segment.facts.wiring)
    if (wiring !== undefined && RACEWAYS.has(wiring))
      return c.fault(say('A white conductor in conduit used as a hot'), { danger: 2 })
    const isMarked = c.ask(segment.facts.isWhiteMarked)
    if (isMarked === false) {
      const isLoop = c.ask(segment.facts.isSwitchLoop)
      if (isLoop)
        return c.fault(say('The white of a switch loop is hot and unmarked'), {
          danger: 2,
          lawfulBefore: WHITE_MARKED_SINCE,
        })
      return c.fault(say('A white conductor is hot and unmarked'), {
        danger: 2,
        ...(isLoop === undefined && {
          remark: say(
            'Lawful if put in before {year} and it feeds a switch loop: see whether it does',
            { year: WHITE_MARKED_SINCE },
          ),
        }),
      })
    }
    if (isMarked === undefined || wiring === undefined) return c.undecided()
    return c.clear(say('Re-marked at every visible end'))
  },
})
