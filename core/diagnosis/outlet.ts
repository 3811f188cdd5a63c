/**
 * From readings at an outlet to what is wrong with it. Any subset of readings gives the ways it can be, ranked by how
 * well they explain all of them together, with an error model for each instrument. One answer only where no other fits.
 */
import { doubtsOf, type Doubt } from './referee'
import {
  HOW,
  HYPOTHESES,
  isLethal,
  nameOf,
  priorOf,
  READING_NAMES,
  settlesOf,
  STATES,
  type Hypothesis,
  type Lamps,
  type OutletState,
  type ReadingName,
  type Readings,
  type Setting,
} from './states'
import {
  between,
  lampsOf,
  underLoad,
  wire,
  type Between,
  type Potential,
  type Wired,
} from './wiring'

/** A way the outlet can be: one state, or two at once joined by "with". */
export interface Ranked {
  readonly state: string
  readonly parts: readonly OutletState[]
  /** Likelihood beside the best, 1 for the best itself. */
  readonly fit: number
  readonly share: number
  readonly ruledOutBy: readonly string[]
  readonly settles: string
  readonly isLethal: boolean
}
export interface NextReading {
  readonly reading: ReadingName
  readonly how: string
  readonly gain: number
}
export interface Diagnosis {
  /** Every single state, and two at once where the readings allow it; likeliest first. */
  readonly states: readonly Ranked[]
  /** The one that fits, or undefined where two or more do. */
  readonly answer: string | undefined
  readonly fitting: readonly string[]
  /** States that are part of every way that fits: proven, though there may be more than them. */
  readonly proven: readonly OutletState[]
  /**
   * Readings that no way of being this outlet explains together with the rest; empty while one way explains them all.
   * Where there are some, nothing fits and nothing is ruled out.
   */
  readonly unexplained: readonly ReadingName[]
  /** States that no way of being this outlet has left. */
  readonly ruledOut: readonly OutletState[]
  readonly next: NextReading | undefined
  /** Readings that prove nothing as they are. */
  readonly doubts: readonly Doubt[]
}

/** A way fits while it explains the readings at least this well beside the best; below the second it is ruled out. */
const FITS = 1e-4
const RULED_OUT = 1e-9
const HOT = 120
/** Below this a way does not explain a reading; a legend or an alarm has a chance and no density. */
const EXPLAINS = 1e-4
const EXPLAINS_SIGN = 1e-3
const BLUNDER = 1e-7

type Density = (value: number) => number
const bell =
  (mean: number, sd: number): Density =>
  x =>
    Math.exp(-0.5 * ((x - mean) / sd) ** 2) / (sd * 2.5066) + BLUNDER
const flat =
  (from: number, to: number): Density =>
  x =>
    (x >= from - 1 && x <= to + 1 ? 1 / (to - from + 2) : 0) + BLUNDER
const mix =
  (...parts: readonly (readonly [number, Density])[]): Density =>
  x =>
    parts.reduce((sum, [w, d]) => sum + w * d(x), 0)
/** Even between two small numbers, soft at the edges. */
const soft =
  (from: number, to: number): Density =>
  x =>
    (x >= from && x <= to
      ? 1 / (to - from)
      : Math.exp(-Math.abs(x < from ? from - x : x - to) / 0.12) / (to - from + 0.24)) *
      0.98 +
    BLUNDER

const IDLE_DENSITY = mix([0.75, bell(0.3, 0.35)], [0.22, flat(0, 3)], [0.03, flat(0, 8)])

/** What a reading may be, and a few values that stand for it when the next reading is chosen. */
interface Expected {
  readonly density: Density
  readonly typical: readonly number[]
}
interface Variant {
  readonly weight: number
  readonly volts: Readonly<Partial<Record<ReadingName, Expected>>>
  readonly lamps: Readonly<Partial<Record<Lamps, number>>>
  readonly detector: number
  readonly jumper: number
}

/** A bad joint in the neutral lifts it by what other loads draw through it. */
const LIFTED: Expected = {
  density: mix([0.8, IDLE_DENSITY], [0.15, flat(0, 10)], [0.05, flat(0, 50)]),
  typical: [0.3],
}
const LIFTED_A_LITTLE: Expected = {
  density: mix([0.8, IDLE_DENSITY], [0.2, flat(0, 10)]),
  typical: [0.3],
}
const LIVE: Expected = { density: bell(HOT, 4), typical: [120] }
const DOUBLE: Expected = { density: bell(2 * HOT, 8), typical: [240] }
/** Bonds carry a little of the neighborhood's current; a broken service neutral sends its own through them. */
const NO_STRAY: Expected = {
  density: mix([0.9, bell(0, 0.6)], [0.1, flat(0, 8)]),
  typical: [0.2],
}
const PULLED: Expected = { density: bell(118, 6), typical: [118] }
const NOTHING: Expected = { density: bell(0, 2), typical: [0] }
const IDLE: Expected = { density: IDLE_DENSITY, typical: [0.3] }
const SAME: Expected = { density: bell(0, 0.06), typical: [0] }
const DEAD: Expected = { density: mix([0.93, bell(0, 0.6)], [0.07, flat(0, 20)]), typical: [0] }
const NEUTRAL_TO_EARTH: Expected = {
  density: mix([0.7, bell(0, 1)], [0.3, flat(0, 4)]),
  typical: [0.3],
}
/** The reference has a stray volt or two of its own, and now and then some more. */
const EARTH_TO_EARTH: Expected = {
  density: mix([0.95, bell(0, 1)], [0.05, flat(0, 12)]),
  typical: [0],
}
const OPEN_OHMS: Expected = {
  density: x => (x > 200 ? 0.02 : x > 20 ? 0.001 : 0) + BLUNDER,
  typical: [100000],
}
const GOOD_OHMS: Expected = {
  density: x => (x <= 1.2 ? 1 / 1.2 : x < 3 ? 0.02 : 0) + BLUNDER,
  typical: [0.3],
}
/** A joint in the ground: an ohm to some hundreds. */
const POOR_OHMS: Expected = {
  density: x => (x >= 0.9 && x <= 1000 ? 1 / (x * Math.log(1000 / 0.9)) : 0) + BLUNDER,
  typical: [3, 10, 40, 150],
}
const EITHER_OHMS: Expected = {
  density: x => 0.5 * GOOD_OHMS.density(x) + 0.5 * OPEN_OHMS.density(x),
  typical: [0.3, 100000],
}
/** Through electrodes alone, the way back of the analyzer's current is anything from a pipe system to a dry rod. */
const EITHER_OHMS_OR_POOR: Expected = {
  density: x => 0.5 * GOOD_OHMS.density(x) + 0.5 * POOR_OHMS.density(x),
  typical: [0.5, 10],
}
/** Back through whatever energizes it: a winding, an element, a scorched insulation; or the analyzer calls it open. */
const WINDING_OHMS: Expected = {
  density: x => 0.6 * POOR_OHMS.density(x) + 0.4 * OPEN_OHMS.density(x),
  typical: [20, 100000],
}
const NO_CLAMP: Expected = { density: bell(0, 0.25), typical: [0] }

/** A floating conductor reads anything on a high-impedance meter and collapses on a low-impedance one. */
function floatingOf(meter: Setting['meter']): Expected {
  // Beside live conductors it may be anything; beside dead and grounded ones it reads next to nothing.
  const high = mix([0.75, flat(0, 125)], [0.25, bell(0, 0.6)])
  const low = mix([0.8, bell(0, 2.5)], [0.2, flat(0, 15)])
  return meter === 'high'
    ? { density: high, typical: [2, 20, 45, 70, 95] }
    : meter === 'low'
      ? { density: low, typical: [0, 4] }
      : { density: mix([0.5, high], [0.5, low]), typical: [2, 20, 45, 70, 95] }
}

/** Every way a hypothesis can show itself: what else is switched on, and on which side a bad joint is. */
function variantsOf(h: Hypothesis, s: Setting): Variant[] {
  const has = (state: OutletState) => (h as readonly OutletState[]).includes(state)
  const floating = floatingOf(s.meter)
  const amps = s.testAmps ?? 13
  // 14 to 12 copper, 2 to 3.2 mΩ a foot; without a length any house run is possible.
  const [r0, r1] =
    s.runFt === undefined
      ? [0.02, 120 * 0.0036 * amps]
      : [s.runFt * 0.0017 * amps, s.runFt * 0.0036 * amps]
  const middle = (r0 + r1) / 2
  const rise: Expected = { density: soft(r0 * 0.8, r1 * 1.2 + 0.25), typical: [middle] }
  const drop: Expected = {
    density: soft(Math.max(0.05, ((2 * r0) / HOT) * 80), ((2 * r1) / HOT) * 115 + 1.6),
    typical: [(200 * middle) / HOT],
  }
  const sag: Expected = { density: flat(5, 60), typical: [8, 15, 30] }
  const isJoint = has('high-resistance joint')
  const kinds: Readonly<Record<Between, Expected>> = {
    double: DOUBLE,
    live: isJoint
      ? {
          density: mix([0.9, LIVE.density], [0.07, flat(100, 121)], [0.03, flat(70, 121)]),
          typical: [120],
        }
      : LIVE,
    pulled: PULLED,
    nothing: NOTHING,
    idle: isJoint ? LIFTED : IDLE,
    floating,
  }
  const toEarth: Readonly<Record<Potential, Expected>> = {
    hot: LIVE,
    'other hot': LIVE,
    neutral: isJoint ? LIFTED_A_LITTLE : NEUTRAL_TO_EARTH,
    earth: EARTH_TO_EARTH,
    'pulled up': PULLED,
    'pulled down': NEUTRAL_TO_EARTH,
    floating,
  }
  const meet = (w: Wired, a: 'narrow' | 'wide', b: 'wide' | 'ground'): Expected =>
    w.isTied && a === 'wide' && b === 'ground' ? SAME : kinds[between(w[a], w[b])]

  const loaded = (w: Wired, jointInNeutral: boolean): Expected => {
    if (w.isTied) return SAME
    if (w.returns) {
      if (w.ground === 'floating') return floating
      if (w.wide !== 'hot' && between(w.wide, w.ground) === 'pulled')
        return { density: mix([0.7, PULLED.density], [0.3, flat(60, 125)]), typical: [118] }
      if (w.wide === 'hot' || w.ground === 'hot')
        return { density: mix([0.7, bell(118, 4)], [0.3, flat(60, 125)]), typical: [118] }
      return jointInNeutral ? { density: flat(3, 70), typical: [8, 18] } : rise
    }
    if (
      [w.narrow, w.wide].includes('pulled up') &&
      [w.narrow, w.wide].some(p => p === 'earth' || p === 'neutral')
    )
      return w.ground === 'floating' ? floating : { density: flat(0, 125), typical: [10, 110] }
    const l = underLoad(w)
    const kind = between(l.wide, l.ground)
    return kind === 'floating'
      ? floating
      : kind === 'live' || kind === 'pulled'
        ? { density: bell(119, 5), typical: [119] }
        : DEAD
  }
  const ohms = (w: Wired): Expected => {
    const at = w.ground
    if (has('high-resistance ground') && at === 'earth') return POOR_OHMS
    if (at === 'earth' || at === 'neutral') return GOOD_OHMS
    if (has('floating ground energized')) return WINDING_OHMS
    return at === 'hot' ? (w.isTied ? GOOD_OHMS : EITHER_OHMS) : OPEN_OHMS
  }
  const make = (
    weight: number,
    loadsOn: boolean,
    jointInNeutral: boolean,
    isNeutralHidden = false,
  ): Variant => {
    const wired = wire(h, loadsOn)
    const w: Wired = isNeutralHidden ? { ...wired, wide: 'floating' } : wired
    const lamps = lampsOf(w)
    /** What some other load pulls up, the test load pulls down again through it. */
    const isThrough =
      !w.returns &&
      [w.narrow, w.wide].includes('pulled up') &&
      [w.narrow, w.wide].some(p => p === 'earth' || p === 'neutral')
    const isBroken = has('open neutral') || has('open hot')
    const dead: Expected =
      isBroken && between(w.narrow, w.wide) === 'floating'
        ? { density: mix([0.5, DEAD.density], [0.5, floating.density]), typical: floating.typical }
        : meet(w, 'narrow', 'wide')
    return {
      weight,
      volts: {
        hotNeutral: dead,
        hotGround: meet(w, 'narrow', 'ground'),
        neutralGround: meet(w, 'wide', 'ground'),
        groundEarth: toEarth[w.ground],
        // A joint in the hot takes from all that is measured to it while something is on.
        narrowEarth: w.narrow === 'hot' && !jointInNeutral ? kinds.live : toEarth[w.narrow],
        dropPercent: w.returns
          ? has('high-resistance joint')
            ? sag
            : drop
          : w.wide === 'other hot'
            ? { density: flat(0, 60), typical: [4] }
            : { density: isThrough ? flat(40, 100) : flat(88, 100), typical: [100] },
        neutralGroundLoaded: loaded(w, jointInNeutral),
        groundOhms: ohms(w),
        groundClampAmps:
          w.returns === 'earth'
            ? { density: flat(2, 20), typical: [amps] }
            : isThrough
              ? { density: flat(0, 4), typical: [1] }
              : NO_CLAMP,
        otherHalf: LIVE,
        panelLegNeutral: LIVE,
        panelOtherLegNeutral: LIVE,
        electrodeAmps: NO_STRAY,
      },
      // With a neutral open, what is on and off changes while one looks: the neighboring legend is met now and then.
      lamps:
        lamps === undefined
          ? {}
          : has('open neutral') && !has('ground missing') && h.length === 1
            ? {
                [lamps]: 0.92,
                [lamps === 'open neutral' ? 'hot and ground reversed' : 'open neutral']: 0.065,
              }
            : { [lamps]: 0.985 },
      detector:
        w.ground === 'hot'
          ? 0.96
          : w.ground === 'pulled up'
            ? 0.9
            : w.ground === 'floating'
              ? 0.12
              : 0.02,
      // A jumper seen behind a dead hot is a fault for later: it says nothing of what is dead.
      jumper: w.isTied ? 0.98 : has('open hot') ? 0.3 : 0.005,
    }
  }
  if (has('lost shared neutral')) return [lostNeutral()]
  if (has('open service neutral')) return [lostService(rise)]
  const sides = has('high-resistance joint') ? [true, false] : [false]
  const breaks = has('open neutral') || has('open hot')
  const isBoth = has('open neutral') && has('open hot')
  const loads: readonly (readonly [boolean, number])[] = isBoth
    ? [
        [true, 1],
        [false, 1],
      ]
    : breaks
      ? [
          [true, s.loadsOn === undefined ? 0.5 : s.loadsOn ? 1 : 0.02],
          [false, s.loadsOn === undefined ? 0.5 : s.loadsOn ? 0.02 : 1],
        ]
      : [[s.loadsOn ?? false, 1]]
  const shown = loads.flatMap(([on, weight]) =>
    sides.map(side => make(weight / sides.length, on, side)),
  )
  // Behind an open hot nothing tells that the neutral is open too, until some load would pull it up.
  const hides = has('open hot') && !has('open neutral') && !wire(h, false).isTied
  return hides ? [...shown, make(0.03, false, false, true)] : shown
}

/** The neutral of a multiwire pair gone: each half takes its share of 240 V, by what is switched on. */
function lostNeutral(): Variant {
  const some = (from: number, to: number, typical: readonly number[]): Expected => ({
    density: flat(from, to),
    typical,
  })
  return {
    weight: 1,
    // Below about 75 V the lamp between the slots is out.
    lamps: { correct: 0.88, 'open neutral': 0.08 },
    detector: 0.02,
    jumper: 0.005,
    volts: {
      hotNeutral: {
        density: mix([0.9, flat(5, 235)], [0.1, bell(HOT, 6)]),
        typical: [80, 100, 140, 160],
      },
      hotGround: LIVE,
      neutralGround: some(0, 116, [20, 40]),
      groundEarth: EARTH_TO_EARTH,
      narrowEarth: LIVE,
      dropPercent: some(5, 100, [20, 40, 70]),
      neutralGroundLoaded: some(2, 122, [40, 80]),
      groundOhms: GOOD_OHMS,
      groundClampAmps: NO_CLAMP,
      otherHalf: some(5, 235, [160, 140, 100, 80]),
      panelLegNeutral: LIVE,
      panelOtherLegNeutral: LIVE,
      electrodeAmps: NO_STRAY,
    },
  }
}

/**
 * The neutral of the service gone: every circuit's voltage goes by what is switched on in the two halves. Neutral and
 * ground stay joined at the panel and shift together, and the current home goes through the electrodes.
 */
function lostService(rise: Expected): Variant {
  // While the halves happen to balance nothing shows; that moment is named among the doubts and not guessed at.
  const apart: Expected = {
    density: mix([0.5, flat(5, 115)], [0.5, flat(126, 235)], [10, () => BLUNDER]),
    typical: [80, 100, 140, 160],
  }
  const some: Expected = { density: flat(5, 235), typical: [80, 100, 140, 160] }
  return {
    weight: 1,
    lamps: { correct: 0.84, 'open hot': 0.1, 'open neutral': 0.02 },
    detector: 0.1,
    jumper: 0.005,
    volts: {
      hotNeutral: apart,
      hotGround: apart,
      neutralGround: IDLE,
      groundEarth: { density: flat(0, 80), typical: [2, 15] },
      narrowEarth: { density: mix([0.8, LIVE.density], [0.2, flat(60, 200)]), typical: [120] },
      dropPercent: { density: flat(2, 100), typical: [20, 40] },
      neutralGroundLoaded: {
        density: mix([0.8, rise.density], [0.2, flat(0, 8)]),
        typical: rise.typical,
      },
      groundOhms: EITHER_OHMS_OR_POOR,
      groundClampAmps: NO_CLAMP,
      // The other side may be a few volts from its due while this one is twenty off.
      otherHalf: some,
      panelLegNeutral: apart,
      panelOtherLegNeutral: some,
      electrodeAmps: { density: flat(0, 60), typical: [3, 12] },
    },
  }
}

function density(variant: Variant, name: ReadingName, value: Readings[ReadingName]): number {
  if (name === 'lamps') return variant.lamps[value as Lamps] ?? 0.00005
  if (name === 'detectorOnGround') return value ? variant.detector : 1 - variant.detector
  if (name === 'jumperSeen') return value ? variant.jumper : 1 - variant.jumper
  const p = variant.volts[name]?.density(value as number) ?? 1
  return p > 0 ? p : BLUNDER
}
/** The readings a way leaves unexplained, in the variant that leaves fewest; [] where it explains all of them. */
function leaves(
  h: Hypothesis,
  variants: readonly Variant[],
  r: Readings,
  taken: readonly ReadingName[],
): readonly ReadingName[] {
  let least: readonly ReadingName[] = taken
  for (const v of variants) {
    const left = taken.filter(name => {
      const isSign = typeof r[name] !== 'number'
      return density(v, name, r[name]) < (isSign ? EXPLAINS_SIGN : EXPLAINS)
    })
    if (left.length < least.length) least = left
  }
  const apart = taken.filter(n => n === 'otherHalf' || n === 'panelOtherLegNeutral')
  return least.length === 0 && pairing(h, r) < EXPLAINS ? apart : least
}
function likelihood(variants: readonly Variant[], readings: Readings): number {
  let sum = 0
  let weight = 0
  for (const v of variants) {
    let p = v.weight
    for (const name of READING_NAMES) {
      const value = readings[name]
      if (value !== undefined) p *= density(v, name, value)
    }
    sum += p
    weight += v.weight
  }
  return sum / weight
}
/**
 * What two readings say together and neither says alone: the halves of a lost neutral add to 240, and with the
 * service neutral gone what is met at the outlet is met to ground and at the panel too.
 */
function pairing(h: Hypothesis, r: Readings): number {
  const isShared = h[0] === 'lost shared neutral'
  const isService = h[0] === 'open service neutral'
  const adds = (a: number | undefined, b: number | undefined) =>
    a === undefined || b === undefined ? 1 : bell(2 * HOT, 6)(a + b) * 100
  const meets = (a: number | undefined, b: number | undefined) =>
    a === undefined || b === undefined ? 1 : bell(0, 4)(a - b) * 100
  // With a service neutral that holds, the legs are alike at the panel.
  if (!isService) {
    const legs = meets(r.panelLegNeutral, r.panelOtherLegNeutral)
    return isShared ? adds(r.hotNeutral, r.otherHalf) * legs : legs
  }
  return (
    adds(r.hotNeutral, r.otherHalf) *
    adds(r.panelLegNeutral, r.panelOtherLegNeutral) *
    meets(r.hotNeutral, r.hotGround) *
    meets(r.hotNeutral, r.panelLegNeutral)
  )
}

/** What the readings say, without the next one to take. */
export type Ranking = Omit<Diagnosis, 'next' | 'doubts'>

/** Ranks every way the outlet can be by the readings taken, and names what is ruled out and by what. */
export const rank = (readings: Readings, setting: Setting = {}): Ranking =>
  weigh(readings, setting).ranking

/** The ranking, the next reading to take, and the readings that prove nothing. */
export function diagnose(readings: Readings, setting: Setting = {}): Diagnosis {
  const { ranking, variants, raw } = weigh(readings, setting)
  const best = Math.max(...raw)
  const isBare = Object.values(readings).every(r => r === undefined)
  const weights = raw.map((l, i) =>
    l / best >= FITS || isBare ? l * Math.sqrt(priorOf(HYPOTHESES[i]!)) : 0,
  )
  return {
    ...ranking,
    next: ranking.fitting.length > 1 ? nextReading(readings, variants, weights) : undefined,
    doubts: [
      ...ranking.unexplained.map(reading => ({
        reading,
        why: 'Unexplained: no single fault and no two known here read so together with the rest',
        instead: `Take it again: ${HOW[reading]}; then each conductor to a proved reference`,
      })),
      ...doubtsOf(readings, setting),
    ],
  }
}

function weigh(
  readings: Readings,
  setting: Setting,
): { ranking: Ranking; variants: Variant[][]; raw: number[] } {
  const variants = HYPOTHESES.map(h => variantsOf(h, setting))
  const raw = HYPOTHESES.map((h, i) => likelihood(variants[i]!, readings) * pairing(h, readings))
  const best = Math.max(...raw)
  const shares = normal(raw.map((l, i) => l * priorOf(HYPOTHESES[i]!)))
  const bestAt = raw.indexOf(best)
  const taken = READING_NAMES.filter(name => readings[name] !== undefined)
  const against = (i: number): string[] =>
    taken
      .map(name => ({
        name,
        ratio:
          likelihood(variants[i]!, { [name]: readings[name] }) /
          likelihood(variants[bestAt]!, { [name]: readings[name] }),
      }))
      .filter(x => x.ratio < 0.05)
      .sort((a, b) => a.ratio - b.ratio)
      .map(x => x.name)
  // What explains everything is asked of every way: the likeliest may leave one reading that a rarer one explains.
  const left = HYPOTHESES.map((h, i) => leaves(h, variants[i]!, readings, taken))
  const unexplained = left.reduce((least, x) => (x.length < least.length ? x : least), taken)
  const explaining = new Set(HYPOTHESES.filter((_, i) => left[i]!.length === 0).map(nameOf))
  const ranked = HYPOTHESES.map((h, i): Ranked => {
    const fit = raw[i]! / best
    let by: readonly string[] | undefined
    return {
      state: nameOf(h),
      parts: h,
      fit,
      share: shares[i]!,
      settles: settlesOf(h),
      isLethal: isLethal(h),
      // Worked out for those somebody asks about: most ways are ruled out, and few are looked at.
      get ruledOutBy() {
        return (by ??= fit < FITS ? against(i) : [])
      },
    }
  }).sort((a, b) => b.share - a.share)
  // Two faults at once are worth a line only where the readings speak of them.
  const states = ranked.filter(r => r.parts.length === 1 || (taken.length > 0 && r.fit >= FITS))
  const fitting =
    taken.length === 0
      ? [...STATES]
      : ranked.filter(r => r.fit >= FITS && explaining.has(r.state)).map(r => r.state)
  const isLeft = (state: OutletState) =>
    ranked.some(r => r.parts.includes(state) && r.fit >= RULED_OUT)
  const ruledOut = taken.length === 0 ? [] : STATES.filter(s => !isLeft(s))
  return {
    ranking:
      unexplained.length > 0
        ? { states, fitting: [], proven: [], answer: undefined, ruledOut: [], unexplained }
        : {
            states,
            fitting,
            proven: inAll(ranked.filter(r => fitting.includes(r.state))),
            answer: fitting.length === 1 ? fitting[0] : undefined,
            ruledOut,
            unexplained,
          },
    variants,
    raw,
  }
}

/** The states every one of these ways has in it. */
const inAll = (ways: readonly Ranked[]): OutletState[] =>
  STATES.filter(s => s !== 'good' && ways.length > 0 && ways.every(w => w.parts.includes(s)))

/** The reading that is expected to leave the least doubt among the ways that fit. */
function nextReading(
  taken: Readings,
  variants: readonly (readonly Variant[])[],
  weights: readonly number[],
): NextReading | undefined {
  const whole = normal(weights)
  const live = whole.map((m, i) => ({ m, i })).filter(x => x.m >= 1e-5)
  const mass = normal(live.map(x => x.m))
  const before = entropy(mass)
  let found: NextReading | undefined
  for (const name of READING_NAMES) {
    if (taken[name] !== undefined) continue
    const seen = new Map<Readings[ReadingName], number[]>()
    const chances = (value: Readings[ReadingName]): number[] => {
      let list = seen.get(value)
      if (!list)
        seen.set(
          value,
          (list = live.map(
            ({ i }) =>
              likelihood(variants[i]!, { [name]: value }) *
              pairing(HYPOTHESES[i]!, { ...taken, [name]: value }),
          )),
        )
      return list
    }
    let after = 0
    live.forEach(({ i }, k) => {
      const outcomes = variants[i]!.flatMap(v =>
        outcomesOf(v, name).map(([value, p]) => ({ value, p: p * v.weight })),
      )
      const sum = outcomes.reduce((total, o) => total + o.p, 0)
      for (const o of outcomes)
        after +=
          ((mass[k]! * o.p) / sum) * entropy(normal(chances(o.value).map((c, x) => mass[x]! * c)))
    })
    const gain = Math.round((before - after) * 1000) / 1000
    if (gain > 0.001 && (!found || gain > found.gain + 1e-9))
      found = { reading: name, how: HOW[name], gain }
  }
  return found
}
function outcomesOf(v: Variant, name: ReadingName): [Readings[ReadingName], number][] {
  if (name === 'lamps') return Object.entries(v.lamps) as [Lamps, number][]
  if (name === 'detectorOnGround')
    return [
      [true, v.detector],
      [false, 1 - v.detector],
    ]
  if (name === 'jumperSeen')
    return [
      [true, v.jumper],
      [false, 1 - v.jumper],
    ]
  const typical = v.volts[name]?.typical ?? []
  return typical.map(x => [x, 1 / typical.length])
}
function normal(list: readonly number[]): number[] {
  const sum = list.reduce((a, b) => a + b, 0)
  return list.map(x => (sum > 0 ? x / sum : 1 / list.length))
}
const entropy = (p: readonly number[]): number =>
  -p.reduce((sum, x) => sum + (x > 0 ? x * Math.log2(x) : 0), 0)
