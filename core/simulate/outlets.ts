/**
 * Outlets on random chains with faults put in, and instruments that err as real ones do. Voltages come from the
 * resistances of the run, not from what the diagnosis expects. The same seed gives the same houses.
 */
import { STATES, type Lamps, type OutletState, type Readings, type Setting } from '../diagnosis/outlet'

export type Random = () => number
/** A small generator of even numbers from 0 to 1, the same for the same seed. */
export function seeded(seed: number): Random {
  let s = seed >>> 0
  return () => {
    s = (s + 0x6D2B79F5) >>> 0
    let t = Math.imul(s ^ (s >>> 15), 1 | s)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
const bellOf = (random: Random) => Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random())

export interface SimulatedOutlet { readonly state: OutletState, readonly setting: Setting, readonly readings: Required<Omit<Readings, 'otherHalf'>> & Pick<Readings, 'otherHalf'> }

/** Ω per foot of copper, 14 and 12 AWG, warm. */
const OHMS_FT = [0.00307, 0.00193] as const

/** One outlet somewhere on a chain, with a state and everything every instrument would read there. */
export function simulateOutlet(random: Random, state: OutletState = STATES[Math.floor(random() * STATES.length)]!): SimulatedOutlet {
  const supply = 114 + random() * 12
  const runFt = Math.round(8 + random() ** 1.4 * 112)
  const perFt = OHMS_FT[random() < 0.5 ? 0 : 1]!
  const meter = random() < 0.6 ? 'low' as const : 'high' as const
  const loadsOn = random() < 0.5
  const testAmps = 12 + Math.round(random() * 3)
  const line = runFt * perFt
  const other = loadsOn ? random() * 4 : 0
  // What other loads lose in the shared length, and what the test load loses.
  const idle = other * line * (0.3 + 0.6 * random())
  const rise = testAmps * line
  const joint = state === 'high-resistance joint' ? 0.06 * supply / testAmps + random() * 1.2 : 0
  const isInNeutral = random() < 0.5
  const floating = () => meter === 'high' ? random() * 118 : Math.abs(bellOf(random)) * 1.6
  const volts = (x: number) => Math.max(0, Math.round((x * (1 + bellOf(random) * 0.004) + bellOf(random) * 0.15) * 10) / 10)
  const fine = (x: number) => Math.max(0, Math.round((x * (1 + bellOf(random) * 0.01) + bellOf(random) * 0.02) * 100) / 100)
  const lampsFor = (main: Lamps, aside?: Lamps): Lamps => random() < 0.99 ? main : aside ?? main
  const unequal = 0.25 + random() * 0.5
  const drop = 100 * (2 * rise + joint * testAmps) / supply

  const at = {
    hn: supply - 2 * idle, hg: supply - idle, ng: idle, ge: 0.2 * idle, ngLoaded: rise + idle, dropPercent: drop, ohms: 2 * line + 0.05 + random() * 0.08,
    lamps: 'correct' as Lamps, detector: random() < 0.01, clamp: 0, jumper: false, otherHalf: undefined as number | undefined,
  }
  const set = (change: Partial<typeof at>) => Object.assign(at, change)
  switch (state) {
    case 'good': break
    case 'ground missing': set({ hg: floating(), ng: floating(), ge: floating(), ngLoaded: floating(), ohms: 100000, lamps: lampsFor('open ground'), detector: random() < 0.08 }); break
    case 'bootleg': set({ hg: at.hn, ng: 0, ge: idle, ngLoaded: 0, jumper: true }); break
    case 'reversed polarity': set({ hg: idle, ng: supply - idle, ngLoaded: supply - rise, lamps: lampsFor('reversed') }); break
    case 'reversed bootleg': set({ hg: at.hn, ng: 0, ge: supply - idle, ngLoaded: 0, jumper: true, detector: random() < 0.97 }); break
    case 'open neutral':
      set({ hn: loadsOn ? 0.3 : floating(), ng: loadsOn ? supply - 1 : floating(), ngLoaded: supply - 0.5, dropPercent: 99 + random() })
      at.lamps = loadsOn ? lampsFor('hot and ground reversed', 'open neutral') : lampsFor('open neutral', 'hot and ground reversed')
      break
    case 'open hot': set({ hn: random() < 0.9 ? 0 : floating(), hg: random() < 0.9 ? 0 : floating(), ng: idle, ngLoaded: 0, dropPercent: 99.5, lamps: lampsFor('open hot') }); break
    case 'hot and ground swapped': set({ hn: random() < 0.5 ? 0.2 : floating(), hg: supply, ng: supply, ge: supply, ngLoaded: supply, dropPercent: 99, ohms: random() < 0.5 ? at.ohms : 100000, lamps: lampsFor('hot and ground reversed'), detector: random() < 0.97 }); break
    case 'neutral and ground swapped': set({ clamp: testAmps, ge: idle }); break
    case 'lost shared neutral': {
      const hn = 2 * supply * unequal
      const ng = Math.abs(supply - hn)
      set({ hn, otherHalf: 2 * supply - hn, ng, ngLoaded: Math.min(112, ng + 15 + random() * 25), dropPercent: 12 + random() * 60 })
      break
    }
    case 'high-resistance joint': if (isInNeutral) at.ngLoaded += joint * testAmps; break
  }
  return {
    state, setting: { meter, loadsOn, runFt, testAmps },
    readings: {
      hotNeutral: volts(at.hn), hotGround: volts(at.hg), neutralGround: fine(at.ng), groundEarth: volts(at.ge), dropPercent: Math.min(100, fine(at.dropPercent)), neutralGroundLoaded: fine(at.ngLoaded), groundOhms: at.ohms > 1000 ? 100000 : fine(at.ohms), lamps: at.lamps,
      detectorOnGround: at.detector, groundClampAmps: fine(at.clamp), jumperSeen: at.jumper, ...at.otherHalf !== undefined && { otherHalf: volts(at.otherHalf) },
    },
  }
}
