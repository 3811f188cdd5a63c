import { defineRule } from '../../engine/rule'
import { BOND_CHECKS, bondFound, bondTo } from '../../derive/bonds'

export const gasBond = defineRule({
  id: 'gas-bond',
  family: 'service',
  subject: 'premises',
  title: 'Metal gas piping that may become live is bonded',
  fault: 'Metal gas piping not bonded',
  consequence: 'Gas pipe can become live and spark.',
  tags: ['bond'],
  cites: [{ section: '250.104(B)' }],
  checks: {
    ...BOND_CHECKS,
    'no-bond': { danger: 3, says: 'Gas piping without a bond and without a grounded appliance' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['bond-piping', 'appliance-ground-for-gas'],
  traps: [
    'Rigid pipe may rely on the grounding conductor of the appliance',
    'Corrugated tubing needs a bond beyond this: a rule of its own',
  ],
  judge(premises, c) {
    const piping = c.ask(premises.facts.gasPiping)
    if (piping === 'none') return c.na('No gas')
    const found = bondFound('gas piping', c)
    const byAppliance = c.ask(premises.facts.doGasAppliancesHaveGround)
    if (piping === undefined) return c.undecided('Nobody has looked for gas piping')
    if (found === 'found') return bondTo('gas piping', c)
    if (byAppliance)
      return found === undefined
        ? c.undecided('The appliance grounds it; whether there is also a bond has not been seen')
        : c.clear('Bonded by the grounding conductor of the appliance')
    if (found === undefined || byAppliance === undefined)
      return c.undecided('Neither bond nor grounded appliance has been settled')
    return c.fault('no-bond')
  },
})
