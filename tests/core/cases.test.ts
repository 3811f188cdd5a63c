import { readdirSync, readFileSync } from 'node:fs'
import { assess, Ledger, readJob, RULES } from '#core'

/**
 * Houses with a trap in them, each with what a careful inspector would answer and why: what looks right and is wrong,
 * what looks wrong and is right. They go through the same door as the command line. Written before the code they test.
 */
interface Expected {
  rule: string
  on: string
  outcome: string
  checks?: string[]
  leans?: boolean
  /** What becomes of remedies, by id. */
  remedies?: Record<string, 'offered' | 'conditional' | 'refused' | 'absent'>
}
interface Case {
  /** Line of the second reading it belongs to, or the part of the issue. */
  line: string
  name: string
  house: Record<string, unknown>
  expect: Expected[]
  why: string
}

const FOLDER = 'tests/cases'
const ids = new Set(RULES.map(r => r.id))

for (const file of readdirSync(FOLDER).filter(f => f.endsWith('.json'))) {
  const cases = JSON.parse(readFileSync(`${FOLDER}/${file}`, 'utf8')) as Case[]
  describe(file.replace('.json', ''), () => {
    it.each(cases.map(c => [`${c.line}: ${c.name}`, c] as const))('%s', (_, c) => {
      const results = resultsOf(c.house)
      for (const { rule, on, outcome, checks, leans, remedies } of c.expect) {
        expect(ids.has(rule)).toBe(true)
        const found = results.find(r => r.rule === rule && r.subject.id === on)
        expect({ rule, on, outcome: found?.outcome, why: found?.why, is: c.why }).toEqual({
          rule,
          on,
          outcome,
          why: found?.why,
          is: c.why,
        })
        if (checks) expect(found?.checks.map(x => x.id).sort()).toEqual([...checks].sort())
        for (const [id, verdict] of Object.entries(remedies ?? {})) {
          const remedy = found?.remedies.find(r => r.id === id)
          expect({ id, verdict: remedy?.verdict ?? 'absent', reason: remedy?.why }).toEqual({
            id,
            verdict,
            reason: remedy?.why,
          })
        }
        if (leans !== undefined) expect(found?.leans !== undefined).toBe(leans)
      }
    })
  })
}

function resultsOf(house: Record<string, unknown>) {
  let n = 0
  const { observations } = readJob(structuredClone(house), {
    at: '2026-01-01T08:00:00.000Z',
    by: 'test',
    nextId: () => `t${String(n++).padStart(6, '0')}`,
  })
  return assess(new Ledger(observations).house).results
}
