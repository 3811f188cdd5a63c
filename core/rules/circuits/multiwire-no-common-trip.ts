import { ALWAYS } from '../../tables/years'
import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'
import { builtIn } from '../../derive/fault-protection'
import type { Verdict } from '../../engine/verdict'
import { Gathered, multiwireOf } from '../../derive/multiwire'

const isProtective = (protection: string | undefined): boolean =>
  protection !== undefined && protection !== 'standard'

/** All hots of a multiwire circuit switch off together, so that nobody meets a live neutral. */
export const multiwireNoCommonTrip = defineRule({
  id: 'multiwire-no-common-trip',
  family: 'circuits',
  subject: 'circuit',
  title: 'All hots of a multiwire circuit disconnect together',
  fault: 'Multiwire circuit without a common disconnect',
  consequence: 'With one breaker off, the shared neutral can still be live.',
  cites: [{ section: '210.4(B)' }, { section: '210.4(C)' }],
  checks: {
    'single-pole-protective': {
      danger: 2,
      says: 'A single-pole {kind} breaker on a shared neutral: it needs the two-pole type',
    },
    'separate-handles': { danger: 3, says: 'Hots on separate handles: {tie}' },
    'tie-not-adjacent': {
      danger: 2,
      says: 'A handle tie between spaces {spaces}: they are not side by side',
    },
    'common-trip-needed': {
      danger: 3,
      says: 'A handle tie is not enough: a 240 V load needs a common trip',
    },
  },
  since: 2008,
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['two-pole-breaker', 'listed-handle-tie'],
  traps: [
    'A listed handle tie is enough only for line-to-neutral loads',
    'Before 2008 only where both hots land on one yoke',
    'A nail or wire through the handles is not a tie',
    'AFCI or GFCI on a shared neutral needs the two-pole type',
  ],
  judge(circuit, c) {
    const multiwire = multiwireOf(circuit, c, 'One breaker disconnects all hots')
    if (!(multiwire instanceof Gathered)) return multiwire
    return byHandles(multiwire, c)
  },
})

/** Hots of two breakers: how their handles go together. */
function byHandles(multiwire: Gathered, c: Context): Verdict {
  const { circuits, breakers } = multiwire
  const single = breakers.find(b => c.ask(b.facts.poles) === 1 && isProtective(builtIn(b, c)))
  if (single)
    c.fails(
      'single-pole-protective',
      {
        kind: builtIn(single, c)!,
      },
      {
        since: ALWAYS,
        working: [
          say(
            'it sees the current of the other hot as missing: it trips without a fault, or its neutral was left off',
          ),
        ],
      },
    )
  const lines = circuits.map(x => c.ask(x.facts.feedsLineToLine))
  const ties = breakers.map(b => c.ask(b.facts.handleTie))
  const bad = ties.find(t => t === 'not tied' || t === 'improvised tie')
  const yokes = circuits.map(x => c.ask(x.facts.isOnOneYoke))
  // Loads from hot to hot needed one hand for both long before the rule for all. 210.4(C), 240.15(B).
  const since = yokes.includes(true) || lines.includes(true) ? ALWAYS : 2008
  if (bad)
    c.fails(
      'separate-handles',
      { tie: bad },
      { since, working: [say('spaces {spaces}', { spaces: spacesOf() })] },
    )
  if (ties.includes(undefined))
    return c.undecided(
      'How the handles are tied has not been seen',
      breakers.filter((_, i) => ties[i] === undefined).map(b => b.facts.handleTie),
    )
  const apart = ties.includes('listed tie') ? areApart(breakers, c) : false
  if (apart) c.fails('tie-not-adjacent', { spaces: spacesOf() }, { since })
  if (ties.every(t => t === 'common trip')) return c.clear('Common-trip breakers')
  if (lines.includes(true)) c.fails('common-trip-needed', {}, { since })
  if (lines.includes(undefined))
    return c.undecided(
      'A handle tie is enough only where nothing runs hot to hot',
      circuits.filter((_, i) => lines[i] === undefined).map(x => x.facts.feedsLineToLine),
    )
  if (apart === undefined)
    return c.undecided('Whether the tied breakers stand side by side has not been read')
  return c.clear('Listed handle ties, line-to-neutral loads only')

  function spacesOf() {
    return breakers.map(b => c.ask(b.facts.space) ?? '?').join(' and ')
  }
}

/** A tie reaches from a handle to the next one only. */
function areApart(breakers: readonly Subject<'breaker'>[], c: Context): boolean | undefined {
  const [first] = breakers
  if (new Set(breakers.map(b => b.parent)).size > 1) return true
  const panel = first && c.site.get(first.parent ?? undefined, 'enclosure')
  const numbering = panel && c.ask(panel.facts.numbering)
  const spaces = breakers.flatMap(b => c.ask(b.facts.space) ?? [])
  if (numbering === undefined || spaces.length < breakers.length) return undefined
  const step = numbering === 'odd left, even right' ? 2 : 1
  const [, ...above] = spaces.sort((a, b) => a - b)
  return above.some((s, i) => s - (spaces[i] ?? s) > step)
}
