import type { Result } from '../engine/evaluate'
import { SEVERITIES, type Severity } from '../engine/severity'
import type { House } from '../model/house'
import { labelOf } from '../texts/labels'
import { withChanges } from './change'
import { compare, Judged, type FollowUp, type Turned } from './consequences'
import { cheapestCover, coverKey, type Action } from './cover'
import { findingKey, optionsFor, type NotAnOption, type Option } from './options'
import { SAMPLE_PRICES, type PriceBook } from './prices'

export const AIMS = ['least-cost', 'most-protection', 'least-opening', 'fewest-tests'] as const
export type Aim = (typeof AIMS)[number]

export interface FindingRef {
  readonly rule: string
  readonly subject: string
}
export interface Lock {
  readonly subject: string
  readonly remedy: string
}
export interface PlanRequest {
  readonly aim?: Aim
  /** What is to be fixed: every fault, what has to be made safe now, or these findings. */
  readonly fix?: 'all' | 'make-safe' | readonly FindingRef[]
  readonly prices?: PriceBook
  /** Remedies that must be chosen where they are an option. */
  readonly locks?: readonly Lock[]
  readonly forbids?: readonly { readonly remedy: string; readonly subject?: string }[]
  /** Cents there are; with it the plan takes away the most danger that can be paid for. */
  readonly budget?: number
  /** Called while options are worked out, from 0 to 1; answers false to stop. */
  readonly onProgress?: (share: number) => boolean | undefined
}
/** What the plan would be without one choice: more, or less where something comes before cents. */
export interface RunnerUp {
  readonly remedies: readonly string[]
  /** Cents for the whole plan. */
  readonly more: number
  readonly wallFt: number
  readonly buttons: number
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
  readonly proof: {
    readonly solver: 'own search' | 'own search, over budgets'
    /** Judged again with all of it done, every finding it is for is settled and nothing new is a fault. */
    readonly holds: boolean
    /** 0: nothing lighter does the same with these options. Null where that was not shown. */
    readonly gap: 0 | null
    readonly options: number
    /** Sets that were cheaper, and did not hold when the whole house was judged again. */
    readonly refused: number
  }
}

/** Danger taken away counts by severity, so that one thing to make safe outweighs any handful of notes. */
const DANGER: Readonly<Record<Severity, number>> = {
  'make safe now': 64,
  repair: 8,
  upgrade: 2,
  note: 1,
}
/** A foot of wall, or a button to press each month, before any cent: the cents then decide between equals. */
const BEFORE_CENTS = 1e9
const MOST_REFUSED = 60

export const dangerOf = (r: Result): number => DANGER[r.severity ?? 'note']

/** The findings a plan is asked to take away, in the order of the house. */
export function chosenFindings(
  judged: Judged,
  fix: NonNullable<PlanRequest['fix']>,
): readonly Result[] {
  const all = [...judged.results.values()]
  if (fix === 'all') return all.filter(r => r.outcome === 'fault')
  if (fix === 'make-safe')
    return all.filter(r => r.outcome === 'fault' && r.severity === 'make safe now')
  return fix.flatMap(({ rule, subject }) => judged.resultOf(rule, subject) ?? [])
}

/**
 * The best set of remedies for the chosen findings: it takes every one away, brings nothing new along (the house is
 * judged again with all of it done), and nothing else does that for less, by the aim.
 */
export function planHouse(house: House, request: PlanRequest = {}): Plan {
  const before = new Judged(house)
  const aim = request.aim ?? 'least-cost'
  const book = request.prices ?? SAMPLE_PRICES
  const findings = chosenFindings(before, request.fix ?? 'all')
  const base = {
    aim,
    choices: [],
    shared: [],
    total: 0,
    stages: [],
    clash: [],
    left: [],
    newlyRequired: [],
    newlyUndecided: [],
    unmetLocks: [],
    proof: { solver: 'own search', holds: true, gap: 0, options: 0, refused: 0 },
  } as const
  if (findings.length === 0) return { ...base, status: 'nothing to fix' }

  const { options, byFinding, isStopped } = gather(before, findings, request, book)
  if (isStopped) return { ...base, status: 'stopped' }
  const keys = findings.map(findingKey)
  const clash = findings.flatMap((finding, i) =>
    options.some(o => o.fixes.has(keys[i] ?? ''))
      ? []
      : [{ finding, others: byFinding.get(keys[i] ?? '') ?? [] }],
  )
  const reachable = findings.filter(f => !clash.some(c => c.finding === f))
  const lockKeys = (request.locks ?? [])
    .map(l => LOCK + l.subject)
    .filter(key => options.some(o => o.fixes.has(key)))
  const unmetLocks = (request.locks ?? []).filter(l => !lockKeys.includes(LOCK + l.subject))
  const wanted = [...reachable.map(findingKey), ...lockKeys]
  const solved = solve(before, options, wanted, aim, book)
  if (!solved) return { ...base, status: 'infeasible', clash, unmetLocks }
  const chosen = solved.actions.map(i => options[i] as Option)
  // Without a budget, or within it, everything is taken away: the lightest set is then the most protection too.
  const isOver = request.budget !== undefined && costAll(chosen, book).total > request.budget
  const isExact = !isOver && solved.holds
  const kept = isOver ? within(options, reachable, request.budget ?? 0, book) : chosen
  const { total, shared } = costAll(kept, book)
  const after = new Judged(
    withChanges(
      house,
      kept.flatMap(o => o.changes),
    ),
  )
  const turned = compare(before, after)
  const fixes = new Set(kept.flatMap(o => [...o.fixes]))
  const left = reachable.filter(f => !fixes.has(findingKey(f)))
  const choices = kept.map(option => ({
    option,
    findings: findings.filter(f => option.fixes.has(findingKey(f))),
    severity: worstOf(findings.filter(f => option.fixes.has(findingKey(f)))),
    runnerUp: isExact ? runnerUp(before, options, option, wanted, aim, book, chosen) : undefined,
  }))
  const settled = new Set(turned.fixed.map(f => `${f.rule} ${f.subject}`))
  const isKept = reachable.every(f => left.includes(f) || settled.has(findingKey(f)))
  const isHolding = turned.broken.length === 0 && turned.required.length === 0 && isKept
  return {
    status:
      clash.length > 0 || unmetLocks.length > 0
        ? 'infeasible'
        : !isHolding
          ? 'not shown to hold'
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
    proof: {
      solver: isOver ? 'own search, over budgets' : 'own search',
      holds: isHolding,
      gap: isHolding && (isOver || solved.holds) ? 0 : null,
      options: options.length,
      refused: solved.refused,
    },
  }
}

/** All options of all findings, each once: the same work for several findings is one option. */
function gather(
  before: Judged,
  findings: readonly Result[],
  request: PlanRequest,
  book: PriceBook,
): {
  options: readonly Option[]
  byFinding: ReadonlyMap<string, readonly NotAnOption[]>
  isStopped: boolean
} {
  const byWork = new Map<string, Option>()
  const byFinding = new Map<string, readonly NotAnOption[]>()
  const isForbidden = (remedy: string, subject: string): boolean =>
    (request.forbids ?? []).some(
      f => f.remedy === remedy && (f.subject === undefined || f.subject === subject),
    )
  const isLockedOut = (remedy: string, subject: string): boolean =>
    (request.locks ?? []).some(l => l.subject === subject && l.remedy !== remedy)
  for (const [i, finding] of findings.entries()) {
    if (request.onProgress?.(i / findings.length) === false)
      return { options: [], byFinding, isStopped: true }
    const { options, others } = optionsFor(before, finding, {
      book,
      isForbidden,
      isLockedOut,
    })
    byFinding.set(findingKey(finding), others)
    for (const option of options) {
      const work = option.changes
        .map(c => JSON.stringify(c))
        .sort()
        .join()
      const known = byWork.get(work)
      if (!known || known.cents > option.cents) byWork.set(work, option)
    }
  }
  request.onProgress?.(1)
  return { options: locked([...byWork.values()], request), byFinding, isStopped: false }
}

/** A locked remedy is something more to be taken care of, that only the options with that work do. */
const LOCK = 'lock '
const locked = (options: readonly Option[], { locks = [] }: PlanRequest): readonly Option[] =>
  options.map(o => {
    const mine = locks.filter(l =>
      o.steps.some(s => s.subject === l.subject && s.remedy.id === l.remedy),
    )
    if (mine.length === 0) return o
    return { ...o, fixes: new Set([...o.fixes, ...mine.map(l => LOCK + l.subject)]) }
  })

const weightOf = (o: Option, aim: Aim): number => {
  if (aim === 'least-opening') return o.wallFt * BEFORE_CENTS + o.cents
  if (aim === 'fewest-tests') return o.buttons * BEFORE_CENTS + o.cents
  return o.cents
}

interface Solved extends Lightest {
  readonly refused: number
  readonly holds: boolean
}
/** What did not hold when it was judged again, so that something else is looked for. */
interface Wanting {
  /** Sets of one part, by their numbers. */
  readonly refused: Set<string>
  /** Findings whose works get into each other's way. */
  readonly links: [number, number][]
}
/**
 * The lightest set that holds when the house is judged again with all of it done. A part that does not hold by itself
 * is refused; parts that hold alone and not together are searched as one.
 */
function solve(
  before: Judged,
  options: readonly Option[],
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  barred?: Option,
): Solved | undefined {
  const wanting: Wanting = { refused: new Set(), links: [] }
  for (let round = 0; ; round++) {
    const best = lightest(options, wanted, aim, book, wanting, barred)
    if (!best) return undefined
    const isHolding = holds(before, options, best.actions, wanted)
    const isDone = isHolding || round >= MOST_REFUSED
    if (isDone || !learn(before, options, wanted, best, wanting))
      return { ...best, refused: wanting.refused.size, holds: isHolding }
  }
}

/** Learns from a set that does not hold which part of it is to blame; false where no more can be learned. */
function learn(
  before: Judged,
  options: readonly Option[],
  wanted: readonly string[],
  { parts }: Lightest,
  wanting: Wanting,
): boolean {
  const keysOf = (part: readonly number[]) =>
    wanted.filter(k => part.some(i => options[i]?.fixes.has(k)))
  let isLearned = false
  for (const part of parts) {
    const key = coverKey(part)
    if (part.length === 0 || wanting.refused.has(key)) continue
    if (holds(before, options, part, keysOf(part))) continue
    wanting.refused.add(key)
    isLearned = true
  }
  if (isLearned) return true
  for (const [n, a] of parts.entries())
    for (const b of parts.slice(n + 1)) {
      if (holds(before, options, [...a, ...b], [...keysOf(a), ...keysOf(b)])) continue
      const first = wanted.indexOf(keysOf(a)[0] ?? '')
      const second = wanted.indexOf(keysOf(b)[0] ?? '')
      if (first < 0 || second < 0) continue
      wanting.links.push([first, second])
      wanting.refused.add(coverKey([...a, ...b]))
      return true
    }
  return false
}

interface Lightest {
  readonly weight: number
  readonly actions: readonly number[]
  readonly parts: readonly (readonly number[])[]
}
/** The permit is paid once: sets without any work that needs one are looked for apart. */
function lightest(
  options: readonly Option[],
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  { refused, links }: Wanting,
  barred?: Option,
): Lightest | undefined {
  const number = new Map(wanted.map((key, i) => [key, i]))
  const actionOf = (o: Option, hasPermit: boolean): Action => ({
    weight: o !== barred && (hasPermit || !o.needsPermit) ? weightOf(o, aim) : Infinity,
    covers: [...o.fixes].flatMap(k => number.get(k) ?? []).sort((a, b) => a - b),
  })
  const tries = [true, false].flatMap(hasPermit => {
    const actions = options.map(o => actionOf(o, hasPermit))
    const cover = cheapestCover(wanted.length, actions, refused, links)
    if (!cover) return []
    const permit = cover.actions.some(i => options[i]?.needsPermit) ? book.permit : 0
    return { ...cover, weight: cover.weight + permit }
  })
  return tries.sort((a, b) => a.weight - b.weight)[0]
}

function holds(
  before: Judged,
  options: readonly Option[],
  actions: readonly number[],
  wanted: readonly string[],
): boolean {
  const changes = actions.flatMap(i => options[i]?.changes ?? [])
  const after = new Judged(withChanges(before.house, changes))
  const { fixed, broken, required } = compare(before, after)
  const gone = new Set(fixed.map(f => `${f.rule} ${f.subject}`))
  return (
    broken.length === 0 &&
    required.length === 0 &&
    wanted.every(k => gone.has(k) || k.startsWith(LOCK))
  )
}

/** What a set costs with what is paid once. */
function costAll(options: readonly Option[], book: PriceBook) {
  const shared = [
    ...(options.length > 0 ? [{ what: 'Call-out', cents: book.callOut }] : []),
    ...(options.some(o => o.needsPermit) ? [{ what: 'Permit', cents: book.permit }] : []),
  ]
  const cents = options.reduce((n, o) => n + o.cents, 0) + shared.reduce((n, s) => n + s.cents, 0)
  return { shared, total: cents }
}

/** The best whole plan without one option, judged again like the plan itself. */
function runnerUp(
  before: Judged,
  options: readonly Option[],
  option: Option,
  wanted: readonly string[],
  aim: Aim,
  book: PriceBook,
  chosen: readonly Option[],
): RunnerUp | undefined {
  const other = solve(before, options, wanted, aim, book, option)
  if (!other?.holds) return undefined
  const instead = other.actions.map(i => options[i] as Option)
  const sum = (list: readonly Option[], of: (o: Option) => number) =>
    list.reduce((n, o) => n + of(o), 0)
  const more = (of: (o: Option) => number) => sum(instead, of) - sum(chosen, of)
  return {
    remedies: [
      ...new Set(
        instead
          .filter(o => [...o.fixes].some(k => option.fixes.has(k)))
          .map(o => o.steps[0]?.remedy.title ?? ''),
      ),
    ],
    more: costAll(instead, book).total - costAll(chosen, book).total,
    wallFt: more(o => o.wallFt),
    buttons: more(o => o.buttons),
  }
}

/** The most danger that can be paid for: exact, over the costs at which more can be had. */
function within(
  options: readonly Option[],
  findings: readonly Result[],
  budget: number,
  book: PriceBook,
): readonly Option[] {
  let best: { danger: number; cents: number; options: readonly Option[] } = {
    danger: 0,
    cents: 0,
    options: [],
  }
  const danger = new Map(findings.map(f => [findingKey(f), dangerOf(f)]))
  for (const hasPermit of [false, true]) {
    const money = budget - book.callOut - (hasPermit ? book.permit : 0)
    if (money < 0) continue
    const usable = options.filter(o => hasPermit || !o.needsPermit)
    const found = most(usable, danger, money)
    const cents = found.cents + (hasPermit ? book.permit : 0)
    if (found.danger > best.danger || (found.danger === best.danger && cents < best.cents))
      best = { danger: found.danger, cents, options: found.options }
  }
  return best.options
}

interface Label {
  readonly cents: number
  readonly danger: number
  readonly options: readonly Option[]
}
/** Fronts of cost against danger of each part that hangs together, joined part by part. */
function most(
  options: readonly Option[],
  danger: ReadonlyMap<string, number>,
  money: number,
): Label {
  const groups = grouped(options, danger)
  let front: readonly Label[] = [{ cents: 0, danger: 0, options: [] }]
  for (const group of groups) {
    const own = frontOf(group, danger, money)
    const joined = front.flatMap(a =>
      own.map(b => ({
        cents: a.cents + b.cents,
        danger: a.danger + b.danger,
        options: [...a.options, ...b.options],
      })),
    )
    front = undominated(joined.filter(l => l.cents <= money))
  }
  return front.at(-1) ?? { cents: 0, danger: 0, options: [] }
}
/** Dearer only where it takes more danger away. */
function undominated(labels: readonly Label[]): readonly Label[] {
  const sorted = [...labels].sort((a, b) => a.cents - b.cents || b.danger - a.danger)
  const kept: Label[] = []
  for (const l of sorted)
    if (kept.length === 0 || l.danger > (kept.at(-1)?.danger ?? 0)) kept.push(l)
  return kept
}
function grouped(
  options: readonly Option[],
  danger: ReadonlyMap<string, number>,
): readonly Option[][] {
  const groups: { keys: Set<string>; options: Option[] }[] = []
  for (const option of options) {
    const keys = [...option.fixes].filter(k => danger.has(k))
    const mine = groups.filter(g => keys.some(k => g.keys.has(k)))
    const one = { keys: new Set(keys), options: [option] }
    for (const g of mine) {
      for (const k of g.keys) one.keys.add(k)
      one.options.unshift(...g.options)
      groups.splice(groups.indexOf(g), 1)
    }
    groups.push(one)
  }
  return groups.map(g => g.options)
}
/** Taking or leaving each option of a part; labels that lead to the same findings for more are dropped. */
function frontOf(
  group: readonly Option[],
  danger: ReadonlyMap<string, number>,
  money: number,
): readonly Label[] {
  let states = new Map<string, Label & { readonly fixes: ReadonlySet<string> }>([
    ['', { cents: 0, danger: 0, options: [], fixes: new Set<string>() }],
  ])
  for (const option of group) {
    const next = new Map(states)
    for (const s of states.values()) {
      const added = [...option.fixes].filter(k => danger.has(k) && !s.fixes.has(k))
      if (added.length === 0 || s.cents + option.cents > money) continue
      const fixes = new Set([...s.fixes, ...added])
      const label = {
        cents: s.cents + option.cents,
        danger: s.danger + added.reduce((n, k) => n + (danger.get(k) ?? 0), 0),
        options: [...s.options, option],
        fixes,
      }
      const key = [...fixes].sort().join()
      const known = next.get(key)
      if (!known || known.cents > label.cents) next.set(key, label)
    }
    states = next
  }
  return undominated([...states.values()])
}

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
