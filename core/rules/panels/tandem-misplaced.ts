import { defineRule } from '../../engine/rule'
import { whereSeen } from '../../model/house'

export const tandemMisplaced = defineRule({
  id: 'tandem-misplaced',
  family: 'panels',
  subject: 'breaker',
  title: 'Twin breakers stand only where the panel is made for them',
  fault: 'Twin breaker where the label allows none',
  consequence: 'The breaker may sit loose on a stab not made for it.',
  cites: [{ section: '408.54' }, { section: '110.3(B)' }],
  checks: {
    'no-twins-allowed': { danger: 2, says: 'The label allows no twins' },
    'space-not-marked': { danger: 2, says: 'A twin in a space not marked for one' },
  },
  triggers: ['replaced'],
  remedies: ['untwin'],
  traps: [
    'That it can be pushed in proves nothing: read the label',
    'Some panels take twins in a few marked spaces',
  ],
  judge(breaker, c) {
    const { device } = breaker.facts
    const kind = whereSeen(device) && c.ask(device)
    if (kind !== undefined && kind !== 'breaker') return c.na('A fuse')
    const half = c.ask(breaker.facts.half)
    if (half === undefined) {
      // The half is part of where a breaker is; one without it takes the whole space.
      return c.ask(breaker.facts.space) === undefined
        ? c.undecided()
        : c.na('Takes the whole space')
    }
    const panel = c.site.get(breaker.parent ?? undefined, 'enclosure')
    const allowed = panel && c.ask(panel.facts.tandems)
    if (allowed === undefined) return c.undecided('The panel label has not been read')
    if (allowed === 'all spaces') return c.clear('The label allows twins in every space')
    if (allowed === 'none') return c.fault('no-twins-allowed')
    const isMarked = c.ask(breaker.facts.isTwinSpace)
    if (isMarked === undefined)
      return c.undecided('Only marked spaces take twins, and this one has not been read')
    return isMarked ? c.clear('A space marked for twins') : c.fault('space-not-marked')
  },
})
