import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { aheadOf } from '../../derive/ahead'
import { allowedBand, CAPPED_CABLES, tableMetals } from '../../derive/allowed'
import { wholeDwellingRating } from '../../tables/ampacity'
import type { Context } from '../../engine/context'
import type { Danger, Verdict } from '../../engine/verdict'
import { absent, type Subject } from '../../model/house'

/** A feeder's conductors must carry what the device ahead of them lets through. */
export const overfusedFeeder = defineRule({
  id: 'overfused-feeder',
  family: 'conductors',
  subject: 'feeder',
  title: 'The device ahead of a feeder is no larger than its conductors allow',
  fault: 'Feeder breaker too big for the feeder',
  consequence: 'The feeder can overheat while its breaker stays on.',
  cites: [
    { section: '215.3' },
    { section: '240.4' },
    { section: '240.21(B)' },
    { section: '310.15(B)(6)', until: 2010 },
    { section: '310.15(B)(7)', from: 2011, until: 2019 },
    { section: '310.12', from: 2020 },
  ],
  checks: {
    'nothing-ahead': {
      danger: 4,
      says: 'It starts ahead of the main and ends in lugs: nothing protects it',
    },
    'device-over-feeder': {
      danger: [3, 4],
      says: 'A {rating} A device feeds conductors rated for {allowed} A',
    },
  },
  triggers: ['new'],
  until: 'Keep the load on what it feeds small, and call an electrician if anything is warm',
  remedies: [
    'smaller-breaker',
    'replace-conductor',
    'separate-bundles',
    'cooler-route',
    'leave-and-label',
  ],
  traps: [
    'The reduced sizes for dwellings hold only where the feeder carries the whole dwelling',
    'Before the 2008 edition they held for the feeder from the main disconnect to the panel too',
    'Taps up to 10 ft carry a tenth, up to 25 ft a third of the device ahead, and end in one device',
    'A tap that runs outdoors may be any length, and ends in one device where it enters',
    'A main in the sub-panel larger than the feeder breaker is only a switch',
  ],
  judge(feeder, c) {
    const from = c.ask(feeder.facts.from)
    const breaker = c.site.get(from, 'breaker')
    const enclosure = c.site.get(from, 'enclosure')
    if (!breaker && !enclosure)
      return c.undecided('Nobody has found where it starts', feeder.facts.from)
    const ahead = aheadOf(c.site, feeder)
    c.rest(ahead.rests)
    if (ahead.value === undefined)
      return c.undecided('The device ahead of it, or its rating, has not been read')
    if (ahead.value.amps === undefined) return onTheUtility(feeder, ahead.value.isTapped, c)
    const rating = ahead.value.amps
    const whole = c.ask(feeder.facts.carriesWholeDwelling)
    const band = allowedBand(
      c.site,
      feeder,
      { value: false, fact: undefined },
      { value: whole, fact: feeder.facts.carriesWholeDwelling },
    )
    c.rest(band.rests)
    if (!band.isKnown) return c.undecided('No calculation is possible yet', band.missing)
    const { low, high } = band
    const compare = (allowed: number) =>
      ({
        left: rating,
        leftLabel: 'feeder breaker',
        sign: rating > allowed ? '>' : rating < allowed ? '<' : '=',
        right: allowed,
        rightLabel: 'allowed',
        unit: 'A',
      }) as const
    if (rating <= low.allowed)
      return c.clear(
        say('{rating} A is no more than the {allowed} A allowed', { rating, allowed: low.allowed }),
        low.working,
        compare(low.allowed),
      )
    if (rating <= high.allowed)
      return c.undecided(
        say('{rating} A is allowed or not, depending on what has not been seen', { rating }),
        band.missingFor(rating),
        low.working,
      )
    // What starts at a breaker of its own is no tap.
    const tap = enclosure ? feederTap(feeder, rating, low.ampacity, high.ampacity, c) : undefined
    if (typeof tap === 'object') return tap
    const source = enclosure ?? c.site.get(breaker?.parent ?? undefined, 'enclosure')
    // The reduced sizes held for the feeder from the main itself, not for one further on.
    const wasMain = wasMainPowerFeeder(feeder, rating, source, c)
    const data = { rating, allowed: high.allowed }
    const detail = {
      danger: (rating >= 1.5 * high.allowed ? 4 : 3) as Danger,
      ...(wasMain && { lawfulBefore: MAIN_POWER_FEEDER_UNTIL }),
      compare: compare(high.allowed),
      working: [...high.working, say('{rating} A > {allowed} A', data)],
    }
    // What could still excuse it: a tap, or the reduced sizes of the feeder from the main disconnect.
    const unless: string[] = []
    if (tap === 'may be a tap')
      unless.push('it is a feeder tap that is short enough and ends in one device')
    if (wasMain === undefined && c.site.yearsOf(feeder).from < MAIN_POWER_FEEDER_UNTIL)
      unless.push(
        `it is the feeder from the main disconnect, from before ${MAIN_POWER_FEEDER_UNTIL}`,
      )
    const missing = c.asked.filter(f => f.state !== 'known')
    const [first] = missing
    if (unless.length === 0 || !first) return c.fault('device-over-feeder', data, detail)
    const ask = missing.find(f => f.field === 'isTap') ?? first
    return c.faultUnless('device-over-feeder', data, { ...detail, unless, ask, missing })
  },
})

/**
 * Conductors with nothing ahead are service conductors, protected by the main they end in. From the line side of a
 * main to lugs nothing protects them at all. 230.90, 240.21.
 */
function onTheUtility(feeder: Subject<'feeder'>, isTapped: boolean, c: Context): Verdict {
  if (!isTapped) return c.na('No device of its own ahead of it: service conductors')
  const [target] = c.site.enclosuresOn(feeder)
  const main = target && c.ask(target.facts.mainKind)
  if (main === 'main breaker' || main === 'fused main')
    return c.na('Service conductors, protected by the main they end in')
  if (!target || main === undefined)
    return c.faultUnless(
      'nothing-ahead',
      {},
      {
        unless: ['it ends in a main of its own'],
        ask: target ? target.facts.mainKind : absent(feeder, 'from'),
      },
    )
  return c.fault('nothing-ahead')
}

/** Lengths of the two feeder-tap rules, feet. 240.21(B)(1), (B)(2). */
const TEN_FT = 10
const TWENTY_FIVE_FT = 25

/** Whether a tap runs outdoors but for its end; one that starts indoors does not. 240.21(B)(5). */
function runsOutdoors(feeder: Subject<'feeder'>, c: Context): boolean | undefined {
  const source = c.site.get(c.ask(feeder.facts.from), 'enclosure')
  const place = source && c.ask(source.facts.place)
  return place === 'indoors' ? false : c.ask(feeder.facts.tapIsOutdoors)
}

/**
 * Feeder taps: up to 10 ft a tenth of the device ahead, up to 25 ft a third, outdoors any length,
 * ending in one device that the conductors bear. 240.21(B). Nothing where it is no tap.
 */
function feederTap(
  feeder: Subject<'feeder'>,
  rating: number,
  worst: number,
  best: number,
  c: Context,
): Verdict | 'may be a tap' | undefined {
  const isTap = c.ask(feeder.facts.isTap)
  if (isTap === false) return undefined
  const length = c.ask(feeder.facts.tapFt)
  const end = c.ask(feeder.facts.tapEndsIn)
  const target = c.site.enclosuresOn(feeder)[0]
  // What it ends in may be an enclosure that nobody has traced.
  if (!target) for (const e of c.site.all.enclosure) c.ask(e.facts.fedFrom)
  // A tap ends in a device; what ends in lugs is none.
  if (target && c.ask(target.facts.mainKind) === 'main lugs') return undefined
  const main = target && c.ask(target.facts.mainAmps)
  const isLong = length === undefined || length > TEN_FT
  const outdoors = isLong ? runsOutdoors(feeder, c) : false
  /** The largest device ahead that a tap so long bears. */
  const most = (amps: number, isOutdoors: boolean) => {
    if (isOutdoors) return Infinity
    if (length === undefined) return undefined
    return length <= TEN_FT ? 10 * amps : length <= TWENTY_FIVE_FT ? 3 * amps : -Infinity
  }
  const atBest = most(best, outdoors !== false)
  const atWorst = most(worst, outdoors === true)
  if (
    (atBest !== undefined && rating > atBest) ||
    end === 'several devices or lugs' ||
    (main !== undefined && main > best)
  )
    return undefined
  if (
    isTap === undefined ||
    atWorst === undefined ||
    rating > atWorst ||
    end === undefined ||
    main === undefined ||
    main > worst
  )
    return 'may be a tap'
  if (length === undefined)
    return c.clear(
      say(
        'A tap outdoors ending in a {main} A device: {rating} A ahead of it is allowed (240.21(B))',
        {
          main,
          rating,
        },
      ),
    )
  return c.clear(
    say(
      'A tap of {length} ft ending in a {main} A device: {rating} A ahead of it is allowed (240.21(B))',
      { length, main, rating },
    ),
  )
}

/**
 * Until the 2008 edition the reduced sizes also held for the feeder from the main disconnect to a
 * panel of the dwelling.
 */
const MAIN_POWER_FEEDER_UNTIL = 2008
function wasMainPowerFeeder(
  feeder: Subject<'feeder'>,
  rating: number,
  source: Subject<'enclosure'> | undefined,
  c: Context,
): boolean | undefined {
  const size = c.ask(feeder.facts.size)
  const metals = tableMetals(c.ask(feeder.facts.metal))
  if (!source || size === undefined) return false
  // Those sizes were of 75 °C conductors; NM cable was never among them.
  const wiring = c.ask(feeder.facts.wiring)
  if (wiring !== undefined && CAPPED_CABLES.has(wiring)) return false
  const isLargeEnough = metals.map(m => (wholeDwellingRating(size, m.metal) ?? -Infinity) >= rating)
  if (isLargeEnough.every(is => !is)) return false
  const role = roleOf(c.site, source)
  c.rest(role.rests)
  if (role.value !== undefined && role.value !== 'service') return false
  return role.value === undefined || isLargeEnough.includes(false) ? undefined : true
}
