import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { unopened } from '../../derive/box'

/** Aluminium meets copper only in a connector marked for both. Which of the marked ones a desk accepts is a school. */
export const mixedMetalSplice = defineRule({
  id: 'mixed-metal-splice',
  family: 'conductors',
  subject: 'point',
  title: 'Aluminium meets copper only in a connector marked for both',
  fault: 'Aluminium joined to copper in a connector not made for it',
  cites: [{ section: '110.14' }, { section: '110.14(B)' }],
  triggers: ['replaced', 'extended'],
  remedies: ['cold-weld-splice', 'lug-splice', 'listed-twist-on'],
  traps: [
    'A twist-on connector marked for both metals is lawful, but the strict school does not accept it',
    'Gel does not widen a listing: read the print for metals, sizes, solid or stranded',
  ],
  judge(point, c) {
    const splice = c.ask(point.facts.splice)
    if (splice === undefined)
      return c.undecided(say('The splices have not been looked at'), [], unopened(point, c))
    if (splice !== 'aluminium to copper') return c.na(say('No aluminium meets copper here'))
    const connector = c.ask(point.facts.connector)
    if (connector === 'solder and tape')
      return c.fault(say('Aluminium twisted to copper under solder or tape'), { danger: 4 })
    const listing = c.ask(point.facts.connectorListing)
    if (listing === 'copper only')
      return c.fault(say('The connector is marked for copper only'), { danger: 3 })
    const school = c.ask(c.site.premises.facts.aluminiumSchool)
    if (connector === undefined || listing === undefined || school === undefined)
      return c.undecided(say('Whether the connector is marked for both metals is not settled'))
    if (
      school === 'strict' &&
      (connector === 'twist-on' || connector === 'push-in' || connector === 'lever')
    ) {
      return c.fault(
        say(
          'Marked for both metals, but this desk accepts only cold-weld crimps and set-screw lugs: {connector}',
          { connector },
        ),
        { danger: 2 },
      )
    }
    return c.clear(say('Marked for both metals: {connector}', { connector }))
  },
})
