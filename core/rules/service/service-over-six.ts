import { roleOf } from '../../derive/service-role'
import { throwsOf } from '../../derive/throws'
import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'

export const serviceOverSix = defineRule({
  id: 'service-over-six',
  family: 'service',
  subject: 'enclosure',
  title: 'Six hand movements or fewer shut everything off',
  fault: 'More than six service disconnects, or several in one compartment',
  consequence: 'In an emergency it takes too long to shut everything off.',
  cites: [{ section: '230.71' }],
  checks: {
    'too-many-hands': { danger: 2, says: '{hands} hand movements to shut everything off' },
    'mains-share-compartment': { danger: 2, says: '{hands} mains share one compartment' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['fewer-mains'],
  traps: [
    'A main breaker is one hand movement',
    'From the 2020 edition each disconnect of a new service stands in a compartment of its own',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'service') return c.na('Not the service disconnect')
    const kind = c.ask(enclosure.facts.mainKind)
    const throws = throwsOf(c.site, enclosure)
    c.rest(throws.rests)
    const own = throws.value
    const others = besides(enclosure, c)
    const hands = Math.max(1, throws.least) + others.least
    if (hands > 6)
      return c.fault(
        'too-many-hands',
        { hands },
        {
          compare: {
            left: hands,
            leftLabel: 'hand movements',
            sign: '>',
            right: 6,
            rightLabel: 'allowed',
            unit: '',
          },
        },
      )
    if (own === undefined || kind === undefined || others.isOpen)
      return c.undecided('The handles have not all been counted')
    if (own > 1) {
      const apart = c.ask(enclosure.facts.areDisconnectsApart)
      if (apart === undefined)
        return c.undecided('Whether each has a compartment of its own has not been seen')
      if (!apart) {
        const years = c.site.yearsOf(enclosure)
        c.rest(years.rests)
        const work = c.ask(enclosure.facts.work)
        if (years.from < 2020 && work !== 'replaced' && work !== 'new') {
          if (work === undefined || years.to >= 2020)
            return c.undecided(
              say(
                '{hands} mains in one enclosure: right before the 2020 edition, and its year is open',
                { hands: own },
              ),
            )
          return c.clear(
            say('{hands} mains in one enclosure, from before the 2020 edition', { hands: own }),
          )
        }
        return c.fault('mains-share-compartment', { hands: own }, { since: 2020 })
      }
    }
    return c.clear(hands === 1 ? 'One main' : say('{hands} hand movements', { hands }))
  },
})

/** Hands that the other enclosures of the service take: the limit is of the service, wherever they stand. 230.71. */
function besides(enclosure: Subject<'enclosure'>, c: Context): { least: number; isOpen: boolean } {
  let least = 0
  let isOpen = false
  const building = c.site.buildingOf(enclosure)
  for (const other of c.site.all.enclosure) {
    // A building that stands apart has a service of its own.
    if (other === enclosure || c.site.buildingOf(other) !== building) continue
    const role = roleOf(c.site, other)
    c.rest(role.rests)
    if (role.value === undefined) isOpen = true
    if (role.value !== 'service') continue
    const throws = throwsOf(c.site, other)
    c.rest(throws.rests)
    if (throws.value === undefined) isOpen = true
    least += Math.max(1, throws.least)
  }
  return { least, isOpen }
}
