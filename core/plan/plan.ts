import type { Result } from '../engine/evaluate'
import { SEVERITIES, type Severity } from '../engine/severity'
import type { House } from '../model/house'
import { labelOf } from '../texts/labels'
import { frontierOf, type Frontier } from './budget'
import { compare, Judged, type FollowUp, type Turned } from './consequences'
import { gather, LOCK, type Departure, type Forbid, type Gathered, type Lock } from './gather'
import { findingKey, type NotAnOption, type Option } from './options'
import { SAMPLE_PRICES, type PriceBook } from './prices'
import type { GeneralSolver } from './program'
import type { SchoolChoice } from './schools'
import { costAll, runnerUp, solve, solveBudget, type Aim, type RunnerUp } from './solve'

export interface FindingRef {
  readonly rule: string
  readonly subject: string
}
export const FIX_PRESETS = ['all', 'make-safe', 'before-sale', 'ungrounded', 'aluminum'] as const
export type FixPreset = (typeof FIX_PRESETS)[number]

/** What the options are worked out for; another aim or budget needs none of it again. */
export interface PlanScope {
  /** What is to be fixed: a preset, or these findings. */
  readonly fix?: FixPreset | readonly FindingRef[]
  readonly prices?: PriceBook
  /** Remedies that must be chosen where they are an option. */
  readonly locks?: readonly Lock[]
  readonly forbids?: readonly Forbid[]
  readonly schools?: readonly SchoolChoice[]
  /** Called while options are worked out, from 0 to 1; answers false to stop. */
  readonly onProgress?: (share: number) => boolean | undefined
}
export interface PlanRequest extends PlanScope {
  readonly aim?: Aim
  /** Cents there are; with it the plan takes away the most danger that can be paid for. */
  readonly budget?: number
}
export interface Chosen {
  readonly option: Option
  /** Of the chosen findings, those it takes away. */
  readonly findings: readonly Result[]
  readonly severity: Severity
  /** The next best whole plan without it, where there is one. */
  readonly runnerUp: RunnerUp | undefined
}
export interface Stage {
  readonly title: string
  readonly choices: readonly number[]
}
export interface Plan {
  readonly status:
    | 'planned'
    | 'nothing to fix'
    | 'infeasible'
    | 'out of budget'
    /** The search was given up before a set was found that holds. */
    | 'not shown to hold'
    | 'stopped'
  readonly aim: Aim
  readonly choices: readonly Chosen[]
  readonly shared: readonly { readonly what: string; readonly cents: number }[]
  readonly total: number
  readonly stages: readonly Stage[]
  /** Findings no option takes away, with why each remedy is none. */
  readonly clash: readonly { readonly finding: Result; readonly others: readonly NotAnOption[] }[]
  /** Chosen findings the budget does not reach. */
  readonly left: readonly Result[]
  /** What the whole plan, judged again, would still bring along; empty in a plan that holds. */
  readonly newlyRequired: readonly FollowUp[]
  /** Decided before, and open when the whole plan is done: to be looked at then. */
  readonly newlyUndecided: readonly Turned[]
  /** Locks that no option of this house keeps. */
  readonly unmetLocks: readonly Lock[]
  /** Findings the chosen school has no way for here, so that another was let in. */
  readonly departures: readonly Departure[]
  readonly proof: {
    /** Who found it; the general solver is named where it took what the own search gave up. */
    readonly solver: string
    /** Judged again with all of it done, every finding it is for is settled and nothing new is a fault. */
    readonly holds: boolean
    /** 0: nothing lighter does the same with these options. Null where that was not shown. */
    readonly gap: 0 | null
    readonly options: number
    /** Sets that were cheaper, and did not hold when the whole house was judged again. */
    readonly refused: number
  }
}

/** Rules a named handful of findings is made of. */
const PRESET_RULES: Readonly<Partial<Record<FixPreset, RegExp>>> = {
  ungrounded:
    /^(open-ground-three-slot|equipment-needs-ground|ground-carried-from-ungrounded-gfci)$/,
  aluminum: /aluminum/,
}
/** The findings a plan is asked to take away, in the order of the house. */
export function chosenFindings(
  judged: Judged,
  fix: NonNullable<PlanScope['fix']>,
): readonly Result[] {
  if (typeof fix !== 'string')
    return fix.flatMap(({ rule, subject }) => judged.resultOf(rule, subject) ?? [])
  const faults = [...judged.results.values()].filter(r => r.outcome === 'fault')
  if (fix === 'make-safe') return faults.filter(r => r.severity === 'make safe now')
  if (fix === 'before-sale')
    return faults.filter(r => r.severity === 'make safe now' || r.severity === 'repair')
  const rules = PRESET_RULES[fix]
  return rules ? faults.filter(r => rules.test(r.rule.id)) : faults
}

const NO_PLAN = {
  choices: [],
  shared: [],
  total: 0,
  stages: [],
  clash: [],
  left: [],
  newlyRequired: [],
  newlyUndecided: [],
  unmetLocks: [],
  departures: [],
  proof: { solver: 'own search', holds: true, gap: 0, options: 0, refused: 0 },
} as const

/**
 * The options of a house for what is to be fixed, worked out once; plans of any aim and budget are then drawn from
 * them. What takes long is the making, not the plans.
 */
export class Planner {
  readonly before: Judged
  readonly findings: readonly Result[]
  readonly book: PriceBook
  readonly #gathered: Gathered
  readonly #locks: readonly Lock[]
  #frontier: Frontier | undefined
  /** Takes what the own search gives up; loaded only where a plan says that its gap is not known. */
  general: GeneralSolver | undefined

  constructor(house: House, scope: PlanScope = {}) {
    this.before = new Judged(house)
    this.book = scope.prices ?? SAMPLE_PRICES
    this.findings = chosenFindings(this.before, scope.fix ?? 'all')
    this.#locks = scope.locks ?? []
    this.#gathered = gather(this.before, this.findings, { ...scope, book: this.book })
  }
  get options(): readonly Option[] {
    return this.#gathered.options
  }
  get isStopped(): boolean {
    return this.#gathered.isStopped
  }
  /** Findings some option takes away. */
  get reachable(): readonly Result[] {
    return this.findings.filter(f => this.options.some(o => o.fixes.has(findingKey(f))))
  }
  /** Locks some option keeps. */
  get #lockKeys(): readonly string[] {
    return this.#locks
      .map(l => LOCK + l.subject)
      .filter(key => this.options.some(o => o.fixes.has(key)))
  }
  /** All that can be had for each sum of money, so that a dragged budget is only looked up. */
  get frontier(): Frontier {
    return (this.#frontier ??= frontierOf(this.options, this.reachable, this.book, this.#lockKeys))
  }

  /**
   * The best set of remedies: it takes every chosen finding away, brings nothing new along (the house is judged
   * again with all of it done), and nothing else does that for less, by the aim.
   * @param budget cents there are; where they do not reach, the most danger they can take away
   */
  plan(aim: Aim = 'least-cost', budget?: number): Plan {
    const { before, findings, book, options } = this
    const { byFinding, departures, isStopped } = this.#gathered
    if (findings.length === 0) return { ...NO_PLAN, aim, status: 'nothing to fix' }
    if (isStopped) return { ...NO_PLAN, aim, status: 'stopped' }
    const { reachable } = this
    const clash = findings
      .filter(f => !reachable.includes(f))
      .map(finding => ({ finding, others: byFinding.get(findingKey(finding)) ?? [] }))
    const lockKeys = this.#lockKeys
    const noWay = this.#locks.filter(l => !lockKeys.includes(LOCK + l.subject))
    const wanted = [...reachable.map(findingKey), ...lockKeys]
    const { general } = this
    const solved = solve(before, options, wanted, aim, book, general)
    if (!solved) {
      const none = { ...NO_PLAN, aim, clash, departures, unmetLocks: noWay }
      return { ...none, status: 'infeasible' }
    }
    const chosen = solved.actions.map(i => options[i] as Option)
    // Without a budget, or within it, everything is taken away: the lightest set is then the most protection too.
    const isOver = budget !== undefined && costAll(chosen, book).total > budget
    const isExact = !isOver && solved.holds
    const bought = isOver
      ? solveBudget(before, options, reachable, book, budget, lockKeys, general)
      : { ...solved, options: solved.actions }
    const kept = bought.options.map(i => options[i] as Option)
    const { total, shared } = costAll(kept, book)
    const turned = compare(before, before.after(kept.flatMap(o => o.changes)))
    const fixes = new Set(kept.flatMap(o => [...o.fixes]))
    const left = reachable.filter(f => !fixes.has(findingKey(f)))
    // A budget below what the locked works cost keeps none of them.
    const unmetLocks = this.#locks.filter(l => noWay.includes(l) || !fixes.has(LOCK + l.subject))
    const choices = kept.map(option => {
      const mine = findings.filter(f => option.fixes.has(findingKey(f)))
      const other = isExact
        ? runnerUp(before, options, option, wanted, aim, book, chosen, general)
        : undefined
      return { option, findings: mine, severity: worstOf(mine), runnerUp: other }
    })
    const settled = new Set(turned.fixed.map(f => `${f.rule} ${f.subject}`))
    const isKept = reachable.every(f => left.includes(f) || settled.has(findingKey(f)))
    const isClean = turned.broken.length === 0 && turned.required.length === 0
    const isHolding = bought.holds && isClean && isKept
    return {
      status:
        // What may not hold is said before what is missing: nobody relies on it meanwhile.
        !isHolding
          ? 'not shown to hold'
          : clash.length > 0 || unmetLocks.length > 0
            ? 'infeasible'
            : left.length > 0
              ? 'out of budget'
              : 'planned',
      aim,
      choices,
      shared,
      total,
      stages: stagesOf(before, choices),
      clash,
      left,
      newlyRequired: [...turned.broken, ...turned.required],
      newlyUndecided: turned.undecided,
      unmetLocks,
      departures,
      proof: {
        solver: bought.isByProgram
          ? `own search and ${general?.name ?? 'a general solver'}`
          : isOver
            ? 'own search, over budgets'
            : 'own search',
        holds: isHolding,
        gap: isHolding && bought.isExact ? 0 : null,
        options: options.length,
        refused: bought.refused,
      },
    }
  }
}

/** One plan of one house: the options are worked out and the best set is drawn from them. */
export const planHouse = (house: House, request: PlanRequest = {}): Plan =>
  new Planner(house, request).plan(request.aim, request.budget)

const worstOf = (findings: readonly Result[]): Severity =>
  SEVERITIES.find(s => findings.some(f => f.severity === s)) ?? 'note'

/** First what is dangerous today, then one power-off for each panel or circuit, then what needs none. */
function stagesOf(before: Judged, choices: readonly Chosen[]): readonly Stage[] {
  const stages = new Map<string, number[]>()
  const put = (title: string, i: number) => {
    const list = stages.get(title)
    if (list) list.push(i)
    else stages.set(title, [i])
  }
  const first: number[] = []
  const later: [string, number][] = []
  choices.forEach((choice, i) => {
    if (choice.severity === 'make safe now') {
      first.push(i)
      return
    }
    const subject = before.house.subjects.get(choice.option.steps[0]?.subject ?? '')
    const circuit = subject && circuitOf(before, subject.id)
    later.push([circuit ? labelOf(before.site, circuit) : 'The property', i])
  })
  for (const i of first) put('Make safe today', i)
  for (const [title, i] of later.sort((a, b) => a[0].localeCompare(b[0], 'en', { numeric: true })))
    put(title, i)
  return [...stages].map(([title, list]) => ({ title, choices: list }))
}
/** What has to be switched off for work on a thing: its circuit, else its panel. */
function circuitOf(before: Judged, id: string) {
  const { site, house } = before
  let at = house.subjects.get(id)
  if (at?.kind === 'outlet') {
    const circuit = at.facts.circuit
    return circuit.state === 'known' ? site.get(circuit.value, 'circuit') : undefined
  }
  while (at && at.kind !== 'circuit' && at.kind !== 'enclosure')
    at = house.subjects.get(at.parent ?? '')
  return at
}
