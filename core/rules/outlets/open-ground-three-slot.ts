import { defineRule } from '../../engine/rule'
import { openOf } from '../../engine/verdict'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'
import { GROUND_RUN_SINCE } from '../../tables/years'
import { groundOf, lacksGround } from '../../derive/ground'
import { gfciOf } from '../../derive/fault-protection'

const STAYS_LIVE = {
  working: [
    say(
      'a fault in a three-wire appliance has no path back: its frame stays live until somebody touches it',
    ),
  ],
}
/** A three-slot face promises a ground: there is one, or there is ground-fault protection and a label saying so. */
export const openGroundThreeSlot = defineRule({
  id: 'open-ground-three-slot',
  family: 'outlets',
  subject: 'outlet',
  title:
    'A three-slot receptacle has an equipment ground, or ground-fault protection and its marking',
  fault: 'Three-slot receptacle without a ground',
  consequence: 'The metal of a plugged-in appliance can become live and stay so.',
  cites: [{ section: '406.4(D)(2)' }, { section: '406.4(A)' }],
  checks: {
    'two-slot-with-ground': {
      danger: 1,
      says: 'A ground is in the box, but the receptacle has two slots',
    },
    'circuit-needs-ground': { danger: 2, says: 'A circuit of {year} needs a ground' },
    'new-without-ground': {
      danger: 3,
      says: 'A new outlet without a ground: protection and marking excuse a replacement only',
    },
    'three-slot-unprotected': {
      danger: 3,
      says: 'Three slots, no ground and no ground-fault protection',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: [
    'reconnect-ground',
    'two-slot-device',
    'gfci-here',
    'gfci-first-outlet',
    'gfci-breaker',
    'protect-beside-panel',
    'run-grounding-conductor',
    'use-raceway',
    'new-cable',
    'own-ground-rod',
  ],
  traps: [
    'A missing ground and a loose one read the same on a tester',
    'A jumper to neutral reads as a ground',
    'Conduit or bonded armor may be the ground: prove it',
    'Two slots are right only where the box has no ground and the circuit is older than about 1962',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')
    const slots = c.ask(outlet.facts.slots)
    if (slots === '240 V') return c.na('Not a 125 V receptacle')
    if (type === undefined || slots === undefined) return c.undecided()
    if (slots === 'two') {
      const ground = c.ask(outlet.facts.ground)
      if (ground === 'connected' || ground === 'present, not connected')
        return c.fault('two-slot-with-ground', {}, { lawfulBefore: GROUND_RUN_SINCE })
      const raceway = ground === 'metal raceway or armor' ? groundOf(c.site, outlet) : undefined
      if (raceway) c.rest(raceway.rests)
      if (raceway?.value === 'good')
        return c.fault('two-slot-with-ground', {}, { lawfulBefore: GROUND_RUN_SINCE })
      if (ground !== 'none' && raceway?.value !== 'none')
        return c.undecided(
          'Two slots are right only where the box has no ground: open the box',
          ground === undefined ? undefined : [outlet.facts.groundOhms],
        )
      const years = c.site.yearsOf(outlet)
      c.rest(years.rests)
      if (years.to < GROUND_RUN_SINCE)
        return c.mayStay(
          say('Two slots on a circuit older than 1962: allowed to remain'),
          say(
            'No ground here: nothing that must be grounded belongs on it, and GFCI protection is the upgrade',
          ),
        )
      if (years.from >= GROUND_RUN_SINCE)
        return c.fault('circuit-needs-ground', { year: years.from })
      return c.undecided('Whether the circuit is older than about 1962 is not known')
    }
    const ground = groundOf(c.site, outlet)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.clear('Equipment ground connected and shown to be there')
    const gfci = gfciOf(c.site, outlet)
    c.rest(gfci.rests)
    if (ground.value === 'none' && isNew(outlet, c))
      return c.fault('new-without-ground', {}, { since: GROUND_RUN_SINCE })
    if (ground.value === undefined)
      return c.undecided(
        'Whether there is a ground has not been settled',
        lacksGround(ground.rests, outlet),
      )
    if (gfci.value === undefined)
      return c.undecided(
        'No ground; ground-fault protection has not been settled',
        openOf(gfci.rests),
      )
    if (gfci.value === 'none') {
      return c.fault('three-slot-unprotected', {}, STAYS_LIVE)
    }
    const noGround = c.ask(outlet.facts.isMarkedNoGround)
    const protectedMark = gfci.value === 'own' ? true : c.ask(outlet.facts.isMarkedGfci)
    if (noGround === true && protectedMark === true)
      return c.clear('No ground, ground-fault protected, and marked as such')
    if (noGround === false || protectedMark === false)
      return c.na(
        'No ground, but ground-fault protected: the missing marking is a finding of its own',
      )
    return c.undecided(
      'No ground, but ground-fault protected; the marking has not been looked for',
      [
        ...(noGround === undefined ? [outlet.facts.isMarkedNoGround] : []),
        ...(protectedMark === undefined ? [outlet.facts.isMarkedGfci] : []),
      ],
    )
  },
})

/** Being newly made now, by itself or with its circuit. 406.4(A), (B). */
function isNew(outlet: Subject<'outlet'>, c: Context): boolean {
  if (c.ask(outlet.facts.work) === 'new') return true
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
  return circuit !== undefined && c.ask(circuit.facts.work) === 'new'
}
