import { defineRule } from '../../engine/rule'
import { say, type Step } from '../../engine/say'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'

export const directory = defineRule({
  id: 'directory',
  family: 'panels',
  subject: 'enclosure',
  title: 'The directory names every circuit, clearly and truly',
  fault: 'Directory missing, vague or wrong',
  cites: [{ section: '408.4(A)' }],
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['relabel'],
  traps: ['Labels lie: compare with what was traced', 'A spare must be shown as spare'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter' || type === 'disconnect') return c.na(say('No circuits of its own'))
    const state = c.ask(enclosure.facts.directory)
    if (state === 'vague' || state === 'missing')
      return c.fault(say('Directory {state}', { state }), { danger: 1 })
    const found = byEntries(enclosure, c)
    if (found) return c.fault(found, { danger: 2 })
    const wrong = c.ask(enclosure.facts.contradictions)
    if (wrong !== undefined && wrong > 0)
      return c.fault(say('{wrong} entries contradicted by tracing', { wrong }), { danger: 2 })
    if (type === undefined || state === undefined || wrong === undefined)
      return c.undecided(say('Not read, or not compared with what was traced'))
    return c.clear(say('Legible, specific, and agrees with what was traced'))
  },
})

/**
 * What the entries themselves contradict: two breakers with one entry, a spare that feeds
 * something, an entry with nothing behind it.
 */
function byEntries(panel: Subject<'enclosure'>, c: Context): Step | undefined {
  const spaces = new Map<string, string>()
  for (const breaker of c.site.children(panel, 'breaker')) {
    const entry = c.ask(breaker.facts.label)?.trim().toLowerCase()
    const space = `${c.ask(breaker.facts.space) ?? '?'}${c.ask(breaker.facts.half) ?? ''}`
    if (!entry) continue
    const isSpare = SPARE.test(entry)
    if (isSpare && c.site.circuitsOf(breaker).some(x => c.site.pointsOf(x).length > 0))
      return say('Space {space} is entered as spare and feeds outlets', { space })
    if (isSpare) continue
    const other = spaces.get(entry)
    if (other !== undefined)
      return say('Spaces {other} and {space} carry the same entry', { other, space })
    spaces.set(entry, space)
  }
  return undefined
}
const SPARE = /^(spare|unused|empty|blank)\b/
