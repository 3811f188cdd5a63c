import type { UnsolvablePaths, PathsAnswer } from '#core'
import { PathsInput, tracePaths } from '#core'

type Raw = Record<string, unknown>
const trace = (raw: Raw): PathsAnswer => tracePaths(PathsInput.parse(raw))
const part = (answer: PathsAnswer, id: string) => {
  const found = answer.branches.find(b => b.id === id)
  if (!found) throw new Error(`no part ${id}`)
  return found
}
const amps = (answer: PathsAnswer, id: string) => Math.abs(part(answer, id).amperes ?? NaN)
const half = { from: 'n', to: 'hot', volts: 120 }

describe('worked lines of paths.md', () => {
  /** 10 A of unbalance returning from a panel over what there is. */
  const back = (...ways: readonly [id: string, ohms: number][]) =>
    trace({
      sources: [half],
      grounded: ['n'],
      loads: [{ id: 'load', from: 'hot', to: 'panel', ohms: 12 - parallel(ways.map(w => w[1])) }],
      conductors: ways.map(([id, ohms]) => ({ id, from: 'panel', to: 'n', ohms })),
    })
  const parallel = (ohms: readonly number[]) => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0)

  it('10 A over neutral and an equal grounding conductor: 5.0 and 5.0 A', () => {
    const answer = back(['neutral', 0.1], ['ground', 0.1])
    expect(amps(answer, 'load')).toBeCloseTo(10, 9)
    expect(amps(answer, 'neutral')).toBeCloseTo(5, 9)
    expect(amps(answer, 'ground')).toBeCloseTo(5, 9)
  })
  it('with steel of twice that: 4.0, 4.0 and 2.0 A', () => {
    const answer = back(['neutral', 0.1], ['ground', 0.1], ['steel', 0.2])
    expect(['neutral', 'ground', 'steel'].map(id => amps(answer, id).toFixed(6))).toEqual([
      '4.000000',
      '4.000000',
      '2.000000',
    ])
  })
  it('5000 A over three equal paths: 1667 A each', () => {
    const ways = ['a', 'b', 'c'].map(id => ({ id, from: 'hot', to: 'n', ohms: (120 / 5000) * 3 }))
    const answer = trace({ sources: [half], grounded: ['n'], conductors: ways })
    for (const id of ['a', 'b', 'c']) expect(amps(answer, id)).toBeCloseTo(1666.67, 2)
  })
  it('a frame on a 25 Ω rod only: 4.0 A, the breaker holds, 100 V on the frame', () => {
    const answer = trace({
      sources: [half],
      conductors: [
        { id: 'wire', from: 'hot', to: 'frame', ohms: 0 },
        { id: 'rod', from: 'frame', to: 'earth', ohms: 25 },
        { id: 'utility earth', from: 'n', to: 'earth', ohms: 5 },
      ],
      devices: [{ on: 'wire', ratingAmps: 15 }],
      frames: ['frame'],
    })
    expect(amps(answer, 'wire')).toBeCloseTo(4, 9)
    expect(answer.trips[0]).toMatchObject({ withinSeconds: null, says: 'holds' })
    expect(answer.touch[0]?.volts).toBeCloseTo(100, 9)
  })
  it('100 ft of 12 copper out and back, bolted: 311 A, 15.5 times a 20 A breaker, 60 V on the frame', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      conductors: [
        { id: 'hot wire', from: 'hot', to: 'frame', ohms: 0.193 },
        { id: 'ground', from: 'frame', to: 'n', ohms: 0.193 },
      ],
      devices: [{ on: 'hot wire', ratingAmps: 20 }],
      frames: ['frame'],
    })
    expect(amps(answer, 'ground')).toBeCloseTo(310.9, 1)
    expect(answer.trips[0]?.multiple).toBeCloseTo(15.5, 1)
    expect(answer.trips[0]?.says).toContain('perhaps at once')
    expect(answer.touch[0]?.volts).toBeCloseTo(60, 9)
  })
  it('a lost neutral, 1200 W and 300 W: 48 V and 192 V', () => {
    const answer = trace({
      sources: [
        { from: 'n', to: 'a', volts: 120 },
        { from: 'b', to: 'n', volts: 120 },
      ],
      grounded: ['n'],
      loads: [
        { id: 'big', from: 'a', to: 'panel', watts: 1200, volts: 120 },
        { id: 'small', from: 'panel', to: 'b', watts: 300, volts: 120 },
      ],
    })
    expect(part(answer, 'big').volts).toBeCloseTo(48, 9)
    expect(part(answer, 'small').volts).toBeCloseTo(192, 9)
  })
  it('multiwire 14 A and 11 A: 3 A on the neutral on two legs, 25 A on one', () => {
    const on = (second: string, turned: boolean) =>
      trace({
        sources: [
          { from: 'n', to: 'a', volts: 120 },
          { from: 'b', to: 'n', volts: 120 },
        ],
        grounded: ['n'],
        loads: [
          { id: 'one', from: 'a', to: 'box', ohms: 120 / 14 },
          { id: 'two', from: turned ? 'box' : second, to: turned ? second : 'box', ohms: 120 / 11 },
        ],
        conductors: [{ id: 'neutral', from: 'box', to: 'n', ohms: 0 }],
      })
    expect(amps(on('b', true), 'neutral')).toBeCloseTo(3, 9)
    expect(amps(on('a', false), 'neutral')).toBeCloseTo(25, 9)
  })
  it('0.2 Ω in a joint at 15 A: 3.0 V lost, 45 W in it', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      conductors: [{ id: 'joint', from: 'hot', to: 'x', ohms: 0.2 }],
      loads: [{ id: 'load', from: 'x', to: 'n', ohms: 7.8 }],
    })
    expect(part(answer, 'joint').volts).toBeCloseTo(3, 9)
    expect(part(answer, 'joint').watts).toBeCloseTo(45, 9)
  })
  it('an isolated run held by leaks of a million megohms reads 60 V', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      conductors: [
        { id: 'leak in', from: 'hot', to: 'run', ohms: 1e12 },
        { id: 'leak out', from: 'far', to: 'n', ohms: 1e12 },
        { id: 'run', from: 'run', to: 'far', ohms: 1e-3 },
      ],
    })
    expect(answer.nodes.run).toBeCloseTo(60, 9)
    expect(answer.nodes.far).toBeCloseTo(60, 9)
  })
  it('a body on a live frame without a ground: 120 mA, and a ground-fault device opens', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      conductors: [{ id: 'fault', from: 'hot', to: 'frame', ohms: 0 }],
      body: { from: 'frame' },
    })
    expect(answer.body?.milliamperes).toBeCloseTo(120, 9)
    expect(answer.body?.gfci).toContain('opens')
    // What returns by the neutral is a load like another to the device.
    expect(answer.body?.gfci).toContain('not where it returns by its own neutral')
    expect(answer.body?.effect).toContain('heart')
  })
})

describe('what is odd about a network', () => {
  it('what nothing ties to the earth is told as floating, with its volts against itself', () => {
    const answer = trace({
      sources: [half],
      loads: [{ id: 'lamp', from: 'hot', to: 'n', ohms: 100 }],
    })
    expect(answer.floating).toHaveLength(1)
    expect(new Set(answer.floating[0]?.nodes)).toEqual(new Set(['n', 'hot']))
    expect(part(answer, 'lamp').volts).toBeCloseTo(120, 9)
    expect(JSON.stringify(answer)).not.toContain('NaN')
  })
  it('side by side without resistance, any share is possible, and that is said', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      conductors: [
        { id: 'a', from: 'hot', to: 'x', ohms: 0 },
        { id: 'b', from: 'hot', to: 'x', ohms: 0 },
      ],
      loads: [{ id: 'load', from: 'x', to: 'n', ohms: 12 }],
    })
    expect(amps(answer, 'load')).toBeCloseTo(10, 9)
    expect([part(answer, 'a').amperes, part(answer, 'b').amperes]).toEqual([null, null])
    expect(answer.notes).toHaveLength(2)
  })
  it('a load of no watts is open', () => {
    const answer = trace({
      sources: [half],
      grounded: ['n'],
      loads: [{ id: 'off', from: 'hot', to: 'n', watts: 0, volts: 120 }],
    })
    expect(part(answer, 'off')).toMatchObject({ amperes: 0, watts: 0 })
  })
  it.each([
    [
      'a source bolted over',
      { conductors: [{ id: 'short', from: 'hot', to: 'n', ohms: 0 }] },
      /contradicts/,
    ],
    [
      'one id twice',
      { conductors: [1, 2].map(() => ({ id: 'x', from: 'hot', to: 'n', ohms: 1 })) },
      /twice/,
    ],
    ['a load that says nothing', { loads: [{ id: 'l', from: 'hot', to: 'n' }] }, /by ohms/],
    [
      'a load that says too much',
      { loads: [{ id: 'l', from: 'hot', to: 'n', ohms: 1, watts: 1, volts: 1 }] },
      /not both/,
    ],
    ['a device on nothing', { devices: [{ on: 'y', ratingAmps: 15 }] }, /no part/],
    ['a frame that is not there', { frames: ['y'] }, /none of the nodes/],
    ['a node that is not listed', { nodes: ['n'] }, /none of the nodes/],
  ])('%s is refused, with the place', (_, more, words) => {
    expect(() => trace({ sources: [half], ...more })).toThrow(words)
    try {
      trace({ sources: [half], ...more })
    } catch (error) {
      expect((error as UnsolvablePaths).path).not.toBe('')
    }
  })
})
