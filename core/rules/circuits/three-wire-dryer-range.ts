import { absent } from '../../model/house'
import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { FOUR_WIRE_SINCE } from '../../tables/years'
import { tableMetals } from '../../derive/allowed'
import type { FactRef } from '../../model/house'
import { sizeIndex, type Size } from '../../tables/ampacity'

/** Least size of a neutral that grounds a frame. 250.140. */
const LEAST: Record<'copper' | 'aluminum', Size> = { copper: '10', aluminum: '8' }

export const threeWireDryerRange = defineRule({
  id: 'three-wire-dryer-range',
  family: 'circuits',
  subject: 'circuit',
  title: 'Dryer and range frames are grounded as their years allow',
  fault: 'Dryer or range grounded by its neutral where it may not be',
  consequence: 'The frame carries current, and is live if the neutral opens.',
  cites: [{ section: '250.140' }, { section: '250.142(B)' }],
  checks: {
    'frame-ungrounded': { danger: 4, says: 'Its frame is grounded by nothing' },
    'strap-left-in': {
      danger: 3,
      says: 'Four wires, and the strap from frame to neutral was left in: the frame carries neutral current',
    },
    'ground-not-used': {
      danger: 3,
      says: 'A ground runs in the cable, and the frame is on the neutral all the same',
    },
    'bare-neutral': { danger: 3, says: 'Frame on a bare neutral in a cable that may not have one' },
    'neutral-too-small': { danger: 3, says: 'Neutral as ground in {size} {metal}: too small' },
    'bare-neutral-not-from-service': {
      danger: 3,
      says: 'A bare neutral that does not start at the service equipment',
    },
    'three-wires-new': { danger: 3, says: 'Three wires in a circuit new since 1996' },
  },
  triggers: ['new', 'replaced'],
  remedies: ['four-wire-circuit'],
  traps: [
    'Existing circuits only: none new from 1996',
    'A bare neutral must be in SE cable and start at the service equipment',
    'Turning the panel into a sub-panel ends the bare-neutral case',
  ],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    const frame = c.ask(circuit.facts.frameGround)
    if (
      supplies !== undefined &&
      supplies !== 'cooking appliance' &&
      supplies !== 'fixed appliance'
    )
      return c.na('No dryer or range')
    if (frame === 'grounding conductor') return c.clear('A grounding conductor of its own')
    if (supplies === undefined || frame === undefined)
      return c.undecided(
        supplies === 'fixed appliance'
          ? 'If it is a dryer: how its frame is grounded has not been seen'
          : 'How its frame is grounded has not been seen',
      )
    if (frame === 'nothing') return c.fault('frame-ungrounded')
    if (frame === 'neutral and grounding conductor') return c.fault('strap-left-in')
    const neutral = c.ask(circuit.facts.neutral)
    if (neutral === 'bare in other cable') c.fails('bare-neutral')
    const segments = c.site.children(circuit, 'segment')
    const open: FactRef[] = []
    for (const segment of segments) {
      // SE cable with a bare neutral has no other ground in it.
      const egc = neutral === 'bare in SE cable' ? 'none' : c.ask(segment.facts.egc)
      if (egc === 'wire') c.fails('ground-not-used')
      if (egc === undefined) open.push(segment.facts.egc)
      const size = c.ask(segment.facts.size)
      const metal = c.ask(segment.facts.metal)
      const may = tableMetals(metal).map(
        m => size !== undefined && sizeIndex(size) < sizeIndex(LEAST[m.metal]),
      )
      if (size !== undefined && may.every(isSmall => isSmall))
        c.fails('neutral-too-small', {
          size,
          metal: metal ?? 'of any metal',
        })
      if (size === undefined) open.push(segment.facts.size)
      if (may.includes(true) || metal === undefined) open.push(segment.facts.metal)
    }
    if (segments.length === 0) open.push(absent(circuit, 'label'))
    if (neutral === undefined) open.push(circuit.facts.neutral)
    const panel = c.site.get(
      c.site.get(c.ask(circuit.facts.fedBy), 'breaker')?.parent ?? undefined,
      'enclosure',
    )
    const isBareSe = neutral === 'bare in SE cable'
    const role = isBareSe && panel ? roleOf(c.site, panel) : undefined
    if (role) c.rest(role.rests)
    if (role?.value !== undefined && role.value !== 'service')
      c.fails('bare-neutral-not-from-service')
    const years = c.site.yearsOf(circuit)
    c.rest(years.rests)
    const work = c.ask(circuit.facts.work)
    if (years.from >= FOUR_WIRE_SINCE || work === 'new')
      return c.fault('three-wires-new', {}, { since: FOUR_WIRE_SINCE })
    if (open.length > 0) return c.undecided('Its conductors have not all been looked at', open)
    if (isBareSe && role?.value === undefined)
      return c.undecided(
        'A bare neutral may start only at the service equipment; which that is is not settled',
        c.asked.filter(f => f.state !== 'known'),
      )
    if (years.to >= FOUR_WIRE_SINCE || work === undefined)
      return c.undecided('Allowed only in a circuit from before 1996', [
        ...c.asked.filter(f => f.state !== 'known'),
        ...(years.to >= FOUR_WIRE_SINCE ? [circuit.facts.year] : []),
      ])
    return c.mayStay(
      say('Existing three-wire circuit: allowed to remain'),
      say(
        'The frame rides on the neutral: if the neutral opens, the frame is live; four wires ' +
          'once it is moved or made new',
      ),
    )
  },
})
