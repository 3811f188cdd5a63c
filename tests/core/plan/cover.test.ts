import highsLoader from 'highs'
import { cheapestCover, coverKey, partsOf, type Action } from '#core'
import { lightestByProgram } from '#core/plan/program'
import { generalSolverOf } from '#shared/general-solver'
import { seeded } from '#core/simulate/random'

/** 1000 by hand (`CORVIT_TRIALS=1000 npx jest tests/core/plan`); fewer where every test has to be quick. */
const TRIALS = Number(process.env.CORVIT_TRIALS ?? 60)

function trial(seed: number, faults: number, count: number): Action[] {
  const r = seeded(seed)
  return Array.from({ length: count }, () => {
    const covers = Array.from({ length: faults }, (_, f) => f).filter(() => r() < 0.3)
    return { weight: 1 + Math.floor(r() * 40), covers }
  })
}
/** The same where the first action, which may cover nothing, makes some of the others possible. */
function withNeeds(actions: readonly Action[], seed: number): Action[] {
  const r = seeded(seed * 31 + 7)
  return actions.map((a, i) =>
    i === 0 ? { ...a, covers: r() < 0.5 ? [] : a.covers } : r() < 0.4 ? { ...a, needs: 0 } : a,
  )
}
/** Every set of actions, tried one after another. */
function bruteForce(faults: number, actions: readonly Action[]): number {
  let best = Infinity
  for (let set = 0; set < 1 << actions.length; set++) {
    let weight = 0
    const covered = new Set<number>()
    const isWanting = actions.some(
      (a, i) => set & (1 << i) && a.needs !== undefined && !(set & (1 << a.needs)),
    )
    if (isWanting) continue
    actions.forEach((a, i) => {
      if (!(set & (1 << i))) return
      weight += a.weight
      for (const f of a.covers) covered.add(f)
    })
    if (covered.size === faults && weight < best) best = weight
  }
  return best
}
/** The same as a 0/1 program in the words of the general solver. */
function asProgram(faults: number, actions: readonly Action[]): string {
  const x = (i: number) => `x${i}`
  const rows = Array.from({ length: faults }, (_, f) => {
    const list = actions.flatMap((a, i) => (a.covers.includes(f) ? x(i) : []))
    return ` c${f}: ${list.join(' + ')} >= 1`
  })
  const aim = actions.map((a, i) => `${a.weight} ${x(i)}`).join(' + ')
  const all = actions.map((_, i) => x(i)).join(' ')
  return `Minimize\n obj: ${aim}\nSubject To\n${rows.join('\n')}\nBinary\n ${all}\nEnd`
}
const weightOf = (cover: { actions: readonly number[] }, actions: readonly Action[]) =>
  cover.actions.reduce((n, i) => n + (actions[i]?.weight ?? 0), 0)

describe('the cheapest set of works', () => {
  it('equals trying every set, on 600 small houses', () => {
    let possible = 0
    for (let seed = 1; seed <= 600; seed++) {
      const faults = 2 + (seed % 6)
      const actions = trial(seed, faults, 4 + (seed % 7))
      const expected = bruteForce(faults, actions)
      const found = cheapestCover(faults, actions)
      expect(found?.weight ?? Infinity).toBe(expected)
      if (!found) continue
      possible++
      expect(weightOf(found, actions)).toBe(expected)
      expect(new Set(found.actions.flatMap(i => actions[i]?.covers ?? [])).size).toBe(faults)
    }
    expect(possible).toBeGreaterThan(300)
  })
  it('pays what others lean on once, and never leans on what is not there: 600 small houses', () => {
    let leaning = 0
    for (let seed = 1; seed <= 600; seed++) {
      const faults = 2 + (seed % 6)
      const actions = withNeeds(trial(seed, faults, 4 + (seed % 7)), seed)
      const expected = bruteForce(faults, actions)
      const found = cheapestCover(faults, actions)
      expect(found?.weight ?? Infinity).toBe(expected)
      if (!found) continue
      expect(weightOf(found, actions)).toBe(expected)
      for (const i of found.actions) {
        const { needs } = actions[i] as Action
        if (needs === undefined) continue
        leaning++
        expect(found.actions).toContain(needs)
      }
    }
    expect(leaning).toBeGreaterThan(50)
  })
  it('equals the general solver on every one of its trials', async () => {
    const highs = await highsLoader()
    let compared = 0
    for (let seed = 1; compared < TRIALS; seed++) {
      const faults = 6 + (seed % 9)
      const actions = trial(seed * 7919, faults, 14 + (seed % 12))
      const found = cheapestCover(faults, actions)
      if (!found) continue
      const solved = highs.solve(asProgram(faults, actions), { mip_rel_gap: 0 })
      expect(solved.Status).toBe('Optimal')
      expect(found.weight).toBe(Math.round(solved.ObjectiveValue))
      compared++
    }
    expect(compared).toBe(TRIALS)
  })
  it('says so where a fault has no work left', () => {
    expect(cheapestCover(2, [{ weight: 1, covers: [0] }])).toBeUndefined()
    expect(cheapestCover(0, [])).toMatchObject({ weight: 0, actions: [], parts: [] })
  })
  it('looks for the next best where a set was found wanting', () => {
    const actions = [
      { weight: 3, covers: [0, 1] },
      { weight: 2, covers: [0] },
      { weight: 2, covers: [1] },
    ]
    expect(cheapestCover(2, actions)?.actions).toEqual([0])
    expect(cheapestCover(2, actions, new Set([coverKey([0])]))?.actions).toEqual([1, 2])
  })
  it('searches apart what no work joins', () => {
    const actions = [
      { weight: 1, covers: [0, 2] },
      { weight: 1, covers: [1] },
      { weight: 1, covers: [3] },
    ]
    expect(partsOf(4, actions).map(p => p.faults)).toEqual([[0, 2], [1], [3]])
  })
})

it('works that cover nothing, and lean on what covers nothing, neither join anything nor run for ever', () => {
  const idle: Action = { weight: 3, covers: [] }
  const leaning: Action = { weight: 2, covers: [], needs: 0 }
  expect(partsOf(0, [idle, leaning])).toEqual([])
  expect(cheapestCover(0, [idle, leaning])).toMatchObject({ weight: 0, actions: [] })
  const parts = partsOf(2, [idle, { weight: 1, covers: [0] }, { weight: 1, covers: [1] }])
  expect(parts.map(p => p.faults)).toEqual([[0], [1]])
})

describe('what the own search gives up', () => {
  it('as a program of yes and no says the same, works that lean and sets that are refused included', async () => {
    const general = generalSolverOf(await highsLoader())
    for (let seed = 1; seed <= TRIALS; seed++) {
      const faults = 3 + (seed % 5)
      const actions = withNeeds(trial(seed, faults, 9), seed)
      const first = cheapestCover(faults, actions)
      if (!first || first.parts.length !== 1) continue
      const all = actions.map((_, i) => i)
      const names = Array.from({ length: faults }, (_, f) => f)
      const sum = (list: readonly number[] | undefined) =>
        list && weightOf({ actions: list }, actions)
      expect(sum(lightestByProgram(names, all, actions, [], general))).toBe(first.weight)
      const second = cheapestCover(faults, actions, new Set([coverKey(first.actions)]))
      const refused = [{ set: first.actions, among: all }]
      const other = lightestByProgram(names, all, actions, refused, general)
      expect(other).not.toEqual(first.actions)
      // The own search takes no work that covers nothing more; the program may add one to a set that was refused.
      const isMore = other && first.actions.every(i => other.includes(i))
      if (isMore) expect(sum(other)).toBeLessThanOrEqual(second?.weight ?? Infinity)
      else expect(sum(other)).toBe(second?.weight)
    }
  })
  it('is told as not proved, and handed to the general solver where that is there', async () => {
    const general = generalSolverOf(await highsLoader())
    // Every work meets every other, so that nothing settles before nearly all of it is looked through.
    const random = seeded(5)
    const faults = 64
    const actions = Array.from({ length: 100 }, (): Action => ({
      weight: 10 + Math.floor(random() * 90),
      covers: Array.from({ length: faults }, (_, f) => f).filter(() => random() < 0.1),
    }))
    const alone = cheapestCover(faults, actions)
    expect(alone).toMatchObject({ isExact: false, isByProgram: false })
    const proved = cheapestCover(faults, actions, new Set(), [], general)
    expect(proved).toMatchObject({ isExact: true, isByProgram: true })
    const covered = new Set(proved?.actions.flatMap(i => actions[i]?.covers ?? []))
    expect(covered.size).toBe(faults)
    expect(proved?.weight).toBeLessThanOrEqual(alone?.weight ?? 0)
    expect(weightOf(proved ?? { actions: [] }, actions)).toBe(proved?.weight)
  })
  it('a solver that ends without an answer is an error that says how it ended', () => {
    const general = generalSolverOf({
      solve: () => ({ Status: 'Time limit reached', Columns: {} }),
    })
    const actions = [{ weight: 1, covers: [0] }]
    expect(() => lightestByProgram([0], [0], actions, [], general)).toThrow('Time limit reached')
  })
})
