import { groundOf, lacksGround } from '../../derive/ground'
import { defineRule } from '../../engine/rule'
import { GROUND_RUN_SINCE } from '../../tables/years'

/** Receptacles have rules of their own; what feeds a device or an appliance by wire is judged here. */
const KINDS = new Set(['switch', 'luminaire', 'junction box', 'hard-wired outlet'])

/** Exposed metal of boxes, plates, luminaires and hard-wired equipment has a ground. */
export const metalUngrounded = defineRule({
  id: 'metal-ungrounded',
  family: 'outlets',
  subject: 'outlet',
  title: 'Metal boxes, plates, luminaires and hard-wired equipment are grounded',
  fault: 'Exposed metal without a ground',
  consequence: 'A loose hot conductor makes the metal live and keeps it so.',
  cites: [
    { section: '250.110' },
    { section: '250.148' },
    { section: '404.9' },
    { section: '410.44' },
  ],
  checks: {
    'ground-left-off': { danger: 2, says: 'A ground is in the box and is not connected' },
    'no-ground': { danger: 2, says: 'Metal that can be touched, and no ground to it' },
  },
  triggers: ['extended', 'new'],
  remedies: ['reconnect-ground', 'run-grounding-conductor', 'new-cable'],
  traps: [
    'Plastic boxes, plates and fixtures have nothing to ground',
    'Grounds were run with new circuits from about 1962',
    'A switch replaced where the box has no ground may get a plastic plate, or protection ahead',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && !KINDS.has(type))
      return c.na('Receptacles and alarms are judged by other rules')
    const ground = c.ask(outlet.facts.ground)
    // A ground that is there and left off is a defect whatever the box is made of.
    if (type !== undefined && ground === 'present, not connected') return c.fault('ground-left-off')
    const isMetal = c.ask(outlet.facts.hasMetalParts)
    if (type !== undefined && isMetal === false) return c.clear('Nothing of metal to ground')
    if (type === undefined || isMetal === undefined || ground === undefined)
      return c.undecided('Whether there is metal to touch, and a ground to it, has not been seen')
    if (ground === 'connected') return c.clear('Grounded')
    if (ground === 'none') return c.fault('no-ground', {}, { lawfulBefore: GROUND_RUN_SINCE })
    const path = groundOf(c.site, outlet)
    c.rest(path.rests)
    if (path.value === 'good') return c.clear('Grounded by its raceway')
    if (path.value === 'none') return c.fault('no-ground', {}, { lawfulBefore: GROUND_RUN_SINCE })
    return c.undecided(
      'Whether its raceway is a ground has not been proved',
      lacksGround(path.rests, outlet),
    )
  },
})
