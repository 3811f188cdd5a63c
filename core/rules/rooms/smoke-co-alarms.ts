import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const smokeCoAlarms = defineRule({
  id: 'smoke-co-alarms',
  family: 'rooms',
  subject: 'premises',
  isHazard: true,
  title: 'Smoke and carbon monoxide alarms are where they have to be',
  fault: 'Alarms missing',
  consequence: 'Nobody is woken.',
  cites: [{ section: 'building code' }],
  checks: { 'alarms-absent': { danger: 3, says: 'Alarms: {alarms}' } },
  triggers: [],
  remedies: ['fit-alarms'],
  traps: [
    'Their circuit in a listed room needs arc-fault protection like other outlets',
    'Local law decides where',
  ],
  judge(premises, c) {
    const alarms = c.ask(premises.facts.alarms)
    if (alarms === undefined) return c.undecided(say('Nobody has looked for them'))
    return alarms === 'where required'
      ? c.clear(say('Where required'))
      : c.fault('alarms-absent', { alarms })
  },
})
