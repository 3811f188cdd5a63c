import { all, type Truth } from '../../conclusions/truth'
import { feederGroundOf, isGroundAdrift } from '../../derive/feeder-ground'
import { oldFeederOf } from '../../derive/old-feeder'
import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { neutralBondOf } from '../../derive/bond'
import { say } from '../../engine/say'
import { FEEDER_GROUND_SINCE } from '../../tables/years'

const NO_WAY_BACK = [say('no breaker opens, and the metal stays live until somebody touches it')]
const isFalse = (truth: Truth) => truth.state === 'settled' && !truth.value

/** A feeder carries a grounding conductor of its own. */
export const threeWireFeeder = defineRule({
  id: 'three-wire-feeder',
  family: 'conductors',
  subject: 'feeder',
  title: 'A feeder carries an equipment grounding conductor',
  fault: 'Feeder without a grounding conductor',
  consequence: 'A fault in the building it feeds may find no safe way back.',
  tags: ['bond'],
  cites: [
    { section: '215.6' },
    { section: '250.32(B)' },
    { section: '250.142(B)' },
    { section: '408.40' },
  ],
  checks: {
    'no-ground-no-bond': {
      danger: 4,
      says: 'No ground in the feeder, and the neutral is not bonded where it ends: a fault to metal has no way back',
    },
    'no-ground-inside-building': {
      danger: 3,
      says: 'No grounding conductor in a feeder inside the building',
    },
    'ground-adrift': {
      danger: [3, 4],
      says: 'The ground of the feeder lands on nothing: {where}',
    },
    'other-path': { danger: 3, says: 'Three-wire feeder beside another metal path' },
    'behind-ground-fault': { danger: 3, says: 'Three-wire feeder behind ground-fault protection' },
    'new-without-ground': {
      danger: 3,
      says: 'A new feeder needs a grounding conductor since the 2008 edition',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: [
    'land-feeder-ground',
    'new-four-wire-feeder',
    'bond-at-building',
    'nonmetallic-section',
    'leave-three-wire-feeder',
  ],
  traps: [
    'Metal raceway or listed armor is the ground: ask the wiring method first',
    'An old feeder to a detached building is allowed to remain under conditions',
    'Never separate neutral and ground in a panel whose feeder has no ground: with neither there ' +
      'is no fault path at all',
  ],
  judge(feeder, c) {
    const start = c.ask(feeder.facts.from)
    const source =
      c.site.get(start, 'enclosure') ??
      c.site.get(c.site.get(start, 'breaker')?.parent ?? undefined, 'enclosure')
    if (!source) return c.undecided('Nobody has found where it starts', feeder.facts.from)
    const role = roleOf(c.site, source)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value === 'supply')
      return c.na('Service conductors: the neutral is the ground path up to the service disconnect')
    const path = feederGroundOf(c.site, feeder)
    c.rest(path.rests)
    if (path.state === 'open')
      return c.undecided(
        'Whether a grounding conductor runs with it has not been seen',
        path.missing,
      )
    if (path.value !== 'none')
      return c.clear(say('Grounding conductor: {path}', { path: path.value }))
    const target = c.site.enclosuresOn(feeder)[0]
    if (isGroundAdrift(feeder) && c.ask(feeder.facts.egc) === 'wire') {
      // A neutral bonded where it ends is a way back, if the wrong one.
      const bonded = target && neutralBondOf(c.site, target)
      c.rest(bonded?.rests ?? [])
      const where = c.ask(feeder.facts.egcEnds) ?? 'at one end'
      return bonded?.value
        ? c.fault('ground-adrift', { where }, { danger: 3 })
        : c.fault('ground-adrift', { where }, { working: NO_WAY_BACK })
    }
    if (!target) {
      // What it feeds is not recorded: perhaps an enclosure nobody has traced, perhaps one in another building.
      const untraced = c.site.all.enclosure.filter(e => c.ask(e.facts.fedFrom) === undefined)
      return c.undecided(
        'No ground; what it feeds has not been found',
        untraced.length > 0
          ? untraced.map(e => e.facts.fedFrom)
          : [feeder.facts.hasOtherMetallicPath, feeder.facts.year],
      )
    }
    // Without a ground in the feeder the bond at its end is the only way back.
    const bond = neutralBondOf(c.site, target)
    c.rest(bond.rests)
    if (bond.value === false) c.fails('no-ground-no-bond', {}, { working: NO_WAY_BACK })
    const old = oldFeederOf(c.site, target, feeder)
    c.rest(old.isDetached.rests)
    if (isFalse(old.isDetached)) return c.fault('no-ground-inside-building')
    if (old.isDetached.state === 'open') {
      const { missing } = old.isDetached
      return c.faultUnless(
        'no-ground-inside-building',
        {},
        {
          unless: ['it feeds a detached building and is a lawful old three-wire feeder'],
          ask: missing[0]!,
          missing,
        },
      )
    }
    c.rest(old.hasNoOtherPath.rests)
    c.rest(old.hasNoGroundFault.rests)
    c.rest(old.isOld.rests)
    if (isFalse(old.hasNoOtherPath)) c.fails('other-path')
    if (isFalse(old.hasNoGroundFault)) c.fails('behind-ground-fault')
    if (isFalse(old.isOld)) c.fails('new-without-ground', {}, { since: FEEDER_GROUND_SINCE })
    if (bond.value === undefined)
      return c.undecided(
        'No ground; allowed only with the neutral bonded where it ends, and that has not been seen',
      )
    if (old.holds.state === 'open') {
      // With everything else in order, only the year is left.
      if (all(old.hasNoOtherPath, old.hasNoGroundFault).state === 'settled')
        return c.fault('new-without-ground', {}, { since: FEEDER_GROUND_SINCE })
      return c.undecided(
        'No ground; whether it is allowed to remain depends on what has not been seen',
      )
    }
    return c.mayStay(
      say(
        'An old three-wire feeder to a detached building: allowed to remain, with bond and electrode there',
      ),
      say('No grounding conductor runs with it: a new or replaced feeder carries one'),
    )
  },
})
