import { roleOf } from '../../derive/service-role'
import { serviceRating } from '../../derive/service-rating'
import { serviceLoadOf } from '../../derive/service-load'
import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'

/** The calculated load of the dwelling is no more than its service. 220.83, 230.42. */
export const serviceLoad = defineRule({
  id: 'service-load',
  family: 'service',
  subject: 'enclosure',
  title: 'The service is large enough for the calculated load of the dwelling',
  fault: 'Service too small for the calculated load',
  consequence: 'The main runs hot and trips, and there is no room for anything more.',
  cites: [{ section: '220.83' }, { section: '230.42' }],
  checks: {
    'load-over-service': {
      danger: 2,
      says: 'The dwelling calculates to {amps} A and the service is {main} A',
    },
  },
  triggers: ['extended', 'replaced', 'new'],
  remedies: ['larger-service', 'fewer-loads'],
  traps: [
    'The first 8 kVA count in full, the rest at 40 %',
    'Heating and cooling are not on together: the larger counts',
    'A load that a listed controller holds off does not count (750.30)',
    'From the 2023 edition a vehicle charger counts for 7200 VA at least',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value !== undefined && role.value !== 'service')
      return c.na('Not the service disconnect')
    // The load is that of the dwelling: where several disconnects share it, they are compared together.
    const shared = sharedMain(enclosure, c)
    const main = shared.amps
    const { loads, isWhole, rests } = serviceLoadOf(c.site)
    c.rest(rests)
    const sorted = [...loads].sort((a, b) => a.amps - b.amps)
    const [low, high] = [sorted.at(0), sorted.at(-1)]
    if (!low || !high)
      return c.undecided(
        'The floor area is not known: no load can be calculated',
        c.site.premises.facts.floorAreaFt2,
      )
    const { amps } = main !== undefined && low.amps > main ? low : high
    const working = [
      ...high.load.lines.map(l => say('{what}: {va} VA', { what: l.what, va: l.va })),
      say('together {va} VA, {amps} A', { va: high.load.totalVa, amps }),
    ]
    if (role.value === undefined || main === undefined || shared.isOpen)
      return c.undecided(
        'Which enclosure is the service, or its rating, is not known',
        undefined,
        working,
      )
    const compare = {
      left: amps,
      leftLabel: 'load',
      sign: amps > main ? '>' : amps < main ? '<' : '=',
      right: main,
      rightLabel: 'service',
      unit: 'A',
    } as const
    if (low.amps > main) return c.fault('load-over-service', { amps, main }, { working, compare })
    if (high.amps > main)
      return c.undecided(
        say('{low} A at 240 V and {high} A at 208 V: which supply it is nobody has measured', {
          low: low.amps,
          high: high.amps,
        }),
        c.site.premises.facts.supply,
        working,
      )
    return isWhole
      ? c.clear(
          say('{amps} A calculated for a service of {main} A', { amps, main }),
          working,
          compare,
        )
      : c.undecided(
          say('{amps} A so far; not every appliance of the house has been recorded', { amps }),
          undefined,
          working,
        )
  },
})

/** The mains of all service disconnects together; open while one is unread, or may be one or not. 230.71. */
function sharedMain(
  enclosure: Subject<'enclosure'>,
  c: Context,
): { amps: number | undefined; isOpen: boolean } {
  let amps = serviceRating(c.site, enclosure, c)
  let isOpen = false
  for (const other of c.site.all.enclosure) {
    if (other === enclosure) continue
    const role = roleOf(c.site, other)
    c.rest(role.rests)
    if (role.value === undefined) isOpen = true
    if (role.value !== 'service') continue
    const more = serviceRating(c.site, other, c)
    amps = amps === undefined || more === undefined ? undefined : amps + more
  }
  return { amps, isOpen }
}
