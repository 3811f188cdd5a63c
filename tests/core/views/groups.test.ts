import { assess, groupAlike, labelOf, Ledger } from '#core'
import { DEMO_HOUSES } from '#core/examples/index'
import { observe, oneOutlet, siteOf, type Node } from '../../support/house'

const bedroom = (...outlets: Node[]): Node =>
  oneOutlet(
    { room: 'r', after: 'panel', protection: 'none', work: 'none', year: 1970 },
    {
      premises: { edition: 2020 },
      rooms: [{ id: 'r', name: 'East room', use: 'bedroom', hasSink: false }],
      others: outlets.map((p, i) => ({
        id: `o${i}`,
        type: 'receptacle',
        slots: 'three',
        room: 'r',
        after: 'panel',
        protection: 'none',
        work: 'none',
        year: 1970,
        ...p,
      })),
    },
  )
const faults = (house: Node) => assess(siteOf(house).house).results.filter(r => r.severity !== null)

describe('findings that read alike', () => {
  it('are one group with every place', () => {
    const [group] = groupAlike(faults(bedroom({}, {})).filter(f => f.rule === 'afci-missing'))
    expect(group!.all.map(f => f.subject.id).sort()).toEqual(['o0', 'o1', 'p'])
    expect(group!.first).toBe(group!.all[0])
  })
  it('stay apart where the standing differs', () => {
    const groups = groupAlike(
      faults(bedroom({}, { year: 2012 })).filter(f => f.rule === 'afci-missing'),
    )
    expect(groups.map(g => g.all.length).sort()).toEqual([1, 2])
    expect(new Set(groups.map(g => g.first.standing))).toEqual(
      new Set(['allowed to remain', 'violation when installed']),
    )
  })
  it('stay apart where a person weighed one of them', () => {
    const house = {
      ...bedroom({}),
      overrides: [
        {
          rule: 'afci-missing',
          of: 'o0',
          severity: 'note',
          reason: 'room to be rewired',
        },
      ],
    }
    expect(groupAlike(faults(house).filter(f => f.rule === 'afci-missing'))).toHaveLength(2)
  })
  it.each(DEMO_HOUSES.map(d => [d.id, d] as const))(
    'in %s none is lost and none counted twice',
    (_id, demo) => {
      const all = assess(new Ledger(observe(demo.file() as Node)).house).results.filter(
        r => r.outcome === 'fault',
      )
      const groups = groupAlike(all)
      expect(
        groups
          .flatMap(g => g.all)
          .map(f => `${f.rule} ${f.subject.id}`)
          .sort(),
      ).toEqual(all.map(f => `${f.rule} ${f.subject.id}`).sort())
      for (const g of groups) {
        expect(new Set(g.all.map(f => f.rule)).size).toBe(1)
        expect(new Set(g.all.map(f => f.subject.label)).size).toBe(g.all.length)
      }
    },
  )
})

describe('two outlets of one name in a room', () => {
  const named = (second: Node): Node => {
    const house = oneOutlet(
      { room: 'r', name: 'By the door' },
      { rooms: [{ id: 'r', name: 'Hall', use: 'hallway' }], circuit: { label: 'Hall left' } },
    )
    return {
      ...house,
      circuits: [{ id: 'c2', label: 'Hall right' }],
      outlets: [{ id: 'q', type: 'receptacle', room: 'r', ...second }],
    }
  }
  const labels = (house: Node) => {
    const site = siteOf(house)
    return ['p', 'q'].map(id => labelOf(site, site.get(id, 'outlet')!))
  }
  it('are told apart by their circuits', () =>
    expect(labels(named({ name: 'By the door', circuit: 'c2' }))).toEqual([
      'Hall · By the door (Hall left)',
      'Hall · By the door (Hall right)',
    ]))
  it('by their ids where no circuit is known', () =>
    expect(labels(named({ name: 'By the door' }))[1]).toBe('Hall · By the door (q)'))
  it('and left alone where the names differ', () =>
    expect(labels(named({ name: 'Under the window', circuit: 'c2' }))).toEqual([
      'Hall · By the door',
      'Hall · Under the window',
    ]))
})
