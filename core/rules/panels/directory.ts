import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const directory = defineRule({
  id: 'directory', family: 'panels', subject: 'enclosure',
  title: 'The directory names every circuit, clearly and truly', fault: 'Directory missing, vague or wrong',
  cites: [{ section: '408.4(A)' }], triggers: ['replaced', 'extended', 'new'], remedies: ['relabel'],
  traps: ['Labels lie: compare with what was traced', 'A spare must be shown as spare'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter' || type === 'disconnect') return c.na(say('No circuits of its own'))
    const state = c.ask(enclosure.facts.directory)
    if (state === 'vague' || state === 'missing') return c.fault(say('Directory {state}', { state }), { danger: 1 })
    const wrong = c.ask(enclosure.facts.contradictions)
    if (wrong !== undefined && wrong > 0) return c.fault(say('{wrong} entries contradicted by tracing', { wrong }), { danger: 2 })
    if (type === undefined || state === undefined || wrong === undefined) return c.undecided(say('Not read, or not compared with what was traced'))
    return c.clear(say('Legible, specific, and agrees with what was traced'))
  },
})
