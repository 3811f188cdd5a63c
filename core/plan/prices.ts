import { z } from 'zod'
import type { Change } from './change'
import { remedyById, type Remedy } from '../remedies'

const cents = z.number().int().min(0).max(100_000_000)
const minutes = z.number().int().min(0).max(100_000)
const line = z.strictObject({ material: cents, minutes })

/**
 * What work costs: integer cents and minutes. The figures that ship are made up and round, and are said to be so
 * wherever they are shown; somebody who quotes puts in their own.
 */
export const priceBookSchema = z.strictObject({
  corvitPrices: z.literal(1),
  name: z.string().max(200),
  /** True of the figures that ship. */
  isSample: z.boolean().default(false),
  hourly: cents,
  callOut: cents,
  permit: cents,
  /** For each foot of a new run: opening and closing the wall, cable and fishing. */
  wallPerFt: cents,
  cablePerFt: cents,
  /** Of materials and labor, in thousandths. */
  contingencyPermille: z.number().int().min(0).max(2000),
  taxPermille: z.number().int().min(0).max(1000),
  /** By id of the remedy; what is not named costs what `other` says. */
  remedies: z.record(z.string().max(80), line).superRefine((lines, c) => {
    for (const id of Object.keys(lines))
      if (!remedyById(id))
        c.addIssue({ code: 'custom', path: [id], message: 'expected the id of a remedy' })
  }),
  other: line,
})
export type PriceBook = z.infer<typeof priceBookSchema>

const $ = (dollars: number, min: number) => ({ material: dollars * 100, minutes: min })

/** Made-up round sample figures. */
export const SAMPLE_PRICES: PriceBook = {
  corvitPrices: 1,
  name: 'Sample figures, made up',
  isSample: true,
  hourly: 9000,
  callOut: 12_000,
  permit: 15_000,
  wallPerFt: 1500,
  cablePerFt: 200,
  contingencyPermille: 100,
  taxPermille: 80,
  remedies: {
    'smaller-breaker': $(15, 20),
    'nameplate-breaker': $(20, 25),
    'appliance-breaker': $(20, 25),
    'listed-breaker': $(20, 25),
    'marked-breaker': $(20, 25),
    'two-pole-breaker': $(25, 30),
    'listed-handle-tie': $(5, 15),
    'own-breaker': $(15, 25),
    'smaller-main': $(80, 60),
    'gfci-breaker': $(60, 30),
    'afci-breaker': $(60, 30),
    'gfci-here': $(25, 25),
    'gfci-first-outlet': $(30, 35),
    'afci-first-outlet': $(40, 35),
    'afci-receptacle-here': $(40, 25),
    'protect-beside-panel': $(70, 75),
    'two-slot-device': $(4, 15),
    'tr-receptacle': $(4, 15),
    'wr-receptacle': $(20, 25),
    'replace-device': $(5, 15),
    'co-alr-device': $(8, 20),
    'crimped-pigtail': $(18, 25),
    'lug-pigtail': $(12, 20),
    'mark-receptacle': $(1, 3),
    'reconnect-ground': $(2, 15),
    'remove-jumper': $(1, 15),
    'run-grounding-conductor': $(10, 60),
    'new-cable': $(20, 120),
    'replace-conductor': $(20, 120),
    'copper-rewire': $(20, 120),
    'restore-20a': $(35, 120),
    'new-four-wire-feeder': $(150, 300),
    'separate-neutral': $(35, 60),
    'main-bond': $(10, 45),
    'fit-surge': $(120, 45),
    'replace-panel': $(650, 600),
    'single-phase-panel': $(650, 600),
    'relocate-panel': $(900, 960),
    'larger-service': $(1400, 960),
    'install-electrodes': $(90, 150),
    'electrode-conductor': $(60, 90),
    'bond-water': $(30, 60),
    'remake-bond': $(30, 45),
    'land-feeder-ground': $(15, 30),
    'bond-piping': $(30, 60),
    relabel: $(2, 45),
    'close-openings': $(3, 10),
    'blunt-screws': $(4, 10),
    'mark-white': $(1, 5),
    'entry-fitting': $(3, 15),
    'one-per-terminal': $(1, 20),
    'extra-bar': $(20, 30),
    'larger-box': $(8, 45),
    'fit-cover': $(3, 5),
    'fit-alarms': $(160, 120),
    'add-required-circuit': $(90, 300),
    'fit-disconnect': $(60, 90),
    'split-circuit': $(90, 300),
    'own-circuit': $(60, 240),
    'circuit-per-unit': $(140, 300),
    'fewer-circuits': $(380, 420),
    'fewer-loads': $(450, 180),
    untwin: $(30, 40),
    'call-utility': $(0, 15),
  },
  other: $(30, 60),
}

/** What one work takes, before what is shared by the whole job. */
export interface Cost {
  /** Materials, labor, contingency and tax, in cents. */
  readonly cents: number
  readonly materials: number
  readonly minutes: number
  /** Feet of wall opened for new runs. */
  readonly wallFt: number
  /** Devices with a test button that come into the house. */
  readonly buttons: number
  readonly needsPermit: boolean
}

/** Works that pull a run; each has one in its kit too (a test compares them). */
export const RUNS: ReadonlySet<string> = new Set([
  'run-grounding-conductor',
  'new-cable',
  'replace-conductor',
  'copper-rewire',
  'restore-20a',
  'four-wire-circuit',
  'knob-and-tube-stages',
  'add-required-circuit',
  'split-circuit',
  'own-circuit',
  'circuit-per-unit',
  'new-four-wire-feeder',
])
/** Length of a run nobody measured, in feet. Said so wherever a plan shows it. */
export const UNMEASURED_FT = 40

/** A combined device in place of a plain one costs what a combined one costs. */
const AS_COMBINED: Readonly<Record<string, string>> = {
  'gfci-here': 'afci-receptacle-here',
  'gfci-first-outlet': 'afci-first-outlet',
}

/** The quantities of a work, computed from what it changes; never typed. */
export function costOf(
  remedy: Remedy,
  changes: readonly Change[],
  runFt: number | undefined,
  book: PriceBook,
): Cost {
  const isDual = changes.some(
    c => c.act === 'note' && c.field === 'protection' && c.value === 'dual',
  )
  const priced = (isDual && AS_COMBINED[remedy.id]) || remedy.id
  const { material, minutes: base } = book.remedies[priced] ?? book.other
  let buttons = 0
  for (const c of changes) {
    if (c.act !== 'note') continue
    if (c.field === 'protection' && c.value !== 'none' && c.value !== 'standard') buttons++
  }
  const feet = RUNS.has(remedy.id) ? Math.round(runFt ?? UNMEASURED_FT) : 0
  const labels = changes.filter(c => c.act === 'note' && c.field === 'isMarkedNoGround').length
  const minutes = base + Math.max(0, labels - 1) * 3
  const materials = material + feet * book.cablePerFt
  const labor = Math.round((minutes * book.hourly) / 60) + feet * book.wallPerFt
  const before = materials + labor
  const withSpare = before + Math.round((before * book.contingencyPermille) / 1000)
  const tax = Math.round((materials * book.taxPermille) / 1000)
  return {
    cents: withSpare + tax,
    materials,
    minutes,
    wallFt: feet,
    buttons,
    needsPermit: remedy.needsPermit,
  }
}
