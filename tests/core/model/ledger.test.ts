import fc from 'fast-check'
import {
  Ledger,
  valueOf,
  withClocks,
  type RawObservation as Observation,
  type Subject,
} from '#core'

const stamp = (n: number) => ({
  id: `o${n}`,
  at: `2026-01-01T08:00:${String(n).padStart(2, '0')}.000Z`,
  by: n % 2 ? 'Ann' : 'Ben',
})
const add: Observation = { ...stamp(0), act: 'add', subject: 'b', kind: 'breaker', parent: null }
const rating = (n: number, value: number): Observation => ({
  ...stamp(n),
  act: 'note',
  subject: 'b',
  field: 'ratingAmps',
  value,
  grade: 'read',
})
const retract = (n: number, target: string): Observation => ({
  ...stamp(n),
  act: 'retract',
  target,
})
const fold = (...log: Observation[]) =>
  new Ledger(log).house.subjects.get('b') as Subject<'breaker'> | undefined

describe('the ledger', () => {
  it('lets the last word win and keeps the first', () => {
    const fact = fold(add, rating(1, 15), rating(2, 20))!.facts.ratingAmps
    expect(fact).toMatchObject({ state: 'known', value: 20, earlier: [{ value: 15, by: 'Ann' }] })
  })
  it('takes the newer of two people whatever arrives first', () => {
    expect(valueOf(fold(rating(2, 20), rating(1, 15), add), 'ratingAmps')).toBe(20)
  })
  it('takes back by retraction, and brings back by retracting that', () => {
    expect(valueOf(fold(add, rating(1, 15), rating(2, 20), retract(3, 'o2')), 'ratingAmps')).toBe(
      15,
    )
    expect(
      valueOf(
        fold(add, rating(1, 15), rating(2, 20), retract(3, 'o2'), retract(4, 'o3')),
        'ratingAmps',
      ),
    ).toBe(20)
    expect(fold(add, rating(1, 15), retract(2, 'o1'))!.facts.ratingAmps).toEqual({
      state: 'unseen',
      subject: 'b',
      field: 'ratingAmps',
    })
  })
  it('takes back and brings back alike where all of it comes at once and in no order', () => {
    const log = [add, rating(1, 15), rating(2, 20), retract(3, 'o2'), retract(4, 'o3')]
    for (const once of [log, [...log].reverse(), [1, 4, 2, 0, 3].map(i => log[i]!)]) {
      expect(valueOf(fold(...once), 'ratingAmps')).toBe(20)
      expect(valueOf(fold(...once, retract(5, 'o4')), 'ratingAmps')).toBe(15)
      expect(valueOf(fold(retract(5, 'o4'), ...once), 'ratingAmps')).toBe(15)
    }
  })
  it('takes a thing away with its adding, and back with it', () => {
    expect(fold(add, rating(1, 15), retract(2, 'o0'))).toBeUndefined()
    expect(
      valueOf(fold(add, rating(1, 15), retract(2, 'o0'), retract(3, 'o2')), 'ratingAmps'),
    ).toBe(15)
  })
  it('drops a thing and lets it be added again with what was known', () => {
    const again: Observation = {
      ...stamp(4),
      act: 'add',
      subject: 'b',
      kind: 'breaker',
      parent: null,
    }
    expect(fold(add, rating(1, 15), { ...stamp(3), act: 'drop', subject: 'b' })).toBeUndefined()
    expect(
      valueOf(
        fold(add, rating(1, 15), { ...stamp(3), act: 'drop', subject: 'b' }, again),
        'ratingAmps',
      ),
    ).toBe(15)
  })
  it('does not hang on two retractions of each other', () => {
    expect(
      fold(
        add,
        rating(1, 15),
        { ...stamp(2), act: 'retract', target: 'o3' },
        { ...stamp(3), act: 'retract', target: 'o2' },
      ),
    ).toBeDefined()
  })
  it('a retraction that arrives before its target still counts', () => {
    expect(
      fold(retract(5, 'o2'), add, rating(1, 15), rating(2, 20))!.facts.ratingAmps,
    ).toMatchObject({ value: 15 })
  })
  it('could not be seen does not wipe out what was seen', () => {
    const blocked: Observation = {
      ...stamp(2),
      act: 'block',
      subject: 'b',
      field: 'ratingAmps',
      reason: 'locked',
    }
    expect(fold(add, blocked)!.facts.ratingAmps).toMatchObject({
      state: 'blocked',
      reason: 'locked',
    })
    expect(valueOf(fold(add, rating(1, 15), blocked), 'ratingAmps')).toBe(15)
  })
  it('step by step gives the same house as all at once', () => {
    const log = [
      add,
      rating(1, 15),
      rating(2, 20),
      retract(3, 'o2'),
      rating(4, 30),
      retract(5, 'o3'),
    ]
    const stepwise = new Ledger()
    for (const o of log) stepwise.append([o])
    expect(stepwise.house).toEqual(new Ledger(log).house)
  })
})

/** A note with a clock and what it was made over, as a device stamps it. */
const said = (
  id: string,
  clock: string,
  by: string,
  value: number,
  over?: string[],
): Observation => ({
  id,
  at: '2026-01-01T08:00:00.000Z',
  clock: `2026-01-${clock}`,
  by,
  act: 'note',
  subject: 'b',
  field: 'ratingAmps',
  value,
  grade: 'read',
  ...(over && { over }),
})
const DAY1 = '01T09:00:00.000Z~000000~a'
const DAY2 = '02T09:00:00.000Z~000000~b'
const DAY2_NEXT = '02T09:00:00.000Z~000001~a'

describe('what two people saw', () => {
  it('without knowing of each other is two opinions, the later clock standing', () => {
    const ledger = new Ledger([add, said('x', DAY1, 'Ann', 15, []), said('y', DAY2, 'Ben', 20, [])])
    expect(ledger.house.subjects.get('b')!.facts).toMatchObject({
      ratingAmps: { value: 20, rivals: [{ value: 15, by: 'Ann' }], earlier: [], heads: ['x', 'y'] },
    })
    expect(ledger.conflicts()).toMatchObject([
      {
        kind: 'opinions',
        field: 'ratingAmps',
        stands: { value: 20, by: 'Ben' },
        rivals: [{ value: 15, by: 'Ann' }],
      },
    ])
  })
  it('one after having seen the other is a correction, and one who has seen both settles it', () => {
    const seen = new Ledger([
      add,
      said('y', DAY2, 'Ben', 20, []),
      said('x', DAY2_NEXT, 'Ann', 15, ['y']),
    ])
    expect(seen.house.subjects.get('b')!.facts).toMatchObject({
      ratingAmps: { value: 15, rivals: [] },
    })
    const settled = new Ledger([
      add,
      said('x', DAY1, 'Ann', 15, []),
      said('y', DAY2, 'Ben', 20, []),
      said('z', DAY2_NEXT, 'Ann', 15, ['x', 'y']),
    ])
    expect(settled.conflicts()).toEqual([])
    expect(settled.house.subjects.get('b')!.facts).toMatchObject({
      ratingAmps: { value: 15, earlier: [{ value: 20 }] },
    })
  })
  it('alike is no conflict', () => {
    expect(
      new Ledger([add, said('x', DAY1, 'Ann', 20, []), said('y', DAY2, 'Ben', 20, [])]).conflicts(),
    ).toEqual([])
  })
  it('comes back when the correction is taken back, and stays replaced by a later one', () => {
    const three = [
      add,
      said('x', DAY1, 'Ann', 15, []),
      said('y', DAY2, 'Ben', 20, ['x']),
      said('z', DAY2_NEXT, 'Ann', 25, ['y']),
    ]
    const back = (target: string): Observation => ({ ...stamp(40), act: 'retract', target })
    expect(valueOf(fold(...three, back('z')), 'ratingAmps')).toBe(20)
    expect(new Ledger([...three, back('y')]).conflicts()).toEqual([])
  })
  it('about a thing that somebody else took out is told', () => {
    const drop: Observation = { ...stamp(3), act: 'drop', subject: 'b' }
    const ledger = new Ledger([add, drop, said('y', DAY2, 'Ben', 20, [])])
    expect(ledger.conflicts()).toMatchObject([
      { kind: 'taken out', subject: 'b', drop: { by: 'Ann' }, later: [{ id: 'y' }] },
    ])
  })
  it('folds alike in any order of arrival', () => {
    const log = withClocks([
      add,
      said('x', DAY1, 'Ann', 15, []),
      said('y', DAY2, 'Ben', 20, []),
      said('z', DAY2_NEXT, 'Ann', 25, ['y']),
      retract(41, 'z'),
      retract(42, 'o41'),
      { ...stamp(50), act: 'drop', subject: 'b' } as Observation,
      retract(51, 'o50'),
    ])
    const whole = new Ledger(log).house
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: log.length }), shuffled => {
        const stepwise = new Ledger()
        for (const o of shuffled) stepwise.append([o])
        expect(stepwise.house).toEqual(whole)
      }),
      { seed: 3, numRuns: 200 },
    )
  })
})

describe('a log made to stop the program', () => {
  it('of 20 000 chained retractions folds, and each turns the one before', () => {
    const chain = (n: number): Observation[] => [
      add,
      rating(1, 15),
      ...Array.from({ length: n }, (_, i): Observation => ({
        id: `r${i}`,
        at: '2026-01-01T08:00:00.000Z',
        by: 'Ann',
        act: 'retract',
        target: i === 0 ? 'o1' : `r${i - 1}`,
      })),
    ]
    expect(valueOf(fold(...chain(20_000)), 'ratingAmps')).toBe(15)
    expect(valueOf(fold(...chain(20_001).reverse()), 'ratingAmps')).toBeUndefined()
  })
  it('compares instants, not their texts', () => {
    const early: Observation = { ...rating(1, 15), at: '2026-01-01T12:00:00+05:00' }
    const late: Observation = { ...rating(2, 20), at: '2026-01-01T08:00:00Z' }
    expect(valueOf(fold(add, early, late), 'ratingAmps')).toBe(20)
  })
})
