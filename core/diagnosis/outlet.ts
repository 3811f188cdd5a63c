/**
 * From readings at an outlet to what is wrong with it. Any subset of readings gives the states ranked by how well they
 * explain all of them together, with an error model for each instrument; a state is one answer only where no other
 * fits. H narrow slot, N wide slot, G ground terminal, E a proved earth on a long lead. Volts, ohms, amperes.
 */
export const STATES = ['good', 'ground missing', 'bootleg', 'reversed polarity', 'reversed bootleg', 'open neutral', 'open hot', 'hot and ground swapped', 'neutral and ground swapped', 'lost shared neutral', 'high-resistance joint'] as const
export type OutletState = (typeof STATES)[number]
export const LAMPS = ['correct', 'open ground', 'reversed', 'open neutral', 'open hot', 'hot and ground reversed'] as const
export type Lamps = (typeof LAMPS)[number]

/** What was read. Voltages without a load unless said. */
export interface Readings {
  readonly hotNeutral?: number
  readonly hotGround?: number
  readonly neutralGround?: number
  /** Ground terminal to a proved earth. */
  readonly groundEarth?: number
  /** Drop of hot to neutral under a test load, per cent. */
  readonly dropPercent?: number
  /** Neutral to ground under that load. */
  readonly neutralGroundLoaded?: number
  /** Ground impedance; 100000 where the instrument says open. */
  readonly groundOhms?: number
  readonly lamps?: Lamps
  /** A non-contact detector alarms on the ground terminal or frame. */
  readonly detectorOnGround?: boolean
  /** Current in the grounding conductor while the load runs. */
  readonly groundClampAmps?: number
  /** Voltage of the other half of a multiwire pair, measured together with this one. */
  readonly otherHalf?: number
  /** A jumper from neutral to ground was looked for in the open box. */
  readonly jumperSeen?: boolean
}
export type ReadingName = keyof Readings
export interface Setting {
  /** Impedance of the meter; high-impedance readings on a floating conductor may be anything. */
  readonly meter?: 'high' | 'low'
  /** Whether anything is switched on that returns on this neutral. */
  readonly loadsOn?: boolean
  /** Length of wire back to the panel, feet, one way. */
  readonly runFt?: number
  /** Test load, amperes. */
  readonly testAmps?: number
}

type Density = (value: number) => number
interface Variant { readonly weight: number, readonly volts: Partial<Record<ReadingName, Density>>, readonly typical: Partial<Record<ReadingName, readonly number[]>>, readonly lamps: Partial<Record<Lamps, number>>, readonly detector: number, readonly jumper: number }
export interface RankedState { readonly state: OutletState, /** Likelihood beside the best, 1 for the best itself. */ readonly fit: number, readonly share: number, readonly ruledOutBy: readonly string[], readonly settles: string, readonly isLethal: boolean }
export interface NextReading { readonly reading: ReadingName, readonly how: string, readonly gain: number }
export interface Doubt { readonly reading: string, readonly why: string, readonly instead: string }
export interface Diagnosis {
  readonly states: readonly RankedState[]
  /** The one state that fits, or undefined where two or more do. */
  readonly answer: OutletState | undefined
  readonly fitting: readonly OutletState[]
  readonly ruledOut: readonly OutletState[]
  readonly next: NextReading | undefined
  /** Readings that prove nothing as they are. */
  readonly doubts: readonly Doubt[]
}

/** A state fits while it explains the readings at least this well beside the best; below the second it is ruled out. */
const FITS = 1e-4
const RULED_OUT = 1e-9
const HOT = 120

const BLUNDER = 1e-7
const bell = (mean: number, sd: number): Density => x => Math.exp(-0.5 * ((x - mean) / sd) ** 2) / (sd * 2.5066) + BLUNDER
const flat = (from: number, to: number): Density => x => (x >= from - 1 && x <= to + 1 ? 1 / (to - from + 2) : 0) + BLUNDER
const mix = (...parts: readonly (readonly [number, Density])[]): Density => x => parts.reduce((sum, [w, d]) => sum + w * d(x), 0)

const PRIOR: Record<OutletState, number> = {
  'good': 0.5, 'ground missing': 0.14, 'bootleg': 0.05, 'reversed polarity': 0.08, 'reversed bootleg': 0.006, 'open neutral': 0.06, 'open hot': 0.08, 'hot and ground swapped': 0.004, 'neutral and ground swapped': 0.01, 'lost shared neutral': 0.01, 'high-resistance joint': 0.06,
}
const LETHAL: ReadonlySet<OutletState> = new Set(['reversed bootleg', 'hot and ground swapped', 'lost shared neutral'])
const SETTLES: Record<OutletState, string> = {
  'good': 'Drop under load, and ground impedance of 1 Ω or less', 'ground missing': 'Open the box, power proved off: is there a conductor?', 'bootleg': 'Neutral to ground stays 0 under load though the run is long; look in the box', 'reversed polarity': 'Plain from the readings',
  'reversed bootleg': 'Ground terminal to a proved earth reads 120: make safe now', 'open neutral': 'Take every load off: it floats; ground terminal to earth is 0. Look at the joint before the first outlet that shows it', 'open hot': 'Breaker, device ahead, or a joint', 'hot and ground swapped': 'Stays with all loads off; ground terminal to earth reads 120: make safe now',
  'neutral and ground swapped': 'Clamp the grounding conductor while a load runs', 'lost shared neutral': 'Measure both halves together: they add to 240. Make safe now', 'high-resistance joint': 'Walk the chain under load: the drop jumps between two neighbours',
}
const HOW: Record<ReadingName, string> = {
  hotNeutral: 'Narrow slot to wide slot, low-impedance mode', hotGround: 'Narrow slot to ground terminal, low-impedance mode', neutralGround: 'Wide slot to ground terminal, low-impedance mode',
  groundEarth: 'Ground terminal to a proved earth on a long lead', dropPercent: 'Voltage with and without a load of 12 to 15 A', neutralGroundLoaded: 'Wide slot to ground terminal with that load on', groundOhms: 'Ground impedance by branch analyser',
  lamps: 'Three-lamp tester', detectorOnGround: 'Non-contact detector at the ground terminal and frame', groundClampAmps: 'Clamp the grounding conductor while a load runs', otherHalf: 'Both halves of the shared neutral, measured together', jumperSeen: 'Power proved off, look in the box for a jumper from wide slot to ground',
}

/** Every way a state can show itself: hidden circumstances (loads on, side of a joint, length of the run) as variants. */
function variantsOf(state: OutletState, s: Setting): Variant[] {
  const live = bell(HOT, 4)
  const dead = bell(0, 0.6)
  // A floating conductor reads anything on a high-impedance meter and collapses on a low-impedance one.
  const high = flat(0, 125)
  const low = mix([0.8, bell(0, 2.5)], [0.2, flat(0, 15)])
  const floating = s.meter === 'high' ? high : s.meter === 'low' ? low : mix([0.5, high], [0.5, low])
  const floats = s.meter === 'low' ? [0, 4] : [2, 20, 45, 70, 95]
  const amps = s.testAmps ?? 13
  // 14 to 12 copper, 2 to 3.2 mΩ a foot; without a length any house run is possible.
  const riseOf = (ft: number): readonly [number, number] => [ft * 0.0017 * amps, ft * 0.0036 * amps]
  const [r0, r1] = s.runFt === undefined ? [0.02, 120 * 0.0036 * amps] : riseOf(s.runFt)
  const rise = flatFine(r0 * 0.8, r1 * 1.2 + 0.25)
  const drop = flatFine(Math.max(0.05, 2 * r0 / HOT * 80), 2 * r1 / HOT * 115 + 1.6)
  const zero = bell(0, 0.06)
  const idle = mix([0.75, bell(0.3, 0.35)], [0.25, flat(0, 3)])
  const openOhms: Density = x => (x > 200 ? 0.02 : x > 20 ? 0.001 : 0) + BLUNDER
  const goodOhms: Density = x => (x <= 1.2 ? 1 / 1.2 : x < 3 ? 0.02 : 0) + BLUNDER
  const noClamp = bell(0, 0.25)
  const base = { detector: 0.02, jumper: 0.005 }
  const lampsOf = (main: Lamps, share = 0.985): Partial<Record<Lamps, number>> => ({ [main]: share })
  const v = (weight: number, volts: Variant['volts'], typical: Variant['typical'], lamps: Variant['lamps'], more: Partial<Variant> = {}): Variant => ({ weight, volts, typical, lamps, ...base, ...more })
  const powered = { hotNeutral: live, dropPercent: drop }
  const mid = [(r0 + r1) / 2]
  const common = { hotNeutral: [120], hotGround: [120], neutralGround: [0.3], groundEarth: [0], dropPercent: [2 * mid[0]! / HOT * 100], neutralGroundLoaded: mid, groundOhms: [0.3], groundClampAmps: [0], otherHalf: [120] }
  const half = bell(HOT, 4)
  switch (state) {
    case 'good': return [v(1, { ...powered, hotGround: live, neutralGround: idle, groundEarth: bell(0, 1), neutralGroundLoaded: rise, groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, common, lampsOf('correct'))]
    case 'ground missing': return [v(1, { ...powered, hotGround: floating, neutralGround: floating, groundEarth: floating, neutralGroundLoaded: floating, groundOhms: openOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, hotGround: floats, neutralGround: floats, groundEarth: floats, neutralGroundLoaded: floats, groundOhms: [100000] }, lampsOf('open ground'), { detector: 0.12 })]
    case 'bootleg': return [v(1, { ...powered, hotGround: live, neutralGround: zero, groundEarth: mix([0.7, bell(0, 1)], [0.3, flat(0, 4)]), neutralGroundLoaded: zero, groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, neutralGround: [0], neutralGroundLoaded: [0] }, lampsOf('correct'), { jumper: 0.98 })]
    case 'reversed polarity': return [v(1, { ...powered, hotGround: mix([0.8, bell(0.3, 0.5)], [0.2, flat(0, 3)]), neutralGround: live, groundEarth: bell(0, 1), neutralGroundLoaded: mix([0.7, bell(118, 4)], [0.3, flat(95, 125)]), groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, hotGround: [0.3], neutralGround: [120], neutralGroundLoaded: [118] }, lampsOf('reversed'))]
    case 'reversed bootleg': return [v(1, { ...powered, hotGround: live, neutralGround: zero, groundEarth: live, neutralGroundLoaded: zero, groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, neutralGround: [0], neutralGroundLoaded: [0], groundEarth: [120] }, lampsOf('correct'), { detector: 0.96, jumper: 0.98 })]
    case 'open neutral': {
      const on = v(s.loadsOn === undefined ? 0.5 : s.loadsOn ? 1 : 0.02, { hotNeutral: bell(0, 2), hotGround: live, neutralGround: bell(118, 6), groundEarth: bell(0, 1), dropPercent: flat(90, 100), neutralGroundLoaded: bell(119, 5), groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, hotNeutral: [0], neutralGround: [118], neutralGroundLoaded: [119], dropPercent: [100] }, { 'hot and ground reversed': 0.9, 'open neutral': 0.085 })
      const off = v(s.loadsOn === undefined ? 0.5 : s.loadsOn ? 0.02 : 1, { hotNeutral: floating, hotGround: live, neutralGround: floating, groundEarth: bell(0, 1), dropPercent: flat(90, 100), neutralGroundLoaded: bell(119, 5), groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, hotNeutral: floats, neutralGround: floats, neutralGroundLoaded: [119], dropPercent: [100] }, { 'open neutral': 0.94, 'hot and ground reversed': 0.045 })
      return [on, off]
    }
    case 'open hot': return [v(1, { hotNeutral: mix([0.85, dead], [0.15, floating]), hotGround: mix([0.85, dead], [0.15, floating]), neutralGround: idle, groundEarth: bell(0, 1), dropPercent: flat(95, 100), neutralGroundLoaded: dead, groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }, { ...common, hotNeutral: [0], hotGround: [0], neutralGround: [0], dropPercent: [100], neutralGroundLoaded: [0] }, lampsOf('open hot'))]
    case 'hot and ground swapped': return [v(1, { hotNeutral: mix([0.5, bell(0.5, 1)], [0.5, floating]), hotGround: live, neutralGround: live, groundEarth: live, dropPercent: flat(90, 100), neutralGroundLoaded: live, groundOhms: mix([0.5, goodOhms], [0.5, openOhms]), groundClampAmps: noClamp, otherHalf: half }, { ...common, hotNeutral: [0], neutralGround: [120], groundEarth: [120], dropPercent: [100], neutralGroundLoaded: [120] }, lampsOf('hot and ground reversed'), { detector: 0.96 })]
    case 'neutral and ground swapped': return [v(1, { ...powered, hotGround: live, neutralGround: idle, groundEarth: mix([0.6, bell(0.3, 0.5)], [0.4, flat(0, 4)]), neutralGroundLoaded: rise, groundOhms: goodOhms, groundClampAmps: flat(2, 20), otherHalf: half }, { ...common, groundClampAmps: [amps] }, lampsOf('correct'))]
    case 'lost shared neutral': return [v(1, { hotNeutral: mix([0.9, flat(30, 210)], [0.1, bell(HOT, 6)]), hotGround: live, neutralGround: flat(0, 95), groundEarth: bell(0, 1), dropPercent: flat(5, 90), neutralGroundLoaded: flat(2, 115), groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: flat(30, 210) }, { ...common, hotNeutral: [80, 100, 140, 160], otherHalf: [160, 140, 100, 80], neutralGround: [20, 40], dropPercent: [20, 40], neutralGroundLoaded: [40] }, lampsOf('correct', 0.95))]
    case 'high-resistance joint': {
      const sag = { ...powered, hotNeutral: mix([0.9, live], [0.1, flat(100, 121)]), hotGround: live, neutralGround: mix([0.8, idle], [0.2, flat(0, 8)]), groundEarth: bell(0, 1), dropPercent: flat(5, 60), groundOhms: goodOhms, groundClampAmps: noClamp, otherHalf: half }
      return [v(0.5, { ...sag, neutralGroundLoaded: rise }, { ...common, dropPercent: [8, 15, 30] }, lampsOf('correct')), v(0.5, { ...sag, neutralGroundLoaded: flat(3, 70) }, { ...common, dropPercent: [8, 15, 30], neutralGroundLoaded: [8, 18] }, lampsOf('correct'))]
    }
  }
}
/** Even between two small numbers, soft at the edges. */
function flatFine(from: number, to: number): Density {
  return x => (x >= from && x <= to ? 1 / (to - from) : Math.exp(-Math.abs(x < from ? from - x : x - to) / 0.12) / (to - from + 0.24)) * 0.98 + BLUNDER
}

const ORDER = Object.keys(HOW) as ReadingName[]
function density(variant: Variant, name: ReadingName, value: Readings[ReadingName]): number {
  if (name === 'lamps') return variant.lamps[value as Lamps] ?? 0.00005
  if (name === 'detectorOnGround') return value ? variant.detector : 1 - variant.detector
  if (name === 'jumperSeen') return value ? variant.jumper : 1 - variant.jumper
  let p = variant.volts[name]?.(value as number) ?? 1
  return p > 0 ? p : p = BLUNDER
}
function likelihood(variants: readonly Variant[], readings: Readings): number {
  const weight = variants.reduce((sum, v) => sum + v.weight, 0)
  return variants.reduce((sum, v) => sum + v.weight / weight * ORDER.reduce((p, name) => readings[name] === undefined ? p : p * density(v, name, readings[name]), 1), 0)
}
/** The pair of a lost neutral adds to 240: a sum no single reading shows. */
function pairing(state: OutletState, r: Readings): number {
  if (r.hotNeutral === undefined || r.otherHalf === undefined) return 1
  return state === 'lost shared neutral' ? bell(240, 6)(r.hotNeutral + r.otherHalf) * 100 : 1
}

/** Ranks every state by the readings taken, names what is ruled out and by what, and what to read next. */
export function diagnose(readings: Readings, setting: Setting = {}): Diagnosis {
  const variants = new Map(STATES.map(s => [s, variantsOf(s, setting)]))
  const weigh = (r: Readings) => STATES.map(s => likelihood(variants.get(s)!, r) * pairing(s, r))
  const raw = weigh(readings)
  const best = Math.max(...raw)
  const posterior = normal(raw.map((l, i) => l * PRIOR[STATES[i]!]))
  const bestState = STATES[raw.indexOf(best)]!
  const taken = ORDER.filter(name => readings[name] !== undefined)
  const states = STATES.map((state, i): RankedState => {
    const fit = raw[i]! / best
    const against = fit < FITS ? taken.map(name => ({ name, ratio: likelihood(variants.get(state)!, { [name]: readings[name] }) / likelihood(variants.get(bestState)!, { [name]: readings[name] }) })).filter(x => x.ratio < 0.05).sort((a, b) => a.ratio - b.ratio).map(x => x.name) : []
    return { state, fit, share: posterior[i]!, ruledOutBy: against, settles: SETTLES[state], isLethal: LETHAL.has(state) }
  }).sort((a, b) => b.share - a.share)
  const fitting = taken.length === 0 ? [...STATES] : states.filter(s => s.fit >= FITS).map(s => s.state)
  return {
    states, fitting, answer: fitting.length === 1 ? fitting[0] : undefined, ruledOut: taken.length === 0 ? [] : states.filter(s => s.fit < RULED_OUT).map(s => s.state),
    next: fitting.length > 1 ? nextReading(readings, variants, raw) : undefined, doubts: doubtsOf(readings, setting),
  }

  /** The reading that is expected to leave the least doubt among the states that fit. */
  function nextReading(taken: Readings, of: ReadonlyMap<OutletState, Variant[]>, now: readonly number[]): NextReading | undefined {
    const mass = normal(now.map((l, i) => l / best >= FITS || Object.keys(taken).length === 0 ? l * Math.sqrt(PRIOR[STATES[i]!]) : 0))
    const before = entropy(mass)
    let found: NextReading | undefined
    for (const name of ORDER) {
      if (taken[name] !== undefined) continue
      let after = 0
      STATES.forEach((state, i) => {
        if (mass[i]! < 1e-6) return
        const outcomes = of.get(state)!.flatMap(v => outcomesOf(v, name).map(([value, p]) => ({ value, p: p * v.weight })))
        const whole = outcomes.reduce((sum, o) => sum + o.p, 0)
        for (const o of outcomes) {
          const then = normal(STATES.map((s, k) => mass[k]! * likelihood(of.get(s)!, { [name]: o.value }) * pairing(s, { ...taken, [name]: o.value })))
          after += mass[i]! * o.p / whole * entropy(then)
        }
      })
      const gain = Math.round((before - after) * 1000) / 1000
      if (gain > 0.001 && (!found || gain > found.gain + 1e-9)) found = { reading: name, how: HOW[name], gain }
    }
    return found
  }
}
function outcomesOf(v: Variant, name: ReadingName): [Readings[ReadingName], number][] {
  if (name === 'lamps') return Object.entries(v.lamps) as [Lamps, number][]
  if (name === 'detectorOnGround') return [[true, v.detector], [false, 1 - v.detector]]
  if (name === 'jumperSeen') return [[true, v.jumper], [false, 1 - v.jumper]]
  const typical = v.typical[name] ?? []
  return typical.map(x => [x, 1 / typical.length])
}
const normal = (list: readonly number[]): number[] => {
  const sum = list.reduce((a, b) => a + b, 0)
  return list.map(x => sum > 0 ? x / sum : 1 / list.length)
}
const entropy = (p: readonly number[]): number => -p.reduce((sum, x) => sum + (x > 0 ? x * Math.log2(x) : 0), 0)

/** Says when a reading proves nothing, and which would. */
export function doubtsOf(r: Readings, s: Setting = {}): Doubt[] {
  const doubts: Doubt[] = []
  const doubt = (reading: string, why: string, instead: string) => doubts.push({ reading, why, instead })
  if (r.lamps === 'correct' && r.groundOhms === undefined && r.neutralGroundLoaded === undefined) doubt('lamps', 'Correct on a lamp tester proves no ground: a jumper from neutral to ground shows the same', 'Ground impedance, or neutral to ground under load')
  if (r.lamps === 'hot and ground reversed' && r.groundEarth === undefined) doubt('lamps', 'A neutral open with a load on shows the same, and is likelier', 'Take every load off, or ground terminal to a proved earth')
  if (r.lamps === 'open ground') doubt('lamps', 'Open ground is said of a wire that is missing and of one that is loose', 'Open the box, power proved off')
  if (s.meter !== 'low') {
    for (const name of ['hotNeutral', 'hotGround', 'neutralGround', 'groundEarth'] as const) {
      const volts = r[name]
      if (volts !== undefined && volts > 4 && volts < 105) doubt(name, `${volts} V on a high-impedance meter may be a floating conductor`, 'Low-impedance mode, or under load')
    }
    if ((r.hotGround ?? 0) >= 105 && r.groundOhms === undefined) doubt('hotGround', 'Coupled voltage can come near line voltage on a high-impedance meter', 'Low-impedance mode, or ground impedance')
  }
  if (r.neutralGround !== undefined && r.neutralGround < 0.2 && r.neutralGroundLoaded === undefined) doubt('neutralGround', 'No voltage without a load proves nothing', 'Neutral to ground under a load of 12 A or more')
  if (r.neutralGroundLoaded !== undefined && r.neutralGroundLoaded < 0.25 && (s.runFt === undefined || s.runFt < 25)) doubt('neutralGroundLoaded', 'Near the panel a good outlet looks like a bootleg', 'Look in the box')
  return doubts
}

export interface DeviceTest { readonly what: 'GFCI' | 'AFCI', readonly by: 'own button' | 'plug-in tester' | 'indicator light', readonly trips: boolean, readonly isGroundProved?: boolean, readonly isOutletDead?: boolean }
/** Whether a test of a protective device proves anything. */
export function refereeDevice(t: DeviceTest): { proves: boolean, why: string, instead?: string } {
  if (t.by === 'indicator light') return { proves: false, why: 'Lights mean different things on different makes: never evidence', instead: 'Its own button, then measure that the outlet is dead' }
  if (t.by === 'plug-in tester') {
    if (t.what === 'AFCI') return { proves: false, why: 'A hand tester for arc faults only indicates', instead: 'Its own button' }
    if (t.trips) return { proves: true, why: 'It opened on a current to ground' }
    return t.isGroundProved ? { proves: true, why: 'The ground is proved good and it did not open: failed, or not protected' } : { proves: false, why: 'A plug-in tester needs a ground to trip a good device', instead: 'Its own button' }
  }
  if (!t.trips) return { proves: true, why: 'It did not trip by its own button: failed' }
  return t.isOutletDead === undefined ? { proves: false, why: 'It tripped; whether the outlet went dead was not measured', instead: 'Measure with a load plugged in' } : { proves: true, why: t.isOutletDead ? 'It tripped and the outlet is dead' : 'It tripped and the outlet stays live: line and load are swapped' }
}
