/**
 * What an outlet can be like, alone or two at once, and what can be read there. 120 V outlets;
 * volts, ohms, amperes.
 */
export const STATES = [
  'good',
  'ground missing',
  'bootleg',
  'reversed polarity',
  'reversed bootleg',
  'open neutral',
  'open hot',
  'hot and ground swapped',
  'neutral and ground swapped',
  'lost shared neutral',
  'high-resistance joint',
  'high-resistance ground',
  'open service neutral',
  '240 V across the slots',
  'both slots on one hot',
  'floating ground energized',
] as const
export type OutletState = (typeof STATES)[number]
export const LAMPS = [
  'correct',
  'open ground',
  'reversed',
  'open neutral',
  'open hot',
  'hot and ground reversed',
] as const
export type Lamps = (typeof LAMPS)[number]

/** What was read. Voltages without a load unless said. */
export interface Readings {
  readonly hotNeutral?: number
  readonly hotGround?: number
  readonly neutralGround?: number
  /** Ground terminal to a proved reference. */
  readonly groundEarth?: number
  /** Narrow slot to a proved reference. */
  readonly narrowEarth?: number
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
  /** This circuit's leg to neutral at the panel, at the same moment. */
  readonly panelLegNeutral?: number
  /** The other leg to neutral at the panel. */
  readonly panelOtherLegNeutral?: number
  /** Current in the grounding electrode conductor or the bond of the water pipe, large loads on. */
  readonly electrodeAmps?: number
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
  /** AWG of the copper back to the panel. */
  readonly size?: string
}

/** States of a joint or conductor ahead: they hold for every outlet after it. The others are made at the device. */
export const JOINT_STATES: ReadonlySet<OutletState> = new Set([
  'ground missing',
  'open neutral',
  'open hot',
  'high-resistance joint',
  'high-resistance ground',
])

/** States of a neutral ahead of whole circuits: no joint on one of them. */
export const WHOLE_STATES: ReadonlySet<OutletState> = new Set([
  'lost shared neutral',
  'open service neutral',
])

/** One way an outlet can be: a state, or two at once, the one of the joint ahead first. */
export type Hypothesis = readonly [OutletState] | readonly [OutletState, OutletState]
const PAIRS: readonly Hypothesis[] = [
  ['ground missing', 'reversed polarity'],
  ['ground missing', 'hot and ground swapped'],
  ['ground missing', 'neutral and ground swapped'],
  ['ground missing', 'open neutral'],
  ['ground missing', 'open hot'],
  ['ground missing', 'high-resistance joint'],
  ['open neutral', 'bootleg'],
  ['open neutral', 'reversed polarity'],
  ['open neutral', 'reversed bootleg'],
  ['open neutral', 'hot and ground swapped'],
  ['open neutral', 'neutral and ground swapped'],
  ['open neutral', 'open hot'],
  ['high-resistance joint', 'bootleg'],
  ['high-resistance joint', 'reversed polarity'],
  ['high-resistance joint', 'reversed bootleg'],
  ['high-resistance joint', 'neutral and ground swapped'],
  ['high-resistance ground', 'reversed polarity'],
  ['high-resistance ground', 'high-resistance joint'],
  ['high-resistance ground', 'open neutral'],
  ['high-resistance ground', 'open hot'],
]
export const HYPOTHESES: readonly Hypothesis[] = [...STATES.map((s): Hypothesis => [s]), ...PAIRS]
export const nameOf = (h: readonly OutletState[]): string => h.join(' with ')

/**
 * What of several states can show at one outlet at all, as one of the hypotheses; undefined where none fits. A dead
 * outlet hides what is behind it, a jumper stands in for a missing ground, and without current no joint drops anything.
 */
export function visible(states: readonly OutletState[]): Hypothesis | undefined {
  const has = (s: OutletState) => states.includes(s)
  let left = states.filter((s, i) => s !== 'good' && states.indexOf(s) === i)
  if (has('open hot')) {
    // What is dead tells nothing of the device; a ground terminal on the dead conductor is no ground.
    const isOnDead = has('reversed bootleg') || has('hot and ground swapped')
    left = left.filter(s => JOINT_STATES.has(s))
    if (isOnDead && !left.includes('ground missing')) left = ['ground missing', ...left]
  }
  if (!has('open hot') && (has('bootleg') || has('reversed bootleg')))
    left = left.filter(s => s !== 'ground missing' && s !== 'high-resistance ground')
  // A ground that is gone altogether hides a bad joint in it; what the frame is live through hides both.
  if (has('ground missing')) left = left.filter(s => s !== 'high-resistance ground')
  if (has('floating ground energized') && !has('open hot'))
    left = left.filter(s => s !== 'ground missing' && s !== 'high-resistance ground')
  if (has('open hot') || has('open neutral') || has('hot and ground swapped'))
    left = left.filter(s => s !== 'high-resistance joint')
  if (left.length === 0) return ['good']
  const name = nameOf(left)
  return HYPOTHESES.find(
    h => nameOf(h) === name || (h.length === 2 && nameOf([h[1], h[0]]) === name),
  )
}

/** How often each is met, roughly; two at once as the product, a little less. */
const PRIOR: Record<OutletState, number> = {
  good: 0.5,
  'ground missing': 0.14,
  bootleg: 0.05,
  'reversed polarity': 0.08,
  'reversed bootleg': 0.006,
  'open neutral': 0.06,
  'open hot': 0.08,
  'hot and ground swapped': 0.004,
  'neutral and ground swapped': 0.01,
  'lost shared neutral': 0.01,
  'high-resistance joint': 0.06,
  'high-resistance ground': 0.03,
  'open service neutral': 0.004,
  '240 V across the slots': 0.001,
  'both slots on one hot': 0.002,
  'floating ground energized': 0.002,
}
export const priorOf = (h: Hypothesis): number =>
  h.reduce((p, s) => p * PRIOR[s], h.length === 2 ? 0.5 : 1)

export const LETHAL_STATES: ReadonlySet<string> = new Set([
  'reversed bootleg',
  'hot and ground swapped',
  'lost shared neutral',
  'open service neutral',
  '240 V across the slots',
  'floating ground energized',
  nameOf(['open neutral', 'bootleg']),
  nameOf(['open neutral', 'neutral and ground swapped']),
])
export const isLethal = (h: Hypothesis): boolean =>
  LETHAL_STATES.has(nameOf(h)) || h.some(s => LETHAL_STATES.has(s))

const SETTLES: Record<OutletState, string> = {
  good: 'Drop under load, and ground impedance of 1 Ω or less',
  'ground missing': 'Open the box, power proved off: is there a conductor?',
  bootleg: 'Neutral to ground stays 0 under load though the run is long; look in the box',
  'reversed polarity': 'Narrow slot to a proved reference reads 0',
  'reversed bootleg': 'Ground terminal to a proved reference reads 120: make safe now',
  'open neutral':
    'Take every load off: it floats; ground terminal to reference is 0. Look at the joint before the ' +
    'first outlet that shows it',
  'open hot': 'Breaker, device ahead, or a joint',
  'hot and ground swapped':
    'Stays with all loads off; ground terminal to reference reads 120: make safe now',
  'neutral and ground swapped': 'Clamp the grounding conductor while a load runs',
  'lost shared neutral': 'Measure both halves together: they add to 240. Make safe now',
  'high-resistance joint': 'Walk the chain under load: the drop jumps between two neighbors',
  'high-resistance ground': 'Ground impedance; then walk the chain: it jumps at the joint',
  'open service neutral':
    'Both legs to neutral at the panel, large loads on: they add to 240, on every circuit alike. Make safe now: ' +
    'call the utility; no rod, lifted bond or moved circuit cures it',
  '240 V across the slots':
    'Take the breakers of both legs off one at a time. Unplug everything: make safe now',
  'both slots on one hot': 'Unplug everything on the circuit: it stays; then open the box',
  'floating ground energized':
    'Unplug what stands on this ground, one after another, until the frame is dead: make safe now',
}
export const settlesOf = (h: Hypothesis): string =>
  h.map(s => (SETTLES[s].endsWith('?') || h.length === 1 ? SETTLES[s] : `${SETTLES[s]}.`)).join(' ')

export const HOW: Record<ReadingName, string> = {
  hotNeutral: 'Narrow slot to wide slot, low-impedance mode',
  hotGround: 'Narrow slot to ground terminal, low-impedance mode',
  neutralGround: 'Wide slot to ground terminal, low-impedance mode',
  groundEarth: 'Ground terminal to a proved reference on a long lead',
  narrowEarth: 'Narrow slot to a proved reference on a long lead',
  dropPercent: 'Voltage with and without a load of 12 to 15 A',
  neutralGroundLoaded: 'Wide slot to ground terminal with that load on',
  groundOhms: 'Ground impedance by branch analyzer',
  lamps: 'Three-lamp tester',
  detectorOnGround: 'Non-contact detector at the ground terminal and frame',
  groundClampAmps: 'Clamp the grounding conductor while a load runs',
  otherHalf: 'Both halves of the shared neutral, measured together',
  panelLegNeutral: 'At the panel, this circuit’s leg to neutral, at the same moment',
  panelOtherLegNeutral: 'At the panel, the other leg to neutral, at the same moment',
  electrodeAmps:
    'Clamp the grounding electrode conductor and the water-pipe bond while large loads run',
  jumperSeen: 'Power proved off, look in the box for a jumper from wide slot to ground',
}
export const READING_NAMES = Object.keys(HOW) as ReadingName[]
