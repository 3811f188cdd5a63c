/** What of a drop under load the wire explains, and what a bad joint makes: its side, its ohms, its heat. */
import type { Readings, Setting } from './states'

export type DropReadings = Pick<
  Readings,
  'hotNeutral' | 'dropPercent' | 'neutralGround' | 'neutralGroundLoaded'
>
export type DropSetting = Pick<Setting, 'runFt' | 'testAmps' | 'size'>
export interface Drop {
  readonly volts: number
  /** What the wire itself drops at the test load, least and most, volts. */
  readonly ordinaryVolts: readonly [number, number]
  /** What the wire does not explain; 0 where it explains all of it. */
  readonly excessVolts: number
  readonly excessPercent: number
  /** The conductor the excess is in; undefined where neutral to ground under load was not read, or there is none. */
  readonly side: 'hot' | 'neutral' | 'both' | undefined
  /** Of the joint, at the test load. */
  readonly ohms: number
  readonly watts: number
}

/** Ω per foot of copper at 75 °C, chapter 9 table 8. */
const OHMS_FT_14 = 0.00314
/** The thickest an outlet of 120 V hangs on, where nobody gauged it. */
const OHMS_FT_10 = 0.00124
const OHMS_FT: Readonly<Record<string, number>> = {
  '14': OHMS_FT_14,
  '12': 0.00198,
  '10': OHMS_FT_10,
  '8': 0.000778,
}
/** Nobody has said how long the run is: up to here a house has them. */
const LONGEST_FT = 120
const NOMINAL = 120
const TEST_AMPS = 13
const round = (x: number, to = 100): number => Math.round(x * to) / to

/**
 * Splits a drop into what the wire explains and what it does not. Undefined where no drop was read, or where the
 * outlet does not carry the load at all.
 * @example dropOf({ dropPercent: 12, neutralGroundLoaded: 2 }, { runFt: 60, testAmps: 13 }) // side: 'hot'
 */
export function dropOf(r: DropReadings, s: DropSetting = {}): Drop | undefined {
  if (r.dropPercent === undefined || r.dropPercent >= 88) return undefined
  const amps = s.testAmps ?? TEST_AMPS
  const supply = r.hotNeutral ?? NOMINAL
  const volts = (supply * r.dropPercent) / 100
  const known = s.size === undefined ? undefined : OHMS_FT[s.size]
  const least = 2 * (s.runFt ?? 0) * (known ?? OHMS_FT_10) * amps
  const most = 2 * (s.runFt ?? LONGEST_FT) * (known ?? OHMS_FT_14) * amps
  const excess = Math.max(0, volts - most)
  return {
    volts: round(volts),
    ordinaryVolts: [round(least), round(most)],
    excessVolts: round(excess),
    excessPercent: round((100 * excess) / supply),
    side: excess > 0 ? sideOf(r, volts, least, most) : undefined,
    ohms: round(excess / amps, 1000),
    watts: round(excess * amps, 10),
  }
}

/** Neutral to ground under load is the neutral's half of the drop; what it exceeds half the wire's by is its joint. */
function sideOf(r: DropReadings, volts: number, least: number, most: number): Drop['side'] {
  if (r.neutralGroundLoaded === undefined) return undefined
  // A neutral joined to ground here shows nothing of its drop: only what rises above it can be told apart.
  const neutral = Math.max(0, r.neutralGroundLoaded - (r.neutralGround ?? 0))
  const wire = (least + most) / 4
  const inNeutral = Math.max(0, neutral - wire)
  const inHot = Math.max(0, volts - neutral - wire)
  const share = inNeutral / (inNeutral + inHot || 1)
  return share > 0.7 ? 'neutral' : share < 0.3 ? 'hot' : 'both'
}

/** The most a dead fault to the frame can draw through this ground, amperes; undefined where it is open or unread. */
export function groundFaultAmps(
  r: Pick<Readings, 'hotNeutral' | 'groundOhms'>,
): number | undefined {
  if (r.groundOhms === undefined || r.groundOhms > 1000) return undefined
  return round((r.hotNeutral ?? NOMINAL) / Math.max(0.05, r.groundOhms), 10)
}
