import { feederGroundOf } from '../../derive/feeder-ground'
import { oldFeederOf } from '../../derive/old-feeder'
import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { neutralBondOf, sharesBar } from '../../derive/bond'

/**
 * After the service disconnect the neutral touches no metal again: a second bond puts neutral
 * current on grounds, pipes and enclosures.
 */
const DIVIDES = [
  say('neutral current divides between the neutral and every grounding path, by conductance'),
]

export const neutralBondedDownstream = defineRule({
  id: 'neutral-bonded-downstream',
  family: 'panels',
  subject: 'enclosure',
  title: 'After the service disconnect neutral and ground stay apart',
  fault: 'Neutral bonded again after the service disconnect',
  consequence: 'Current runs on grounds, pipes and enclosures, where people can meet it.',
  tags: ['bond'],
  cites: [
    { section: '250.24(A)(5)', until: 2022 },
    { section: '250.24(B)', from: 2023 },
    { section: '250.142(B)' },
    { section: '408.40' },
  ],
  checks: {
    'neutral-bonded': {
      danger: 3,
      says: 'Neutral is bonded to the enclosure on the load side of the service disconnect',
    },
    'bar-shared': {
      danger: 3,
      says: 'Neutrals and grounds share a bar on the load side of the service disconnect',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['separate-neutral', 'new-four-wire-feeder', 'leave-three-wire-feeder'],
  traps: [
    'Where the service disconnect is outside, the indoor "main panel" is a sub-panel',
    'A detached building on an old lawful three-wire feeder keeps its bond',
    'Where the feeder has no ground, separating leaves no fault path at all',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'load')
      return c.na(
        role.value === 'service'
          ? 'The service disconnect itself'
          : 'On the supply side of the service disconnect',
      )
    // A disconnect without bars has nothing to mix on, unless somebody saw them share one.
    if (
      c.ask(enclosure.facts.type) === 'disconnect' &&
      c.ask(enclosure.facts.bondMeans) === 'none' &&
      c.ask(enclosure.facts.landings) !== 'on a common bar' &&
      c.site.children(enclosure, 'bar').length === 0
    ) {
      return c.clear('A disconnect without a neutral bond')
    }
    const bond = neutralBondOf(c.site, enclosure)
    const mixed = sharesBar(c.site, enclosure)
    c.rest(bond.rests)
    c.rest(mixed.rests)
    if (bond.value === true || mixed.value === true) {
      const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
      const { holds } = oldFeederOf(c.site, enclosure, feeder)
      c.rest(holds.rests)
      if (holds.state === 'settled' && holds.value)
        return c.clear(
          'Detached building on a lawful old three-wire feeder: the bond belongs here, with its electrode',
        )
      if (holds.state === 'open') {
        const { missing } = holds
        return c.faultUnless(
          bond.value === true ? 'neutral-bonded' : 'bar-shared',
          {},
          {
            working: DIVIDES,
            unless: ['it is a detached building on a lawful old three-wire feeder'],
            ask: missing[0]!,
            missing,
          },
        )
      }
      if (bond.value === true) c.fails('neutral-bonded', {}, { working: DIVIDES })
      if (mixed.value === true) c.fails('bar-shared', {}, { working: DIVIDES })
    }
    if (bond.value === undefined || mixed.value === undefined)
      return c.undecided('Whether neutral and ground are apart has not been seen')
    const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
    const path = feeder && feederGroundOf(c.site, feeder)
    c.rest(path?.rests ?? [])
    if (path?.state === 'open')
      return c.undecided(
        'Apart; whether the feeder brings a ground for them has not been seen',
        path.missing,
      )
    if (path?.value === 'none')
      return c.na('Apart, on a feeder without a ground: judged with the feeder')
    return c.clear('Neutral isolated; grounds on a bar of their own')
  },
})
