import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { whereSeen } from '../../model/house'

export const racewayBonding = defineRule({
  id: 'raceway-bonding',
  family: 'service',
  subject: 'enclosure',
  title: 'Metal service raceway is bonded by bushing, jumper or hub',
  fault: 'Metal service raceway not bonded',
  consequence: 'A fault in the service pipe can leave it live, with nothing to open.',
  tags: ['bond'],
  cites: [{ section: '250.92' }],
  checks: {
    'raceway-bond': { danger: 3, says: 'Metal service raceway on {bond}' },
    'jumper-on-nothing': { danger: 3, says: 'The jumper of the bonding bushing ends on nothing' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['bonding-bushing'],
  traps: [
    'Only on the supply side of the service disconnect; after it ordinary locknuts will do',
    'Plain locknuts do not bond service raceway, least of all at a concentric knockout',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value === 'load') return c.na('After the service disconnect')
    const raceway = c.ask(enclosure.facts.serviceRaceway)
    if (raceway === undefined)
      return c.undecided('What the service conductors run in has not been seen')
    if (raceway !== 'metal raceway') return c.na('No metal service raceway')
    const bond = c.ask(enclosure.facts.racewayBond)
    if (bond === undefined) return c.undecided('Whether it is bonded has not been seen')
    const { supplyJumperLandsOn } = enclosure.facts
    if (
      bond === 'bonding bushing or jumper' &&
      whereSeen(supplyJumperLandsOn) &&
      c.ask(supplyJumperLandsOn) === 'nothing'
    )
      return c.fault('jumper-on-nothing')
    return bond === 'plain locknuts' || bond === 'nothing'
      ? c.fault('raceway-bond', { bond })
      : c.clear(say('Bonded by {bond}', { bond }))
  },
})
