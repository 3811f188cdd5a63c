import { conflictsIn, Ledger, mergeLogs, withClocks, writeLog, type RawObservation } from '#core'
import { observe, panel, type Node } from '../../support/house'

const base = withClocks(observe(panel([{ id: 'b', space: 1 }]) as Node))
const ids = (list: readonly { id: string }[]) => list.map(o => o.id)
const rating = (id: string, value: number, by: string, minute: number): RawObservation => ({
  id,
  at: `2031-01-01T08:${String(minute).padStart(2, '0')}:00.000Z`,
  by,
  act: 'note',
  subject: 'b',
  field: 'ratingAmps',
  value,
  grade: 'seen',
  over: [],
})
const first = withClocks([...base, rating('x1', 20, 'Ann', 1)])
const second = withClocks([...base, rating('y1', 15, 'Bo', 2)])

describe('two copies of one job', () => {
  it('are put together whole, whichever is given first', () => {
    const one = mergeLogs(first, second)
    const two = mergeLogs(second, first)
    if ('clashes' in one || 'clashes' in two) throw new Error('they clash')
    expect(JSON.stringify(writeLog(one.ledger))).toBe(JSON.stringify(writeLog(two.ledger)))
    expect(new Set(ids(one.ledger.log()))).toEqual(new Set([...ids(first), ...ids(second)]))
    expect([one.onlyFirst, one.onlySecond, one.shared]).toEqual([1, 1, base.length])
  })
  it('list what two people saw differently, with both values, who and when', () => {
    const merged = mergeLogs(first, second)
    if ('clashes' in merged) throw new Error('they clash')
    expect(merged.conflicts).toEqual([
      expect.objectContaining({
        subject: 'b',
        field: 'ratingAmps',
        values: [
          expect.objectContaining({ value: '15 A', by: 'Bo', isUsed: true }),
          expect.objectContaining({ value: '20 A', by: 'Ann', isUsed: false }),
        ],
      }),
    ])
    expect(conflictsIn(new Ledger(first))).toEqual([])
  })
  it('merging again changes nothing', () => {
    const merged = mergeLogs(first, second)
    if ('clashes' in merged) throw new Error('they clash')
    const log = merged.ledger.log()
    for (const other of [first, second, log]) {
      const again = mergeLogs(log, other)
      if ('clashes' in again) throw new Error('they clash')
      expect(JSON.stringify(writeLog(again.ledger))).toBe(JSON.stringify(writeLog(merged.ledger)))
    }
  })
  it('who signed in, and how far a clock was off, makes no clash; another value does', () => {
    const named = first.map(o => ({ ...o, by: 'Ann Otherway', skewSeconds: 70 }))
    expect(mergeLogs(first, named)).not.toHaveProperty('clashes')
    const turned = withClocks([...base, rating('x1', 30, 'Ann', 1)])
    expect(mergeLogs(first, turned)).toEqual({ clashes: [{ id: 'x1' }] })
  })
  it('a thing taken out by one and recorded on by the other is told', () => {
    const drop = {
      id: 'd1',
      at: '2031-01-01T08:01:00.000Z',
      by: 'Ann',
      act: 'drop' as const,
      subject: 'b',
    }
    const merged = mergeLogs(withClocks([...base, drop]), second)
    if ('clashes' in merged) throw new Error('they clash')
    expect(merged.conflicts).toEqual([expect.objectContaining({ field: 'there or not' })])
  })
})
