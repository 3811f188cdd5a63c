import { defineRule } from '../../engine/rule'
import { openOf } from '../../engine/verdict'
import { groundOf, lacksGround } from '../../derive/ground'
import { gfciOf } from '../../derive/fault-protection'

/** A protected receptacle without a ground says so where people can read it. */
export const missingMarking = defineRule({
  id: 'missing-marking',
  family: 'outlets',
  subject: 'outlet',
  title: 'A ground-fault protected receptacle without a ground is marked',
  fault: 'Ungrounded, protected, and not marked',
  consequence: 'People take the outlet for a grounded one.',
  cites: [{ section: '406.4(D)(2)' }],
  checks: {
    'not-marked-no-ground': { danger: 1, says: 'Not marked No Equipment Ground' },
    'not-marked-protected': { danger: 1, says: 'Not marked GFCI Protected' },
  },
  since: 1993,
  triggers: ['replaced'],
  remedies: ['mark-receptacle'],
  traps: [
    'Downstream of the device both markings are needed',
    'The marking must be visible after installation',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')
    const slots = c.ask(outlet.facts.slots)
    if (slots === 'two') return c.na('Two slots promise no ground')
    if (slots === '240 V') return c.na('Not a 125 V receptacle')
    if (type === undefined || slots === undefined) return c.undecided()
    const ground = groundOf(c.site, outlet)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.na('It has a ground')
    const gfci = gfciOf(c.site, outlet)
    c.rest(gfci.rests)
    if (gfci.value === 'none') return c.na('No ground-fault protection to mark')
    if (ground.value === undefined)
      return c.undecided(
        'Whether there is a ground has not been settled',
        lacksGround(ground.rests, outlet),
      )
    if (gfci.value === undefined)
      return c.undecided('Ground-fault protection has not been settled', openOf(gfci.rests))
    const noGround = c.ask(outlet.facts.isMarkedNoGround)
    const isDownstream = gfci.value !== 'own'
    const protectedMark = isDownstream ? c.ask(outlet.facts.isMarkedGfci) : true
    if (noGround === false) c.fails('not-marked-no-ground')
    if (protectedMark === false) c.fails('not-marked-protected')
    if (noGround === undefined || protectedMark === undefined)
      return c.undecided(
        'The marking has not been looked for',
        [
          outlet.facts.isMarkedNoGround,
          ...(isDownstream ? [outlet.facts.isMarkedGfci] : []),
        ].filter(f => f.state !== 'known'),
      )
    return c.clear(isDownstream ? 'Both markings visible' : 'Marked No Equipment Ground')
  },
})
