import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { evaluate, factsOf, Ledger, ruleById, Site, type House, type Result } from '#core'
import { observe, type Node } from './house'
import { neighborsOf } from './neighbors'

/** What a rule says by itself; whether a failure is allowed to remain follows from the years. */
type Ruled = Result['verdict']['outcome']

export interface Case {
  name: string
  house: Node
  /** Id of the subject judged. */
  on: string
  /** Part of the conclusion, where it matters which. */
  why?: string
  /** Fields the undecided judgment must name. */
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
      // A rule without a check finds no fault: it puts a fact on record.
      const isRecord = Object.keys(rule.checks).length === 0
      for (const column of ['clear', ...(isRecord ? [] : ['fault' as const]), 'undecided'] as const)
        expect(table[column].length).toBeGreaterThan(0)
      if (table.inapplicable !== 'always applies')
        expect(table.inapplicable.length).toBeGreaterThan(0)
    })
    const columns: [Ruled, Case[]][] = [
      ['clear', table.clear],
      ['fault', table.fault],
      ['undecided', table.undecided],
      ['n/a', table.inapplicable === 'always applies' ? [] : table.inapplicable],
    ]
    const answers = new Answers(id)
    afterAll(() => answers.write())
    const names = new Set<string>()
    for (const [outcome, cases] of columns) {
      for (const row of cases) {
        if (names.has(row.name)) throw new Error(`${id}: two rows are called ${row.name}`)
        names.add(row.name)
        it(`${outcome}: ${row.name}`, () => {
          const house = new Ledger(observe(row.house)).house
          const judged = resultIn(house, id, row.on)
          const result = judged.verdict
          expect(result.outcome).toBe(outcome)
          answers.check(
            `${outcome}: ${row.name}`,
            judged,
            neighborsOf(rule, house, row.on, row.name),
          )
          if (row.why) expect(result.why.text + JSON.stringify(result.why.slots)).toContain(row.why)
          if (result.outcome === 'undecided') {
            expect(result.defect).toBeUndefined()
            expect(judged.missing.length).toBeGreaterThan(0)
            for (const fact of judged.missing)
              expect(
                fact.state === 'known' &&
                  fact.grade !== 'assumed' &&
                  fact.field !== 'metal' &&
                  fact.field !== 'year' &&
                  fact.field !== 'areAllScrewsSeen',
              ).toBe(false)
            if (row.missing)
              expect(judged.missing.map(m => m.field)).toEqual(expect.arrayContaining(row.missing))
          }
          hidingLaw(house, id, row.on, judged.outcome)
        })
      }
    }
  })
}

const resultIn = (house: House, rule: string, on: string): Result =>
  evaluate(new Site(house), [ruleById(rule)!]).find(r => r.subject.id === on)!

const FOLDER = 'tests/core/rules/answers'

/**
 * What every row answers besides its outcome: the message ids with their data and danger, the comparison, what is
 * missing, what it leans to, and the sum of its neighbors. One file a rule, to be read like a table. After a change
 * that is meant, CORVIT_ANSWERS=1 writes them anew, and the difference is read before it is kept.
 */
class Answers {
  readonly #file: string
  readonly #kept: Record<string, unknown>
  readonly #now: Record<string, unknown> = {}
  constructor(rule: string) {
    this.#file = `${FOLDER}/${rule}.json`
    this.#kept = existsSync(this.#file)
      ? (JSON.parse(readFileSync(this.#file, 'utf8')) as Record<string, unknown>)
      : {}
  }

  check(row: string, result: Result, neighbors: string): void {
    const answer = { ...(answerOf(result) as object), neighbors }
    this.#now[row] = answer
    if (process.env.CORVIT_ANSWERS !== '1') expect(this.#kept[row]).toEqual(answer)
  }

  write(): void {
    if (process.env.CORVIT_ANSWERS !== '1') return
    mkdirSync(FOLDER, { recursive: true })
    writeFileSync(this.#file, `${JSON.stringify(this.#now, null, 2)}\n`)
  }
}

/** Plain data, without what is undefined. */
function answerOf(result: Result): unknown {
  const { compare, leaning, outcome, severity, standing } = result
  return JSON.parse(
    JSON.stringify({
      outcome,
      severity,
      standing: standing?.kind,
      checks: result.failures.map(f => ({ id: f.id, data: f.data, danger: f.danger })),
      data: result.failures.length === 0 ? result.why.slots : undefined,
      compare: compare && `${compare.left} ${compare.sign} ${compare.right} ${compare.unit}`.trim(),
      missing: result.missing.map(f => `${f.subject} ${f.field}`),
      leans: leaning && {
        to: leaning.to,
        unless: leaning.unless.map(u => u.text),
        ask: `${leaning.ask.subject} ${leaning.ask.field}`,
      },
    }),
  ) as unknown
}

/** A judgment turned by seeing less: anything but staying, opening, or passing between clear and inapplicable. */
export const turns = (before: string, after: string): boolean =>
  after !== before && after !== 'undecided' && !(isQuiet(before) && isQuiet(after))
const isQuiet = (outcome: string) => outcome === 'clear' || outcome === 'n/a'

/** Hiding any one fact may open a verdict but never turns it. */
export function hidingLaw(house: House, rule: string, on: string, outcome: string): void {
  // Two thousand planted errors are tried on the rows alone.
  if (process.env.CORVIT_QUICK === '1') return
  for (const hidden of hideEach(house)) {
    const result = resultIn(hidden.house, rule, on)
    const after = result.verdict
    if (turns(outcome, result.outcome))
      throw new Error(
        `${rule} on ${on}: hiding ${hidden.what} turned ${outcome} into ${result.outcome}`,
      )
    if (after.outcome === 'undecided' && after.defect)
      throw new Error(`${rule} on ${on}: hiding ${hidden.what}: ${after.defect}`)
  }
}

/**
 * What is a setting or a place, not a sight: the work being done is said by whoever does it; the
 * half of a space says where a twin breaker is, and none means a whole one; a feeder starts behind the main
 * unless somebody says ahead of it; the rule an amendment
 * names says what it is about.
 */
export const isSetting = (kind: string, field: string): boolean =>
  // A ground seen on its screw and found by the tester is taken for one, and a protective device for working; the
  // impedance and the test button, where somebody tries them, can only speak against that.
  (kind === 'outlet' && (field === 'groundOhms' || field === 'gfciButton')) ||
  (kind === 'breaker' && field === 'testButton') ||
  (kind === 'premises' && field === 'visitedOn') ||
  // A distance to water is taken as measured inside the room.
  (kind === 'outlet' && field === 'isThroughDoorway') ||
  (kind === 'breaker' && field === 'half') ||
  // A load runs with the others unless somebody saw the controller that holds it off.
  (kind === 'circuit' && field === 'isHeldOff') ||
  (kind === 'feeder' && (field === 'fromTerminals' || field === 'egcEnds')) ||
  // What is wrong with the run of a bond or the ends of a jumper speaks where somebody saw it.
  (kind === 'bond' &&
    ['clampPlace', 'lengthFt', 'isNearEarth', 'isProtected', 'isSpliced'].includes(field)) ||
  (kind === 'electrode' && field === 'clampPlace') ||
  (kind === 'enclosure' && /^(jumper|supplyJumper)(LandsOn|Connection)$/.test(field)) ||
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
