import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { groundOf, lacksGround } from '../../derive/ground'

export const equipmentNeedsGround = defineRule({
  id: 'equipment-needs-ground',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'What must be grounded is grounded',
  fault: 'Appliance that must be grounded, on an outlet without a ground',
  consequence: 'A fault in the appliance makes its metal live and keeps it so.',
  cites: [{ section: '250.114' }, { section: '110.3(B)' }],
  checks: {
    'no-ground-for-equipment': { danger: 3, says: '{appliance} on an outlet without a ground' },
  },
  triggers: [],
  remedies: ['reconnect-ground', 'run-grounding-conductor', 'use-raceway', 'new-cable'],
  traps: ['Ground-fault protection does not satisfy this'],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')

    const appliance = c.ask(outlet.facts.appliance)
    if (appliance === 'none that needs a ground') return c.na('Nothing there needs a ground')
    if (appliance === 'dryer' || appliance === 'range, oven or cooktop') {
      const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
      if (circuit && c.ask(circuit.facts.frameGround) === 'neutral')
        return c.na('A three-wire dryer or range: judged with its circuit')
    }
    const ground = groundOf(c.site, outlet)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.clear('It has a ground')
    if (type === undefined || appliance === undefined)
      return c.undecided('What it feeds has not been seen')
    if (ground.value === undefined)
      return c.undecided(
        'Whether there is a ground has not been settled',
        lacksGround(ground.rests, outlet),
      )
    return c.fault(
      'no-ground-for-equipment',
      { appliance },
      { working: [say('ground-fault protection does not satisfy this')] },
    )
  },
})
