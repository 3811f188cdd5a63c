import highsLoader from 'highs'
import {
  atBudget,
  bestWithin,
  frontierOf,
  SAMPLE_PRICES,
  type Option,
  type PriceBook,
  type Result,
} from '#core'
import { seeded } from '#core/simulate/random'
import { generalSolverOf } from '#shared/general-solver'

const TRIALS = Number(process.env.CORVIT_TRIALS ?? 40)
const BOOK: PriceBook = { ...SAMPLE_PRICES, callOut: 7, permit: 11 }
const SEVERITY = ['make safe now', 'repair', 'upgrade', 'note'] as const
const DANGER = { 'make safe now': 64, repair: 8, upgrade: 2, note: 1 }

interface Trial {
  readonly findings: readonly Result[]
  readonly options: readonly Option[]
}
function trial(seed: number, faults: number, count: number): Trial {
  const r = seeded(seed)
  const findings = Array.from({ length: faults }, (_, f) => ({
    rule: { id: 'r' },
    subject: { id: String(f) },
    severity: SEVERITY[Math.floor(r() * 4)],
  })) as unknown as Result[]
  const options = Array.from({ length: count }, () => ({
    cents: 1 + Math.floor(r() * 40),
    needsPermit: r() < 0.4,
    fixes: new Set(
      findings.flatMap((f, i) => (r() < 0.35 ? `r ${f.subject.id}` : i < 0 ? '' : [])),
    ),
  })) as unknown as Option[]
  // The first option, which may fix nothing, makes some of the others possible.
  const leaning = options.map((o, i) =>
    i === 0
      ? r() < 0.5
        ? { ...o, fixes: new Set<string>() }
        : o
      : r() < 0.3
        ? { ...o, needs: 0 }
        : o,
  )
  return { findings, options: leaning }
}
const dangerOf = (f: Result) => DANGER[f.severity ?? 'note']
function costOf(set: readonly Option[]): number {
  const permit = set.some(o => o.needsPermit) ? BOOK.permit : 0
  return set.length === 0 ? 0 : BOOK.callOut + permit + set.reduce((n, o) => n + o.cents, 0)
}
const gone = (set: readonly Option[], findings: readonly Result[]) =>
  findings.filter(f => set.some(o => o.fixes.has(`r ${f.subject.id}`)))
/** The most danger any set within the budget takes away. */
function bruteForce({ findings, options }: Trial, budget: number): number {
  let best = 0
  for (let bits = 0; bits < 1 << options.length; bits++) {
    const set = options.filter((_, i) => bits & (1 << i))
    if (costOf(set) > budget || set.some(o => o.needs !== undefined && !(bits & 1))) continue
    best = Math.max(
      best,
      gone(set, findings).reduce((n, f) => n + dangerOf(f), 0),
    )
  }
  return best
}
function asProgram({ findings, options }: Trial, budget: number): string {
  const rows = findings.map((f, i) => {
    const list = options.flatMap((o, k) => (o.fixes.has(`r ${f.subject.id}`) ? ` - x${k}` : []))
    return ` c${i}: y${i}${list.join('')} <= 0`
  })
  const uses = options.map(
    (o, k) => ` u${k}: x${k} - call <= 0${o.needsPermit ? `\n p${k}: x${k} - permit <= 0` : ''}`,
  )
  const needs = options.flatMap((o, k) =>
    o.needs === undefined ? [] : ` n${k}: x${k} - x${o.needs} <= 0`,
  )
  const cost = options.map((o, k) => `${o.cents} x${k}`).join(' + ')
  const money = ` money: ${cost} + ${BOOK.callOut} call + ${BOOK.permit} permit <= ${budget}`
  const aim = findings.map((f, i) => `${dangerOf(f)} y${i}`).join(' + ')
  const all = [
    ...findings.map((_, i) => `y${i}`),
    ...options.map((_, k) => `x${k}`),
    'call',
    'permit',
  ]
  const subject = [...rows, ...uses, ...needs, money].join('\n')
  return `Maximize\n obj: ${aim}\nSubject To\n${subject}\nBinary\n ${all.join(' ')}\nEnd`
}

describe('what a sum of money takes away', () => {
  it('equals trying every set, on 500 small houses and three budgets each', () => {
    for (let seed = 1; seed <= 500; seed++) {
      const house = trial(seed, 2 + (seed % 6), 3 + (seed % 6))
      const frontier = frontierOf(house.options, house.findings, BOOK)
      expect(frontier.isExact).toBe(true)
      for (const budget of [15, 40, 90]) {
        const point = atBudget(frontier.points, budget)
        expect(point.danger).toBe(bruteForce(house, budget))
        const bought = bestWithin(house.options, house.findings, BOOK, budget)
        expect(bought).toMatchObject({ ...point, isExact: true })
        const set = bought.options.map(i => house.options[i] as Option)
        expect(point.cents).toBe(costOf(set))
        expect(point.cents).toBeLessThanOrEqual(budget)
        expect(gone(set, house.findings).reduce((n, f) => n + dangerOf(f), 0)).toBe(point.danger)
      }
    }
  })
  it('equals the general solver on larger houses', async () => {
    const highs = await highsLoader()
    for (let seed = 1; seed <= TRIALS; seed++) {
      const house = trial(seed, 8 + (seed % 8), 10 + (seed % 10))
      const budget = 30 + (seed % 5) * 25
      const solved = highs.solve(asProgram(house, budget), { mip_rel_gap: 0 })
      expect(solved.Status).toBe('Optimal')
      const point = atBudget(frontierOf(house.options, house.findings, BOOK).points, budget)
      expect(point.danger).toBe(Math.round(solved.ObjectiveValue))
      expect(bestWithin(house.options, house.findings, BOOK, budget)).toMatchObject(point)
    }
  })
  it('one budget and all of them at once say the same, over houses of many parts', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const parts = Array.from({ length: 12 }, (_, n) => trial(seed * 100 + n, 5, 6))
      // Every part apart from the others: its own things, its own leaned-on work.
      const findings = parts.flatMap(({ findings: list }, n) =>
        list.map(f => ({ ...f, subject: { id: `${n}-${f.subject.id}` } }) as unknown as Result),
      )
      const starts = parts.map((_, n) =>
        parts.slice(0, n).reduce((k, p) => k + p.options.length, 0),
      )
      const options = parts.flatMap(({ options: list }, n) =>
        list.map((o): Option => ({
          ...o,
          ...(o.needs !== undefined && { needs: o.needs + (starts[n] ?? 0) }),
          fixes: new Set([...o.fixes].map(k => k.replace(/^r /, `r ${n}-`))),
        })),
      )
      const { points } = frontierOf(options, findings, BOOK)
      const most = points.at(-1)?.cents ?? 0
      for (let step = 0; step <= 12; step++) {
        const budget = Math.round((most * step) / 11)
        const bought = bestWithin(options, findings, BOOK, budget)
        expect(bought).toMatchObject(atBudget(points, budget))
        expect(costOf(bought.options.map(i => options[i] as Option))).toBe(bought.cents)
      }
    }
  })
  it('rises: more money never takes less away', () => {
    const { options, findings } = trial(7, 12, 14)
    const { points } = frontierOf(options, findings, BOOK)
    expect(points.length).toBeGreaterThan(3)
    for (const [i, p] of points.entries()) {
      const before = points[i - 1]
      if (!before) continue
      expect(p.cents).toBeGreaterThan(before.cents)
      expect(p.danger).toBeGreaterThan(before.danger)
    }
  })
  it('keeps what is locked, or takes nothing: 300 small houses', () => {
    let kept = 0
    for (let seed = 1; seed <= 300; seed++) {
      const house = trial(seed, 3 + (seed % 4), 4 + (seed % 5))
      const number = house.options.findIndex(o => o.needs === undefined && o.fixes.size > 0)
      const locked = house.options.map((o, i) =>
        i === number ? { ...o, fixes: new Set([...o.fixes, 'lock x']) } : o,
      )
      const { findings } = house
      const frontier = frontierOf(locked, findings, BOOK, ['lock x'])
      for (const budget of [20, 60]) {
        let best = 0
        for (let bits = 0; bits < 1 << locked.length; bits++) {
          const set = locked.filter((_, i) => bits & (1 << i))
          const isWanting = set.some(o => o.needs !== undefined && !(bits & 1))
          if (isWanting || costOf(set) > budget || !(bits & (1 << number))) continue
          best = Math.max(
            best,
            gone(set, findings).reduce((n, f) => n + dangerOf(f), 0),
          )
        }
        const point = atBudget(frontier.points, budget)
        expect(point.danger).toBe(best)
        const bought = bestWithin(locked, findings, BOOK, budget, ['lock x'])
        expect(bought).toMatchObject(point)
        if (point.danger === 0) continue
        kept++
        expect(bought.options).toContain(number)
      }
    }
    expect(kept).toBeGreaterThan(200)
  })
  it('where too many ways stay open it says so, adds up, and the general solver proves it (long)', async () => {
    // Every work meets every other: nothing settles before nearly all of it is looked through.
    const random = seeded(5)
    const findings = Array.from({ length: 60 }, (_, f) => ({
      rule: { id: 'r' },
      subject: { id: String(f) },
      severity: 'repair',
    })) as unknown as Result[]
    const options = Array.from({ length: 90 }, () => ({
      cents: 10 + Math.floor(random() * 90),
      needsPermit: false,
      fixes: new Set(findings.flatMap(f => (random() < 0.12 ? `r ${f.subject.id}` : []))),
    })) as unknown as Option[]
    const frontier = frontierOf(options, findings, BOOK)
    expect(frontier.isExact).toBe(false)
    const general = generalSolverOf(await highsLoader())
    const proved = bestWithin(options, findings, BOOK, 300, [], general)
    expect(proved).toMatchObject({ isExact: true, isByProgram: true })
    const at = atBudget(frontier.points, 300)
    expect(proved.danger).toBeGreaterThanOrEqual(at.danger)
    expect(costOf(proved.options.map(i => options[i] as Option))).toBe(proved.cents)
    expect(proved.cents).toBeLessThanOrEqual(300)
    for (const point of frontier.points) {
      const bought = bestWithin(options, findings, BOOK, point.cents)
      expect(bought).toMatchObject({ ...point, isExact: false })
      const set = bought.options.map(i => options[i] as Option)
      expect(costOf(set)).toBe(point.cents)
      expect(gone(set, findings).reduce((n, f) => n + dangerOf(f), 0)).toBe(point.danger)
    }
  })
})
