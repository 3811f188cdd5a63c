import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const knobAndTube = defineRule({
  id: 'knob-and-tube',
  family: 'conductors',
  subject: 'segment',
  isHazard: true,
  title: 'Knob-and-tube runs free in air, unspliced and unfused in the neutral',
  fault: 'Knob-and-tube buried, altered or fused in the neutral',
  consequence: 'It overheats, or is live when it seems dead.',
  cites: [{ section: '394.12' }, { section: '394.56' }],
  checks: {
    'neutral-fused': { danger: 4, says: 'The neutral is fused or switched' },
    'in-insulation': { danger: 3, says: 'Buried in insulation: it cannot shed its heat' },
    extended: { danger: 3, says: 'Extended, or spliced to newer cable outside a box' },
  },
  triggers: ['extended', 'new'],
  remedies: ['knob-and-tube-care', 'knob-and-tube-stages', 'replace-conductor'],
  traps: [
    'By itself it is allowed to remain',
    'Color tells nothing: identify with a meter',
    'One cut can kill half a house: map before cutting',
  ],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring !== undefined && wiring !== 'knob-and-tube') return c.na('Not knob-and-tube')
    const buried = c.ask(segment.facts.isBuried)
    const extended = c.ask(segment.facts.isExtended)
    const fused = c.ask(segment.facts.isNeutralFused)
    if (wiring === undefined) return c.undecided('The wiring method has not been seen')
    if (fused) c.fails('neutral-fused')
    if (buried) c.fails('in-insulation')
    if (extended) c.fails('extended')
    if (buried === undefined || extended === undefined || fused === undefined)
      return c.undecided('Not all of it has been followed')
    return c.mayStay(
      say('Free, unaltered: allowed to remain'),
      say(
        'Knob-and-tube has no ground and must not be extended, buried in insulation or put ' +
          'behind more than 15 A; many insurers refuse it',
      ),
    )
  },
})
