import { isOpen } from '../../engine/verdict'
import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { FEEDER_GROUND_SINCE } from '../../tables/years'
import { neutralBondOf, sharesBar } from '../../derive/bond'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'

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
      return c.undecided(say('Which enclosure is the service disconnect is not settled'))
    if (role.value !== 'load')
      return c.na(
        role.value === 'service'
          ? say('The service disconnect itself')
          : say('On the supply side of the service disconnect'),
      )
    if (
      c.ask(enclosure.facts.type) === 'disconnect' &&
      c.ask(enclosure.facts.bondMeans) === 'none' &&
      c.site.children(enclosure, 'bar').length === 0
    ) {
      return c.clear(say('A disconnect without a neutral bond'))
    }
    const bond = neutralBondOf(c.site, enclosure)
    const mixed = sharesBar(c.site, enclosure)
    c.rest(bond.rests)
    c.rest(mixed.rests)
    if (bond.value === true || mixed.value === true) {
      const asked = c.asked.length
      const exception = oldThreeWireFeeder(enclosure, c)
      if (exception === true)
        return c.clear(
          say(
            'Detached building on a lawful old three-wire feeder: the bond belongs here, with its electrode',
          ),
        )
      if (exception === undefined) {
        const missing = c.asked.slice(asked).filter(isOpen)
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
      return c.undecided(say('Whether neutral and ground are apart has not been seen'))
    const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
    if (feeder && c.ask(feeder.facts.egc) === 'none')
      return c.na(say('Apart, on a feeder without a ground: judged with the feeder'))
    return c.clear(say('Neutral isolated; grounds on a bar of their own'))
  },
})

/**
 * 250.32(B): existing feeder before the 2008 edition, no ground run with it, no other metal path,
 * no ground-fault protection ahead.
 */
function oldThreeWireFeeder(enclosure: Subject<'enclosure'>, c: Context): boolean | undefined {
  const building = c.site.buildingOf(enclosure)
  if (!building) return false
  const isDetached = c.ask(building.facts.isDetached)
  if (isDetached === false) return false
  const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
  if (!feeder) return isDetached === undefined ? undefined : false
  const egc = c.ask(feeder.facts.egc)
  if (egc === 'wire' || egc === 'metal raceway or armor') return false
  const otherPath = c.ask(feeder.facts.hasOtherMetallicPath)
  if (otherPath === true) return false
  const groundFault = c.ask(feeder.facts.hasGroundFaultProtectionAhead)
  if (groundFault === true) return false
  const years = c.site.yearsOf(feeder)
  c.rest(years.rests)
  if (years.from >= FEEDER_GROUND_SINCE) return false
  const isOld = years.to < FEEDER_GROUND_SINCE
  return isDetached === true &&
    egc === 'none' &&
    otherPath === false &&
    groundFault === false &&
    isOld
    ? true
    : undefined
}
