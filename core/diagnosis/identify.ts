/**
 * What metal and what size a conductor is, from graded evidence. Each observation shifts the candidates; color of a
 * jacket shifts nothing. Where evidence conflicts, or two candidates fit, nothing is settled.
 */
import { gaugeOf } from '../tables/diameter'
import { sizeIndex, type Size } from '../tables/ampacity'

export const CANDIDATES = ['copper', 'tinned copper', 'aluminum', 'copper-clad aluminum'] as const
export type Candidate = (typeof CANDIDATES)[number]

export interface Evidence {
  readonly surface?: 'copper color' | 'silver color'
  readonly core?: 'copper color' | 'silver color'
  readonly legend?: 'CU' | 'AL' | 'CU-CLAD'
  readonly isSoft?: boolean
  /** Rubber and cloth were put on tinned copper. */
  readonly insulation?: 'rubber or cloth' | 'plastic'
  readonly year?: number
  /** Bare diameter in millimeters, of the whole solid conductor. */
  readonly bareMm?: number
  /** Trade size by a slide gauge. */
  readonly size?: Size
}
type Weight = Readonly<Record<Candidate, number>>
const weights = (copper: number, tinned: number, aluminum: number, clad: number): Weight => ({
  copper: copper,
  'tinned copper': tinned,
  aluminum: aluminum,
  'copper-clad aluminum': clad,
})

/** How likely each metal shows what was seen; from how each is made and from how readings go wrong. */
const SHOWS = {
  surface: {
    'copper color': weights(0.97, 0.03, 0.004, 0.97),
    'silver color': weights(0.03, 0.97, 0.99, 0.03),
  },
  core: {
    'copper color': weights(0.997, 0.99, 0.004, 0.01),
    'silver color': weights(0.003, 0.01, 0.99, 0.98),
  },
  legend: {
    CU: weights(0.97, 0.9, 0.002, 0.01),
    AL: weights(0.002, 0.002, 0.97, 0.1),
    'CU-CLAD': weights(0.005, 0.005, 0.01, 0.97),
  },
  isSoft: { yes: weights(0.2, 0.2, 0.9, 0.6), no: weights(0.8, 0.8, 0.1, 0.4) },
  insulation: {
    'rubber or cloth': weights(0.25, 0.95, 0.05, 0.05),
    plastic: weights(0.75, 0.05, 0.95, 0.95),
  },
} as const

/** What was common in the year, for ordering only: a year alone decides nothing. */
function prior(year: number | undefined): Weight {
  if (year === undefined) return weights(0.55, 0.15, 0.18, 0.12)
  if (year < 1955) return weights(0.3, 0.66, 0.03, 0.01)
  if (year < 1964) return weights(0.6, 0.35, 0.04, 0.01)
  if (year <= 1976) return weights(0.5, 0.05, 0.33, 0.12)
  return weights(0.85, 0.01, 0.08, 0.06)
}

export interface Ranked {
  readonly metal: Candidate
  readonly share: number
  readonly against: readonly string[]
}
export interface NextLook {
  readonly evidence: 'core' | 'surface' | 'legend' | 'isSoft' | 'bareMm' | 'size'
  readonly look: string
}
export interface Identity {
  readonly metals: readonly Ranked[]
  /** The metal, only where surface and core, or core and print, agree on one. */
  readonly metal: Candidate | undefined
  readonly size: Size | undefined
  /** Sizes that still fit. */
  readonly sizes: readonly Size[]
  /** Evidence that contradicts other evidence, in words. */
  readonly conflicts: readonly string[]
  readonly working: readonly string[]
  readonly next: NextLook | undefined
}

const SETTLED = 0.97
const LOOKS: Record<NextLook['evidence'], string> = {
  core: 'Power off and proved off: scrape lightly, or look at a fresh cut end',
  surface: 'Look at the bare end in white light',
  legend: 'Read the print on jacket or insulation',
  isSoft: 'Power off and proved off: bend the end gently',
  bareMm: 'Power off and proved off: measure the bare conductor with a caliper',
  size: 'Slide the gauge over the bare conductor',
}

/** Candidates ranked by how well they explain all the evidence, with what speaks against each. */
export function identify(evidence: Evidence): Identity {
  const seen: { what: string; weight: Weight }[] = []
  if (evidence.surface)
    seen.push({ what: `surface of ${evidence.surface}`, weight: SHOWS.surface[evidence.surface] })
  if (evidence.core)
    seen.push({ what: `core of ${evidence.core}`, weight: SHOWS.core[evidence.core] })
  if (evidence.legend)
    seen.push({ what: `print ${evidence.legend}`, weight: SHOWS.legend[evidence.legend] })
  if (evidence.isSoft !== undefined)
    seen.push({
      what: evidence.isSoft ? 'bends softly' : 'springs back',
      weight: SHOWS.isSoft[evidence.isSoft ? 'yes' : 'no'],
    })
  if (evidence.insulation)
    seen.push({
      what: `${evidence.insulation} insulation`,
      weight: SHOWS.insulation[evidence.insulation],
    })
  const start = prior(evidence.year)
  const raw = CANDIDATES.map(metal =>
    seen.reduce((product, s) => product * s.weight[metal], start[metal]),
  )
  const total = raw.reduce((a, b) => a + b, 0)
  const metals = CANDIDATES.map((metal, i): Ranked => ({
    metal,
    share: Math.round((1000 * raw[i]!) / total) / 1000,
    against: seen.filter(s => s.weight[metal] <= 0.05).map(s => s.what),
  })).sort((a, b) => b.share - a.share)

  const top = metals[0]!
  const conflicts: string[] = []
  // The best explanation itself is contradicted by something seen: the evidence does not agree with itself.
  if (top.against.length > 0)
    conflicts.push(`${top.metal} explains most, but not ${top.against.join(' and ')}`)
  const isLookedInto =
    evidence.core !== undefined && (evidence.surface !== undefined || evidence.legend !== undefined)
  const metal =
    conflicts.length === 0 && isLookedInto && top.share >= SETTLED ? top.metal : undefined

  const sizing = sizeFrom(evidence, conflicts)
  const working = [
    ...seen.map(
      s =>
        `${s.what}: ${CANDIDATES.map(c => `${c} ${Math.round(100 * s.weight[c])} %`).join(', ')}`,
    ),
    evidence.year === undefined
      ? 'no year: all years weighed together'
      : `${evidence.year}: what was common then orders the list and decides nothing`,
    ...sizing.working,
    'the color of a jacket is no evidence of size or metal',
  ]
  return {
    metals,
    metal,
    size: sizing.size,
    sizes: sizing.sizes,
    conflicts,
    working,
    next: nextLook(evidence, metal, sizing.size, conflicts),
  }
}

function sizeFrom(
  evidence: Evidence,
  conflicts: string[],
): { size: Size | undefined; sizes: readonly Size[]; working: string[] } {
  if (evidence.bareMm === undefined)
    return {
      size: evidence.size,
      sizes: evidence.size ? [evidence.size] : [],
      working: evidence.size ? [`slide gauge: ${evidence.size} AWG`] : [],
    }
  const gauged = gaugeOf(evidence.bareMm)
  const working = [
    `${evidence.bareMm} mm bare is gauge number ${gauged.number}: ` +
      `${gauged.size ? `${gauged.size} AWG` : `between ${gauged.nearest.join(' and ')} AWG, so neither`}`,
  ]
  if (evidence.size && gauged.size && sizeIndex(evidence.size) !== sizeIndex(gauged.size)) {
    conflicts.push(`the slide gauge says ${evidence.size} AWG, the caliper ${gauged.size} AWG`)
    return { size: undefined, sizes: [evidence.size, gauged.size], working }
  }
  if (!gauged.size && evidence.size) {
    if (gauged.nearest.includes(evidence.size))
      return { size: undefined, sizes: gauged.nearest, working }
    conflicts.push(
      `the slide gauge says ${evidence.size} AWG, the caliper something near ${gauged.nearest.join(' or ')} AWG`,
    )
  }
  return { size: gauged.size, sizes: gauged.size ? [gauged.size] : gauged.nearest, working }
}

/** The look that settles most: the core decides metal, print confirms it, a second measure settles a size. */
function nextLook(
  evidence: Evidence,
  metal: Candidate | undefined,
  size: Size | undefined,
  conflicts: readonly string[],
): NextLook | undefined {
  const next = (name: NextLook['evidence']): NextLook => ({ evidence: name, look: LOOKS[name] })
  if (metal === undefined) {
    if (evidence.core === undefined) return next('core')
    if (evidence.surface === undefined) return next('surface')
    if (evidence.legend === undefined) return next('legend')
    if (evidence.isSoft === undefined) return next('isSoft')
    return conflicts.length > 0
      ? {
          evidence: 'core',
          look: 'The evidence conflicts: cut a fresh end back and look again in white light',
        }
      : undefined
  }
  if (size === undefined) return next(evidence.size === undefined ? 'size' : 'bareMm')
  return undefined
}
