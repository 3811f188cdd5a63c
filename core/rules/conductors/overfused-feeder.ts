import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { allowedBand, tableMetals } from '../../derive/allowed'
import { wholeDwellingRating } from '../../tables/ampacity'
import type { Context } from '../../engine/context'
import type { Danger, Verdict } from '../../engine/verdict'
import type { Subject } from '../../model/house'

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
    { section: '310.15(B)(6)', until: 2010 },
    { section: '310.15(B)(7)', from: 2011, until: 2019 },
    { section: '310.12', from: 2020 },
  ],
  checks: {
    'device-over-feeder': {
      danger: [3, 4],
      says: 'A {rating} A device feeds conductors rated for {allowed} A',
    },
  },
  triggers: ['new'],
  remedies: ['smaller-breaker', 'replace-conductor', 'leave-and-label'],
  traps: [
    'The reduced sizes for dwellings hold only where the feeder carries the whole dwelling',
    'Before the 2008 edition they held for the feeder from the main disconnect to the panel too',
    'Taps up to 10 ft carry a tenth, up to 25 ft a third of the device ahead, and end in one device',
    'A main in the sub-panel larger than the feeder breaker is only a switch',
  ],
  judge(feeder, c) {
    const from = c.ask(feeder.facts.from)
    if (from === undefined) return c.undecided(say('Nobody has found where it starts'))
    const breaker = c.site.get(from, 'breaker')
    const enclosure = c.site.get(from, 'enclosure')
    if (!breaker && !enclosure)
      return c.undecided(say('Where it starts is not recorded'), [], [feeder.facts.from])
    if (enclosure) {
      const main = c.ask(enclosure.facts.mainKind)
      if (main === undefined && c.ask(enclosure.facts.type) !== 'meter') return c.undecided()
      if (main !== 'main breaker' && main !== 'fused main')
        return c.na(say('No device of its own ahead of it: service conductors'))
    }
    const rating = breaker ? c.ask(breaker.facts.ratingAmps) : c.ask(enclosure!.facts.mainAmps)
    if (rating === undefined) return c.undecided(say('The rating ahead of it has not been read'))
    const whole = c.ask(feeder.facts.carriesWholeDwelling)
    const band = allowedBand(
      c.site,
      feeder,
      { value: false, fact: undefined },
      { value: whole, fact: feeder.facts.carriesWholeDwelling },
    )
    c.rest(band.rests)
    if (!band.isKnown) return c.undecided(say('No calculation is possible yet'), [], band.missing)
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
        low.working,
        band.missingFor(rating),
      )
    // What starts at a breaker of its own is no tap.
    const tap = enclosure ? feederTap(feeder, rating, low.ampacity, high.ampacity, c) : undefined
    if (typeof tap === 'object') return tap
    const source = enclosure ?? c.site.get(breaker?.parent ?? undefined, 'enclosure')
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

/** Lengths of the two feeder-tap rules, feet. 240.21(B)(1), (B)(2). */
const TEN_FT = 10
const TWENTY_FIVE_FT = 25

/**
 * Feeder taps: up to 10 ft a tenth of the device ahead, up to 25 ft a third, ending in one device that the conductors
 * bear. 240.21(B). Nothing where it is no tap.
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
  const main = target && c.ask(target.facts.mainAmps)
  const most = (amps: number) =>
    length === undefined
      ? undefined
      : length <= TEN_FT
        ? 10 * amps
        : length <= TWENTY_FIVE_FT
          ? 3 * amps
          : 0
  const atBest = most(best)
  const atWorst = most(worst)
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
  return c.clear(
    say(
      'A tap of {length} ft ending in a {main} A device: {rating} A ahead of it is allowed (240.21(B))',
      { length: length!, main, rating },
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
  const isLargeEnough = metals.map(m => (wholeDwellingRating(size, m.metal) ?? 0) >= rating)
  if (isLargeEnough.every(is => !is)) return false
  const role = roleOf(c.site, source)
  c.rest(role.rests)
  if (role.value !== undefined && role.value !== 'service') return false
  return role.value === undefined || isLargeEnough.includes(false) ? undefined : true
}
