/** npm run bench -- plan: choosing the works for a full house, beside the general solver on the same program. */
import { spawnSync } from 'node:child_process'
import highsLoader from 'highs'
import {
  atBudget,
  bestWithin,
  cheapestCover,
  frontierOf,
  SAMPLE_PRICES,
  type Action,
  type Option,
  type Result,
} from '../../core'
import { seeded } from '../../core/simulate/random'

const CIRCUITS = 80
const OUTLETS = 600
/** As long as in the first measurements of the general solvers. */
const WARM_UP_MS = 2500
const SEVERITIES = ['make safe now', 'repair', 'upgrade', 'note'] as const
const DANGER = { 'make safe now': 64, repair: 8, upgrade: 2, note: 1 }

interface House {
  readonly findings: readonly Result[]
  readonly options: readonly Option[]
}
/**
 * Chains of outlets without a ground, of which some also want protection: a device at an outlet serves it and what
 * comes after, a breaker the whole chain, a cable everything with a permit; two-slot devices serve one outlet each.
 */
function fullHouse(seed: number): House {
  const r = seeded(seed)
  const cents = (low: number, high: number) => Math.round(low + r() * (high - low)) * 100
  const findings: Result[] = []
  const options: Option[] = []
  const put = (price: number, fixes: readonly string[], needsPermit = false) =>
    options.push({ cents: price, needsPermit, fixes: new Set(fixes) } as unknown as Option)
  const find = (rule: string, subject: string): string => {
    const severity = SEVERITIES[Math.floor(r() * 4)]
    findings.push({ rule: { id: rule }, subject: { id: subject }, severity } as unknown as Result)
    return `${rule} ${subject}`
  }
  for (let c = 0; c < CIRCUITS; c++) {
    const length = Math.round(OUTLETS / CIRCUITS + (r() - 0.5) * 8)
    const grounds: string[] = []
    const guards: string[] = []
    for (let o = 0; o < length; o++) {
      grounds.push(find('open-ground', `${c}-${o}`))
      guards.push(r() < 0.4 ? find('gfci-missing', `${c}-${o}`) : '')
    }
    const all = (from: number) =>
      [...grounds.slice(from), ...guards.slice(from)].filter(k => k !== '')
    for (let o = 0; o < length; o++) {
      put(cents(42, 78), all(o))
      put(cents(20, 34), [grounds[o] ?? ''])
      if (guards[o]) put(cents(30, 60), [guards[o] ?? ''])
    }
    put(cents(85, 190), all(0))
    put(cents(700, 2400), all(0), true)
  }
  return { findings, options }
}

const keyOf = (f: Result) => `${f.rule.id} ${f.subject.id}`
function actionsOf({ findings, options }: House): readonly Action[] {
  const number = new Map(findings.map((f, i) => [keyOf(f), i]))
  return options.map(o => ({
    weight: o.cents,
    covers: [...o.fixes].flatMap(k => number.get(k) ?? []).sort((a, b) => a - b),
  }))
}
function coverProgram(faults: number, actions: readonly Action[]): string {
  const lists = Array.from({ length: faults }, () => [] as string[])
  actions.forEach((a, i) => a.covers.forEach(f => lists[f]?.push(`x${i}`)))
  const rows = lists.map((l, f) => ` c${f}: ${l.join(' + ')} >= 1`)
  const aim = actions.map((a, i) => `${a.weight} x${i}`).join('\n + ')
  const all = actions.map((_, i) => `x${i}`).join('\n ')
  return `Minimize\n obj: ${aim}\nSubject To\n${rows.join('\n')}\nBinary\n ${all}\nEnd`
}
function budgetProgram({ findings, options }: House, budget: number): string {
  const lists = new Map(findings.map(f => [keyOf(f), [] as string[]]))
  options.forEach((o, i) => {
    for (const k of o.fixes) lists.get(k)?.push(`- x${i}`)
  })
  const rows = findings.map((f, i) => ` c${i}: y${i} ${(lists.get(keyOf(f)) ?? []).join(' ')} <= 0`)
  const permits = options.flatMap((o, i) => (o.needsPermit ? ` p${i}: x${i} - permit <= 0` : []))
  const cost = options.map((o, i) => `${o.cents} x${i}`).join('\n + ')
  const limit = budget - SAMPLE_PRICES.callOut
  const money = ` money: ${cost} + ${SAMPLE_PRICES.permit} permit <= ${limit}`
  const aim = findings.map((f, i) => `${DANGER[f.severity ?? 'note']} y${i}`).join('\n + ')
  const all = [...findings.map((_, i) => `y${i}`), ...options.map((_, i) => `x${i}`), 'permit']
  const subject = [...rows, ...permits, money].join('\n')
  return `Maximize\n obj: ${aim}\nSubject To\n${subject}\nBinary\n ${all.join('\n ')}\nEnd`
}

const FRESH = 9
const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1] ?? 0
const ms = (run: () => void): number => {
  const began = performance.now()
  run()
  return performance.now() - began
}
const shown = (n: number) => (n < 10 ? n.toFixed(2) : n.toFixed(0))

const first = fullHouse(1)
const cold = ms(() => cheapestCover(first.findings.length, actionsOf(first)))
// Only a process of its own is fresh: this bench runs itself again for each of them.
if (process.argv.includes('--cold')) {
  console.log(cold)
  process.exit(0)
}
const colds = Array.from({ length: FRESH }, () =>
  Number(
    spawnSync(process.execPath, [process.argv[1] ?? '', '--cold'], { encoding: 'utf8' }).stdout,
  ),
)
const highs = await highsLoader()
console.log(`\nPlanner: ${CIRCUITS} circuits, ${OUTLETS} outlets, ${first.options.length} options`)
console.log(`first answer of a fresh process: ${shown(median(colds))} ms, median of ${FRESH}`)
// Warm, as the worker of an open Plan place is; the general solver is compiled ahead and needs no warming.
const warmUntil = performance.now() + WARM_UP_MS
while (performance.now() < warmUntil) cheapestCover(first.findings.length, actionsOf(first))
let wrong = 0
const own: number[] = []
const general: number[] = []
const ownBudget: number[] = []
const ownCurve: number[] = []
const generalBudget: number[] = []
const drags: number[] = []
for (let seed = 1; seed <= 5; seed++) {
  const house = fullHouse(seed)
  const actions = actionsOf(house)
  const faults = house.findings.length
  let weight = 0
  for (let i = 0; i < 5; i++)
    own.push(ms(() => (weight = cheapestCover(faults, actions)?.weight ?? Infinity)))
  const program = coverProgram(faults, actions)
  let best = 0
  general.push(ms(() => (best = highs.solve(program, { mip_rel_gap: 0 }).ObjectiveValue)))
  if (Math.round(best) !== weight) wrong++
  const budget = Math.round(weight * 0.6)
  let frontier = frontierOf(house.options, house.findings, SAMPLE_PRICES)
  ownCurve.push(ms(() => (frontier = frontierOf(house.options, house.findings, SAMPLE_PRICES))))
  let bought = bestWithin(house.options, house.findings, SAMPLE_PRICES, budget)
  for (let i = 0; i < 5; i++)
    ownBudget.push(
      ms(() => (bought = bestWithin(house.options, house.findings, SAMPLE_PRICES, budget))),
    )
  for (let i = 0; i < 200; i++) drags.push(ms(() => atBudget(frontier.points, (weight * i) / 200)))
  const dear = budgetProgram(house, budget)
  generalBudget.push(
    ms(() => (best = highs.solve(dear, { mip_rel_gap: 0, time_limit: 60 }).ObjectiveValue)),
  )
  const isSame = atBudget(frontier.points, budget).danger === bought.danger
  if (Math.round(best) !== bought.danger || !isSame || !bought.isExact) {
    wrong++
    console.log(`  budget, house ${seed}: ${bought.danger}, general solver ${best}`)
  }
}
const line = (what: string, mine: number, theirs: number) =>
  console.log(
    `${what}: ${shown(mine)} ms · HiGHS ${shown(theirs)} ms · ${shown(theirs / mine)} times`,
  )
line('everything cured', median(own), median(general))
line('with a budget', median(ownBudget), median(generalBudget))
line('every budget at once, against one', median(ownCurve), median(generalBudget))
console.log(
  `a dragged budget: ${(median(drags) * 1000).toFixed(1)} µs · answers that differ: ${wrong}`,
)
