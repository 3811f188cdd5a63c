import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Verdict } from '../../engine/verdict'
import type { Subject } from '../../model/house'
import { unopened } from '../../derive/box'

/** Aluminum meets copper only in a connector marked for both. Which of the marked ones a desk accepts is a school. */
export const mixedMetalSplice = defineRule({
  id: 'mixed-metal-splice',
  family: 'outlets',
  subject: 'outlet',
  title: 'Aluminum meets copper only in a connector marked for both',
  fault: 'Aluminum joined to copper in a connector not made for it',
  consequence: 'The joint can heat over the years until it burns.',
  cites: [{ section: '110.14' }, { section: '110.14(B)' }],
  checks: {
    'twisted-to-copper': { danger: 4, says: 'Aluminum joined under solder or tape' },
    'connector-copper-only': { danger: 3, says: 'The connector is marked for copper only' },
    'connector-aluminum-only': {
      danger: 3,
      says: 'The connector is marked for aluminum only, and copper is in it',
    },
    'connector-not-accepted': {
      danger: 2,
      says: 'Marked for both metals, but your settings accept only cold-weld crimps and set-screw lugs: {connector}',
    },
  },
  triggers: ['replaced', 'extended'],
  remedies: ['cold-weld-splice', 'lug-splice', 'listed-twist-on'],
  traps: [
    'A twist-on connector marked for both metals is lawful, but the strict school does not accept it',
    'Gel does not widen a listing: read the print for metals, sizes, solid or stranded',
  ],
  judge(outlet, c) {
    const splice = c.ask(outlet.facts.splice)
    if (splice === undefined)
      return c.undecided('The splices have not been looked at', unopened(outlet, c))
    if (splice !== 'aluminum to copper' && splice !== 'aluminum to aluminum')
      return c.na('No aluminum meets in a splice here')
    if (splice === 'aluminum to aluminum') return aluminumAlone(outlet, c)
    const connector = c.ask(outlet.facts.connector)
    if (connector === 'solder and tape') return c.fault('twisted-to-copper')
    const listing = c.ask(outlet.facts.connectorListing)
    if (listing === 'copper only') return c.fault('connector-copper-only')
    if (listing === 'aluminum to aluminum') return c.fault('connector-aluminum-only')
    const school = c.ask(c.site.premises.facts.aluminumSchool)
    if (connector === undefined || listing === undefined || school === undefined)
      return c.undecided('Whether the connector is marked for both metals is not settled')
    if (
      school === 'strict' &&
      (connector === 'twist-on' || connector === 'push-in' || connector === 'lever')
    ) {
      return c.fault('connector-not-accepted', { connector })
    }
    return c.clear(say('Marked for both metals: {connector}', { connector }))
  },
})

/** Aluminum joined to aluminum needs a connector marked for aluminum. 110.14. */
function aluminumAlone(outlet: Subject<'outlet'>, c: Context): Verdict {
  if (c.ask(outlet.facts.connector) === 'solder and tape') return c.fault('twisted-to-copper')
  const listing = c.ask(outlet.facts.connectorListing)
  if (listing === 'copper only') return c.fault('connector-copper-only')
  return listing === undefined
    ? c.undecided('What metal the connector is marked for has not been read')
    : c.clear('Aluminum to aluminum, in a connector marked for it')
}
