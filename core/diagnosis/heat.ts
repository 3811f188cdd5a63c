/**
 * Heat at breakers by infrared. Raw differences are put in classes against like parts first, then against the air;
 * the rise at rated current is an estimate in a band, never a line. Facts of the trade, section 8 of the tables.
 */
export interface Scan {
  readonly id: string
  readonly temperatureC: number
  readonly ratingAmps: number
  /** Amperes at the moment of the scan; undefined where nobody clamped. */
  readonly loadAmps?: number
  /** Breakers with electronics run warm with no load. */
  readonly isElectronic: boolean
}
export type HeatClass = 'none' | 'possible' | 'probable' | 'watch and repair' | 'major'
export interface Cause {
  readonly cause: string
  readonly confirm: string
}
export interface Heat {
  readonly id: string
  readonly overAirC: number
  readonly airClass: HeatClass
  /** Over the warmest and the coolest of its like; undefined without any. */
  readonly overWarmestC: number | undefined
  readonly overCoolestC: number | undefined
  readonly likeClass: HeatClass | undefined
  /**
   * Estimated rise over air at rated current, °C, for exponents 1.6 and 2; undefined without a load, and under a
   * tenth of the rating. Loads under 30 % are scaled as 30 %.
   */
  readonly atRatedC: readonly [number, number] | undefined
  /** Share of the rating carried at the scan. */
  readonly loadShare: number | undefined
  /** Under 40 % load the estimate means little. */
  readonly isWeak: boolean
  readonly causes: readonly Cause[]
  readonly next: string
}

/** Warmth electronics make on their own, °C. */
export const ELECTRONICS_C = 10
/** Rise breaker terminals are tested to at rated current, °C. */
export const TESTED_RISE_C = 50
export const LEAST_SHARE = 0.4
/** Under this share of the rating nothing is estimated: a degree of error would become a hundred. */
const NO_ESTIMATE_BELOW = 0.1
/** Lower loads are scaled as this one: the estimate stays a band, and low. */
const FLOOR_SHARE = 0.3
/** Shares of the rating this near to each other are a like load. */
const LIKE_SHARE = 0.2
const ROUNDING = 1e-9
/** Carrying no more than this share, a breaker shows what its electronics make alone. */
const IDLE_SHARE = 0.05
const EXPONENTS = [1.6, 2] as const

/** Class of a difference to like parts at like load. */
export const likeClass = (overC: number): HeatClass =>
  overC > 15 ? 'major' : overC >= 4 ? 'probable' : overC >= 1 ? 'possible' : 'none'
/** Class of a difference to the air. */
export const airClass = (overC: number): HeatClass =>
  overC > 40
    ? 'major'
    : overC > 20
      ? 'watch and repair'
      : overC > 10
        ? 'probable'
        : overC >= 1
          ? 'possible'
          : 'none'

/**
 * Compares every breaker of a panel with the air and with its own kind.
 * @param ambientC air at the panel, °C
 */
export const heatOf = (scans: readonly Scan[], ambientC: number): Heat[] =>
  scans.map(scan => heatOfOne(scan, scans, ambientC))

/** Compares one breaker with the air and with those of its own kind. */
export function heatOfOne(scan: Scan, scans: readonly Scan[], ambientC: number): Heat {
  const own = scan.temperatureC - ambientC
  const electronics = scan.isElectronic ? (twinOver(scan, scans, ambientC) ?? ELECTRONICS_C) : 0
  const overAirC = tidy(own - Math.min(electronics, Math.max(0, own)))
  const like = scans.filter(s => isLike(scan, s)).map(s => s.temperatureC)
  const overWarmestC = like.length ? tidy(scan.temperatureC - Math.max(...like)) : undefined
  const overCoolestC = like.length ? tidy(scan.temperatureC - Math.min(...like)) : undefined
  const loadShare = scan.loadAmps === undefined ? undefined : scan.loadAmps / scan.ratingAmps
  const atRatedC =
    loadShare === undefined || loadShare < NO_ESTIMATE_BELOW
      ? undefined
      : scaled(overAirC, loadShare)
  return {
    id: scan.id,
    overAirC,
    airClass: airClass(overAirC),
    overWarmestC,
    overCoolestC,
    likeClass: overWarmestC === undefined ? undefined : likeClass(overWarmestC),
    atRatedC,
    loadShare: loadShare === undefined ? undefined : tidy(loadShare),
    isWeak: loadShare === undefined || loadShare < LEAST_SHARE,
    ...explain(scan, overAirC, loadShare, overWarmestC),
  }
}

const shareOf = (s: Scan): number | undefined =>
  s.loadAmps === undefined ? undefined : s.loadAmps / s.ratingAmps

/** Another breaker of the kind, at a load like this one's where both were clamped. */
function isLike(scan: Scan, other: Scan): boolean {
  if (other.id === scan.id || other.isElectronic !== scan.isElectronic) return false
  const [a, b] = [shareOf(scan), shareOf(other)]
  return a === undefined || b === undefined || Math.abs(a - b) <= LIKE_SHARE + ROUNDING
}

/** How warm an unloaded twin is, °C over the air: what the electronics make, measured instead of assumed. */
function twinOver(scan: Scan, scans: readonly Scan[], ambientC: number): number | undefined {
  const idle = scans.filter(
    s => s.id !== scan.id && s.isElectronic && (shareOf(s) ?? 1) <= IDLE_SHARE,
  )
  if (idle.length === 0) return undefined
  return Math.max(0, Math.min(...idle.map(s => s.temperatureC)) - ambientC)
}

/** The rise at rated current by both exponents, °C. */
function scaled(overAirC: number, loadShare: number): readonly [number, number] {
  const share = Math.max(FLOOR_SHARE, loadShare)
  const [low, high] = EXPONENTS.map(n => Math.round(overAirC / share ** n))
  return [low!, high!]
}

const JOINT: Cause = {
  cause: 'loose terminal or stab',
  confirm:
    'Scan terminal against body against similar breakers; millivolts across the ' +
    'breaker under load; then re-torque and scan again',
}
const WEAR: Cause = {
  cause: 'worn breaker',
  confirm: 'Millivolts across it against a sound one of the same kind at the same load',
}
const LOAD: Cause = {
  cause: 'continuous load above 80 %',
  confirm: 'Clamp for three hours or add up the loads',
}
const NEIGHBOR: Cause = {
  cause: 'heated by a neighbor',
  confirm: 'Scan again with the neighbor unloaded',
}
const ELECTRONICS: Cause = {
  cause: 'its own electronics',
  confirm: 'Compare with another of its kind without load',
}
const THIN: Cause = {
  cause: 'conductor too small',
  confirm: 'Gauge it; the heat then runs along the conductor, not from the terminal',
}

/** Likely causes in order, and the test that settles most. */
function explain(
  scan: Scan,
  overAirC: number,
  loadShare: number | undefined,
  overWarmestC: number | undefined,
): { causes: Cause[]; next: string } {
  if (overAirC < 4)
    return {
      causes: [],
      next:
        loadShare === undefined
          ? 'Clamp the load and scan again: a cool breaker without load proves nothing'
          : 'Nothing further',
    }
  const causes: Cause[] = []
  if (loadShare !== undefined && loadShare > 0.8) causes.push(LOAD)
  causes.push(JOINT, WEAR)
  if (overWarmestC !== undefined && overWarmestC < 4) causes.push(NEIGHBOR)
  if (scan.isElectronic) causes.push(ELECTRONICS)
  causes.push(THIN)
  if (loadShare !== undefined && loadShare <= 0.8) causes.push(LOAD)
  return {
    causes,
    next:
      loadShare === undefined
        ? 'Clamp the load at the same moment and scan again'
        : causes[0]!.confirm,
  }
}

const tidy = (x: number): number => Math.round(x * 100) / 100
