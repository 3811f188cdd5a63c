import { upstreamOf } from '../../derive/upstream'
import { defineRule } from '../../engine/rule'
import { say, type Step } from '../../engine/say'
import { allowedBand, NOT_SO, type AllowedBand, type LoadFact } from '../../derive/allowed'
import type { Context } from '../../engine/context'
import type { FactRef, Subject } from '../../model/house'
import type { Danger, Verdict } from '../../engine/verdict'

/** The smallest device upstream of a conductor must open before the conductor overheats. */
export const overfusedConductor = defineRule({
  id: 'overfused-conductor',
  family: 'conductors',
  subject: 'segment',
  title: 'The breaker or fuse is no larger than the conductor behind it allows',
  fault: 'Breaker too big for the conductor',
  consequence: 'The wire can overheat inside the wall while the breaker stays on.',
  cites: [
    { section: '240.4' },
    { section: '310.16', until: 2010 },
    { section: '310.15(B)(16)', from: 2011, until: 2019 },
    { section: '310.16', from: 2020 },
    { section: '334.80' },
    { section: '110.14(C)' },
  ],
  checks: {
    'device-over-conductor': {
      danger: [3, 4],
      says: 'A {rating} A device stands on a conductor rated for {allowed} A',
    },
  },
  triggers: ['extended', 'new'],
  remedies: [
    'smaller-breaker',
    'replace-conductor',
    'separate-bundles',
    'cooler-route',
    'leave-and-label',
  ],
  traps: [
    'Air conditioning, refrigeration and motors go by their nameplate',
    'The next standard size up is allowed, but not where several receptacles are fed',
    'Unread terminal markings are judged at 60 and at 75 °C',
    'The smallest device upstream protects, if there is one source only',
    'A thinner conductor spliced on beyond is judged on its own',
    'Taps to cooking appliances and to single luminaires have limits of their own',
  ],
  judge(segment, c) {
    const { site } = c
    const circuit = site.get(segment.parent ?? undefined, 'circuit')
    if (!circuit) return c.na('Not part of a circuit')
    const breaker = site.get(c.ask(circuit.facts.fedBy), 'breaker')
    if (!breaker) return c.undecided('Nobody has found which breaker feeds it')
    const rating = c.ask(breaker.facts.ratingAmps)
    if (rating === undefined) return c.undecided('The rating has not been read')
    const band = allowedBand(site, segment, feedsReceptacles(circuit, c), NOT_SO)
    c.rest(band.rests)
    if (!band.isKnown) return c.undecided('No calculation is possible yet', band.missing)
    if (rating <= band.low.allowed) {
      return c.clear(
        say('{rating} A is no more than the {allowed} A allowed', {
          rating,
          allowed: band.low.allowed,
        }),
        band.low.working,
        compare(rating, band.low.allowed),
      )
    }
    return exceptions(segment, circuit, breaker, rating, band, c)
  },
})

/** A larger breaker may still be right: smaller device upstream, nameplate, tap. */
function exceptions(
  segment: Subject<'segment'>,
  circuit: Subject<'circuit'>,
  breaker: Subject<'breaker'>,
  rating: number,
  band: AllowedBand,
  c: Context,
): Verdict {
  const up = upstreamOf(c.site, breaker)
  const ahead = up.value!
  c.rest(up.rests)
  if (ahead.smallestAmps !== undefined && ahead.smallestAmps <= band.low.allowed) {
    if (ahead.hasOneSource === true) {
      return c.clear(
        say('A {amps} A device upstream protects it', { amps: ahead.smallestAmps }),
        band.low.working,
        compare(ahead.smallestAmps, band.low.allowed),
      )
    }
    if (ahead.hasOneSource === undefined)
      return c.undecided(
        say('A {amps} A device upstream protects it only if no second source feeds the panel', {
          amps: ahead.smallestAmps,
        }),
      )
  }
  if (
    ahead.smallestAmps !== undefined &&
    ahead.smallestAmps <= band.high.allowed &&
    ahead.hasOneSource !== false
  ) {
    return c.undecided(
      say('A {amps} A device upstream may protect it, depending on what has not been seen', {
        amps: ahead.smallestAmps,
      }),
      band.missingFor(ahead.smallestAmps),
      band.low.working,
    )
  }
  const supplies = c.ask(circuit.facts.supplies)
  if (supplies === 'air conditioning' || supplies === 'motor') {
    const excused = byNameplate(circuit, rating, band, c)
    if (excused) return excused
  }
  if (rating <= band.high.allowed) {
    return c.undecided(
      say('{rating} A is allowed or not, depending on what has not been seen', { rating }),
      band.missingFor(rating),
      band.low.working,
    )
  }
  // What could still excuse it; with none left the fault is proven.
  const unless: string[] = []
  const asks: FactRef[] = []
  if (supplies === undefined && !feedsOrdinaryOutlets(circuit, c)) {
    unless.push('it feeds a motor or air conditioning by nameplate')
    asks.push(circuit.facts.supplies)
  }
  if (ahead.unreadFrom !== undefined && ahead.unreadFrom <= band.high.allowed) {
    unless.push(`a device of ${band.high.allowed} A or less stands ahead of it`)
    asks.push(...up.rests.filter(f => f.state !== 'known'))
  }
  if (supplies === 'cooking appliance' && rating <= 50 && band.high.ampacity >= 20) {
    const isTap = c.ask(segment.facts.isTap)
    if (isTap === true && band.low.ampacity >= 20)
      return c.na('A tap of a cooking circuit, with limits of its own (210.19)')
    if (isTap === true)
      return c.undecided(
        'A tap of a cooking circuit; whether it carries 20 A depends on what has not been seen',
        undefined,
        band.low.working,
      )
    if (isTap === undefined) {
      unless.push('it is a tap of the cooking circuit')
      asks.push(segment.facts.isTap)
    }
  }
  // What starts at the breaker is no tap.
  if (
    supplies === 'lighting' &&
    c.site.children(circuit, 'segment')[0] !== segment &&
    band.high.ampacity >= luminaireTapAmps(rating)
  ) {
    const isTap = c.ask(segment.facts.isTap)
    if (isTap === true && band.low.ampacity >= luminaireTapAmps(rating))
      return c.na('A tap to a luminaire, with limits of its own (210.19, 410.117(C))')
    if (isTap === true)
      return c.undecided(
        'A tap to a luminaire; whether it carries its least ampacity depends on what has not been seen',
        undefined,
        band.low.working,
      )
    if (isTap === undefined) {
      unless.push('it is a tap of no more than 18 in to one luminaire')
      asks.push(segment.facts.isTap)
    }
  }
  const { allowed } = band.high
  const heat = allowed > 0 ? Math.round((rating / allowed) ** 2 * 10) / 10 : undefined
  const data = { rating, allowed }
  const detail = {
    danger: (rating >= 1.5 * allowed ? 4 : 3) as Danger,
    compare: compare(rating, allowed),
    working: [...band.high.working, say('{rating} A > {allowed} A', data)],
    ...(heat !== undefined && {
      remark: say(
        'Between {allowed} and {rating} A it overheats and nothing opens: {heat} times its rated heat at {rating} A',
        { ...data, heat },
      ),
    }),
  }
  const [ask] = asks
  return ask
    ? c.faultUnless('device-over-conductor', data, { ...detail, unless, ask, missing: asks })
    : c.fault('device-over-conductor', data, detail)
}

/** Least ampacity of a luminaire tap: 15 A on circuits under 40 A, 20 A on those of 40 or 50 A. 210.19. */
const luminaireTapAmps = (rating: number): number =>
  rating < 40 ? 15 : rating <= 50 ? 20 : Infinity

/**
 * Nameplate rules: conductor at least the minimum circuit ampacity, device at most the maximum. They excuse a device
 * larger than the conductor alone allows; where they do not, undefined. 440.4, 440.22, 440.32, 240.4(G).
 */
function byNameplate(
  circuit: Subject<'circuit'>,
  rating: number,
  band: AllowedBand,
  c: Context,
): Verdict | undefined {
  const mca = c.ask(circuit.facts.nameplateMca)
  const mocp = c.ask(circuit.facts.nameplateMocp)
  if (mocp !== undefined && rating > mocp) return undefined
  // Conductors under the minimum are a fault of their own: the device within the maximum is right. 240.4(G).
  if (mocp !== undefined && mca !== undefined && band.high.ampacity < mca)
    return c.clear(
      say('{rating} A is within the {mocp} A of the nameplate; the conductors are judged by it', {
        rating,
        mocp,
      }),
    )
  const nameplate: Step[] = []
  if (mocp !== undefined)
    nameplate.push(
      say('nameplate maximum {mocp} A, device {rating} A (440.4, 240.4(G))', { mocp, rating }),
    )
  if (mca !== undefined)
    nameplate.push(
      say('nameplate minimum circuit ampacity {mca} A, conductor {ampacity} A', {
        mca,
        ampacity: band.low.ampacity,
      }),
    )
  const working = [...band.low.working, ...nameplate]
  if (mca === undefined || mocp === undefined)
    return c.undecided('The nameplate decides, and it has not been read', undefined, working)
  if (band.low.ampacity < mca)
    return c.undecided(
      'The conductor may be too small for the nameplate',
      [...band.missingFor(mca), ...band.missingFor(rating)],
      working,
    )
  return c.clear(
    say('Within the nameplate: {rating} A device, {mocp} A maximum', { rating, mocp }),
    working,
    {
      left: rating,
      leftLabel: 'device',
      sign: rating === mocp ? '=' : '<',
      right: mocp,
      rightLabel: 'nameplate maximum',
      unit: 'A',
    },
  )
}

function compare(rating: number, allowed: number) {
  return {
    left: rating,
    leftLabel: 'breaker',
    sign: rating > allowed ? '>' : rating < allowed ? '<' : '=',
    right: allowed,
    rightLabel: 'allowed',
    unit: 'A',
  } as const
}

/** Several receptacles for cord-and-plug loads: from what the circuit supplies, else from the outlets found on it. */
function feedsReceptacles(circuit: Subject<'circuit'>, c: Context): LoadFact {
  const supplies = c.ask(circuit.facts.supplies)
  if (supplies !== undefined)
    return {
      value: supplies === 'receptacles' || supplies === 'receptacles and lighting',
      fact: undefined,
    }
  return { value: undefined, fact: circuit.facts.supplies }
}

function feedsOrdinaryOutlets(circuit: Subject<'circuit'>, c: Context): boolean {
  return c.site.outletsOf(circuit).some(outlet => {
    const type = c.ask(outlet.facts.type)
    return type === 'receptacle' || type === 'luminaire' || type === 'switch'
  })
}
