import fc from 'fast-check'
import type { FactRef } from '#core'
import {
  all,
  any,
  map,
  not,
  of,
  open,
  pick,
  settled,
  unique,
  unknown,
  type Conclusion,
  type Truth,
} from '#core/conclusions/truth'
import {
  atLeast,
  atMost,
  band,
  bandOf,
  exactly,
  least,
  most,
  sum,
  times,
  type Band,
} from '#core/conclusions/band'

const unseen = (field: string): FactRef => ({ state: 'unseen', subject: 's', field })
const seen = (field: string, value: number | string | boolean): FactRef => ({
  state: 'known',
  subject: 's',
  field,
  value,
  grade: 'seen',
  observation: `o-${field}`,
  earlier: [],
  rivals: [],
  heads: undefined,
})
const YES = settled(true, [seen('yes', true)])
const NO = settled(false, [seen('no', false)])
const MAYBE = unknown([unseen('maybe')])
const name = (t: Truth) => (t.state === 'open' ? 'open' : String(t.value))

describe('Kleene’s tables', () => {
  const rows: [Truth, Truth, string, string][] = [
    [YES, YES, 'true', 'true'],
    [YES, NO, 'false', 'true'],
    [YES, MAYBE, 'open', 'true'],
    [NO, YES, 'false', 'true'],
    [NO, NO, 'false', 'false'],
    [NO, MAYBE, 'false', 'open'],
    [MAYBE, YES, 'open', 'true'],
    [MAYBE, NO, 'false', 'open'],
    [MAYBE, MAYBE, 'open', 'open'],
  ]
  it.each(rows)('row %#', (a, b, both, either) => {
    expect([name(all(a, b)), name(any(a, b))]).toEqual([both, either])
  })
  it('not turns what is settled and leaves what is open', () => {
    expect([YES, NO, MAYBE].map(t => name(not(t)))).toEqual(['false', 'true', 'open'])
  })
  it('of nothing, all is true and any is false', () => {
    expect([name(all()), name(any())]).toEqual(['true', 'false'])
  })
  it('a settled answer rests on what decided it, an open one names what it waits for', () => {
    expect(all(MAYBE, NO).rests).toEqual(NO.rests)
    const waiting = all(YES, MAYBE, unknown([unseen('other')]))
    expect(waiting.state === 'open' && waiting.missing.map(m => m.field)).toEqual([
      'maybe',
      'other',
    ])
  })
})

const truth = fc.constantFrom(YES, NO, MAYBE, unknown([unseen('other')]))
const truths = fc.array(truth, { maxLength: 6 })

describe('laws of truths', () => {
  it('De Morgan', () => {
    fc.assert(
      fc.property(truths, list => {
        expect(name(not(all(...list)))).toBe(name(any(...list.map(not))))
        expect(name(not(any(...list)))).toBe(name(all(...list.map(not))))
      }),
      { seed: 1 },
    )
  })
  it('order and repetition do not matter', () => {
    fc.assert(
      fc.property(truths, list => {
        const turned = [...list].reverse()
        expect(name(all(...list, ...turned))).toBe(name(all(...list)))
        expect(name(any(...turned))).toBe(name(any(...list)))
      }),
      { seed: 2 },
    )
  })
  it('hiding one may open an answer and never turns it', () => {
    fc.assert(
      fc.property(truths, fc.nat(5), (list, i) => {
        if (list.length === 0) return
        const hidden = list.map((t, k) => (k === i % list.length ? MAYBE : t))
        for (const combine of [all, any]) {
          const [before, after] = [name(combine(...list)), name(combine(...hidden))]
          if (after !== 'open') expect(after).toBe(before)
        }
      }),
      { seed: 3 },
    )
  })
  it('an open answer can still be either: some way of learning what is missing makes it so', () => {
    fc.assert(
      fc.property(truths, list => {
        for (const combine of [all, any]) {
          if (combine(...list).state !== 'open') continue
          const learned = [YES, NO].map(to =>
            name(combine(...list.map(t => (t.state === 'open' ? to : t)))),
          )
          expect(learned.sort()).toEqual(['false', 'true'])
        }
      }),
      { seed: 4 },
    )
  })
  it('what is open names only what is not known', () => {
    expect(() => open([])).toThrow('names what it waits for')
    expect(of(seen('size', '14'))).toMatchObject({ state: 'settled', value: '14' })
    expect(of(unseen('size'), ['14', '12'])).toMatchObject({ state: 'open', can: ['14', '12'] })
  })
})

describe('what follows from candidates', () => {
  const size = open<string>([unseen('size')], ['14', '12', '10'])
  it('map carries them along, and settles where one answer is left', () => {
    expect(map(size, Number)).toMatchObject({ state: 'open', can: [14, 12, 10] })
    expect(map(size, s => Number(s) > 4)).toMatchObject({ state: 'settled', value: true })
    expect(map(open<string>([unseen('size')]), Number)).toMatchObject({
      state: 'open',
      can: undefined,
    })
  })
  it('pick settles where all roads lead to one place, and is open where one does not', () => {
    const metal = (s: string): Conclusion<string> =>
      s === '10' ? open([unseen('metal')], ['copper', 'aluminum']) : settled('copper')
    expect(pick(size, () => settled('copper'))).toMatchObject({ state: 'settled', value: 'copper' })
    expect(pick(size, metal)).toMatchObject({ state: 'open', can: ['copper', 'aluminum'] })
    expect(pick(settled('10'), metal)).toMatchObject({ state: 'open', can: ['copper', 'aluminum'] })
    expect(pick(open<string>([unseen('size')]), metal)).toMatchObject({
      state: 'open',
      can: undefined,
    })
    expect(
      pick(size, s => (s === '14' ? open<string>([unseen('x')]) : settled('a'))),
    ).toMatchObject({ state: 'open', can: undefined })
  })
})

const anyBand = fc
  .tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 60 }))
  .map(([from, width]): Band =>
    width === 0 ? exactly(from) : band(from, from + width, [], [unseen(`b${from}`)]),
  )

describe('bands', () => {
  it('compare as every pair of numbers in them does, and are open where two pairs differ', () => {
    fc.assert(
      fc.property(anyBand, anyBand, (a, b) => {
        const corners = [a.from, a.to].flatMap(x => [b.from, b.to].map(y => x <= y))
        const expected = corners.every(Boolean) ? 'true' : corners.some(Boolean) ? 'open' : 'false'
        expect(name(atMost(a, b))).toBe(expected)
        expect(name(atLeast(b, a))).toBe(expected)
      }),
      { seed: 5 },
    )
  })
  it('fold as their numbers do', () => {
    fc.assert(
      fc.property(
        fc.array(anyBand, { minLength: 1, maxLength: 5 }),
        fc.float({ min: 0, max: 1, noNaN: true }),
        (list, share) => {
          const inside = list.map(b => b.from + (b.to - b.from) * share)
          const within = (x: number, b: Band) => x >= b.from - 1e-9 && x <= b.to + 1e-9
          expect(within(Math.min(...inside), least(list))).toBe(true)
          expect(within(Math.max(...inside), most(list))).toBe(true)
          expect(
            within(
              inside.reduce((a, b) => a + b, 0),
              sum(list),
            ),
          ).toBe(true)
          expect(within(inside[0]! * 1.25, times(list[0]!, 1.25))).toBe(true)
        },
      ),
      { seed: 6 },
    )
  })
  it('narrowing one never turns a settled comparison', () => {
    fc.assert(
      fc.property(anyBand, anyBand, fc.float({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        const narrowed = exactly(a.from + (a.to - a.from) * share)
        const before = name(atMost(a, b))
        if (before !== 'open') expect(name(atMost(narrowed, b))).toBe(before)
      }),
      { seed: 7 },
    )
  })
  it('touching ends are at most each other', () => {
    expect([
      name(atMost(exactly(20), exactly(20))),
      name(atMost(exactly(21), exactly(20))),
    ]).toEqual(['true', 'false'])
    expect(name(atMost(band(15, 20, [], [unseen('a')]), exactly(20)))).toBe('true')
  })
  it('of facts: one number when seen, the ends while not', () => {
    expect(bandOf(seen('ratingAmps', 20), 5, 400)).toMatchObject({ from: 20, to: 20, missing: [] })
    expect(bandOf(unseen('ratingAmps'), 5, 400)).toMatchObject({
      from: 5,
      to: 400,
      missing: [{ field: 'ratingAmps' }],
    })
    expect(() => band(3, 2)).toThrow('a band')
    expect(() => band(2, 3)).toThrow('waits for')
    expect(() => least([])).toThrow('nothing')
    expect(() => times(exactly(2), -1)).toThrow('factor')
    expect(times(exactly(2), 0)).toMatchObject({ from: 0, to: 0 })
    expect(times(exactly(2), 0.5)).toMatchObject({ from: 1, to: 1 })
    // Where the ends only touch, both may be the same.
    expect(name(atMost(band(5, 8, [], [unseen('a')]), band(1, 5, [], [unseen('b')])))).toBe('open')
  })
})

it('each fact stands once, where it was first named, in short lists and in long ones', () => {
  // Facts of two things with fields of the same names, so that both halves of the name count.
  const fact = fc
    .record({ subject: fc.constantFrom('s', 't'), field: fc.constantFrom('a', 'b', 'c', 'd', 'e') })
    .map(({ subject, field }): FactRef => ({ state: 'unseen', subject, field }))
  const byName = (facts: readonly FactRef[]) => facts.map(f => `${f.subject} ${f.field}`)
  fc.assert(
    fc.property(fc.array(fact, { maxLength: 30 }), facts => {
      const once = unique(facts)
      expect(byName(once)).toEqual([...new Set(byName(facts))])
      for (const f of once) expect(facts.find(o => byName([o])[0] === byName([f])[0])).toBe(f)
    }),
    { numRuns: 200 },
  )
})
