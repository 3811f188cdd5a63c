import fc from 'fast-check'
import {
  assess,
  Ledger,
  parseLine,
  readJob,
  readJobFile,
  remediesFor,
  evaluate,
  render,
  RULES,
  Site,
  UnreadableFile,
  FIELDS,
  valueText,
  type Field,
} from '#core'
import { hillside } from '#core/examples/hillside'
import { valueSchema } from '#core/model/values'
import { observe, type Node } from '../support/house'

const stamper = () => {
  let n = 0
  return {
    at: '2026-01-01T08:00:00.000Z',
    by: 'fuzz',
    nextId: () => `f${String(n++).padStart(6, '0')}`,
  }
}
/** Reads or says what is wrong; anything else is a defect. */
function readOrRefuse(read: () => unknown): boolean {
  try {
    read()
    return true
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    expect(error.problems.length).toBeGreaterThan(0)
    for (const p of error.problems)
      expect(p.path.length * p.expected.length * p.found.length).toBeGreaterThan(0)
    return false
  }
}

describe('whatever comes in', () => {
  it('as text is read or refused, never a crash', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 400 }),
        text => void readOrRefuse(() => readJobFile(text, stamper())),
      ),
      { numRuns: 300, seed: 1 },
    )
  })
  it('as JSON is read or refused, never a crash', () => {
    fc.assert(
      fc.property(
        fc.jsonValue({ maxDepth: 4 }),
        value => void readOrRefuse(() => readJob(value, stamper())),
      ),
      { numRuns: 300, seed: 2 },
    )
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.constantFrom('premises', 'enclosures', 'outlets', 'circuits', 'rooms', 'id'),
          fc.jsonValue({ maxDepth: 4 }),
        ),
        value =>
          void readOrRefuse(() => readJob({ corvit: 1, form: 'house', ...value }, stamper())),
      ),
      { numRuns: 300, seed: 3 },
    )
  })
  /** Each is a whole house to read. */
  const SPOILED = process.env.CORVIT_TRIALS ? 120 : 40
  it('as a good file with one value spoiled is read or refused at that place', () => {
    const text = JSON.stringify(hillside())
    const spots = [...text.matchAll(/":(?=["\d[{tf])/g)].map(m => m.index + 2)
    expect(spots.length).toBeGreaterThan(1000)
    let refused = 0
    fc.assert(
      fc.property(
        fc.nat(spots.length - 1),
        fc.constantFrom('null,"x":', '-1,"x":', '"\\u0000","x":', '{"a":1},"x":', '1e99,"x":'),
        (i, spoil) => {
          if (
            !readOrRefuse(() =>
              readJobFile(text.slice(0, spots[i]) + spoil + text.slice(spots[i]), stamper()),
            )
          )
            refused++
        },
      ),
      { numRuns: SPOILED, seed: 4 },
    )
    expect(refused).toBe(SPOILED)
  })
  it('as a breaker line is taken apart without loss of sense', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.constantFrom(
              '7',
              '20',
              '2p',
              '14cu',
              '12-3',
              'nm',
              'gfci',
              'with',
              '9',
              'tie',
              'spare',
              'lights',
              'a/c',
              '1/0al',
            ),
            fc.string({ maxLength: 8 }),
          ),
          { maxLength: 9 },
        ),
        words => {
          const { line, pieces } = parseLine(words.join(' '))
          if (line.ratingAmps !== undefined)
            expect(valueSchema(FIELDS.breaker.ratingAmps).safeParse(line.ratingAmps).success).toBe(
              true,
            )
          if (line.space !== undefined) expect(line.space).toBeLessThan(100)
          for (const piece of pieces) expect(piece.meaning).not.toBe('')
        },
      ),
      { numRuns: 500, seed: 5 },
    )
  })
})

describe('over the demo house', () => {
  const site = new Site(new Ledger(observe(hillside() as Node)).house)
  const results = evaluate(site, RULES)
  it('every sentence can be spoken', () => {
    for (const { verdict } of results) {
      expect(render(verdict.why)).not.toMatch(/[{}]|undefined|NaN/)
      for (const step of verdict.working) expect(render(step)).not.toMatch(/[{}]|undefined|NaN/)
    }
  })
  it('every fault has remedies, each with its reason; conditional ones name what to look at', () => {
    const faults = results.filter(r => r.verdict.outcome === 'fault')
    expect(faults.length).toBeGreaterThan(30)
    for (const fault of faults) {
      const remedies = remediesFor(fault, site)
      expect(remedies.length).toBeGreaterThan(0)
      for (const { advice, remedy } of remedies) {
        expect(render(advice.why).length).toBeGreaterThan(8)
        if (advice.verdict === 'conditional' && advice.missing.length === 0)
          throw new Error(`${remedy.id} is conditional on nothing`)
      }
    }
    expect(new Set(faults.flatMap(f => remediesFor(f, site).map(r => r.advice.verdict)))).toEqual(
      new Set(['offered', 'conditional', 'refused']),
    )
  })
  it('nothing spoken is empty, and no code or brace is left in the words', () => {
    for (const r of assess(site.house).results) {
      expect(r.subject.label).not.toMatch(/undefined|\[object/)
      expect(
        r.why + r.title + r.working.join() + r.missing.map(m => m.label + m.look).join(),
      ).not.toMatch(/undefined|\[object|[{}]/)
    }
  })
})

it('every field says how to look, and writes its values with their unit', () => {
  for (const fields of Object.values(FIELDS)) {
    for (const field of Object.values(fields as Record<string, Field>)) {
      expect(field.look.length).toBeGreaterThan(2)
      expect(field.label).not.toMatch(/[A-Z]{2,}[a-z]|_/)
    }
  }
  expect([
    valueText(FIELDS.breaker.ratingAmps, 20),
    valueText(FIELDS.segment.size, '12'),
    valueText(FIELDS.premises.yearBuilt, [1960, 1965]),
    valueText(FIELDS.enclosure.hasSecondSource, false),
    valueText(FIELDS.circuit.sharesNeutralWith, []),
  ]).toEqual(['20 A', '12 AWG', '1960 to 1965', 'no', 'none'])
})
