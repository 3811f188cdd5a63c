import { evaluate, factsOf, Ledger, ruleById, Site, type House, type Outcome } from '#core'
import { observe, type Node } from './house'

export interface Case {
  name: string
  house: Node
  /** Id of the subject judged. */
  on: string
  /** Part of the conclusion, where it matters which. */
  why?: string
  /** Fields the undecided judgement must name. */
  missing?: string[]
}
export interface Table {
  clear: Case[]
  fault: Case[]
  undecided: Case[]
  inapplicable: Case[] | 'always applies'
}

/**
 * Tests a rule by its table. Besides each row, every row is put to the law of honesty: with any one known fact
 * hidden, the answer either stays or becomes undecided, and whatever is missing is truly not known.
 */
export function ruleTable(id: string, table: Table): void {
  const rule = ruleById(id)!
  describe(id, () => {
    it('is in the list, with a row in every column', () => {
      expect(rule).toBeDefined()
      for (const column of ['clear', 'fault', 'undecided'] as const)
        expect(table[column].length).toBeGreaterThan(0)
      if (table.inapplicable !== 'always applies')
        expect(table.inapplicable.length).toBeGreaterThan(0)
    })
    const columns: [Outcome, Case[]][] = [
      ['clear', table.clear],
      ['fault', table.fault],
      ['undecided', table.undecided],
      ['n/a', table.inapplicable === 'always applies' ? [] : table.inapplicable],
    ]
    const names = new Set<string>()
    for (const [outcome, cases] of columns) {
      for (const row of cases) {
        if (names.has(row.name)) throw new Error(`${id}: two rows are called ${row.name}`)
        names.add(row.name)
        it(`${outcome}: ${row.name}`, () => {
          const house = new Ledger(observe(row.house)).house
          const result = judgeIn(house, id, row.on)
          expect(result.outcome).toBe(outcome)
          if (row.why) expect(result.why.text + JSON.stringify(result.why.slots)).toContain(row.why)
          if (result.outcome === 'undecided') {
            expect(result.defect).toBeUndefined()
            expect(result.missing.length).toBeGreaterThan(0)
            for (const fact of result.missing)
              expect(
                fact.state === 'known' &&
                  fact.grade !== 'assumed' &&
                  fact.field !== 'metal' &&
                  fact.field !== 'year' &&
                  fact.field !== 'areAllScrewsSeen',
              ).toBe(false)
            if (row.missing)
              expect(result.missing.map(m => m.field)).toEqual(expect.arrayContaining(row.missing))
          }
          hidingLaw(house, id, row.on, outcome)
        })
      }
    }
  })
}

const judgeIn = (house: House, rule: string, on: string) =>
  evaluate(new Site(house), [ruleById(rule)!]).find(r => r.subject.id === on)!.verdict

/** A judgement turned by seeing less: anything but staying, opening, or passing between clear and inapplicable. */
export const turns = (before: Outcome, after: Outcome): boolean =>
  after !== before &&
  after !== 'undecided' &&
  !(before !== 'fault' && before !== 'undecided' && after !== 'fault')

/** Hiding any one fact may open a verdict but never turns it. */
export function hidingLaw(house: House, rule: string, on: string, outcome: Outcome): void {
  for (const hidden of hideEach(house)) {
    const after = judgeIn(hidden.house, rule, on)
    if (turns(outcome, after.outcome))
      throw new Error(
        `${rule} on ${on}: hiding ${hidden.what} turned ${outcome} into ${after.outcome}`,
      )
    if (after.outcome === 'undecided' && after.defect)
      throw new Error(`${rule} on ${on}: hiding ${hidden.what}: ${after.defect}`)
  }
}

/**
 * What is a setting or a place, not a sight: the work being done is said by whoever does it; the
 * half of a space says where a twin breaker is, and none means a whole one; the rule an amendment
 * names says what it is about.
 */
export const isSetting = (kind: string, field: string): boolean =>
  (kind === 'premises' && (field === 'edition' || field === 'visitedOn')) ||
  (kind === 'breaker' && field === 'half') ||
  (kind === 'amendment' && field === 'rule') ||
  kind === 'override' ||
  field === 'work'

/** Every house that differs from this one by a single fact nobody has seen. */
export function* hideEach(house: House): Generator<{ what: string; house: House }> {
  for (const subject of house.subjects.values()) {
    for (const { field } of factsOf(subject)) {
      if (isSetting(subject.kind, field)) continue
      const facts = { ...subject.facts, [field]: { state: 'unseen', subject: subject.id, field } }
      const subjects = new Map(house.subjects)
      subjects.set(subject.id, { ...subject, facts } as typeof subject)
      yield { what: `${subject.id}.${field}`, house: { subjects } }
    }
  }
}
