import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

const CABLES = new Set([
  'NM-B',
  'NM',
  'cloth NM',
  'UF',
  'armoured cable',
  'old spiral armour',
  'MC',
  'SE',
])

/** Cables are fastened, bored clear of the edge and sealed where they pass fire-rated framing. */
export const cableSupport = defineRule({
  id: 'cable-support',
  family: 'conductors',
  subject: 'segment',
  title: 'Cables are fastened, kept from nails and screws, and fire-rated passages are sealed',
  fault: 'Cable not fastened or not protected',
  cites: [{ section: '334.30' }, { section: '300.4' }, { section: '300.21' }],
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
    if (wiring === undefined) return c.undecided(say('The wiring method has not been seen'))
    if (boring === 'nearer and not plated')
      return c.fault(say('A hole nearer than 1¼ in to the edge without a plate'), { danger: 2 })
    if (firestop === 'open')
      return c.fault(say('A fire-rated passage is not sealed'), { danger: 2 })
    if (support !== undefined && !isHeld && isFished === false)
      return c.fault(say('Cable: {support}', { support }), { danger: 1 })
    if (
      (support === undefined && !isFished) ||
      boring === undefined ||
      firestop === undefined ||
      isFished === undefined
    )
      return c.undecided(say('Not all of it has been looked at'))
    return c.clear(
      isFished
        ? say('Fished: no fastening wanted; holes and passages are right')
        : say('Fastened, bored clear, sealed'),
    )
  },
})
