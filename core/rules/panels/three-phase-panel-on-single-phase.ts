import { defineRule } from '../../engine/rule'

export const threePhasePanel = defineRule({
  id: 'three-phase-panel-on-single-phase',
  family: 'panels',
  subject: 'enclosure',
  title: 'A three-phase enclosure stands on a three-phase supply',
  fault: 'Three-phase enclosure on a single-phase supply',
  consequence: 'Breakers may be dead, or two halves may load one leg and one neutral.',
  cites: [{ section: '110.3(B)' }, { section: '408.3(E)' }],
  checks: {
    'third-bar-dead': { danger: 2, says: 'The third bar is dead: every third space has nothing' },
    'third-bar-jumpered': { danger: 4, says: 'The third bar is jumpered with an improvised part' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['single-phase-panel'],
  traps: [
    'Every third space may be dead, or on the leg of its neighbor',
    'An improvised jumper is a hazard at once; a listed one is part of the panel',
    'Two-pole breakers may then straddle one leg',
  ],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter' || type === 'disconnect') return c.na('No bus of its own')
    const bus = c.ask(enclosure.facts.bus)
    if (bus === undefined) return c.undecided('The bus bars have not been counted')
    if (bus !== 'three phase') return c.na('No three-phase bus')
    const third = c.ask(enclosure.facts.thirdLeg)
    if (third === undefined) return c.undecided('The third bar has not been measured')
    if (third === 'fed by a third phase') return c.na('Fed by three phases')
    if (third === 'not connected') return c.fault('third-bar-dead')
    const isListed = c.ask(enclosure.facts.isJumperListed)
    if (isListed === undefined)
      return c.undecided(
        'The third bar is jumpered; whether the jumper is a listed part has not been read',
      )
    return isListed ? c.clear('The label shows this jumper') : c.fault('third-bar-jumpered')
  },
})
