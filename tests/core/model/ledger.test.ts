import { Ledger, valueOf, type Observation, type Subject } from '#core'

const stamp = (n: number) => ({ id: `o${n}`, at: `2026-01-01T08:00:${String(n).padStart(2, '0')}.000Z`, by: n % 2 ? 'Ann' : 'Ben' })
const add: Observation = { ...stamp(0), act: 'add', subject: 'b', kind: 'breaker', parent: null }
const rating = (n: number, value: number): Observation => ({ ...stamp(n), act: 'note', subject: 'b', field: 'ratingAmps', value, grade: 'read' })
const retract = (n: number, target: string): Observation => ({ ...stamp(n), act: 'retract', target })
const fold = (...log: Observation[]) => new Ledger(log).house.subjects.get('b') as Subject<'breaker'> | undefined

describe('the ledger', () => {
  it('lets the last word win and keeps the first', () => {
    const fact = fold(add, rating(1, 15), rating(2, 20))!.facts.ratingAmps
    expect(fact).toMatchObject({ state: 'known', value: 20, earlier: [{ value: 15, by: 'Ann' }] })
  })
  it('takes the newer of two people whatever arrives first', () => {
    expect(valueOf(fold(rating(2, 20), rating(1, 15), add), 'ratingAmps')).toBe(20)
  })
  it('takes back by retraction, and brings back by retracting that', () => {
    expect(valueOf(fold(add, rating(1, 15), rating(2, 20), retract(3, 'o2')), 'ratingAmps')).toBe(15)
    expect(valueOf(fold(add, rating(1, 15), rating(2, 20), retract(3, 'o2'), retract(4, 'o3')), 'ratingAmps')).toBe(20)
    expect(fold(add, rating(1, 15), retract(2, 'o1'))!.facts.ratingAmps).toEqual({ state: 'unseen', subject: 'b', field: 'ratingAmps' })
  })
  it('takes a thing away with its adding, and back with it', () => {
    expect(fold(add, rating(1, 15), retract(2, 'o0'))).toBeUndefined()
    expect(valueOf(fold(add, rating(1, 15), retract(2, 'o0'), retract(3, 'o2')), 'ratingAmps')).toBe(15)
  })
  it('drops a thing and lets it be added again with what was known', () => {
    const again: Observation = { ...stamp(4), act: 'add', subject: 'b', kind: 'breaker', parent: null }
    expect(fold(add, rating(1, 15), { ...stamp(3), act: 'drop', subject: 'b' })).toBeUndefined()
    expect(valueOf(fold(add, rating(1, 15), { ...stamp(3), act: 'drop', subject: 'b' }, again), 'ratingAmps')).toBe(15)
  })
  it('does not hang on two retractions of each other', () => {
    expect(fold(add, rating(1, 15), { ...stamp(2), act: 'retract', target: 'o3' }, { ...stamp(3), act: 'retract', target: 'o2' })).toBeDefined()
  })
  it('a retraction that arrives before its target still counts', () => {
    expect(fold(retract(5, 'o2'), add, rating(1, 15), rating(2, 20))!.facts.ratingAmps).toMatchObject({ value: 15 })
  })
  it('could not be seen does not wipe out what was seen', () => {
    const blocked: Observation = { ...stamp(2), act: 'block', subject: 'b', field: 'ratingAmps', reason: 'locked' }
    expect(fold(add, blocked)!.facts.ratingAmps).toMatchObject({ state: 'blocked', reason: 'locked' })
    expect(valueOf(fold(add, rating(1, 15), blocked), 'ratingAmps')).toBe(15)
  })
  it('step by step gives the same house as all at once', () => {
    const log = [add, rating(1, 15), rating(2, 20), retract(3, 'o2'), rating(4, 30), retract(5, 'o3')]
    const stepwise = new Ledger()
    for (const o of log) stepwise.append([o])
    expect(stepwise.house).toEqual(new Ledger(log).house)
  })
})
