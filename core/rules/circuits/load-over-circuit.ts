import { allowedBand, NOT_SO } from '../../derive/allowed'
import { applianceAmpsOf, loadOf, type Load } from '../../derive/load'
import type { Context } from '../../engine/context'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent, type FactRef, type Subject } from '../../model/house'

/** What is connected is no more than breaker and conductors carry, in the way the code reckons the load. */
export const loadOverCircuit = defineRule({
  id: 'load-over-circuit',
  family: 'circuits',
  subject: 'circuit',
  title: 'Breaker and conductors carry what is connected',
  fault: 'Circuit too small for its load',
  consequence: 'Conductors and terminals run hot for hours, or the breaker trips in ordinary use.',
  cites: [
    { section: '210.19' },
    { section: '210.20' },
    { section: '422.10' },
    { section: '430.22' },
    { section: '625.40', until: 2013 },
    { section: '625.41', from: 2014 },
  ],
  checks: {
    'measured-over-device': {
      danger: 3,
      says: '{load} A were measured on a {rating} A circuit',
    },
    'conductor-too-small': {
      danger: 3,
      says: 'Conductors of {ampacity} A for a load of {least} A ({why})',
    },
    'device-too-small': {
      danger: 2,
      says: 'A {rating} A breaker for a load of {least} A ({why})',
    },
  },
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['replace-conductor', 'appliance-breaker', 'split-circuit', 'own-circuit'],
  traps: [
    'A vehicle charger, a storage water heater and fixed heating take 125 % of their amperes',
    'A tankless water heater goes by its marking',
    'A range of 8¾ kW or more has at least a 40 A circuit; 12 kW need 33 A by demand',
    'The breaker of a motor may be larger than its conductor; the conductor carries 125 %',
    'Air conditioning goes by the two numbers of its nameplate: a rule of its own',
  ],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const rating = breaker && c.ask(breaker.facts.ratingAmps)
    const measured = c.ask(circuit.facts.loadAmps)
    if (measured !== undefined && rating !== undefined && measured > rating)
      c.fails(
        'measured-over-device',
        { load: measured, rating },
        { compare: compare('load', measured, 'circuit', rating) },
      )
    const load = loadOf(c.site, circuit)
    if (!load) {
      if (supplies === undefined) return c.undecided('What it supplies has not been seen')
      if (measured === undefined) return c.na('No single appliance to reckon with')
      if (rating === undefined) return c.undecided('The breaker has not been read')
      return c.clear(say('{measured} A measured on {rating} A', { measured, rating }))
    }
    c.rest(load.device.rests)
    c.rest(load.conductor.rests)
    // What the load waits for is asked only where it could turn the answer.
    const open: FactRef[] = []
    // Heaters that run for hours have a rule of their own for the breaker: one fault is told once.
    const isTold =
      supplies === 'space heating' ||
      (supplies === 'water heater' && load.device.to > applianceAmpsOf(c.site, circuit).to)
    if (!isTold && rating !== undefined && rating < load.device.from)
      c.fails(
        'device-too-small',
        { rating, least: round(load.device.from), why: load.why },
        { compare: compare('breaker', rating, 'load', round(load.device.from)) },
      )
    conductors(circuit, load, c, open)
    if (rating === undefined && breaker) open.push(breaker.facts.ratingAmps)
    if (!breaker) open.push(circuit.facts.fedBy)
    if (!isTold && rating !== undefined && rating < load.device.to)
      open.push(...load.device.missing)
    if (open.length > 0)
      return c.undecided('The load, or what carries it, has not all been read', open)
    return c.clear(
      say('Carries {least} A: {why}', { least: round(load.conductor.to), why: load.why }),
    )
  },
})

const round = (amps: number) => Math.round(amps * 10) / 10

/** Every run of the circuit against the load; what is open is added to the list. */
function conductors(circuit: Subject<'circuit'>, load: Load, c: Context, open: FactRef[]): void {
  const segments = c.site.children(circuit, 'segment')
  // Conductors nobody has recorded are not conductors that carry it.
  if (segments.length === 0) open.push(absent(circuit, 'label'))
  for (const segment of segments) {
    const band = allowedBand(c.site, segment, NOT_SO, NOT_SO)
    c.rest(band.rests)
    if (!band.isKnown) {
      open.push(...band.missing)
      continue
    }
    if (band.high.ampacity < load.conductor.from) {
      c.fails(
        'conductor-too-small',
        { ampacity: band.high.ampacity, least: round(load.conductor.from), why: load.why },
        {
          compare: compare('conductors', band.high.ampacity, 'load', round(load.conductor.from)),
          working: band.high.working,
        },
      )
    } else if (band.low.ampacity < load.conductor.to) {
      open.push(...load.conductor.missing, ...band.rests.filter(f => f.state !== 'known'))
    }
  }
}

function compare(leftLabel: string, left: number, rightLabel: string, right: number) {
  const sign = left > right ? '>' : left < right ? '<' : '='
  return { left, leftLabel, sign, right, rightLabel, unit: 'A' } as const
}
