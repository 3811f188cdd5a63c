import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

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
      return c.undecided(say('Which enclosure is the service disconnect is not settled'))
    if (role.value !== 'service') return c.na(say('Not the service disconnect'))
    const kind = c.ask(enclosure.facts.mainKind)
    if (kind === 'main breaker' || kind === 'fused main') return c.clear(say('One main'))
    const hands = c.ask(enclosure.facts.upperMains)
    if (hands !== undefined && hands > 6)
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
    if (hands === undefined || kind === undefined)
      return c.undecided(say('The handles have not been counted'))
    if (hands > 1) {
      const apart = c.ask(enclosure.facts.areDisconnectsApart)
      if (apart === undefined)
        return c.undecided(say('Whether each has a compartment of its own has not been seen'))
      if (!apart) {
        const years = c.site.yearsOf(enclosure)
        c.rest(years.rests)
        const work = c.ask(enclosure.facts.work)
        if (years.from < 2020 && work !== 'replaced' && work !== 'new') {
          if (work === undefined || years.to >= 2020)
            return c.undecided(
              say(
                '{hands} mains in one enclosure: right before the 2020 edition, and its year is open',
                { hands },
              ),
            )
          return c.clear(
            say('{hands} mains in one enclosure, from before the 2020 edition', { hands }),
          )
        }
        return c.fault('mains-share-compartment', { hands }, { since: 2020 })
      }
    }
    return c.clear(say('{hands} hand movements', { hands }))
  },
})
