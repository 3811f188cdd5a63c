import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

const CABLES = new Set([
  'NM-B',
  'NM',
  'cloth NM',
  'UF',
  'armored cable',
  'old spiral armor',
  'MC',
  'SE',
])

/** Cables are fastened, bored clear of the edge and sealed where they pass fire-rated framing. */
export const cableSupport = defineRule({
  id: 'cable-support',
  family: 'conductors',
  subject: 'segment',
  title: 'Cables are fastened, kept from nails and screws, and fire-rated penetrations are sealed',
  fault: 'Cable not fastened or not protected',
  consequence: 'The cable can be pulled loose, or pierced by a nail or screw.',
  cites: [{ section: '334.30' }, { section: '300.4' }, { section: '300.21' }],
  checks: {
    'hole-near-edge': { danger: 2, says: 'A hole nearer than 1¼ in to the edge without a plate' },
    'penetration-not-sealed': { danger: 2, says: 'A fire-rated penetration is not sealed' },
    support: { danger: 1, says: 'Cable: {support}' },
  },
  triggers: ['extended', 'new'],
  remedies: ['fasten-cable'],
  traps: ['Fished cable need not be fastened', 'A steel plate makes a hole near the edge right'],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring !== undefined && !CABLES.has(wiring))
      return c.na(say('{wiring} has rules of its own', { wiring }))
    const support = c.ask(segment.facts.support)
    const boring = c.ask(segment.facts.boring)
    const firestop = c.ask(segment.facts.firestop)
    const isHeld = support === 'within 12 in and every 4½ ft'
    const isFished = isHeld ? false : c.ask(segment.facts.isFished)
    if (wiring === undefined) return c.undecided('The wiring method has not been seen')
    if (boring === 'nearer and not plated') c.fails('hole-near-edge')
    if (firestop === 'open') c.fails('penetration-not-sealed')
    if (support !== undefined && !isHeld && isFished === false) c.fails('support', { support })
    if (
      (support === undefined && !isFished) ||
      boring === undefined ||
      firestop === undefined ||
      isFished === undefined
    )
      return c.undecided('Not all of it has been looked at')
    return c.clear(
      isFished
        ? 'Fished: no fastening required; holes and penetrations are right'
        : 'Fastened, bored clear, sealed',
    )
  },
})
