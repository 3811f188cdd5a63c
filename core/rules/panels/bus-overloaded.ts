import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent, valueOf, type FactRef, type Subject, whereSeen } from '../../model/house'
import { aheadOf } from '../../derive/ahead'
import { hasSeveralMains } from '../../derive/service-rating'
import { lowerMainOf } from '../../derive/throws'
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
    'nothing-ahead': {
      danger: 3,
      says: 'Fed from ahead of a main, without a main of its own: nothing protects the bus',
    },
    'sources-over-bus': {
      danger: 3,
      says: '{device} A of main and {source} A backfed on a {bus} A bus',
    },
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
    if (type === 'disconnect') return c.na('No bus')
    const bus = c.ask(enclosure.facts.busAmps)
    const kind = c.ask(enclosure.facts.mainKind)
    if (kind === 'split bus') return lowerSection(enclosure, bus, c)
    if (type === undefined || bus === undefined || kind === undefined)
      return c.undecided('The bus rating or the main has not been read')
    const ratings: number[] = []
    let isOpen = false
    const take = (amps: number | undefined) => {
      if (amps === undefined) isOpen = true
      else ratings.push(amps)
    }
    if (kind !== 'main lugs') take(c.ask(enclosure.facts.mainAmps))
    const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
    if (feeder) {
      const ahead = aheadOf(c.site, feeder)
      c.rest(ahead.rests)
      if (ahead.value === undefined) isOpen = true
      else if (ahead.value.amps !== undefined) take(ahead.value.amps)
      else if (ahead.value.isTapped && kind === 'main lugs') {
        return c.ask(enclosure.facts.marking) === 'service disconnect'
          ? c.na('Service equipment with disconnects of its own instead of one main')
          : c.fault('nothing-ahead')
      }
    } else if (valueOf(enclosure, 'fedFrom') === undefined) isOpen = true
    const device = ratings.length ? Math.min(...ratings) : undefined
    const sources = sourcesOn(enclosure, c)
    if (sources !== 'none' && device !== undefined) {
      const verdict = withSources(sources, device, bus, isOpen, c)
      if (verdict) return verdict
    }
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
      return isOpen ? c.undecided() : c.na('No device of its own ahead of it')
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

/** A split bus has no single main; its lower section is rated for the breaker that feeds it. 408.36. */
function lowerSection(
  enclosure: Subject<'enclosure'>,
  bus: number | undefined,
  c: Context,
): Verdict {
  const main = lowerMainOf(c.site, enclosure)
  if (!main)
    return c.undecided(
      'No single main, and what feeds the lower section has not been recorded',
      absent(enclosure, 'upperRows'),
    )
  c.ask(main.facts.role)
  const device = c.ask(main.facts.ratingAmps)
  if (device === undefined || bus === undefined)
    return c.undecided('The bus rating or the main of the lower section has not been read')
  const compare = {
    left: device,
    leftLabel: 'lower section fed by',
    sign: device > bus ? '>' : device < bus ? '<' : '=',
    right: bus,
    rightLabel: 'bus',
    unit: 'A',
  } as const
  return device > bus
    ? c.fault('device-over-bus', { device, bus }, { compare })
    : c.clear(
        say('{device} A ahead of the lower section of a {bus} A bus', { device, bus }),
        [],
        compare,
      )
}

/** Meter enclosures marked for what they carry without a break serve the class above. */
const CLASS_OF: Readonly<Record<number, number>> = { 320: 400 }

/** A meter enclosure bears what the mains behind it let through together. 230.66. */
function meterEnclosure(meter: Subject<'enclosure'>, c: Context): Verdict {
  const read = c.ask(meter.facts.busAmps)
  const rating = read === undefined ? undefined : (CLASS_OF[read] ?? read)
  const { services, isWhole } = servicesBehind(meter, c)
  const mains = services.map(e => {
    const kind = c.ask(e.facts.mainKind)
    if (kind === 'main breaker' || kind === 'fused main') return c.ask(e.facts.mainAmps)
    // Without one main it is the bus that says what the service is made for.
    return hasSeveralMains(kind) ? c.ask(e.facts.busAmps) : undefined
  })
  // A main passes what it is set for; a bus only what its mains take.
  const largest = Math.max(
    ...mains.flatMap((m, i) =>
      hasSeveralMains(valueOf(services[i], 'mainKind')) ? [] : (m ?? []),
    ),
  )
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
    return c.undecided('The rating of the meter enclosure has not been read')
  if (largest > rating)
    return c.fault('service-over-meter', { largest, rating }, { compare: compare(largest) })
  const sum = mains.reduce<number | undefined>(
    (total, m) => (total === undefined || m === undefined ? undefined : total + m),
    0,
  )
  if (services.length === 0 || !isWhole || sum === undefined)
    return c.undecided(
      'What this meter feeds, or its mains, have not all been found',
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
      unrecordedFeeder(meter),
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

/** A bus fed from both ends may carry this share of its rating. 705.12. */
const BOTH_ENDS = 1.2

interface Sources {
  /** Sum of the backfed breakers; undefined where none of them was recorded or read. */
  readonly amps: number | undefined
  readonly areOpposite: boolean | undefined
  /** All of them were followed to an inverter. */
  readonly areInverters: boolean
}

/** Breakers that bring power in from an inverter. A generator behind an interlock never runs beside the utility. */
function sourcesOn(enclosure: Subject<'enclosure'>, c: Context): Sources | 'none' {
  const backfed = c.site
    .children(enclosure, 'breaker')
    .filter(b => c.ask(b.facts.role) === 'backfed source')
  if (backfed.length === 0) {
    const has = enclosure.facts.hasSecondSource
    const isSaid = whereSeen(has) !== undefined && c.ask(has) === true
    return isSaid && c.ask(enclosure.facts.interlock) !== 'listed interlock or transfer switch'
      ? { amps: undefined, areOpposite: undefined, areInverters: false }
      : 'none'
  }
  const kinds = backfed.map(b => c.ask(b.facts.sourceKind))
  const inverters = backfed.filter((_, i) => kinds[i] !== 'generator')
  if (inverters.length === 0) return 'none'
  const amps = inverters.map(b => c.ask(b.facts.ratingAmps))
  const read = amps.filter(a => a !== undefined)
  const ends = inverters.map(b => c.ask(b.facts.isOppositeEnd))
  return {
    amps: read.length < amps.length ? undefined : read.reduce((sum, a) => sum + a, 0),
    areInverters: !kinds.includes(undefined),
    areOpposite: ends.includes(false) ? false : ends.includes(undefined) ? undefined : true,
  }
}

/** Main and inverters together: within the rating, or 120 % of it where they stand at opposite ends. */
function withSources(
  sources: Sources,
  device: number,
  bus: number,
  isOpen: boolean,
  c: Context,
): Verdict | undefined {
  const { amps, areOpposite, areInverters } = sources
  if (amps === undefined)
    return c.undecided(
      'A second source feeds it; what it brings in has not been recorded',
      openOr(c, absent(c.site.premises, 'supply')),
    )
  const sum = device + amps
  if (sum <= bus) return undefined
  const most = Math.round(bus * BOTH_ENDS)
  // A device ahead that nobody has read may be smaller, and a generator behind an interlock adds nothing.
  if (isOpen || !areInverters)
    return c.undecided(
      say('{sum} A together, if every source runs and no smaller device stands ahead', { sum }),
      c.asked.filter(f => f.state !== 'known'),
    )
  if (sum > most || areOpposite === false)
    return c.fault(
      'sources-over-bus',
      { device, source: amps, bus },
      {
        compare: {
          left: sum,
          leftLabel: 'sources together',
          sign: '>',
          right: areOpposite === false ? bus : most,
          rightLabel: areOpposite === false ? 'bus' : '120 % of the bus',
          unit: 'A',
        },
      },
    )
  if (areOpposite === undefined)
    return c.undecided('Allowed only where the inverter stands at the far end of the bus')
  return device <= bus
    ? c.clear(say('{sum} A together, at opposite ends of a {bus} A bus', { sum, bus }))
    : undefined
}
