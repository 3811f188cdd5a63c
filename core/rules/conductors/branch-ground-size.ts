import { open as openOn, of, type Conclusion } from '../../conclusions/truth'
import { groundSizing } from '../../derive/ground-size'
import { GROUND_SIZE, groundSizeVerdict } from '../../derive/ground-size-verdict'
import { defineRule } from '../../engine/rule'
import { absent } from '../../model/house'

/** From about this year cable for 15 and 20 A circuits no longer came with a reduced ground. 250.118 of its day. */
const REDUCED_UNTIL = 1970
const OLD_CABLE: ReadonlySet<string> = new Set(['NM', 'cloth NM', 'UF'])

/** The grounding wire of a branch circuit against its breaker. */
export const branchGroundSize = defineRule({
  ...GROUND_SIZE,
  id: 'branch-ground-size',
  subject: 'segment',
  traps: [
    'In a cable the ground is made with it; what was pulled into a pipe is gauged',
    'Cable of the 1960s came with a 16 AWG ground: lawful when made',
  ],
  judge(segment, c) {
    const egc = c.ask(segment.facts.egc)
    if (egc === undefined)
      return c.undecided('Whether a grounding wire runs with it has not been seen')
    if (egc !== 'wire') return c.na('No grounding wire runs with it')
    const circuit = c.site.get(segment.parent ?? undefined, 'circuit')
    const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const amps: Conclusion<number> = breaker
      ? of<number>(breaker.facts.ratingAmps)
      : openOn([circuit ? circuit.facts.fedBy : absent(segment, 'egc')], undefined, [])
    const wiring = c.ask(segment.facts.wiring)
    const size = c.ask(segment.facts.egcSize)
    const isReduced =
      size === '16' && amps.state === 'settled' && amps.value <= 20 && OLD_CABLE.has(wiring ?? '')
    const detail = isReduced ? { lawfulBefore: REDUCED_UNTIL } : {}
    return groundSizeVerdict(groundSizing(segment, amps), amps, detail, c)
  },
})
