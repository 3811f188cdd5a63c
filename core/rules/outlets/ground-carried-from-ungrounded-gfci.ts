import { defineRule } from '../../engine/rule'
import { holdsNoDevice } from '../../derive/box'
import type { FactRef } from '../../model/house'
import { groundOf, lacksGround } from '../../derive/ground'

export const groundCarriedFromUngroundedGfci = defineRule({
  id: 'ground-carried-from-ungrounded-gfci',
  family: 'outlets',
  subject: 'outlet',
  title: 'No ground runs on from a protected device that has none',
  fault: 'Ground carried on from an ungrounded device',
  consequence: 'One fault can make the metal of several appliances live.',
  cites: [{ section: '406.4(D)(2)' }],
  checks: {
    'ground-carried-on': {
      danger: 3,
      says: 'A grounding conductor runs on from a device that has no ground',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['cut-ground-on'],
  traps: [
    'It ties the frames of further appliances together and to nothing: one fault makes all of them live',
  ],
  judge(outlet, c) {
    if (holdsNoDevice(c.ask(outlet.facts.type))) return c.na('No device here')
    const protection = c.ask(outlet.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na('No ground-fault device here')
    const ground = groundOf(c.site, outlet)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.na('It has a ground')
    const carries = c.ask(outlet.facts.carriesGroundOn)
    if (protection === undefined || ground.value === undefined || carries === undefined)
      return c.undecided(
        'Whether it has a ground, or one runs on from it, has not been seen',
        lacksAny(lacksGround(ground.rests, outlet)),
      )
    return carries ? c.fault('ground-carried-on') : c.clear('None runs on')
  },
})

/** What to look at for a ground, and whatever else was asked for and is not known. */
const lacksAny =
  (ofGround: readonly FactRef[] | (() => readonly FactRef[])) => (asked: readonly FactRef[]) =>
    [...(typeof ofGround === 'function' ? ofGround() : ofGround), ...asked].filter(
      f => f.state !== 'known',
    )
