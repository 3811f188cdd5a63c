import { Question, type Site } from '../../derive/site'
import { Trail, type Walked } from '../../derive/trail'
import { defineRule } from '../../engine/rule'
import type { Slots } from '../../engine/say'
import type { Subject } from '../../model/house'

export const directory = defineRule({
  id: 'directory',
  family: 'panels',
  subject: 'enclosure',
  title: 'The directory names every circuit, clearly and truly',
  fault: 'Directory missing, vague or wrong',
  consequence: 'In an emergency the wrong breaker is switched off.',
  cites: [{ section: '408.4(A)' }],
  checks: {
    'directory-state': { danger: 1, says: 'Directory {state}' },
    'spare-feeds-outlets': {
      danger: 2,
      says: 'Space {space} is entered as spare and feeds outlets',
    },
    'same-entry': { danger: 2, says: 'Spaces {other} and {space} carry the same entry' },
    'directory-contradicted': { danger: 2, says: '{wrong} entries contradicted by tracing' },
  },
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['relabel'],
  traps: ['Labels lie: compare with what was traced', 'A spare must be shown as spare'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter' || type === 'disconnect') return c.na('No circuits of its own')
    const state = c.ask(enclosure.facts.directory)
    if (state === 'vague' || state === 'missing') c.fails('directory-state', { state })
    const entries = entriesOf(c.site, enclosure)
    c.rest(entries.rests)
    const found = entries.value
    if (found) c.fails(found.id, found.data)
    const wrong = c.ask(enclosure.facts.contradictions)
    if (wrong !== undefined && wrong > 0) c.fails('directory-contradicted', { wrong })
    if (type === undefined || state === undefined || wrong === undefined)
      return c.undecided('Not read, or not compared with what was traced')
    return c.clear('Legible, specific, and agrees with what was traced')
  },
})

interface Contradiction {
  readonly id: string
  readonly data: Slots
}
const ENTRIES = new Question<Walked<Contradiction>>()
/**
 * What the entries themselves contradict: two breakers with one entry, a spare that feeds
 * something, an entry with nothing behind it.
 */
function entriesOf(site: Site, panel: Subject<'enclosure'>): Walked<Contradiction> {
  const answers = site.kept(ENTRIES)
  let walked = answers.get(panel.id)
  if (!walked) {
    const trail = new Trail()
    const value = compared(site, panel, trail)
    answers.set(panel.id, (walked = trail.found(value)))
  }
  return walked
}

function compared(
  site: Site,
  panel: Subject<'enclosure'>,
  trail: Trail,
): Contradiction | undefined {
  const spaces = new Map<string, string>()
  for (const breaker of site.children(panel, 'breaker')) {
    const entry = trail.ask(breaker.facts.label)?.trim().toLowerCase()
    const space = `${trail.ask(breaker.facts.space) ?? '?'}${trail.ask(breaker.facts.half) ?? ''}`
    if (!entry) continue
    const isSpare = SPARE.test(entry)
    if (isSpare && site.circuitsOf(breaker).some(x => site.outletsOf(x).length > 0))
      return { id: 'spare-feeds-outlets', data: { space } }
    if (isSpare) continue
    const other = spaces.get(entry)
    if (other !== undefined) return { id: 'same-entry', data: { other, space } }
    spaces.set(entry, space)
  }
  return undefined
}
const SPARE = /^(spare|unused|empty|blank)\b/
