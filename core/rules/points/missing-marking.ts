import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { gfciOf, groundOf, openGround } from '../../derive/ground'

/** A protected receptacle without a ground says so where people can read it. */
export const missingMarking = defineRule({
  id: 'missing-marking',
  family: 'points',
  subject: 'point',
  title: 'A ground-fault protected receptacle without a ground is marked',
  fault: 'Ungrounded, protected, and not marked',
  cites: [{ section: '406.4(D)(2)' }],
  since: 1993,
  triggers: ['replaced'],
  remedies: ['mark-receptacle'],
  traps: [
    'Downstream of the device both markings are needed',
    'The marking must be visible after installation',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na(say('Not a receptacle'))
    const slots = c.ask(point.facts.slots)
    if (slots === 'two') return c.na(say('Two slots promise no ground'))
    if (slots === '240 V') return c.na(say('Not a 125 V receptacle'))
    if (type === undefined || slots === undefined) return c.undecided()
    const ground = groundOf(c.site, point)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.na(say('It has a ground'))
    const gfci = gfciOf(c.site, point)
    c.rest(gfci.rests)
    if (gfci.value === 'none') return c.na(say('No ground-fault protection to mark'))
    if (ground.value === undefined)
      return c.undecided(
        say('Whether there is a ground has not been settled'),
        [],
        openGround(ground.rests, point),
      )
    if (gfci.value === undefined)
      return c.undecided(
        say('Ground-fault protection has not been settled'),
        [],
        gfci.rests.filter(f => f.state !== 'known'),
      )
    const noGround = c.ask(point.facts.isMarkedNoGround)
    const isDownstream = gfci.value !== 'own'
    const protectedMark = isDownstream ? c.ask(point.facts.isMarkedGfci) : true
    if (noGround === false || protectedMark === false) {
      return c.fault(
        noGround === false
          ? say('Not marked No Equipment Ground')
          : say('Not marked GFCI Protected'),
        { danger: 1 },
      )
    }
    if (noGround === undefined || protectedMark === undefined)
      return c.undecided(
        say('The marking has not been looked for'),
        [],
        [point.facts.isMarkedNoGround, ...(isDownstream ? [point.facts.isMarkedGfci] : [])].filter(
          f => f.state !== 'known',
        ),
      )
    return c.clear(isDownstream ? say('Both markings visible') : say('Marked No Equipment Ground'))
  },
})
