import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { GROUND_RUN_SINCE } from '../../tables/years'
import { gfciOf, groundOf, openGround } from '../../derive/ground'

/** A three-slot face promises a ground: there is one, or there is ground-fault protection and a label saying so. */
export const openGroundThreeSlot = defineRule({
  id: 'open-ground-three-slot',
  family: 'points',
  subject: 'point',
  title:
    'A three-slot receptacle has an equipment ground, or ground-fault protection and its marking',
  fault: 'Three-slot receptacle without a ground',
  cites: [{ section: '406.4(D)(2)' }, { section: '406.4(A)' }],
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
    'Conduit or bonded armour may be the ground: prove it',
    'Two slots are right only where the box has no ground and the circuit is older than about 1962',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))
    const slots = c.ask(point.facts.slots)
    if (slots === '240 V') return c.na(say('Not a 125 V receptacle'))
    if (type === undefined || slots === undefined) return c.undecided()
    if (slots === 'two') {
      const ground = c.ask(point.facts.ground)
      if (ground === 'connected' || ground === 'present, not connected')
        return c.fault(say('A ground is in the box, but the receptacle has two slots'), {
          danger: 1,
        })
      if (ground !== 'none')
        return c.undecided(
          say('Two slots are right only where the box has no ground: open the box'),
          [],
          ground === undefined ? undefined : [point.facts.groundOhms],
        )
      const years = c.site.yearsOf(point)
      c.rest(years.rests)
      if (years.to < GROUND_RUN_SINCE)
        return c.mayStay(
          say('Two slots on a circuit older than 1962: allowed to stay'),
          say(
            'No ground here: nothing that must be grounded belongs on it, and GFCI protection is the upgrade',
          ),
        )
      if (years.from >= GROUND_RUN_SINCE)
        return c.fault(say('A circuit of {year} needs a ground', { year: years.from }), {
          danger: 2,
        })
      return c.undecided(say('Whether the circuit is older than about 1962 is not known'))
    }
    const ground = groundOf(c.site, point)
    c.rest(ground.rests)
    if (ground.value === 'good') {
      const ohms = c.ask(point.facts.groundOhms)
      return c.clear(
        ohms !== undefined && ohms > 1
          ? say(
              'There is a ground; its path of {ohms} Ω is worth finding, ordinary is 1 Ω or less',
              { ohms },
            )
          : say('Equipment ground connected and shown to be there'),
      )
    }
    const gfci = gfciOf(c.site, point)
    c.rest(gfci.rests)
    if (ground.value === undefined)
      return c.undecided(
        say('Whether there is a ground has not been settled'),
        [],
        openGround(ground.rests, point),
      )
    if (gfci.value === undefined)
      return c.undecided(
        say('No ground; ground-fault protection has not been settled'),
        [],
        gfci.rests.filter(f => f.state !== 'known'),
      )
    if (gfci.value === 'none') {
      return c.fault(say('Three slots, no ground and no ground-fault protection'), {
        danger: 3,
        working: [
          say(
            'a fault in a three-wire appliance has no path back: its frame stays live until somebody touches it',
          ),
        ],
      })
    }
    const noGround = c.ask(point.facts.isMarkedNoGround)
    const protectedMark = gfci.value === 'own' ? true : c.ask(point.facts.isMarkedGfci)
    if (noGround === true && protectedMark === true)
      return c.clear(say('No ground, ground-fault protected, and marked as such'))
    if (noGround === false || protectedMark === false)
      return c.na(
        say('No ground, but ground-fault protected: the missing marking is a finding of its own'),
      )
    return c.undecided(
      say('No ground, but ground-fault protected; the marking has not been looked for'),
      [],
      [
        ...(noGround === undefined ? [point.facts.isMarkedNoGround] : []),
        ...(protectedMark === undefined ? [point.facts.isMarkedGfci] : []),
      ],
    )
  },
})
