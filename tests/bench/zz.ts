/** npm run bench -- plan: choosing the works for a full house, beside the general solver on the same program. */
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

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1] ?? 0
const ms = (run: () => void): number => {
  const began = performance.now()
  run()
  return performance.now() - began
}
const shown = (n: number) => (n < 10 ? n.toFixed(2) : n.toFixed(0))

const first = fullHouse(1)
const cold = ms(() => cheapestCover(first.findings.length, actionsOf(first)))

const acts = [1,2,3,4,5].map(n => fullHouse(n)).map(h => [h.findings.length, actionsOf(h)] as const)
const times: number[] = []
for (let i = 0; i < 1500; i++) for (const [n, a] of acts) times.push(ms(() => cheapestCover(n, a)))
console.log(median(times))
