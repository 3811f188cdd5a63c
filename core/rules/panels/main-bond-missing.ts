import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { neutralBondOf } from '../../derive/bond'

/**
 * At the service disconnect the neutral is bonded to the enclosure and to every ground bar: without
 * it no fault opens a breaker.
 */
export const mainBondMissing = defineRule({
  id: 'main-bond-missing',
  family: 'panels',
  subject: 'enclosure',
  title: 'The service disconnect bonds neutral, enclosure and ground bars together',
  fault: 'Main bonding jumper missing',
  consequence: 'Metal parts can stay live after a fault, and no breaker opens.',
  tags: ['bond'],
  cites: [
    { section: '250.24(B)', until: 2022 },
    { section: '250.24(C)', from: 2023 },
    { section: '250.28' },
  ],
  checks: {
    'no-bond': {
      danger: 4,
      says: 'No bond between neutral and enclosure at the service disconnect',
    },
    'isolated-bar': {
      danger: 4,
      says: 'The {role} bar is tied neither to the neutral nor to the enclosure',
    },
  },
  triggers: ['replaced', 'new'],
  until:
    'Take every metal enclosure and pipe for live: test before touching, until the bond has been seen',
  remedies: ['main-bond', 'jumper-isolated-bar', 'ground-rod-only'],
  traps: [
    'Which enclosure is the service disconnect comes first, settled by its marking',
    'An outdoor disconnect marked as not service equipment leaves the bond in the enclosure after it',
    'A ground or electrode bar that is not tied to the neutral is the same fault',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'service') return c.na('Not the service disconnect')
    const bond = neutralBondOf(c.site, enclosure)
    c.rest(bond.rests)
    if (bond.value === false) {
      return c.fault(
        'no-bond',
        {},
        {
          working: [
            say(
              'a fault to metal has no path back to the neutral: no breaker opens, and the metal stays live',
            ),
          ],
        },
      )
    }
    for (const bar of c.site.children(enclosure, 'bar')) {
      const barRole = c.ask(bar.facts.role)
      // A bar for electrode conductors alone is judged with them: it ties no equipment grounds.
      if (barRole !== 'ground') continue
      const isTied = c.ask(bar.facts.isTiedToNeutral)
      if (isTied === true) continue
      if (c.ask(bar.facts.isBondedToEnclosure) === false && isTied === false) {
        return c.fault(
          'isolated-bar',
          {
            role: barRole,
          },
          {
            working: [
              say(
                'what lands on an isolated bar is connected to nothing: not the grounds, not an ' +
                  'grounding electrode conductor',
              ),
            ],
          },
        )
      }
    }
    const isUnsettled =
      bond.value === undefined ||
      c.site.children(enclosure, 'bar').some(bar => {
        const barRole = c.ask(bar.facts.role)
        if (barRole === 'neutral' || barRole === 'common' || barRole === 'electrode') return false
        return (
          barRole === undefined ||
          (c.ask(bar.facts.isTiedToNeutral) !== true &&
            c.ask(bar.facts.isBondedToEnclosure) !== true)
        )
      })
    if (isUnsettled) return c.undecided('The bond has not been seen')
    return c.clear('Neutral, enclosure and ground bars are bonded')
  },
})
