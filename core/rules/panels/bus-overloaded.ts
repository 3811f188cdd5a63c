import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent, valueOf, type FactRef, type Subject } from '../../model/house'
import type { Context } from '../../engine/context'
import type { Verdict } from '../../engine/verdict'

/**
 * The bus is rated at least as high as the device protecting it: its own main or the feeder
 * breaker, whichever is smaller.
 */
export const busOverloaded = defineRule({
  id: 'bus-overloaded',
  family: 'panels',
  subject: 'enclosure',
  title: 'The bus is rated for the device that protects it',
  fault: 'Bus rated below its protection',
  consequence: 'The panel can be loaded beyond what it is made for.',
  cites: [{ section: '408.36' }, { section: '230.66' }],
  checks: {
    'device-over-bus': { danger: 3, says: 'A {device} A device protects a {bus} A bus' },
    'service-over-meter': {
      danger: 3,
      says: 'A {largest} A service behind a {rating} A meter enclosure',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['replace-panel', 'smaller-main'],
  traps: [
    'A meter enclosure is rated at least as high as the service behind it',
    'A sub-panel main larger than the feeder breaker is fine: the feeder breaker protects the bus',
  ],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return meterEnclosure(enclosure, c)
    if (type === 'disconnect') return c.na(say('No bus'))
    const bus = c.ask(enclosure.facts.busAmps)
    const kind = c.ask(enclosure.facts.mainKind)
    if (kind === 'split bus')
      return c.na(
        say('A split bus has no single main; its lower section is judged by the device feeding it'),
      )
    if (type === undefined || bus === undefined || kind === undefined)
      return c.undecided(say('The bus rating or the main has not been read'))
    const ratings: number[] = []
    let isOpen = false
    const take = (amps: number | undefined) => {
      if (amps === undefined) isOpen = true
      else ratings.push(amps)
    }
    if (kind !== 'main lugs') take(c.ask(enclosure.facts.mainAmps))
    const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
    if (feeder) {
      const from = c.ask(feeder.facts.from)
      const breaker = c.site.get(from, 'breaker')
      const source = c.site.get(from, 'enclosure')
      if (breaker) take(c.ask(breaker.facts.ratingAmps))
      else if (!source) isOpen = true
      else if (c.ask(source.facts.mainKind) !== 'main lugs' && c.ask(source.facts.type) !== 'meter')
        take(c.ask(source.facts.mainAmps))
    } else if (valueOf(enclosure, 'fedFrom') === undefined) isOpen = true
    const device = ratings.length ? Math.min(...ratings) : undefined
    if (device !== undefined && device <= bus)
      return c.clear(say('{device} A ahead of a {bus} A bus', { device, bus }), [], {
        left: device,
        leftLabel: 'protected by',
        sign: device < bus ? '<' : '=',
        right: bus,
        rightLabel: 'bus',
        unit: 'A',
      })
    if (isOpen || device === undefined)
      return isOpen ? c.undecided() : c.na(say('No device of its own ahead of it'))
    return c.fault(
      'device-over-bus',
      { device, bus },
      {
        compare: {
          left: device,
          leftLabel: 'protected by',
          sign: '>',
          right: bus,
          rightLabel: 'bus',
          unit: 'A',
        },
      },
    )
  },
})

/** A meter enclosure bears what the mains behind it let through together. 230.66. */
function meterEnclosure(meter: Subject<'enclosure'>, c: Context): Verdict {
  const rating = c.ask(meter.facts.busAmps)
  const { services, isWhole } = servicesBehind(meter, c)
  const mains = services.map(e => {
    const kind = c.ask(e.facts.mainKind)
    return kind === 'main breaker' || kind === 'fused main' ? c.ask(e.facts.mainAmps) : undefined
  })
  const largest = Math.max(0, ...mains.map(m => m ?? 0))
  const compare = (amps: number) =>
    ({
      left: amps,
      leftLabel: 'service',
      sign: amps > rating! ? '>' : amps < rating! ? '<' : '=',
      right: rating!,
      rightLabel: 'meter enclosure',
      unit: 'A',
    }) as const
  if (rating === undefined)
    return c.undecided(say('The rating of the meter enclosure has not been read'))
  if (largest > rating)
    return c.fault('service-over-meter', { largest, rating }, { compare: compare(largest) })
  const sum = mains.reduce<number | undefined>(
    (total, m) => (total === undefined || m === undefined ? undefined : total + m),
    0,
  )
  if (services.length === 0 || !isWhole || sum === undefined)
    return c.undecided(
      say('What this meter feeds, or its mains, have not all been found'),
      [],
      openOr(c, unrecordedFeeder(meter)),
    )
  // Several mains together may be more than the service is rated for: a load calculation, not a sum
  // of handles, decides.
  if (sum > rating)
    return c.undecided(
      say('Its {count} mains add to {sum} A: the calculated load decides', {
        count: mains.length,
        sum,
      }),
      [],
      [unrecordedFeeder(meter)],
    )
  return c.clear(
    say('{sum} A behind a {rating} A meter enclosure', { sum, rating }),
    [],
    compare(sum),
  )
}

/**
 * Enclosures behind a meter: those whose feeder starts there, else the only service beside the only
 * meter. Whole where nothing else could hang on it.
 */
function servicesBehind(
  meter: Subject<'enclosure'>,
  c: Context,
): { services: readonly Subject<'enclosure'>[]; isWhole: boolean } {
  let isWhole = true
  const behind: Subject<'enclosure'>[] = []
  for (const feeder of c.site.all.feeder) {
    const from = c.ask(feeder.facts.from)
    if (from === undefined) isWhole = false
    else if (from === meter.id) behind.push(...c.site.enclosuresOn(feeder))
  }
  const others = c.site.all.enclosure.filter(e => e !== meter)
  for (const e of others) if (c.ask(e.facts.fedFrom) === undefined) isWhole = false
  if (behind.length > 0) return { services: behind, isWhole }
  const direct = others.filter(e => valueOf(e, 'fedFrom') === 'utility')
  const isOnlyMeter = others.every(e => {
    const type = c.ask(e.facts.type)
    return type !== undefined && type !== 'meter'
  })
  return { services: isOnlyMeter && direct.length === 1 ? direct : [], isWhole }
}

const unrecordedFeeder = (meter: Subject<'enclosure'>): FactRef => absent(meter, 'mainAmps')
function openOr(c: Context, otherwise: FactRef): readonly FactRef[] {
  const open = c.asked.filter(f => f.state !== 'known')
  return open.length > 0 ? open : [otherwise]
}
