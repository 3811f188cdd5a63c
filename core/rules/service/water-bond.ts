import { defineRule } from '../../engine/rule'
import { BOND_CHECKS, bondFound, bondTo, isBondedByElectrode } from '../../derive/bonds'

export const waterBond = defineRule({
  id: 'water-bond',
  family: 'service',
  subject: 'premises',
  title: 'Metal water piping is bonded',
  fault: 'Metal water piping not bonded',
  consequence: 'Pipes, taps and tubs can become live and stay so.',
  tags: ['bond'],
  cites: [{ section: '250.104(A)' }],
  checks: {
    ...BOND_CHECKS,
    'no-bond': { danger: 3, says: 'Metal water piping, and no bond found' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['bond-water'],
  traps: [
    'A plastic main with metal pipes inside still needs the bond',
    'The bond is no larger than the table for the grounding electrode conductor asks',
  ],
  judge(premises, c) {
    const piping = c.ask(premises.facts.waterPiping)
    if (piping === 'plastic' || piping === 'none') return c.na('No metal water piping')
    const found = bondFound('water piping', c)
    if (piping === undefined)
      return c.undecided('What the water pipes are made of has not been seen')
    if (found !== 'found' && isBondedByElectrode(c))
      return c.clear('The grounding electrode conductor to the pipe is the bond')
    if (found === undefined) return c.undecided('Nobody has looked for the bond')
    if (found === 'none found') return c.fault('no-bond')
    return bondTo('water piping', c)
  },
})
