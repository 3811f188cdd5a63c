import {
  fieldOf,
  FIELDS,
  Judged,
  planHouse,
  withChanges,
  type AnyValue,
  type House,
  type WorkChange,
} from '#core'
import { pick, seeded, type Random } from '#core/simulate/random'
import { CASE_HOUSES } from '../../support/cases'

const TRIALS = Number(process.env.CORVIT_TRIALS ?? 2000)

/** A house of the case sets in which a handful of things are otherwise: looked at, mistaken, or not seen at all. */
function houseOf(random: Random): House {
  const { house } = pick(random, CASE_HOUSES)
  const things = [...house.subjects.values()].filter(t => t.kind !== 'premises')
  if (things.length === 0) return house
  const changes = Array.from({ length: 6 }, (): WorkChange[] => {
    const thing = pick(random, things)
    const field = pick(random, Object.keys(FIELDS[thing.kind]))
    const declared = fieldOf(thing.kind, field)
    if (!declared) return []
    let value: AnyValue | undefined
    if (declared.type === 'choice') value = pick(random, declared.options as readonly AnyValue[])
    if (declared.type === 'flag') value = random() < 0.5
    if (declared.type === 'number') {
      const share = random() ** 3
      value = Math.round(declared.min + share * (declared.max - declared.min))
    }
    return value === undefined ? [] : [{ act: 'note', subject: thing.id, field, value }]
  })
  return withChanges(house, changes.flat())
}

it(`plans of ${TRIALS} random houses: judged again, no fault they cure is left, and none is new`, () => {
  const random = seeded(2026)
  const bad: string[] = []
  let planned = 0
  let unproven = 0
  for (let n = 0; n < TRIALS; n++) {
    const house = houseOf(random)
    const plan = planHouse(house)
    if (plan.choices.length === 0) continue
    if (!plan.proof.holds) {
      // Said so, with what is left or comes along: never called a plan.
      unproven++
      expect(plan.status).not.toBe('planned')
      expect(plan.proof.gap).toBeNull()
      continue
    }
    planned++
    const changes = plan.choices.flatMap(c => c.option.changes)
    const before = new Judged(house)
    // Judged whole, by nothing the planner has remembered.
    const after = new Judged(withChanges(house, changes))
    for (const c of plan.choices)
      for (const f of c.findings) {
        const now = after.resultOf(f.rule.id, f.subject.id)
        if (now?.outcome === 'fault' || now?.outcome === 'undecided')
          bad.push(`${n}: ${f.rule.id} at ${f.subject.id} is ${now.outcome}`)
      }
    for (const [key, now] of after.results)
      if (now.outcome === 'fault' && before.result(key)?.outcome !== 'fault')
        bad.push(`${n}: new ${key}`)
  }
  expect(bad).toEqual([])
  expect(planned).toBeGreaterThan(TRIALS / 4)
  expect(unproven).toBeLessThan(TRIALS / 20)
})
