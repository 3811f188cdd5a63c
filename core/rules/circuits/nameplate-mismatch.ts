import { upstreamOf } from '../../derive/upstream'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { allowedBand } from '../../derive/allowed'
import type { Context } from '../../engine/context'
import type { Comparison, Verdict } from '../../engine/verdict'
import { absent, type FactRef, type Subject, whereSeen } from '../../model/house'

/** Equipment with a nameplate: the device at most its maximum, the conductors at least its minimum. */
export const nameplateMismatch = defineRule({
  id: 'nameplate-mismatch',
  family: 'circuits',
  subject: 'circuit',
  title: 'Air conditioners and motors are fed as their nameplate says',
  fault: 'Breaker or conductor against the nameplate',
  consequence: 'A fault in the unit can burn it or its wiring before anything opens.',
  cites: [
    { section: '440.4' },
    { section: '440.22' },
    { section: '440.32' },
    { section: '430.52' },
  ],
  checks: {
    'over-nameplate-maximum': {
      danger: 3,
      says: 'A {device} A device, the nameplate allows {mocp} A',
    },
    'nameplate-fuses-only': {
      danger: 2,
      says: 'The nameplate names fuses only, and a breaker protects it',
    },
    'conductor-under-nameplate': {
      danger: 3,
      says: 'The conductor carries {amps} A, the nameplate requires {mca} A',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['nameplate-breaker', 'replace-conductor', 'circuit-per-unit'],
  traps: [
    'The smallest device upstream protects the unit',
    'The minimum circuit ampacity already holds its 125 %',
    'A maximum that names fuses only needs fuses',
    'Several units on one circuit: the device within the smallest maximum, the conductors for ' +
      'the largest minimum and the rest',
  ],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    if (supplies !== undefined && supplies !== 'air conditioning' && supplies !== 'motor')
      return c.na('No such equipment')
    const shared = sharedUnits(circuit, c)
    const mocp = shared ? shared.mocp : c.ask(circuit.facts.nameplateMocp)
    const mca = shared ? shared.mca : c.ask(circuit.facts.nameplateMca)
    if (supplies === undefined)
      return c.undecided('What it supplies is not known', circuit.facts.supplies)
    const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const own = breaker && c.ask(breaker.facts.ratingAmps)
    const device =
      breaker && own !== undefined && mocp !== undefined
        ? ahead(breaker, own, mocp, unitFuse(circuit, c), c)
        : undefined
    if (device?.state === 'too large') overMaximum(device.amps, mocp!, c)
    const wants = c.ask(circuit.facts.nameplateDevice)
    const isFused = wants === 'fuses only' && breaker ? fused(circuit, breaker, c) : true
    if (wants === 'fuses only' && isFused === false) c.fails('nameplate-fuses-only')
    const run = mca === undefined ? undefined : runs(circuit, mca, c)
    if (own === undefined || mocp === undefined || mca === undefined)
      return c.undecided('Nameplate or rating has not been read')
    if (device?.state === 'too large unless') {
      const { amps, unless, missing } = device
      const data = { device: amps, mocp }
      return c.faultUnless('over-nameplate-maximum', data, {
        compare: overCompare(amps, mocp),
        unless: [unless],
        ask: missing[0]!,
        missing,
      })
    }
    if (run) return run
    if (wants === undefined || isFused === undefined)
      return c.undecided(
        'Whether the nameplate takes a breaker, or names fuses only and has them, has not been read',
      )
    return c.clear(
      say('{device} A device, {mocp} A maximum; conductors carry {mca} A', {
        device: device!.amps,
        mocp,
        mca,
      }),
    )
  },
})

const overCompare = (device: number, mocp: number): Comparison => ({
  left: device,
  leftLabel: 'device',
  sign: '>',
  right: mocp,
  rightLabel: 'nameplate maximum',
  unit: 'A',
})
const overMaximum = (device: number, mocp: number, c: Context) =>
  c.fails('over-nameplate-maximum', { device, mocp }, { compare: overCompare(device, mocp) })

type Device =
  | { state: 'small enough' | 'too large'; amps: number }
  | { state: 'too large unless'; amps: number; unless: string; missing: readonly FactRef[] }

/** The device that protects the circuit, its own or a smaller one ahead, against the nameplate maximum. */
function ahead(
  breaker: Subject<'breaker'>,
  own: number,
  mocp: number,
  atUnit: number,
  c: Context,
): Device {
  const up = upstreamOf(c.site, breaker)
  c.rest(up.rests)
  const { hasOneSource, smallestAmps, unreadFrom } = up.value!
  const amps = Math.min(own, atUnit, hasOneSource === true ? (smallestAmps ?? own) : own)
  if (amps <= mocp) return { state: 'small enough', amps }
  const missing = up.rests.filter(f => f.state !== 'known')
  const unless = (text: string): Device => ({
    state: 'too large unless',
    amps,
    unless: text,
    missing,
  })
  const [first] = missing
  const isOpen = first !== undefined
  if (isOpen && unreadFrom !== undefined && unreadFrom <= mocp)
    return unless(`a device of ${mocp} A or less stands ahead of it`)
  if (isOpen && hasOneSource === undefined && (smallestAmps ?? own) <= mocp)
    return unless(`the ${smallestAmps} A device ahead of it is the only source`)
  return { state: 'too large', amps }
}

/** Every run of the circuit against the nameplate minimum; an answer only where one of them leaves it open. */
function runs(circuit: Subject<'circuit'>, mca: number, c: Context): Verdict | undefined {
  const segments = c.site.children(circuit, 'segment')
  if (segments.length === 0)
    return c.undecided(
      'Its conductors have not been recorded',
      [circuit.facts.nameplateMca, ...c.asked]
        .filter(f => f.state !== 'known')
        .concat(absent(circuit, 'label')),
    )
  let open: Verdict | undefined
  const none = { value: false, fact: undefined }
  for (const segment of segments) {
    const band = allowedBand(c.site, segment, none, none)
    c.rest(band.rests)
    if (!band.isKnown) {
      open ??= c.undecided('The conductor has not been gauged', band.missing)
    } else if (band.high.ampacity < mca) {
      const amps = band.high.ampacity
      c.fails(
        'conductor-under-nameplate',
        { amps, mca },
        {
          working: band.high.working,
          compare: {
            left: amps,
            leftLabel: 'conductor',
            sign: '<',
            right: mca,
            rightLabel: 'nameplate minimum',
            unit: 'A',
          },
        },
      )
    } else if (band.low.ampacity < mca) {
      open ??= c.undecided(
        'The conductor may be too small for the nameplate',
        undefined,
        band.low.working,
      )
    }
  }
  return open && c.give(open)
}

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
    .outletsOf(circuit)
    .filter(p => (c.ask(p.facts.type) ?? 'hard-wired outlet') === 'hard-wired outlet')
  if (units.length < 2) return undefined
  const maxima = units.map(p => c.ask(p.facts.nameplateMocp))
  const minima = units.map(p => c.ask(p.facts.nameplateMca))
  const known = (list: readonly (number | undefined)[]): list is number[] =>
    list.every(x => x !== undefined)
  return {
    mocp: known(maxima) ? Math.min(...maxima) : undefined,
    mca: known(minima) ? togetherAmps(minima) : undefined,
  }
}
/** The largest minimum, and the others at the load they are reckoned from. */
function togetherAmps(minima: readonly number[]): number {
  const largest = Math.max(...minima)
  const all = minima.reduce((a, b) => a + b)
  return Math.round(10 * (largest + (all - largest) / 1.25)) / 10
}

/** Fuses in the disconnect of the unit protect it, whatever stands ahead; infinite where there are none. */
function unitFuse(circuit: Subject<'circuit'>, c: Context): number {
  const { unitFuseAmps } = circuit.facts
  return (whereSeen(unitFuseAmps) && c.ask(unitFuseAmps)) ?? Infinity
}
