import { whereSeen } from '../../model/house'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'

export const spliceOutsideBox = defineRule({
  id: 'splice-outside-box',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'Splices are in boxes',
  fault: 'Splice outside a box',
  consequence: 'A failing splice can light what is around it.',
  cites: [{ section: '300.15' }, { section: '334.40(B)' }],
  checks: { 'outside-box': { danger: 3, says: 'Splice outside a box' } },
  triggers: [],
  remedies: ['box-for-splice'],
  traps: [
    'Listed tap devices for concealed repair of NM cable are allowed',
    'Knob-and-tube is spliced in free air, soldered and taped: its own splices are lawful (394)',
  ],
  judge(outlet, c) {
    const place = c.ask(outlet.facts.splicePlace)
    if (place === undefined) return c.undecided('Where cables meet has not been seen')
    if (place !== 'outside a box') return c.clear(say('Splices {place}', { place }))
    return isKnobAndTube(outlet, c)
      ? c.clear('Soldered and taped splices of knob-and-tube, in free air')
      : c.fault('outside-box')
  },
})

/** Soldered and taped, with no newer cable on the circuit it could lead to. */
function isKnobAndTube(outlet: Subject<'outlet'>, c: Context): boolean {
  const { connector } = outlet.facts
  if (!whereSeen(connector) || c.ask(connector) !== 'solder and tape') return false
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
  const wirings = circuit ? c.site.children(circuit, 'segment').map(s => c.ask(s.facts.wiring)) : []
  return wirings.length > 0 && wirings.every(w => w === 'knob-and-tube')
}
