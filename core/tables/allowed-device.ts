import { Memo, RUNS_KEPT } from '../model/memo'
import { AMPACITY_TABLE, citeIn, type Edition } from './editions'
import {
  ambientFactor,
  bundlingFactor,
  sizeIndex,
  smallConductorLimit,
  standardRatings,
  tableAmpacity,
  wholeDwellingRating,
} from './ampacity'
import type { Column, Size, TableMetal } from './ampacity'
import { say, type Step } from '../engine/say'

/** Everything the largest allowed device depends on, all known. Temperatures in °C. */
export interface Run {
  size: Size
  metal: TableMetal
  isCopperClad: boolean
  /** Rating of the insulation, used for correction and adjustment. */
  insulation: Column
  /** Cable that may never exceed its 60 °C ampacity (NM, NM-B, UF). */
  isCappedAt60: boolean
  /** The lower of the terminal markings at both ends. */
  terminals: 60 | 75
  ambientC: number
  currentCarrying: number
  /** More than one receptacle for cord-and-plug loads: no rounding up. */
  feedsSeveralReceptacles: boolean
  /** A service, or a feeder that carries the whole dwelling. */
  carriesWholeDwelling: boolean
  /** Conductors in parallel for each phase; one where nobody says otherwise. 310.10(G). */
  sets?: number
  /** Small-conductor limits of 240.4(D) are lifted by 240.4(E) and (G) for taps, motors and air conditioning. */
  isExemptFromSmallLimit?: boolean
}

/** Amperes the conductor may carry, the largest device allowed on it, and the sum on paper. */
export interface Allowed {
  ampacity: number
  allowed: number
  working: Step[]
}

const MATERIAL = (run: Run) => (run.isCopperClad ? 'copper-clad aluminum' : run.metal)

/** Column the terminals permit: 60 °C up to 100 A or 1 AWG unless all are marked 75 °C; 75 °C above. 110.14(C). */
function terminalColumn(run: Run): Column {
  const isSmall = !run.size.includes('/') && run.size.length < 3
  const marked: Column = isSmall ? run.terminals : 75
  return Math.min(marked, run.insulation) as Column
}

/**
 * The largest overcurrent device a conductor may stand behind. 240.4, 310.16, 110.14(C), 334.80.
 * A conductor the table does not know (14 AWG aluminum) gives 0 A.
 * @example 12 Cu NM-B → ampacity 20, allowed 20
 */
export function allowedDevice(run: Run, edition: Edition): Allowed {
  const key = keyOf(run, edition)
  const known = KNOWN.get(key)
  if (known) return known
  const sum = workOut(run, edition)
  return KNOWN.set(key, sum)
}

/** Sums already worked out: the same run always gives the same sum, so it is done once. */
const KNOWN = new Memo<number | string, Allowed>(RUNS_KEPT)

/** One number where the run is in ordinary air, as nearly all are; a number is found faster than a text. */
function keyOf(run: Run, edition: Edition): number | string {
  const flags =
    +run.isCappedAt60 +
    2 * +run.feedsSeveralReceptacles +
    4 * +run.carriesWholeDwelling +
    8 * +(run.isExemptFromSmallLimit ?? false) +
    16 * +run.isCopperClad +
    32 * +(run.metal === 'copper') +
    64 * +(run.terminals === 75)
  const key = ((sizeIndex(run.size) * 100 + run.insulation) * 128 + flags) * 10000 + edition
  return run.ambientC === 30 && run.currentCarrying === 3 && (run.sets ?? 1) === 1
    ? key
    : `${key} ${run.ambientC} ${run.currentCarrying} ${run.sets ?? 1}`
}

function workOut(run: Run, edition: Edition): Allowed {
  const sets = run.sets ?? 1
  const amps = (column: Column) => {
    const one = tableAmpacity(run.size, run.metal, column, edition)
    return one === undefined ? undefined : one * sets
  }
  const table = citeIn(AMPACITY_TABLE, edition)[0]!
  const base = amps(run.insulation)
  if (base === undefined) {
    const bare = smallConductorLimit(run.size, run.metal, run.isCopperClad, edition) ?? 0
    return {
      ampacity: bare,
      allowed: bare,
      working: [
        say('{size} AWG {metal} is not in table {table}: {bare} A', {
          size: run.size,
          metal: MATERIAL(run),
          table,
          bare,
        }),
      ],
    }
  }
  // The listed sizes are of 75 °C conductors; NM cable and old rubber carry what their own column says.
  const isBelow75 = run.isCappedAt60 || run.insulation === 60
  if (run.carriesWholeDwelling && !isBelow75 && run.ambientC <= 30 && run.currentCarrying <= 3) {
    const whole = wholeDwellingRating(run.size, run.metal)
    if (whole !== undefined) {
      return {
        ampacity: whole,
        allowed: whole,
        working: [
          say('{size} {metal} carrying the whole dwelling: {whole} A ({section})', {
            size: sizeName(run.size),
            metal: MATERIAL(run),
            whole,
            section: edition >= 2020 ? '310.12' : edition >= 2011 ? '310.15(B)(7)' : '310.15(B)(6)',
          }),
        ],
      }
    }
  }
  const isCorrected = run.ambientC > 30 || run.currentCarrying > 3
  const working: Step[] = []
  const ambient = ambientFactor(run.ambientC, run.insulation)
  const bundling = bundlingFactor(run.currentCarrying)
  const corrected = tidy(base * ambient * bundling)
  working.push(
    say('{size} {metal}, {column} °C insulation: {base} A (table {table})', {
      size: sizeName(run.size),
      metal: MATERIAL(run),
      column: run.insulation,
      base,
      table,
    }),
  )
  if (ambient !== 1)
    working.push(
      say('ambient {ambient} °C: × {factor}', { ambient: run.ambientC, factor: ambient }),
    )
  if (bundling !== 1)
    working.push(
      say('{count} current-carrying conductors together: × {factor}', {
        count: run.currentCarrying,
        factor: bundling,
      }),
    )
  if (corrected !== base)
    working.push(
      say('{base} × {ambient} × {bundling} = {corrected} A', {
        base,
        ambient,
        bundling,
        corrected,
      }),
    )

  let ampacity = corrected
  if (run.isCappedAt60) {
    const cap = amps(60)
    if (cap !== undefined && cap < ampacity) {
      ampacity = cap
      working.push(
        say('this cable: 60 °C column, not above {amps} A (334.80, 340.80)', { amps: cap }),
      )
    }
  }
  const column = terminalColumn(run)
  const atTerminals = amps(column)
  if (atTerminals !== undefined && atTerminals < ampacity) {
    ampacity = atTerminals
    working.push(
      say('terminals at {column} °C: not above {amps} A (110.14(C))', {
        column,
        amps: atTerminals,
      }),
    )
  }

  const ratings = standardRatings(edition)
  // With correction or adjustment the listed sizes fall away, and the sum itself has to bear 83 % of the rating.
  if (run.carriesWholeDwelling && (isCorrected || isBelow75) && edition >= 2017) {
    const whole = ratings.filter(r => r >= 100 && tidy(WHOLE_SHARE * r) <= ampacity).at(-1)
    if (whole !== undefined) {
      working.push(
        say(
          'carrying the whole dwelling: {ampacity} A carry 83 % of {whole} A ({share} A, {section})',
          {
            ampacity,
            whole,
            share: tidy(WHOLE_SHARE * whole),
            section: edition >= 2020 ? '310.12' : '310.15(B)(7)',
          },
        ),
      )
      return { ampacity, allowed: whole, working }
    }
  }
  const at = ratings.findLastIndex(r => r <= ampacity)
  const below = ratings[at]
  // Below the smallest standard size the conductor itself is the limit.
  let allowed = below ?? ampacity
  if (below !== ampacity) {
    if (run.feedsSeveralReceptacles) {
      working.push(
        say(
          '{ampacity} A is no standard size; feeds several receptacles, so no rounding up: {allowed} A (240.4(B))',
          { ampacity, allowed },
        ),
      )
    } else {
      allowed = ratings[at + 1] ?? allowed
      working.push(
        say('{ampacity} A is no standard size: next larger, {allowed} A (240.4(B))', {
          ampacity,
          allowed,
        }),
      )
    }
  }
  const limit = run.isExemptFromSmallLimit
    ? undefined
    : smallConductorLimit(run.size, run.metal, run.isCopperClad, edition)
  if (limit !== undefined && limit <= allowed) {
    allowed = limit
    working.push(say('small-conductor limit: {limit} A (240.4(D))', { limit }))
  }
  return { ampacity, allowed, working }
}

/** Share of the rating that conductors carrying a whole dwelling have to bear. 310.12. */
const WHOLE_SHARE = 0.83

/** Rounds away binary noise: 20 × 0.7 is 14, not 13.999…. */
const tidy = (amps: number) => Math.round(amps * 1000) / 1000

export const sizeName = (size: Size): string =>
  Number(size) >= 250 ? `${size} kcmil` : `${size} AWG`

/** Whether the table, or the limits of small conductors, know such a conductor at all. */
export const isTabled = (
  size: Size,
  { metal, isCopperClad }: { readonly metal: TableMetal; readonly isCopperClad: boolean },
  edition: Edition,
): boolean =>
  tableAmpacity(size, metal, 60, edition) !== undefined ||
  smallConductorLimit(size, metal, isCopperClad, edition) !== undefined
