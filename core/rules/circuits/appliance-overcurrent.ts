import { applianceAmpsOf, loadOf } from '../../derive/load'
import { upstreamOf } from '../../derive/upstream'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { standardRatings } from '../../tables/ampacity'
import type { Edition } from '../../tables/editions'

/**
 * A single appliance without a motor: its device no larger than marked, or than 150 % of its
 * rating; and never under 125 % where it runs for hours.
 */
export const applianceOvercurrent = defineRule({
  id: 'appliance-overcurrent',
  family: 'circuits',
  subject: 'circuit',
  title: 'The breaker of a single appliance fits the appliance',
  fault: 'Breaker against the rating of the appliance',
  consequence:
    'A fault inside the appliance can burn before anything opens, or its breaker trips in ordinary use.',
  cites: [
    { section: '422.11(E)' },
    { section: '422.13' },
    { section: '424.3(B)', until: 2019 },
    { section: '424.4(B)', from: 2020 },
  ],
  checks: {
    'under-125-percent': {
      danger: 2,
      says: '{rating} A is under 125 % of {amps} A, for a load that runs for hours',
    },
    'over-appliance-maximum': {
      danger: 2,
      says: 'A {rating} A device, the appliance allows {most} A',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['appliance-breaker', 'replace-conductor'],
  traps: [
    'A marked largest device beats the percentage',
    'Up to 13.3 A a 20 A device is right',
    'If 150 % is no standard size, the next larger is right',
    'Water heaters and fixed heating are sized at 125 %; they are not motors',
  ],
  judge(circuit, c) {
    const supplies = c.ask(circuit.facts.supplies)
    if (supplies === undefined) return c.undecided('What it supplies is not known')
    const isHeater = supplies === 'water heater' || supplies === 'space heating'
    if (!isHeater && supplies !== 'fixed appliance')
      return c.na('No single appliance without a motor')
    const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const rating = breaker && c.ask(breaker.facts.ratingAmps)
    const band = applianceAmpsOf(c.site, circuit)
    c.rest(band.rests)
    // Kilowatts of an unmeasured supply are amperes between two: the breaker is then judged once that is known.
    const amps = band.from === band.to ? band.to : undefined
    if (rating === undefined || amps === undefined)
      return c.undecided('The breaker or the rating of the appliance has not been read')
    const least = round(1.25 * amps)
    const working = [
      say('rating {amps} A × 1.25 = {least} A, × 1.5 = {half} A', {
        amps,
        least,
        half: round(1.5 * amps),
      }),
    ]
    const load = loadOf(c.site, circuit)
    const needs = isHeater ? load?.device : undefined
    if (needs) c.rest(needs.rests)
    // What goes by its marking alone is told by the load of the circuit.
    const isLong = needs !== undefined && needs.to > amps
    if (needs && isLong && rating >= needs.from && rating < needs.to)
      return c.faultUnless(
        'under-125-percent',
        { rating, amps },
        {
          working,
          unless: ['it is tankless, or holds more than 120 gal'],
          ask: circuit.facts.heaterKind,
        },
      )
    if (isLong && rating < least)
      return c.fault(
        'under-125-percent',
        {
          rating,
          amps,
        },
        {
          working,
          compare: {
            left: rating,
            leftLabel: 'breaker',
            sign: '<',
            right: least,
            rightLabel: '125 %',
            unit: 'A',
          },
        },
      )
    if (supplies === 'space heating')
      return c.clear(say('{rating} A carries {amps} A for hours', { rating, amps }), working)
    const isMarked = c.ask(circuit.facts.isDeviceMarked)
    const most =
      isMarked === undefined
        ? undefined
        : isMarked
          ? c.ask(circuit.facts.applianceMaxDevice)
          : largestFor(amps, c.site.edition)
    if (most === undefined)
      return c.undecided(
        'The largest device marked on the appliance has not been read',
        undefined,
        working,
      )
    if (rating <= most)
      return c.clear(say('{rating} A is no more than {most} A', { rating, most }), working, {
        left: rating,
        leftLabel: 'device',
        sign: rating < most ? '<' : '=',
        right: most,
        rightLabel: 'allowed',
        unit: 'A',
      })
    const up = upstreamOf(c.site, breaker!)
    c.rest(up.rests)
    const { smallestAmps, unreadFrom, hasOneSource } = up.value!
    const mayProtect = smallestAmps !== undefined && smallestAmps <= most
    if (mayProtect && hasOneSource === true)
      return c.clear(say('A {amps} A device upstream protects it', { amps: smallestAmps }), working)
    if (unreadFrom !== undefined || (mayProtect && hasOneSource === undefined))
      return c.undecided(
        'Too large, unless a device upstream is small enough and the only source',
        undefined,
        working,
      )
    return c.fault(
      'over-appliance-maximum',
      { rating, most },
      {
        working,
        compare: {
          left: rating,
          leftLabel: 'device',
          sign: '>',
          right: most,
          rightLabel: 'allowed',
          unit: 'A',
        },
      },
    )
  },
})

/** Up to 13.3 A a 20 A device is right, else the standard size at 150 % or the next above it. 422.11(E). */
function largestFor(amps: number, edition: Edition): number | undefined {
  const next = standardRatings(edition).find(r => r >= 1.5 * amps)
  return next === undefined ? undefined : Math.max(20, next)
}
const round = (x: number) => Math.round(x * 10) / 10
