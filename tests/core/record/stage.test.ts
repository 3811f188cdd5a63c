import { appointmentsOf, Ledger, nextDayOf, stageOf, withChanges } from '#core'
import { observe, panel, type Node } from '../../support/house'

const bare = new Ledger(
  observe({ corvit: 2, form: 'house', premises: { name: 'Plum Lane 4', visitedOn: '2026-05-12' } }),
).house
const found = new Ledger(observe(panel([{ id: 'b', space: 1 }]) as Node)).house

describe('how far a job is', () => {
  it('is what its record shows, unless somebody says otherwise', () => {
    expect(stageOf(bare)).toBe('planned')
    expect(stageOf(found)).toBe('on site')
    const signed = withChanges(found, [
      { act: 'add', subject: 's', kind: 'signing', parent: 'premises' },
    ])
    expect(stageOf(signed)).toBe('signed')
    const back = withChanges(signed, [
      { act: 'add', subject: 'v', kind: 'returnVisit', parent: 'premises' },
    ])
    expect(stageOf(back)).toBe('return')
    const said = withChanges(back, [
      { act: 'note', subject: 'premises', field: 'stage', value: 'writing' },
    ])
    expect(stageOf(said)).toBe('writing')
  })
  it('what was agreed for a visit is no finding of it', () => {
    const scoped = withChanges(bare, [
      { act: 'add', subject: 'x', kind: 'visit', parent: 'premises' },
    ])
    expect(stageOf(scoped)).toBe('planned')
  })
})

describe('its days', () => {
  const visits = withChanges(bare, [
    { act: 'add', subject: 'v1', kind: 'returnVisit', parent: 'premises' },
    { act: 'note', subject: 'v1', field: 'number', value: 1 },
    { act: 'note', subject: 'v1', field: 'on', value: '2026-06-01' },
    { act: 'note', subject: 'v1', field: 'nextOn', value: '2026-07-01' },
  ])
  it('are the visit, the return visits and the next one, each under an id that stays', () => {
    expect(appointmentsOf(visits)).toEqual([
      { id: 'visit', on: '2026-05-12', what: 'Visit: Plum Lane 4' },
      { id: 'v1', on: '2026-06-01', what: 'Return visit 1: Plum Lane 4' },
      { id: 'next', on: '2026-07-01', what: 'Return visit 2: Plum Lane 4' },
    ])
    expect(nextDayOf(visits)).toBe('2026-07-01')
  })
  it('what is no day is left away', () => {
    const odd = withChanges(bare, [
      { act: 'note', subject: 'premises', field: 'visitedOn', value: 'in May' },
    ])
    expect(appointmentsOf(odd)).toEqual([])
    expect(nextDayOf(odd)).toBe('')
  })
})
