import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'

/** A separate building fed by a feeder, or by more than one branch circuit, has an electrode of its own. */
export const detachedElectrodeMissing = defineRule({
  id: 'detached-electrode-missing',
  family: 'service',
  subject: 'building',
  title: 'A separate building with a feeder has an electrode of its own',
  fault: 'Separate building without a grounding electrode',
  consequence: 'Surges in the separate building find no way into the soil.',
  tags: ['bond'],
  cites: [{ section: '250.32(A)' }],
  checks: { 'no-electrode': { danger: 2, says: 'Fed by {fed}, and no electrode found' } },
  triggers: ['replaced', 'new'],
  remedies: ['building-electrode', 'ground-rod-only'],
  traps: [
    'One branch circuit with a grounding conductor needs none',
    'The electrode does not replace the grounding conductor of the feeder',
  ],
  judge(building, c) {
    const isDetached = c.ask(building.facts.isDetached)
    if (isDetached === false) return c.na('Part of the main building')
    const fed = c.ask(building.facts.fedThrough) ?? byFeeder(building, c)
    if (fed === 'one branch circuit with a ground' || fed === 'nothing')
      return c.na(say('Fed by {fed}', { fed }))
    const electrode = c.ask(building.facts.electrode)
    if (isDetached === undefined || fed === undefined)
      return c.undecided('What feeds the building has not been seen')
    if (electrode === undefined) return c.undecided('Nobody has looked for an electrode')
    return electrode === 'found'
      ? c.clear('An electrode of its own')
      : c.fault('no-electrode', { fed })
  },
})

/** An enclosure in the building that a feeder reaches answers what feeds it. */
function byFeeder(building: Subject<'building'>, c: Context): 'a feeder' | undefined {
  return c.site
    .children(building, 'enclosure')
    .some(e => c.site.get(c.ask(e.facts.fedFrom), 'feeder') !== undefined)
    ? 'a feeder'
    : undefined
}
