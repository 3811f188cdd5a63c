import { cutOf, oldWiringLayout, oldWiringOf } from '#core'
import { siteOf, type Node } from '../../support/house'

const measured = (value: string): Node => ({ value, grade: 'measured', instrument: 'multimeter' })
/** A hot and a neutral, each tapped once; the tap of the hot feeds a and b, that of the neutral b. */
const house = (more: Node[] = []): Node => ({
  corvit: 1,
  form: 'house',
  outlets: ['a', 'b'].map(id => ({ id, name: id, type: 'luminaire' })),
  conductors: [
    { id: 'hot', name: 'Hot lead', identity: measured('hot') },
    {
      id: 'tap',
      name: 'Tap',
      from: 'hot',
      joint: 'soldered and taped tap',
      identity: measured('hot'),
      feeds: ['a', 'b'],
    },
    { id: 'white', name: 'Neutral lead', identity: measured('neutral') },
    { id: 'back', name: 'Return', from: 'white', identity: measured('neutral'), feeds: ['b'] },
    ...more,
  ],
})
const fates = (node: Node, id: string) =>
  Object.fromEntries(cutOf(siteOf(node), id).outlets.map(o => [o.id, o.fate]))

describe('single conductors', () => {
  it('stand after what they are tapped from, with how deep they lie', () => {
    const { conductors, loose, rings } = oldWiringOf(siteOf(house()))
    expect(conductors.map(c => [c.id, c.depth])).toEqual([
      ['hot', 0],
      ['tap', 1],
      ['white', 0],
      ['back', 1],
    ])
    expect([loose, rings]).toEqual([['hot', 'white'], []])
  })
  it('are what a meter says, and not what somebody took them for', () => {
    const taken = [
      { id: 'x', identity: 'hot' },
      { id: 'y', identity: { value: 'neutral', grade: 'told' } },
    ]
    const { conductors } = oldWiringOf(siteOf(house(taken)))
    expect(conductors.filter(c => c.identity === undefined).map(c => c.takenFor)).toEqual([
      'hot',
      'neutral',
    ])
  })
  it('cut: an outlet dies with its hot, and stays live without its neutral', () => {
    expect(fates(house(), 'hot')).toEqual({ a: 'dead', b: 'dead' })
    expect(fates(house(), 'white')).toEqual({ b: 'live without a return' })
    expect(fates(house(), 'back')).toEqual({ b: 'live without a return' })
    expect(cutOf(siteOf(house()), 'white').cautions.join(' ')).toContain('Cut the hot first')
  })
  it('cut: an outlet with another hot is not dead, whatever is cut', () => {
    const constant = { id: 'constant', identity: measured('hot'), feeds: ['a'] }
    expect(fates(house([constant]), 'tap')).toEqual({
      a: 'still live, by another conductor',
      b: 'dead',
    })
    // Nobody knows what the other one is: it may keep the outlet live.
    expect(fates(house([{ id: 'x', feeds: ['a'] }]), 'tap').a).toContain('nobody measured')
  })
  it('cut in a ring: all that hangs on it is found, wherever it stands', () => {
    const ring = [
      { id: 'r1', from: 'r2', identity: measured('hot'), feeds: ['a'] },
      { id: 'r2', from: 'r1' },
    ]
    expect(cutOf(siteOf(house(ring)), 'r2').conductors.sort()).toEqual(['r1', 'r2'])
  })
  it('cut unmeasured: nobody knows which, and it says to measure first', () => {
    const node = house([{ id: 'x', feeds: ['a'] }])
    expect(fates(node, 'x')).toEqual({ a: 'one of the two, nobody measured which' })
    expect(cutOf(siteOf(node), 'x').cautions.join(' ')).toContain('Measure what it is')
  })
  it('in a ring are told, and drawn all the same', () => {
    const ring = [
      { id: 'r1', from: 'r2' },
      { id: 'r2', from: 'r1' },
    ]
    const wiring = oldWiringOf(siteOf(house(ring)))
    expect(wiring.rings).toEqual(['r1', 'r2'])
    expect(wiring.conductors).toHaveLength(6)
    expect(new Set(wiring.conductors.map(c => c.id)).size).toBe(6)
  })
  it('joints no box covers, brittle and buried ones are named', () => {
    const weak = [
      {
        id: 'w',
        from: 'hot',
        joint: 'splice outside a box',
        insulation: 'brittle',
        support: 'buried in insulation',
      },
    ]
    const found = oldWiringOf(siteOf(house(weak))).conductors.find(c => c.id === 'w')
    expect(found?.weak).toEqual([
      'splice outside a box',
      'insulation brittle',
      'buried in insulation',
    ])
  })
  it('are drawn a row each, taps on the line they come from, an outlet once', () => {
    const layout = oldWiringLayout(oldWiringOf(siteOf(house())))
    expect(new Set(layout.conductors.map(p => p.y)).size).toBe(4)
    const [hot, tap] = layout.conductors
    expect(tap?.tapY).toBe(hot?.y)
    expect(layout.outlets.map(o => o.id).sort()).toEqual(['a', 'b'])
    for (const o of layout.outlets) expect(o.x + o.w).toBeLessThan(layout.width)
  })
})
