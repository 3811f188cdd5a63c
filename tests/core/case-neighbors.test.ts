import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { Ledger, ruleById } from '#core'
import { observe, type Node } from '../support/house'
import { neighborsOf } from '../support/neighbors'

/**
 * The houses next to every house with a trap in it, as beside the rows of the rules: what all of them answer is kept
 * as one short sum. After a change that is meant, CORVIT_ANSWERS=1 writes the file anew; CORVIT_NEIGHBORS=FILE lists
 * the answers themselves, so that two states of the code are compared line by line before the new sums are kept.
 */
interface Case {
  name: string
  house: Node
  expect: { rule: string; on: string }[]
}
const FOLDER = 'tests/cases'
const FILE = 'tests/core/case-neighbors.json'
const kept = existsSync(FILE)
  ? (JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, string>)
  : {}
const now: Record<string, string> = {}

for (const file of readdirSync(FOLDER).filter(f => f.endsWith('.json'))) {
  const cases = JSON.parse(readFileSync(`${FOLDER}/${file}`, 'utf8')) as Case[]
  describe(file.replace('.json', ''), () => {
    it.each(cases.map(c => [c.name, c] as const))('%s', (name, c) => {
      const { house } = new Ledger(observe(structuredClone(c.house)))
      for (const { rule: id, on } of c.expect) {
        const key = `${file} | ${name} | ${id} on ${on}`
        const rule = ruleById(id)
        if (!rule) throw new Error(`no rule ${id}`)
        now[key] = neighborsOf(rule, house, on, key)
        if (process.env.CORVIT_ANSWERS !== '1')
          expect({ key, sum: now[key] }).toEqual({ key, sum: kept[key] })
      }
    })
  })
}

afterAll(() => {
  if (process.env.CORVIT_ANSWERS === '1') writeFileSync(FILE, `${JSON.stringify(now, null, 1)}\n`)
})
