/**
 * Circuits with faults put in, as resistive networks: supply, breaker, outlets on a tree of cable,
 * loads, leakage between
 * the conductors. Instruments are laid on as the resistances they are, and err as they do. What is read comes from
 * the network, not from what the diagnosis expects. The same seed gives the same circuits.
 */
import {
  JOINT_STATES,
  STATES,
  visible,
  WHOLE_STATES,
  type Hypothesis,
  type OutletState,
  type Readings,
  type Setting,
} from '../diagnosis/states'
import { lampsFor } from '../diagnosis/wiring'
import { Network } from '../paths/network'
import { bell, pick, type Random } from './random'

export interface SimulatedOutlet {
  readonly id: string
  readonly after: string | 'panel'
  /** What is wrong here and can show. */
  readonly truth: Hypothesis
  readonly setting: Setting
  readonly readings: Readings
}
export interface Fault {
  readonly state: OutletState
  /** The outlet it is at, or the one its joint comes before. */ readonly at: string
}
export interface SimulatedCircuit {
  readonly outlets: readonly SimulatedOutlet[]
  readonly faults: readonly Fault[]
}

/** Ω per foot of copper, 14 and 12 AWG, warm. */
const OHMS_FT = [0.00307, 0.00193] as const
/** Coupling between two conductors of one cable, 1/Ω per foot at 60 Hz. */
const COUPLING_FT = 1.1e-8
const OPEN = 1e-11
const METER = { high: 1e-7, low: 1 / 3000 } as const
const LAMP = 1 / 33000
const LIT_VOLTS = 75

interface Box {
  readonly hot: number
  readonly neutral: number
  readonly ground: number
  readonly narrow: number
  readonly wide: number
  readonly earth: number
  readonly parent: Box | undefined
  readonly groundConductance: number
}

/** States that are put in without a second one. */
const ALONE: ReadonlySet<OutletState> = new Set([
  ...WHOLE_STATES,
  '240 V across the slots',
  'both slots on one hot',
  'floating ground energized',
])

/** A circuit of 2 to 8 outlets with no, one or two states put in. */
export function simulateCircuit(random: Random): SimulatedCircuit {
  const count = 2 + Math.floor(random() * 7)
  const parents = Array.from({ length: count }, (_, i) =>
    i === 0 ? -1 : random() < 0.75 ? i - 1 : Math.floor(random() * i),
  )
  const how = random()
  const number = how < 0.12 ? 0 : how < 0.6 ? 1 : 2
  const drawn: { state: OutletState; at: number }[] = []
  while (drawn.length < number) {
    const state = pick(random, STATES)
    // A lost neutral is the whole circuit's, and is put in alone, as is what no second state is known beside; one
    // device is not wired wrong in two ways.
    if (state === 'good' || (ALONE.has(state) && drawn.length > 0)) continue
    const at = Math.floor(random() * count)
    // What is energized through an appliance is so for all behind it: put in where nothing is behind.
    if (state === 'floating ground energized' && parents.includes(at)) continue
    if (drawn.some(d => d.at === at && JOINT_STATES.has(d.state) === JOINT_STATES.has(state)))
      continue
    drawn.push({ state, at: WHOLE_STATES.has(state) ? 0 : at })
    if (ALONE.has(state)) break
  }
  return build(random, parents, drawn)
}

function build(
  random: Random,
  parents: readonly number[],
  drawn: readonly { state: OutletState; at: number }[],
): SimulatedCircuit {
  const supply = 114 + random() * 12
  const perFt = pick(random, OHMS_FT)
  const lengths = parents.map((_, i) => (i === 0 ? 8 + random() * 42 : 4 + random() * 9))
  const runs = lengths.map((_, i) => {
    let ft = 0
    for (let at = i; at >= 0; at = parents[at]!) ft += lengths[at]!
    return ft
  })
  /** Whether power reaches one outlet through another, or it is that one. */
  const leadsTo = (from: number, target: number): boolean => {
    for (let at = from; at >= 0; at = parents[at]!) if (at === target) return true
    return false
  }
  const isAt = (state: OutletState, i: number) => drawn.some(d => d.state === state && d.at === i)
  const isLost = drawn.some(d => d.state === 'lost shared neutral')
  const isServiceLost = drawn.some(d => d.state === 'open service neutral')
  const isHalved = isLost || isServiceLost

  const net = new Network()
  const source = net.node(supply)
  const otherSource = net.node(-supply)
  const earth = net.node(0)
  const panel = { hot: net.node(), neutral: net.node(), ground: net.node() }
  net.join(source, panel.hot, 1 / 0.03)
  // With the service neutral gone neutral and ground stay joined, and only the electrodes lead home.
  const electrodes = isServiceLost ? 1 / (8 + random() * 60) : 1 / 0.02
  net.join(earth, panel.neutral, isLost ? OPEN : electrodes)
  if (isServiceLost) net.join(panel.neutral, panel.ground, 1 / 0.001)
  else net.join(earth, panel.ground, 1 / 0.02)
  const ownOhms = 25 + random() * 60
  // Unequal enough to be told: the smaller half takes a quarter to under a half, or the other way round.
  const otherOhms =
    (isServiceLost ? 0.3 : 1) *
    ownOhms *
    (random() < 0.5 ? 1.4 + random() * 2 : 0.3 + random() * 0.4)
  if (isHalved) net.join(otherSource, panel.neutral, 1 / otherOhms)
  const boxes: Box[] = []
  const jointsInNeutral: number[] = []
  parents.forEach((p, i) => {
    const from = p < 0 ? panel : boxes[p]!
    const conductance = 1 / (lengths[i]! * perFt + 0.004)
    const joint = isAt('high-resistance joint', i) ? (0.07 * supply) / 13 + random() * 1.2 : 0
    const isInNeutral = random() < 0.5
    if (joint > 0 && isInNeutral) jointsInNeutral.push(i)
    const hot = net.node()
    const neutral = net.node()
    const ground = net.node()
    const add = (a: number, b: number, isOpen: boolean, ohms = 0) =>
      net.join(a, b, isOpen ? OPEN : 1 / (1 / conductance + ohms))
    add(from.hot, hot, isAt('open hot', i), isInNeutral ? 0 : joint)
    add(from.neutral, neutral, isAt('open neutral', i), isInNeutral ? joint : 0)
    const isFloating = isAt('ground missing', i) || isAt('floating ground energized', i)
    const groundJoint = isAt('high-resistance ground', i) ? 3 * 50 ** random() : 0
    const groundConductance = isFloating ? OPEN : 1 / (1 / conductance + groundJoint)
    net.join(from.ground, ground, groundConductance)
    const coupling = lengths[i]! * COUPLING_FT
    net.join(hot, neutral, coupling)
    net.join(hot, ground, coupling)
    net.join(neutral, ground, coupling * (0.6 + 0.8 * random()))
    let [narrow, wide, terminal] = [hot, neutral, ground]
    if (isAt('reversed polarity', i) || isAt('reversed bootleg', i)) [narrow, wide] = [neutral, hot]
    if (isAt('hot and ground swapped', i)) [narrow, terminal] = [ground, hot]
    if (isAt('neutral and ground swapped', i)) [wide, terminal] = [ground, neutral]
    if (isAt('bootleg', i) || isAt('reversed bootleg', i)) terminal = wide
    if (isAt('both slots on one hot', i)) wide = hot
    if (isAt('240 V across the slots', i)) {
      wide = net.node()
      net.join(otherSource, wide, 1 / (runs[i]! * perFt + 0.03))
    }
    if (isAt('floating ground energized', i)) net.join(hot, ground, 1 / (5 + random() * 30))
    boxes.push({
      hot,
      neutral,
      ground,
      narrow,
      wide,
      earth: terminal,
      parent: p < 0 ? undefined : boxes[p],
      groundConductance,
    })
  })
  // Loads are plugged in where hot and neutral are on the slots.
  const loads: number[] = []
  boxes.forEach((box, i) => {
    const isOrdinary =
      (box.narrow === box.hot && box.wide === box.neutral) ||
      (box.narrow === box.neutral && box.wide === box.hot)
    if (!isOrdinary || (!isHalved && random() > 0.3) || (isHalved && loads.length > 0)) return
    loads.push(i)
    const ohms = isServiceLost ? ownOhms * 0.3 : isLost ? ownOhms : 60 + random() * 300
    net.join(box.narrow, box.wide, 1 / ohms)
  })

  /** A broken neutral some load pulls up, or only leakage: what a low-impedance meter finds. */
  const isPulledUp = (box: Box): boolean => {
    const laid = net.copy()
    laid.join(box.neutral, earth, METER.low)
    return laid.solve()[box.neutral]! > 60
  }
  const faults = drawn.map((d): Fault => ({ state: d.state, at: `o${d.at}` }))
  const outlets = boxes.flatMap((box, i): SimulatedOutlet[] => {
    const here = drawn
      .filter(
        d =>
          WHOLE_STATES.has(d.state) || (JOINT_STATES.has(d.state) ? leadsTo(i, d.at) : d.at === i),
      )
      .map(d => d.state)
    // A neutral open behind an open hot shows only where some load pulls it up.
    const isHidden = here.includes('open hot') && here.includes('open neutral') && !isPulledUp(box)
    // With neutral and ground swapped the load returns in the ground, and a joint in the neutral drops nothing here.
    const isIdle =
      here.includes('neutral and ground swapped') && jointsInNeutral.some(j => leadsTo(i, j))
    const truth = visible(
      here.filter(
        s => !(isHidden && s === 'open neutral') && !(isIdle && s === 'high-resistance joint'),
      ),
    )
    if (!truth) return []
    const breaks = drawn
      .filter(d => (d.state === 'open neutral' || d.state === 'open hot') && leadsTo(i, d.at))
      .map(d => d.at)
    // Somebody who has walked round knows whether anything is on; not which of it hangs behind the break.
    const isPulling = here.includes('open neutral')
      ? isPulledUp(box)
      : loads.some(l => breaks.some(b => leadsTo(l, b)))
    const loadsOn = loads.length === 0 ? false : breaks.length === 0 || isPulling ? true : undefined
    const setting: Setting = {
      meter: random() < 0.6 ? 'low' : 'high',
      ...(loadsOn !== undefined && { loadsOn }),
      runFt: Math.round(runs[i]!),
      testAmps: 12 + Math.round(random() * 3),
    }
    return [
      {
        id: `o${i}`,
        after: parents[i]! < 0 ? 'panel' : `o${parents[i]!}`,
        truth,
        setting,
        readings: read(
          random,
          net,
          box,
          {
            earth,
            supply,
            otherSource,
            panelHot: panel.hot,
            // A lost neutral of a pair leaves the neutral of the panel where it was.
            panelNeutral: isLost ? earth : panel.neutral,
            panelGround: panel.ground,
            electrodes: isServiceLost ? electrodes : 0,
            isLost: isHalved,
          },
          setting,
          here,
        ),
      },
    ]
  })
  return { outlets, faults }
}

interface Places {
  readonly earth: number
  readonly supply: number
  readonly otherSource: number
  readonly panelHot: number
  readonly panelNeutral: number
  readonly panelGround: number
  /** What leads home through the soil where the service neutral is gone, 1/Ω; 0 where it is not. */
  readonly electrodes: number
  readonly isLost: boolean
}

/** Everything every instrument reads at one outlet, each laid on by itself. */
function read(
  random: Random,
  net: Network,
  box: Box,
  at: Places,
  setting: Setting,
  here: readonly OutletState[],
): Readings {
  const volts = (x: number) =>
    Math.max(
      0,
      Math.round((Math.abs(x) * (1 + bell(random) * 0.004) + bell(random) * 0.15) * 10) / 10,
    )
  const fine = (x: number) =>
    Math.max(
      0,
      Math.round((Math.abs(x) * (1 + bell(random) * 0.01) + bell(random) * 0.02) * 100) / 100,
    )
  const metered = (a: number, b: number): number => {
    if (a === b) return 0
    const laid = net.copy()
    laid.join(a, b, METER[setting.meter ?? 'low'])
    const v = laid.solve()
    return v[a]! - v[b]!
  }
  const idle = metered(box.narrow, box.wide)

  const loaded = net.copy()
  loaded.join(box.narrow, box.wide, (setting.testAmps ?? 13) / at.supply)
  loaded.join(box.wide, box.earth, METER[setting.meter ?? 'low'])
  const l = loaded.solve()
  const drop =
    Math.abs(idle) < 5 ? 100 : 100 * (1 - Math.abs(l[box.narrow]! - l[box.wide]!) / Math.abs(idle))

  const lit = net.copy()
  lit.join(box.narrow, box.wide, LAMP)
  lit.join(box.narrow, box.earth, LAMP)
  lit.join(box.wide, box.earth, LAMP)
  const s = lit.solve()
  const isLit = (a: number, b: number) => Math.abs(s[a]! - s[b]!) > LIT_VOLTS
  const legend = lampsFor(
    isLit(box.narrow, box.wide),
    isLit(box.narrow, box.earth),
    isLit(box.wide, box.earth),
  )

  const ohms = groundOhms(net, box)
  const frame = metered(box.earth, at.earth)
  const isTied = here.includes('bootleg') || here.includes('reversed bootleg')
  return {
    hotNeutral: volts(idle),
    hotGround: volts(metered(box.narrow, box.earth)),
    neutralGround: fine(metered(box.wide, box.earth)),
    groundEarth: volts(frame),
    narrowEarth: volts(metered(box.narrow, at.earth)),
    dropPercent: Math.min(100, fine(drop)),
    neutralGroundLoaded: fine(l[box.wide]! - l[box.earth]!),
    groundOhms: ohms > 1000 ? 100000 : fine(ohms),
    ...(legend && { lamps: legend }),
    detectorOnGround:
      random() <
      (Math.abs(frame) > 60 && !here.includes('ground missing')
        ? 0.97
        : Math.abs(frame) > 30
          ? 0.1
          : 0.01),
    groundClampAmps: fine(
      (l[box.ground]! - l[box.parent?.ground ?? at.panelGround]!) * box.groundConductance,
    ),
    jumperSeen: isTied,
    panelLegNeutral: volts(metered(at.panelHot, at.panelNeutral)),
    panelOtherLegNeutral: volts(metered(at.otherSource, at.panelNeutral)),
    electrodeAmps: fine((net.solve()[at.panelNeutral]! - 0) * at.electrodes + random() * 0.4),
    ...(at.isLost && { otherHalf: volts(metered(at.otherSource, box.wide)) }),
  }
}

/**
 * What a branch analyzer finds between the ground terminal and the supply's earth: a small current
 * sent in, the volts it makes.
 */
function groundOhms(net: Network, box: Box): number {
  const sent = net.copy()
  const probe = sent.node(1000)
  const conductance = 0.001
  sent.join(probe, box.earth, conductance)
  const before = net.solve()
  const after = sent.solve()
  const rise = after[box.earth]! - before[box.earth]!
  const amps = (1000 - after[box.earth]!) * conductance
  return Math.abs(amps) < 1e-9 ? 100000 : Math.abs(rise / amps)
}
