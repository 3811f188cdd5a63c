import { absent, type Subject, type FactRef, whereSeen } from '../model/house'
import { MemoOfParts, RUNS_KEPT } from '../model/memo'
import { allowedDevice, isTabled, type Allowed } from '../tables/allowed-device'
import { sizeIndex, type Column, type Size, type TableMetal } from '../tables/ampacity'
import { crowdOf } from './crowd'
import type { Site } from './site'
import type { Edition } from '../tables/editions'
import { Trail } from './trail'

/**
 * What a run may stand behind, judged under every value an unseen fact could have.
 * `low` and `high` are the same sum where nothing unseen matters.
 */
export interface AllowedBand {
  readonly isKnown: true
  readonly low: Allowed
  readonly high: Allowed
  readonly rests: readonly FactRef[]
  /** The unseen facts that could turn the answer for a device of so many amperes. */
  missingFor(amps: number): FactRef[]
}
/** No sum without these facts. */
export interface NoBand {
  readonly isKnown: false
  readonly rests: readonly FactRef[]
  readonly missing: readonly FactRef[]
}
/** Something about the load the sum depends on: its value where seen, and the fact to look at where not. */
export interface LoadFact {
  readonly value: boolean | undefined
  readonly fact: FactRef | undefined
}
/** It is not so, and nothing needs to be looked at for it. */
export const NOT_SO: LoadFact = { value: false, fact: undefined }

export const CAPPED_CABLES: ReadonlySet<string> = new Set(['NM-B', 'NM', 'cloth NM', 'UF'])
/** NM-B came in about 1985; cable marked plain NM before it counts as 60 °C insulation. */
const FIXED_INSULATION: Record<string, Column> = {
  'NM-B': 90,
  NM: 60,
  'cloth NM': 60,
  UF: 60,
  'knob-and-tube': 60,
  'old spiral armor': 60,
}

/** What a conductor metal may be for the tables: a color alone leaves every metal of that look open. */
export function tableMetals(
  metal: string | undefined,
): readonly { metal: TableMetal; isCopperClad: boolean }[] {
  switch (metal) {
    case 'copper':
    case 'tinned copper':
      return [{ metal: 'copper', isCopperClad: false }]
    case 'aluminum':
      return [{ metal: 'aluminum', isCopperClad: false }]
    case 'copper-clad aluminum':
      return [{ metal: 'aluminum', isCopperClad: true }]
    case 'copper-looking':
      return [
        { metal: 'copper', isCopperClad: false },
        { metal: 'aluminum', isCopperClad: true },
      ]
    case 'silver-looking':
      return [
        { metal: 'copper', isCopperClad: false },
        { metal: 'aluminum', isCopperClad: false },
      ]
    default:
      return [
        { metal: 'copper', isCopperClad: false },
        { metal: 'aluminum', isCopperClad: false },
        { metal: 'aluminum', isCopperClad: true },
      ]
  }
}

/**
 * Service-entrance cable used inside: 60 °C in the 2008 edition; from 2011 only in thermal insulation, and from 2017
 * only 10 AWG and smaller there. 338.10(B)(4).
 */
const seCapHangsOnInsulation = (size: Size, edition: number): boolean =>
  edition >= SMALL_SE_SINCE ? sizeIndex(size) <= sizeIndex('10') : edition >= 2011
const SMALL_SE_SINCE = 2017

// Armored cable in thermal insulation carries its 60 °C value too, 320.80(A); up to 10 AWG the small-conductor limit of
// 240.4(D) is no higher than that, so nobody is asked there.

/** The facts that the facets of a sum hang on, where one was asked for, in the order in which the facets are tried. */
type FacetFacts = readonly (FactRef | undefined)[]

/** What is known of a run of conductors; what is left out nobody has seen. */
export interface RunFacts {
  readonly size: Size
  readonly metal?: string | undefined
  readonly wiring?: string | undefined
  readonly insulationC?: Column | undefined
  readonly terminalsC?: 60 | 75 | undefined
  readonly isInInsulation?: boolean | undefined
}
/** The values the calculation may take for a run, and whether what hangs on them was asked. */
export interface RunValues {
  readonly metals: ReturnType<typeof tableMetals>
  readonly caps: readonly boolean[]
  readonly insulations: readonly Column[]
  readonly terminals: readonly (60 | 75)[]
}

const BOTH: readonly boolean[] = [true, false]
const either = (value: boolean | undefined) => (value === undefined ? BOTH : [value])
const TERMINALS: readonly (60 | 75)[] = [60, 75]
const LOWEST = TERMINALS.slice(0, 1)
/** A wiring method that says its own insulation needs no print legend. */
const saysInsulation = (wiring: string | undefined): Column | undefined =>
  wiring === undefined ? undefined : FIXED_INSULATION[wiring]

/** Whether the cap of 60 °C hangs on the cable lying in thermal insulation. */
const capAsksInsulation = (wiring: string | undefined, size: Size, edition: number): boolean =>
  (wiring === 'SE' && seCapHangsOnInsulation(size, edition)) ||
  (wiring === 'armored cable' && sizeIndex(size) > sizeIndex('10'))
/** Whether the cap of 60 °C holds for a cable wherever it lies. */
const isCappedCable = (wiring: string, edition: number): boolean =>
  CAPPED_CABLES.has(wiring) || (wiring === 'SE' && edition < SMALL_SE_SINCE)
/** Whether the cap of 60 °C holds; undefined where that is open. 334.80, 338.10(B)(4). */
function isCapped(run: RunFacts, edition: number): boolean | undefined {
  const { size, wiring, isInInsulation } = run
  if (capAsksInsulation(wiring, size, edition)) return isInInsulation
  return wiring === undefined ? undefined : isCappedCable(wiring, edition)
}

/** Every value the table, its column and its caps can take for a run. 310.16, 334.80, 338.10(B)(4), 110.14(C). */
export function valuesOf(run: RunFacts, edition: number): RunValues {
  const cap = isCapped(run, edition)
  const insulation = saysInsulation(run.wiring) ?? run.insulationC
  return {
    metals: tableMetals(run.metal),
    caps: cap === undefined ? BOTH : [cap],
    insulations: insulation === undefined ? [60, 75, 90] : [insulation],
    // Under a cap of 60 °C the terminals carry it, whatever they are marked.
    terminals: cap === true ? LOWEST : run.terminalsC === undefined ? TERMINALS : [run.terminalsC],
  }
}

/** The band of allowed devices for a segment or feeder. 240.4, 310.16, 334.80. */
export function allowedBand(
  site: Site,
  run: Subject<'segment'> | Subject<'feeder'>,
  feedsSeveralReceptacles: LoadFact,
  carriesWholeDwelling: LoadFact,
): AllowedBand | NoBand {
  const trail = new Trail()
  const size = trail.ask(run.facts.size)
  if (size === undefined)
    return { isKnown: false, rests: trail.rests, missing: trail.rests.slice() }
  const metal = trail.ask(run.facts.metal)
  const metalFact = trail.last
  const wiring = trail.ask(run.facts.wiring)
  const wiringFact = trail.last
  // Facts are asked only where they bear on the answer, so that nobody is sent to look at what decides nothing.
  const asksCap = capAsksInsulation(wiring, size, site.edition)
  const isInInsulation = asksCap ? trail.ask(run.facts.isInInsulation) : undefined
  const capFact = asksCap ? trail.last : wiringFact
  const asksInsulation = saysInsulation(wiring) === undefined
  const insulationC = asksInsulation ? trail.ask(run.facts.insulationC) : undefined
  const insulationFact = asksInsulation ? trail.last : undefined
  const asksTerminals = isCapped({ size, wiring, isInInsulation }, site.edition) !== true
  const terminalsC = asksTerminals ? trail.ask(run.facts.terminalsC) : undefined
  const terminalsFact = asksTerminals ? trail.last : undefined
  let isWhole = carriesWholeDwelling.value
  let wholeFact = carriesWholeDwelling.fact
  // Two legs and the neutral of 208Y/120 have the reduced dwelling sizes only from the 2017 edition.
  if (isWhole === true && site.edition < 2017) {
    const supply = trail.ask(site.premises.facts.supply)
    isWhole = supply && supply === '120/240 V single phase'
    wholeFact = trail.last
  }
  const lies = liesIn(site, run, trail)
  const { missing } = lies
  if (missing.length > 0) return { isKnown: false, rests: trail.rests, missing }
  const values = { size, metal, wiring, isInInsulation, insulationC, terminalsC }
  // Out of the table there is no sum: 14 AWG aluminum is no building wire, and what was gauged is gauged again.
  const isInTable = tableMetals(metal).some(m => isTabled(size, m, site.edition))
  if (!isInTable) return { isKnown: false, rests: trail.rests, missing: [absent(run, 'size')] }
  const sets = run.kind === 'feeder' ? parallel(run, trail) : 1
  const feeds = feedsSeveralReceptacles.value
  const tried = sumsOf(values, { edition: site.edition, sets, feeds, isWhole, lies: lies.ways })
  const facts: FacetFacts = [
    metalFact,
    capFact,
    insulationFact,
    terminalsFact,
    feedsSeveralReceptacles.fact,
    wholeFact,
    lies.fact,
  ]
  return new Sums(tried, trail.rests, facts)
}

/** What was tried for a run, with its own facts. */
class Sums implements AllowedBand {
  readonly isKnown = true
  constructor(
    private readonly tried: Tried,
    readonly rests: readonly FactRef[],
    private readonly facts: FacetFacts,
  ) {}

  get low(): Allowed {
    return this.tried.low
  }
  get high(): Allowed {
    return this.tried.high
  }
  missingFor(amps: number): FactRef[] {
    return telling(this.facts, this.tried, amps)
  }
}

/** A stretch of a run, as warm and as crowded as it is. */
interface Stretch {
  readonly ambientC: number
  readonly currentCarrying: number
}
/** How a run lies: every way that it may, and the fact that tells which. */
interface Lies {
  readonly ways: readonly (readonly Stretch[])[]
  readonly fact: FactRef | undefined
  /** Without these there is no sum. */
  readonly missing: readonly FactRef[]
}
/** A stretch that is not crowded: the table holds for three. */
const UNCROWDED = 3
const ORDINARY = { least: UNCROWDED, most: UNCROWDED, missing: [], rests: [] }
const ORDINARY_STRETCH: Stretch = { ambientC: 30, currentCarrying: UNCROWDED }
/** A run that nobody has seen in heat or in a crowd lies as the table supposes. */
const LIES_ORDINARY: Lies = { ways: [[ORDINARY_STRETCH]], fact: undefined, missing: [] }

function liesIn(site: Site, run: Subject<'segment'> | Subject<'feeder'>, trail: Trail): Lies {
  const exposures = site.children(run, 'exposure')
  if (exposures.length === 0) return LIES_ORDINARY
  const stretches: Stretch[] = []
  // The same stretches with as few conductors as there may be; only where circuits are told and not all about them.
  const airier: Stretch[] = []
  let fact: FactRef | undefined
  const missing: FactRef[] = []
  for (const exposure of exposures) {
    const what = trail.ask(exposure.facts.what)
    if (what === undefined) missing.push(trail.last)
    const isHot = what === 'hot' || what === 'hot and crowded'
    const isCrowded = what === 'crowded' || what === 'hot and crowded'
    const ambientC = isHot ? trail.ask(exposure.facts.ambientC) : 30
    if (ambientC === undefined) missing.push(trail.last)
    const crowd = isCrowded ? crowdOf(site, exposure) : ORDINARY
    if (crowd) trail.rests.push(...crowd.rests)
    else missing.push(absent(exposure, 'currentCarrying'))
    // Without either there is no sum.
    if (ambientC === undefined || !crowd) continue
    stretches.push({ ambientC, currentCarrying: crowd.most })
    airier.push({ ambientC, currentCarrying: crowd.least })
    if (crowd.least !== crowd.most) fact ??= crowd.missing[0]
  }
  return { ways: fact ? [stretches, airier] : [stretches], fact, missing }
}

/** What the sum hangs on besides the conductor itself; what is undefined nobody has seen. */
interface Surroundings {
  readonly edition: Edition
  readonly sets: number
  readonly feeds: boolean | undefined
  readonly isWhole: boolean | undefined
  readonly lies: readonly (readonly Stretch[])[]
}

/** The sums under every value the unseen facts could have, kept: runs alike have the same. */
function sumsOf(run: RunFacts, around: Surroundings): Tried {
  const { size, metal, wiring, isInInsulation, insulationC, terminalsC } = run
  const { edition, sets, feeds, isWhole, lies } = around
  const [first] = lies[0] as readonly [Stretch]
  // Parts are put in while the list is written out, where there is one stretch: it need not grow then.
  const parts = [
    size,
    metal,
    wiring,
    isInInsulation,
    insulationC,
    terminalsC,
    feeds,
    isWhole,
    edition,
    sets,
    // Two stretches in one way are not one stretch in two.
    lies.length,
    first.ambientC,
    first.currentCarrying,
  ]
  for (const way of lies)
    for (const stretch of way)
      if (stretch !== first) parts.push(stretch.ambientC, stretch.currentCarrying)
  return TRIED.get(parts) ?? TRIED.set(parts, tryAll(run, around))
}

function tryAll(run: RunFacts, { edition, sets, feeds, isWhole, lies }: Surroundings): Tried {
  const values = valuesOf(run, edition)
  const combos: Combo[] = []
  for (const [a, m] of values.metals.entries())
    for (const [b, isCappedAt60] of values.caps.entries())
      for (const [c, column] of values.insulations.entries())
        for (const [d, marked] of values.terminals.entries())
          for (const [e, feedsSeveralReceptacles] of either(feeds).entries())
            for (const [f, carriesWholeDwelling] of either(isWhole).entries())
              for (const [g, stretches] of lies.entries()) {
                const under = {
                  size: run.size,
                  metal: m.metal,
                  isCopperClad: m.isCopperClad,
                  insulation: column,
                  isCappedAt60,
                  terminals: marked,
                  sets,
                  feedsSeveralReceptacles,
                  carriesWholeDwelling,
                }
                const sums = stretches.map(s => allowedDevice({ ...under, ...s }, edition))
                const [allowed] = sums.sort(byAllowed) as [Allowed]
                combos.push({ at: [a, b, c, d, e, f, g], allowed })
              }
  const sorted = combos.map(x => x.allowed).sort(byAllowed)
  const [low] = sorted as [Allowed]
  // Of several that allow as much, the first that was tried speaks.
  const most = sorted.at(-1)?.allowed
  const high = sorted.find(x => x.allowed === most) ?? low
  return { combos, low, high, telling: new Map<number, readonly number[]>() }
}

interface Combo {
  readonly at: readonly number[]
  readonly allowed: Allowed
}
interface Tried {
  readonly combos: readonly Combo[]
  readonly low: Allowed
  readonly high: Allowed
  /** Which facets tell, by rating. */ readonly telling: Map<number, readonly number[]>
}
const TRIED = new MemoOfParts<Tried>(RUNS_KEPT)
const byAllowed = (a: Allowed, b: Allowed) => a.allowed - b.allowed

/** The unseen facts whose value could turn the answer for a device of this rating. */
function telling(facts: FacetFacts, tried: Tried, amps: number): FactRef[] {
  let which = tried.telling.get(amps)
  if (!which)
    tried.telling.set(
      amps,
      (which = facts.flatMap((_, k) => (tells(tried.combos, k, amps) ? [k] : []))),
    )
  return which.flatMap(k => facts[k] ?? [])
}

/** Whether one thing alone, all else the same, decides if a rating fits. */
function tells(combos: readonly Combo[], k: number, amps: number): boolean {
  const sides = new Map<string, boolean>()
  for (const { at, allowed } of combos) {
    const others = at.filter((_, i) => i !== k).join()
    const fits = amps <= allowed.allowed
    if ((sides.get(others) ?? fits) !== fits) return true
    sides.set(others, fits)
  }
  return false
}

/** Conductors in parallel for each phase; one where nobody says otherwise, and none below 1/0. 310.10(G). */
function parallel(feeder: Subject<'feeder'>, trail: Trail): number {
  const { sets, size } = feeder.facts
  const count = whereSeen(sets) && trail.ask(sets)
  const isLarge = size.state === 'known' && sizeIndex(size.value) >= sizeIndex('1/0')
  return isLarge ? (count ?? 1) : 1
}
