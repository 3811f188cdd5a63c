import { BOND_CHECKS, isSettled, noteRun } from '../../derive/bonds'
import type { Context } from '../../engine/context'
import { defineRule } from '../../engine/rule'
import { whereSeen, type Subject } from '../../model/house'

/** Longest bond of communications in a dwelling, ft, and the edition that says so. 800.100(A)(4). */
const COMMUNICATIONS_MOST_FT = 20
const COMMUNICATIONS_SINCE = 2002

/** Bonds of structural steel and of communications; those of piping are judged with the piping. */
export const bondUnsound = defineRule({
  id: 'bond-unsound',
  family: 'service',
  subject: 'bond',
  title: 'Bonds of steel and communications are whole and end at the service',
  fault: 'Bond of steel or communications unsound',
  consequence: 'Metal or equipment can sit at another voltage than everything around it.',
  tags: ['bond'],
  cites: [{ section: '250.104(C)' }, { section: '250.94' }, { section: '800.100' }],
  checks: {
    ...BOND_CHECKS,
    'lands-on-nothing': { danger: 2, says: 'The bond of the communications ends on nothing' },
    'electrode-apart': {
      danger: 3,
      says: 'Communications on an electrode of their own, not joined to that of the service',
    },
    'too-long': { danger: 1, says: 'Bond of {feet} ft; at most {most} ft in a dwelling' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['remake-bond'],
  traps: [
    'An electrode of the communications is joined to that of the service by 6 AWG copper',
    'Steel is bonded where it forms a frame, not each bolt of a fence',
  ],
  judge(bond, c) {
    const what = c.ask(bond.facts.to)
    if (what === undefined) return c.undecided('What it bonds has not been recorded')
    if (what === 'water piping' || what === 'gas piping') return c.na('Judged with the piping')
    const isSeen = what === 'building steel' ? isSettled(bond, what, c) : isLanded(bond, c)
    return isSeen
      ? c.clear('Whole from its clamp to where it lands')
      : c.undecided('The bond has not been followed from its clamp to where it lands')
  },
})

/** Clamp, other end and length of a communications bond; false where clamp or end has not been seen. */
function isLanded(bond: Subject<'bond'>, c: Context): boolean {
  const { facts } = bond
  const connection = c.ask(facts.connection)
  const on = c.ask(facts.landsOn)
  if (connection !== undefined && connection !== 'sound')
    c.fails('connection', { what: 'communications', connection })
  if (on === 'nothing') c.fails('lands-on-nothing')
  // Joined to the others, one of its own is an electrode of the house like any other. 800.100(D).
  const isOwn = on === 'an electrode of its own'
  const together = isOwn ? c.ask(c.site.premises.facts.electrodesTogether) : 'joined'
  if (together === 'one stands apart') c.fails('electrode-apart')
  const feet = whereSeen(facts.lengthFt) && c.ask(facts.lengthFt)
  if (feet !== undefined && feet > COMMUNICATIONS_MOST_FT)
    c.fails(
      'too-long',
      { feet, most: COMMUNICATIONS_MOST_FT },
      { since: COMMUNICATIONS_SINCE, isSinceOpen: true },
    )
  noteRun(bond, c)
  return connection !== undefined && on !== undefined && together !== undefined
}
