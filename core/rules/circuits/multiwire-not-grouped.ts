import { absent, type Subject } from '../../model/house'
import { ALWAYS } from '../../tables/years'
import { defineRule } from '../../engine/rule'
import type { Verdict } from '../../engine/verdict'
import type { Context } from '../../engine/context'
import { Gathered, multiwireOf } from '../../derive/multiwire'

const CABLES = new Set([
  'NM-B',
  'NM',
  'cloth NM',
  'UF',
  'armored cable',
  'old spiral armor',
  'MC',
  'SE',
])

export const multiwireNotGrouped = defineRule({
  id: 'multiwire-not-grouped',
  family: 'circuits',
  subject: 'circuit',
  title: 'The hots of a multiwire circuit and their neutral are grouped in the panel',
  fault: 'Multiwire conductors not grouped',
  consequence: 'Someone can switch off one half and take the other for dead.',
  cites: [{ section: '210.4(D)' }, { section: '300.3(B)' }],
  checks: {
    'lie-apart': { danger: 1, says: 'The conductors of one multiwire circuit lie apart' },
    'separate-cables': {
      danger: 2,
      says: 'Circuits that share a neutral come in separate cables: its current returns another way',
    },
  },
  since: 2008,
  triggers: ['replaced', 'new'],
  remedies: ['group-multiwire', 'own-neutral'],
  traps: [
    'A cable that brings them in together groups them by itself',
    'Before the 2008 edition it was no rule',
  ],
  judge(circuit, c) {
    const multiwire = multiwireOf(circuit, c, 'One breaker and one cable')
    if (!(multiwire instanceof Gathered)) return multiwire
    return byGrouping(circuit, multiwire, c)
  },
})

/** Hots of two breakers: how they come in. */
function byGrouping(circuit: Subject<'circuit'>, multiwire: Gathered, c: Context): Verdict {
  const segments = multiwire.circuits.flatMap(x => c.site.children(x, 'segment'))
  const wirings = segments.map(s => c.ask(s.facts.wiring))
  const grouped = multiwire.circuits.map(x => c.ask(x.facts.isGroupedInPanel))
  const counts = segments.map(s => c.ask(s.facts.conductors))
  const inCable = wirings.map(x => x !== undefined && CABLES.has(x))
  // A cable with two conductors brings one of the circuits in by itself, however it is tied in the panel.
  if (counts.some((n, i) => inCable[i] && n === 2))
    c.fails('separate-cables', {}, { since: ALWAYS })
  if (grouped.includes(true)) return c.clear('Grouped')
  if (grouped.includes(false)) {
    if (segments.length > 0 && inCable.every(Boolean)) {
      if (counts.every(n => n !== undefined && n >= 3))
        return c.clear('One cable brings them in together')
      return c.undecided(
        'One cable with all of them, or a cable each',
        segments.filter((_, i) => counts[i] === undefined).map(s => s.facts.conductors),
      )
    }
    if (segments.length > 0 && !wirings.includes(undefined)) return c.fault('lie-apart')
    const open = segments.filter((_, i) => wirings[i] === undefined).map(s => s.facts.wiring)
    return c.undecided(
      'Not tied together; a cable would group them',
      open.length ? open : [absent(circuit, 'isGroupedInPanel')],
    )
  }
  return c.undecided('Whether they are grouped has not been seen')
}
