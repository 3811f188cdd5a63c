import { Ledger, readJob, writeHouse, type Observation } from '#core'
import { hillside } from '#core/examples/hillside'
import { observe, type Node } from '../../support/house'

it('a house with a panel taken out writes a file that can be read again', () => {
  const ledger = new Ledger(observe(hillside() as Node))
  const at = '2026-07-01T08:00:00.000Z'
  const drop = (subject: string, i: number): Observation => ({
    id: `d${i}`,
    at,
    by: 'x',
    act: 'drop',
    subject,
  })
  ledger.append(['living', 'garden', 'studio-panel', 'room-kitchen', 'rod'].map(drop))
  let n = 0
  const again = readJob(
    JSON.parse(JSON.stringify(writeHouse(ledger.house, id => ledger.find(id)))),
    { at, by: 'x', nextId: () => `n${n++}` },
  )
  const back = new Ledger(again.observations).house
  expect([...back.subjects.keys()].sort()).toEqual([...ledger.house.subjects.keys()].sort())
  expect(back.subjects.has('living-1')).toBe(true)
  expect(back.subjects.get('living-1')!.facts).toMatchObject({ circuit: { state: 'unseen' } })
})
