import { whereSeen } from '../../model/house'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { legsOf, type Leg } from '../../derive/legs'
import { neutralGroupOf } from '../../derive/neutrals'
import { Gathered, multiwireOf } from '../../derive/multiwire'
import { tableMetals } from '../../derive/allowed'
import { tableAmpacity } from '../../tables/ampacity'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'
import type { Verdict } from '../../engine/verdict'

/** The hots of a multiwire circuit come from different legs; on one leg the neutral carries their sum. */
export const multiwireSameLeg = defineRule({
  id: 'multiwire-same-leg',
  family: 'circuits',
  subject: 'circuit',
  title: 'Two hots of one circuit come from different legs',
  fault: 'Two hots on the same leg',
  consequence: 'The shared neutral can carry twice what it is made for, and nothing opens.',
  cites: [{ section: '210.4' }, { section: '310.10' }],
  checks: {
    'same-leg': {
      danger: 4,
      says: 'Spaces {where} are on the same leg: the neutral carries the sum',
    },
    'no-line-to-line': {
      danger: 2,
      says: 'No volts between the poles of the breaker in {where}: what it feeds hot to hot gets nothing',
    },
  },
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['move-to-other-leg', 'two-pole-breaker'],
  traps: [
    'Both halves of a twin breaker are on one leg',
    'Three hots on a 120/240 V neutral always share a leg',
    'Legs follow the numbering of the spaces and the bus; a measurement beats both',
    'From two panels, or on the third bar of a three-phase enclosure, only a measurement tells',
  ],
  judge(circuit, c) {
    const dead = betweenPoles(circuit, c)
    if (dead) return dead
    const multiwire = multiwireOf(
      circuit,
      c,
      'One breaker of several poles spans the legs',
      onOneLeg,
    )
    if (!(multiwire instanceof Gathered)) return multiwire
    return byLegs(multiwire, c)
  },
})

/** Hots of two breakers: the legs they stand on. */
function byLegs(multiwire: Gathered, c: Context): Verdict {
  const { circuits, breakers } = multiwire
  const { site } = c
  const byLeg = new Map<Leg, Subject<'breaker'>[]>()
  let isOpen = false
  // Legs of two panels are named apart: between them only a measurement compares.
  const isApart = new Set(breakers.map(b => b.parent)).size > 1
  for (const breaker of breakers) {
    if (isApart && c.ask(breaker.facts.measuredLeg) === undefined) {
      isOpen = true
      continue
    }
    const legs = legsOf(c.site, breaker)
    c.rest(legs.rests)
    if (!legs.value) isOpen = true
    for (const leg of legs.value ?? []) byLeg.set(leg, [...(byLeg.get(leg) ?? []), breaker])
  }
  const twins = sameSpace(breakers, c)
  // More single poles than the bus has legs: two of them share one, wherever they stand.
  const panels = new Set(breakers.map(b => b.parent))
  const panel =
    panels.size === 1 ? site.get(breakers[0]!.parent ?? undefined, 'enclosure') : undefined
  const isCrowded =
    breakers.length > 2 &&
    panel !== undefined &&
    c.ask(panel.facts.bus) === 'single phase' &&
    breakers.every(b => c.ask(b.facts.poles) === 1)
  const crowded = [...byLeg].find(([, on]) => on.length > 1)
  const on = crowded?.[1] ?? twins ?? (isCrowded ? breakers : undefined)
  if (on) {
    const ratings = on.map(b => c.ask(b.facts.ratingAmps))
    const sum = ratings.reduce<number | undefined>(
      (total, r) => (total === undefined || r === undefined ? undefined : total + r),
      0,
    )
    const run = circuits
      .flatMap(x => site.children(x, 'segment'))
      .find(s => c.ask(s.facts.size) !== undefined)
    const size = run && c.ask(run.facts.size)
    const kinds = run ? tableMetals(c.ask(run.facts.metal)) : []
    const limits =
      size === undefined
        ? []
        : kinds
            .map(k => tableAmpacity(size, k.metal, 60, site.edition))
            .filter(a => a !== undefined)
    // The most it could bear: what goes beyond even that is beyond.
    const neutral = limits.length > 0 ? Math.max(...limits) : undefined
    const where = on.map(b => c.ask(b.facts.space) ?? '?').join(' and ')
    const working = [
      crowded || twins
        ? say('spaces {where} are both on leg {leg}', {
            where,
            leg: crowded?.[0] ?? 'of one space',
          })
        : say('{count} hots on a bus of two legs: two of them share one', {
            count: breakers.length,
          }),
      say('on one leg the neutral carries the sum of the hots, not the difference'),
    ]
    if (sum !== undefined)
      working.push(say('{sum} A may flow in the shared neutral before a breaker opens', { sum }))
    return c.fault(
      'same-leg',
      { where },
      {
        working,
        compare:
          sum !== undefined && neutral !== undefined && sum > neutral
            ? {
                left: sum,
                leftLabel: 'neutral may carry',
                sign: '>',
                right: neutral,
                rightLabel: 'neutral rated for',
                unit: 'A',
              }
            : undefined,
      },
    )
  }
  if (isOpen) return c.undecided('The legs are not known')
  return c.clear(say('Different legs: {legs}', { legs: [...byLeg.keys()].join(', ') }))
}

/** Single-pole breakers in the two halves of one space are on one leg whatever the bus. */
function sameSpace(
  breakers: readonly Subject<'breaker'>[],
  c: Context,
): Subject<'breaker'>[] | undefined {
  for (const a of breakers)
    for (const b of breakers) {
      if (
        a.id < b.id &&
        a.parent === b.parent &&
        c.ask(a.facts.poles) === 1 &&
        c.ask(b.facts.poles) === 1
      ) {
        // Measured on different legs, they are: some twins span two stabs.
        const legs = [a, b].map(x => c.ask(x.facts.measuredLeg))
        if (legs[0] !== undefined && legs[1] !== undefined && legs[0] !== legs[1]) continue
        const space = c.ask(a.facts.space)
        if (space !== undefined && space === c.ask(b.facts.space)) return [a, b]
      }
    }
  return undefined
}

/** Volts between two poles under which they stand on one leg; two legs show 208 or 240 V. */
const ONE_LEG_V = 50

/** A circuit of its own neutral, or none, on a breaker of two poles that were measured to stand on one leg. */
function betweenPoles(circuit: Subject<'circuit'>, c: Context): Verdict | undefined {
  const { fedBy } = circuit.facts
  const id = whereSeen(fedBy)?.value
  const breaker = c.site.get(id, 'breaker')
  const volts = breaker && whereSeen(breaker.facts.polesV)?.value
  if (!breaker || volts === undefined || volts >= ONE_LEG_V) return undefined
  if (neutralGroupOf(c.site, circuit).circuits.length > 1) return undefined
  c.ask(fedBy)
  c.ask(breaker.facts.polesV)
  return c.fault('no-line-to-line', { where: c.ask(breaker.facts.space) ?? '?' })
}

/**
 * Whether the poles of one breaker stand on different legs: measured, else by the bus. Behind the third bar of a
 * three-phase enclosure, and in twins, both may stand on one leg.
 */
function onOneLeg(breaker: Subject<'breaker'>, c: Context): Verdict | undefined {
  const between = breaker.facts.polesV
  const volts = whereSeen(between) && c.ask(between)
  const where = c.ask(breaker.facts.space) ?? '?'
  if (volts !== undefined)
    return volts < ONE_LEG_V
      ? c.fault('same-leg', { where: `of the breaker in ${where}` })
      : undefined
  const half = breaker.facts.half
  const isTwin = whereSeen(half) !== undefined && c.ask(half) !== undefined
  const legs = legsOf(c.site, breaker)
  const panel = c.site.get(breaker.parent ?? undefined, 'enclosure')
  const isOdd = panel !== undefined && c.ask(panel.facts.bus) === 'three phase'
  if (!isTwin && !isOdd) return undefined
  c.rest(legs.rests)
  if (!isTwin && legs.value && new Set(legs.value).size < legs.value.length)
    return c.fault('same-leg', { where: `of the breaker in ${where}` })
  if (isTwin || !legs.value)
    return c.undecided('Its poles may stand on one leg: measure between them', breaker.facts.polesV)
  return undefined
}
