import { defineRule } from '../../engine/rule'
import { whereSeen } from '../../model/house'
import { BOND_CHECKS, bondFound, bondTo } from '../../derive/bonds'

/** Longest bond of corrugated tubing, ft. Fuel-gas code. */
const MOST_FT = 75

export const csstBond = defineRule({
  id: 'csst-bond',
  family: 'service',
  subject: 'premises',
  title: 'Corrugated gas tubing is bonded with 6 AWG copper or larger',
  fault: 'Corrugated gas tubing not bonded',
  consequence: 'Lightning can pierce the thin tubing and light the gas.',
  tags: ['bond'],
  cites: [{ section: 'fuel-gas code' }, { section: '250.104(B)' }],
  checks: {
    ...BOND_CHECKS,
    'no-bond': { danger: 3, says: 'Corrugated gas tubing without a bond: lightning can pierce it' },
    'too-long': { danger: 2, says: 'Bond of {feet} ft; at most {most} ft from tubing to service' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['bond-piping'],
  traps: [
    'The clamp goes on rigid pipe or a fitting, never on the tubing',
    'Arc-resistant jacketed tubing needs only the appliance ground: read the jacket',
  ],
  judge(premises, c) {
    const piping = c.ask(premises.facts.gasPiping)
    if (piping === undefined) return c.undecided('Nobody has looked for gas piping')
    if (piping !== 'corrugated tubing') return c.na('No plain corrugated tubing')
    const found = bondFound('gas piping', c)
    if (found === undefined) return c.undecided('Nobody has looked for the bond')
    if (found === 'none found') return c.fault('no-bond')
    for (const { facts } of c.site.all.bond) {
      const feet = whereSeen(facts.lengthFt) && c.ask(facts.lengthFt)
      if (feet !== undefined && feet > MOST_FT && c.ask(facts.to) === 'gas piping')
        c.fails('too-long', { feet, most: MOST_FT })
    }
    return bondTo('gas piping', c, { copper: '6', aluminum: '4' })
  },
})
