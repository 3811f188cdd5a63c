import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { allowedBand } from '../../derive/allowed'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'

/** Equipment with a nameplate: the device at most its maximum, the conductors at least its minimum. */
export const nameplateMismatch = defineRule({
  id: 'nameplate-mismatch',
  family: 'conductors',
  subject: 'circuit',
  title: 'Air conditioners and motors are fed as their nameplate says',
  fault: 'Breaker or conductor against the nameplate',
  cites: [
    { section: '440.4' },
    { section: '440.22' },
    { section: '440.32' },
    { section: '430.52' },
  ],
  triggers: ['replaced', 'new'],
  remedies: ['nameplate-breaker', 'replace-conductor'],
  traps: [
    'The smallest device upstream protects the unit',
    'The minimum circuit ampacity already holds its 125 %',
    'A maximum that names fuses only wants fuses',
    'Several units on one circuit: the device within the smallest maximum, the conductors for ' +
      'the largest minimum and the rest',
  ],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    if (supplies !== undefined && supplies !== 'air conditioning' && supplies !== 'motor')
      return c.na(say('No such equipment'))
    const shared = sharedUnits(circuit, c)
    const mocp = shared ? shared.mocp : c.ask(circuit.facts.nameplateMocp)
    const mca = shared ? shared.mca : c.ask(circuit.facts.nameplateMca)
    if (supplies === undefined)
      return c.undecided(say('What it supplies is not known'), [], [circuit.facts.supplies])
    const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const own = breaker && c.ask(breaker.facts.ratingAmps)
    if (own === undefined || mocp === undefined || mca === undefined)
      return c.undecided(say('Nameplate or rating has not been read'))
    const up = c.site.upstreamOf(breaker!)
    c.rest(up.rests)
    const ahead = up.value!.hasOneSource === true ? up.value!.smallestAmps : undefined
    const device = Math.min(own, ahead ?? own)
    if (device > mocp) {
      if (up.value!.unreadFrom !== undefined && up.value!.unreadFrom <= mocp)
        return c.undecided(
          say('Too large, unless a device upstream that nobody has read is small enough'),
        )
      if (up.value!.hasOneSource === undefined && (up.value!.smallestAmps ?? own) <= mocp)
        return c.undecided(
          say('A smaller device upstream protects it only if no second source feeds the panel'),
        )
      return c.fault(say('A {device} A device, the nameplate allows {mocp} A', { device, mocp }), {
        danger: 3,
        compare: {
          left: device,
          leftLabel: 'device',
          sign: '>',
          right: mocp,
          rightLabel: 'nameplate maximum',
          unit: 'A',
        },
      })
    }
    const wants = c.ask(circuit.facts.nameplateDevice)
    const isFused = wants === 'fuses only' ? fused(circuit, breaker!, c) : true
    if (isFused === false)
      return c.fault(say('The nameplate names fuses only, and a breaker protects it'), {
        danger: 2,
      })
    const segments = c.site.children(circuit, 'segment')
    if (segments.length === 0)
      return c.undecided(
        say('Its conductors have not been recorded'),
        [],
        [circuit.facts.nameplateMca, ...c.asked]
          .filter(f => f.state !== 'known')
          .concat({ state: 'unseen', subject: circuit.id, field: 'label' }),
      )
    for (const segment of segments) {
      const band = allowedBand(
        c.site,
        segment,
        { value: false, fact: undefined },
        { value: false, fact: undefined },
      )
      c.rest(band.rests)
      if (!band.isKnown)
        return c.undecided(say('The conductor has not been gauged'), [], band.missing)
      if (band.high.ampacity < mca)
        return c.fault(
          say('The conductor carries {amps} A, the nameplate wants {mca} A', {
            amps: band.high.ampacity,
            mca,
          }),
          {
            danger: 3,
            working: band.high.working,
            compare: {
              left: band.high.ampacity,
              leftLabel: 'conductor',
              sign: '<',
              right: mca,
              rightLabel: 'nameplate minimum',
              unit: 'A',
            },
          },
        )
      if (band.low.ampacity < mca)
        return c.undecided(
          say('The conductor may be too small for the nameplate'),
          band.low.working,
        )
    }
    if (wants === undefined || isFused === undefined)
      return c.undecided(
        say(
          'Whether the nameplate takes a breaker, or names fuses only and has them, has not been read',
        ),
      )
    return c.clear(
      say('{device} A device, {mocp} A maximum; conductors bear {mca} A', { device, mocp, mca }),
    )
  },
})

/** Whether fuses protect the unit: at the start of the circuit, or in its own disconnect. 440.22, 110.3(B). */
function fused(
  circuit: Subject<'circuit'>,
  breaker: Subject<'breaker'>,
  c: Context,
): boolean | undefined {
  const device = c.ask(breaker.facts.device)
  if (device !== undefined && device !== 'breaker') return true
  const atUnit = c.ask(circuit.facts.hasFusesAtUnit)
  return atUnit === false && device === undefined ? undefined : atUnit
}

/**
 * Units with nameplates of their own on one circuit: the smallest maximum bears on the device, and the conductors carry
 * the largest minimum with the others at their load (a minimum holds 125 % already). 440.22, 440.33.
 * Nothing where fewer than two hard-wired units hang on it, so that the nameplate of the circuit is the one.
 */
function sharedUnits(
  circuit: Subject<'circuit'>,
  c: Context,
): { mocp: number | undefined; mca: number | undefined } | undefined {
  const units = c.site
    .pointsOf(circuit)
    .filter(p => (c.ask(p.facts.type) ?? 'hard-wired outlet') === 'hard-wired outlet')
  if (units.length < 2) return undefined
  const maxima = units.map(p => c.ask(p.facts.nameplateMocp))
  const minima = units.map(p => c.ask(p.facts.nameplateMca))
  const known = (list: readonly (number | undefined)[]): list is number[] =>
    list.every(x => x !== undefined)
  const largest = known(minima) ? Math.max(...minima) : 0
  return {
    mocp: known(maxima) ? Math.min(...maxima) : undefined,
    mca: known(minima)
      ? Math.round(10 * (largest + (minima.reduce((a, b) => a + b, 0) - largest) / 1.25)) / 10
      : undefined,
  }
}
