import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { isAddedAbove, throwsOf } from '../../derive/throws'
import { Trail } from '../../derive/trail'

/** Split buses were made until the early 1980s, and allowed as existing ones only from this edition. 408.36. */
const ONE_MAIN_SINCE = 2008

/** A split bus may stay while six hand movements kill everything and nobody added breakers above. */
export const splitBus = defineRule({
  id: 'split-bus',
  family: 'panels',
  subject: 'enclosure',
  title: 'A split-bus panel keeps to six mains, none of them added',
  fault: 'Split bus with more than six mains, or breakers added above',
  consequence:
    'With the lower main off the upper half is still live, and it takes many hands to shut off.',
  cites: [{ section: '230.71' }, { section: '408.36' }],
  checks: {
    'too-many-mains': { danger: 2, says: '{hands} mains in the upper section' },
    'new-split-bus': {
      danger: 2,
      says: 'A split bus put in {year}: no more than an old one may remain',
    },
    'mains-added': { danger: 2, says: 'Breakers were added in the upper section' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['replace-panel', 'fewer-mains'],
  traps: [
    'One of the upper mains feeds the lower bus: with it off the upper half is live',
    'Made until the early 1980s; by itself it is allowed to remain',
  ],
  judge(enclosure, c) {
    if (c.ask(enclosure.facts.type) === 'meter') return c.na('Utility meter enclosure')
    const kind = c.ask(enclosure.facts.mainKind)
    const bus = kind === 'split bus' ? undefined : c.ask(enclosure.facts.bus)
    if (kind !== 'split bus' && bus !== 'split bus') {
      if (kind === 'main breaker' || kind === 'fused main') return c.na('One main')
      return kind === undefined || bus === undefined
        ? c.undecided('What the supply lands on has not been seen')
        : c.na('No split bus')
    }
    const throws = throwsOf(c.site, enclosure)
    c.rest(throws.rests)
    const hands = throws.value
    if (throws.least > 6) c.fails('too-many-mains', { hands: throws.least })
    const trail = new Trail()
    const isRecorded = c.site.children(enclosure, 'breaker').some(b => isAddedAbove(b, trail))
    c.rest(trail.rests)
    const added = isRecorded || c.ask(enclosure.facts.hasAddedUpper)
    if (added) c.fails('mains-added')
    const years = c.site.yearsOf(enclosure)
    c.rest(years.rests)
    if (years.from >= ONE_MAIN_SINCE) c.fails('new-split-bus', { year: years.from })
    if (hands === undefined || added === undefined)
      return c.undecided('The upper section has not been looked through')
    return c.mayStay(
      say('{hands} mains; allowed to remain', { hands }),
      say(
        'Split bus: with the lower main off the upper half stays live; a replacement has one main',
      ),
    )
  },
})
