import { DEMO_HOUSES } from '#core/examples/index'
import {
  clampRead,
  networkOf,
  PropertyTracer,
  traceProperty,
  UndrawableProperty,
  UnsolvablePaths,
  type PathChange,
  type PropertyAnswer,
} from '#core'
import { siteOf, type Node } from '../../support/house'

/** A panel of 100 A with a sub-panel; circuits of 12 AWG, 100 ft out to one outlet each. */
function house(
  more: { sub?: Node; main?: Node; feeder?: Node; outlet?: Node; breaker?: Node } = {},
): Node {
  const circuit = (
    id: string,
    space: number,
    extra: Node = {},
    outlet: Node = {},
  ): [Node, Node] => [
    {
      id: `b-${id}`,
      space,
      poles: 1,
      ratingAmps: 20,
      ...more.breaker,
      circuit: {
        id,
        segments: [{ id: `s-${id}`, size: '12', metal: 'copper', egc: 'wire' }],
        ...extra,
      },
    },
    {
      id: `o-${id}`,
      circuit: id,
      after: 'panel',
      type: 'receptacle',
      slots: 'three',
      runFt: 100,
      lamps: 'correct',
      ground: 'connected',
      ...outlet,
    },
  ]
  const [left, atLeft] = circuit('left', 1, { sharesNeutralWith: ['right'] }, more.outlet)
  const [right, atRight] = circuit('right', 3, { sharesNeutralWith: ['left'] })
  const [far, atFar] = circuit('far', 1)
  const panel = {
    type: 'panel',
    bus: 'single phase',
    numbering: 'odd left, even right',
    spaces: 20,
  }
  return {
    corvit: 1,
    form: 'house',
    premises: { supply: '120/240 V single phase' },
    enclosures: [
      {
        id: 'main',
        ...panel,
        fedFrom: 'utility',
        mainKind: 'main breaker',
        mainAmps: 100,
        bondMeans: 'screw',
        serviceSize: '4',
        serviceMetal: 'copper',
        electrodes: 'found',
        ...more.main,
        breakers: [
          left,
          right,
          { id: 'b-feed', space: 2, poles: 2, ratingAmps: 60, role: 'feeder' },
        ],
      },
      {
        id: 'sub',
        ...panel,
        fedFrom: 'feed',
        bondMeans: 'none',
        landings: 'on separate bars',
        ...more.sub,
        breakers: [far],
      },
    ],
    feeders: [
      {
        id: 'feed',
        from: 'b-feed',
        size: '6',
        metal: 'copper',
        egc: 'wire',
        egcSize: '6',
        ...more.feeder,
      },
    ],
    electrodes: [{ id: 'rod', type: 'rod', landsIn: 'main', landsOn: 'neutral bar', ohms: 25 }],
    outlets: [atLeft, atRight, atFar],
  }
}
const trace = (node: Node, ...changes: PathChange[]): PropertyAnswer =>
  traceProperty(siteOf(node), changes)
const amps = (answer: PropertyAnswer, part: string): number => {
  const found = answer.branches.find(b => b.id === part)
  if (!found) throw new Error(`no ${part}; there are ${answer.branches.map(b => b.id).join(', ')}`)
  return Math.abs(found.amperes ?? NaN)
}
const touched = (answer: PropertyAnswer, node: string) => {
  const volts = answer.nodes[node]
  if (volts === undefined) throw new Error(`no ${node}`)
  return Math.abs(volts)
}
const load = (at: string, amperes: number): PathChange => ({ change: 'load', at, amperes })
const fault = (
  at: string,
  more: Partial<Extract<PathChange, { change: 'fault' }>> = {},
): PathChange => ({
  change: 'fault',
  at,
  from: 'hot',
  to: 'ground',
  ...more,
})

describe('a property as a network', () => {
  it('a load returns in its neutral, and in nothing else', () => {
    const answer = trace(house(), load('o-far', 10))
    expect(amps(answer, 'neutral o-far')).toBeCloseTo(amps(answer, 'hot o-far'), 9)
    expect(amps(answer, 'feeder feed N')).toBeGreaterThan(9)
    expect(amps(answer, 'feeder feed G')).toBeLessThan(0.05)
    // 100 ft of 12 each way and 50 ft of 6 with what lies before: within a few percent of 10 A.
    expect(amps(answer, 'hot o-far')).toBeGreaterThan(9.5)
  })

  it('a second bond in the sub-panel sends half of the neutral current home in an equal grounding wire', () => {
    const changes: PathChange[] = [load('o-far', 10), { change: 'bond', at: 'sub', isClosed: true }]
    const answer = trace(house(), ...changes)
    expect(amps(answer, 'feeder feed G') / amps(answer, 'feeder feed N')).toBeCloseTo(1, 1)
    const apart = trace(house(), load('o-far', 10), { change: 'bond', at: 'sub', isClosed: false })
    expect(clampRead(apart, ['feeder feed G'])).toBeLessThan(0.05)
    expect(clampRead(answer, ['feeder feed G'])).toBeGreaterThan(4)
    // A clamp round the whole feeder cable sees nothing while all that goes out comes back in it.
    expect(
      clampRead(answer, ['feeder feed A', 'feeder feed B', 'feeder feed N', 'feeder feed G']),
    ).toBeLessThan(0.05)
  })

  it('what is recorded of the sub-panel decides: a screw there is the same second bond', () => {
    const answer = trace(house({ sub: { bondMeans: 'screw' } }), load('o-far', 10))
    expect(amps(answer, 'feeder feed G')).toBeGreaterThan(4)
    const bar = { sub: { bondMeans: 'none', landings: 'on a common bar' } }
    expect(amps(trace(house(bar), load('o-far', 10)), 'feeder feed G')).toBeGreaterThan(4)
  })

  it('a bolted fault opens the breaker, and the frame holds about half the volts meanwhile', () => {
    const answer = trace(house(), fault('o-left'))
    const trip = answer.trips.find(t => t.on === 'breaker b-left A')
    // 2 × 0.193 Ω in the wires, and a little before them: under the 311 A of an ideal source.
    expect(trip?.amperes).toBeGreaterThan(250)
    expect(trip?.amperes).toBeLessThan(311)
    expect(trip?.says).toContain('magnet')
    expect(touched(answer, 'o-left g')).toBeGreaterThan(45)
    expect(touched(answer, 'o-left g')).toBeLessThan(65)
  })

  it('without a grounding conductor nothing opens, the frame sits at 120 V, a body decides', () => {
    const open = { outlet: { ground: 'none', lamps: 'open ground', protection: 'GFCI' } }
    const before = trace(house(open), fault('o-left'))
    expect(touched(before, 'o-left g')).toBeCloseTo(120, 0)
    expect(before.trips.every(t => t.withinSeconds === null)).toBe(true)
    expect(before.differences).toMatchObject([{ subject: 'o-left', opens: 'holds' }])
    const touchedBy = trace(house(open), fault('o-left'), {
      change: 'body',
      from: 'o-left g',
      to: 'earth',
    })
    expect(touchedBy.body?.milliamperes).toBeGreaterThan(110)
    expect(touchedBy.body?.effect).toContain('heart')
    expect(touchedBy.differences).toMatchObject([{ subject: 'o-left', opens: 'opens' }])
  })

  it('a GFCI watches what leaves by it: a load between its own conductors is none of its business', () => {
    const own = trace(house({ outlet: { protection: 'GFCI' } }), load('o-left', 12))
    expect(own.differences[0]?.milliamperes).toBeLessThan(0.01)
  })

  it('only a rod: no breaker opens', () => {
    const answer = trace(
      house({ outlet: { ground: 'none', lamps: 'open ground' } }),
      fault('o-left'),
      { change: 'path', id: 'own rod', from: 'o-left g', to: 'earth', ohms: 25 },
    )
    // 25 Ω here, and 5 Ω at the utility beside the 25 Ω rod of the service: 120 / (25 + 25 ∥ 5).
    expect(amps(answer, 'own rod')).toBeCloseTo(120 / (25 + 1 / (1 / 25 + 1 / 5)), 1)
    expect(answer.trips.every(t => t.withinSeconds === null)).toBe(true)
    expect(touched(answer, 'o-left g')).toBeGreaterThan(95)
  })

  it('a lost service neutral divides the 240 V as the loads say, less what the earth carries', () => {
    const lost: PathChange[] = [
      { change: 'open', part: 'service main N' },
      { change: 'open', part: 'gec rod' },
      { change: 'load', at: 'o-left', watts: 1200 },
      { change: 'load', at: 'o-right', watts: 300 },
    ]
    const answer = trace(house(), ...lost)
    const across = (id: string) =>
      Math.abs(answer.branches.find(b => b.id === `load at ${id}`)?.volts ?? NaN)
    expect(across('o-left')).toBeCloseTo(48, 0)
    // The wires of both circuits take their share.
    expect(across('o-right')).toBeGreaterThan(189)
    expect(across('o-right')).toBeLessThan(192)
  })

  it('a multiwire pair on one leg loads its neutral with both, on two legs with the difference', () => {
    const [opposite, same] = [3, 5].map(space => {
      const node = house()
      const [main] = node.enclosures as Node[]
      const breakers = main?.breakers as Node[]
      if (breakers[1]) breakers[1].space = space
      return trace(node, load('o-left', 14), load('o-right', 11))
    }) as [PropertyAnswer, PropertyAnswer]
    expect(amps(opposite, 'neutral left shared neutral')).toBeCloseTo(3, 0)
    expect(amps(same, 'neutral left shared neutral')).toBeGreaterThan(23)
  })

  it('a joint takes its volts and makes its heat', () => {
    const answer = trace(house(), load('o-left', 15), {
      change: 'joint',
      part: 'hot o-left',
      ohms: 0.2,
    })
    const whole = trace(house(), load('o-left', 15))
    const [joint, plain] = [answer, whole].map(a => a.branches.find(b => b.id === 'hot o-left'))
    const i = joint?.amperes ?? 0
    expect((joint?.watts ?? 0) - i * i * (plain?.ohms ?? 0)).toBeCloseTo(0.2 * i * i, 6)
    expect(0.2 * i * i).toBeGreaterThan(38)
  })
})

/** One circuit of a panel, with outlets in any order. */
function oneCircuit(
  outlets: Node[],
  more: { breaker?: Node; bars?: Node[]; segment?: Node } = {},
): Node {
  return {
    corvit: 1,
    form: 'house',
    enclosures: [
      {
        id: 'main',
        type: 'panel',
        fedFrom: 'utility',
        mainKind: 'main breaker',
        mainAmps: 100,
        bondMeans: 'screw',
        bus: 'single phase',
        numbering: 'odd left, even right',
        spaces: 20,
        ...(more.bars && { bars: more.bars }),
        breakers: [
          {
            id: 'b',
            space: 1,
            poles: 1,
            ratingAmps: 20,
            ...more.breaker,
            circuit: { id: 'c', segments: [{ id: 's', size: '12', egc: 'wire', ...more.segment }] },
          },
        ],
      },
    ],
    outlets: outlets.map(o => ({ circuit: 'c', type: 'receptacle', slots: 'three', ...o })),
  }
}
const onTwo = [
  { id: 'x', after: 'panel' },
  { id: 'y', after: 'panel' },
]

describe('what a ground-fault device sees', () => {
  it('all branches of its circuit come home to a breaker: a load on any of them is none of its business', () => {
    const node = oneCircuit(onTwo, { breaker: { protection: 'GFCI' } })
    for (const at of ['x', 'y']) {
      const { differences } = trace(node, load(at, 10))
      expect(differences).toMatchObject([{ subject: 'b', opens: 'holds' }])
      expect(differences[0]?.milliamperes).toBeLessThan(0.01)
    }
    const faulty = trace(node, fault('y', { ohms: 2000 }))
    expect(faulty.differences).toMatchObject([{ subject: 'b', opens: 'opens' }])
  })
  it('what goes on from its line side is not protected by a device, and what hangs on its load side is', () => {
    const chain = (isFedFromLoadSide?: boolean) =>
      oneCircuit([
        { id: 'x', after: 'panel', protection: 'GFCI' },
        { id: 'y', after: 'x', isFedFromLoadSide },
      ])
    const opens = (isLoadSide?: boolean) =>
      trace(chain(isLoadSide), fault('y', { ohms: 2000 })).differences[0]?.opens
    expect([opens(true), opens(false)]).toEqual(['opens', 'holds'])
    // Nobody has seen which: it is not counted on.
    expect(opens(undefined)).toBe('holds')
  })
})

describe('grounds as they were found', () => {
  it('a bar that stands apart from the metal carries no fault home', () => {
    const apart = { id: 'bar', role: 'ground', isBondedToEnclosure: false, isTiedToNeutral: false }
    const node = oneCircuit([{ id: 'x', after: 'panel' }], { bars: [apart] })
    const answer = trace(node, fault('x'))
    expect(answer.trips.every(t => t.withinSeconds === null)).toBe(true)
    expect(touched(answer, 'x g')).toBeCloseTo(120, 0)
    const tied = { ...apart, isTiedToNeutral: true }
    const home = trace(oneCircuit([{ id: 'x', after: 'panel' }], { bars: [tied] }), fault('x'))
    expect(home.trips.some(t => t.says.includes('magnet'))).toBe(true)
  })
  it('what was measured is the whole way home, not one link of it', () => {
    const node = oneCircuit([
      { id: 'x', after: 'panel', ground: 'connected', groundOhms: 0.9 },
      { id: 'y', after: 'x', ground: 'connected', groundOhms: 1.1 },
    ])
    const { branches } = trace(node)
    const ohms = (id: string) => branches.find(b => b.id === `ground ${id}`)?.ohms ?? NaN
    expect(ohms('x') + ohms('y')).toBeCloseTo(1.1, 6)
  })
  it('old spiral armor is no way home, and neither is a wire the tester finds open', () => {
    const armor = { egc: 'metal raceway or armor', wiring: 'old spiral armor' }
    const by = (node: Node) => touched(trace(node, fault('x')), 'x g')
    expect(by(oneCircuit([{ id: 'x', after: 'panel' }], { segment: armor }))).toBeCloseTo(120, 0)
    const steel = { ...armor, wiring: 'steel conduit' }
    expect(by(oneCircuit([{ id: 'x', after: 'panel' }], { segment: steel }))).toBeLessThan(70)
    expect(by(oneCircuit([{ id: 'x', after: 'panel', lamps: 'open ground' }]))).toBeCloseTo(120, 0)
  })
})

describe('what is not recorded', () => {
  it('is drawn as it usually is, and listed', () => {
    const node = house({ feeder: { egc: undefined, egcSize: undefined } })
    const answer = trace(node)
    expect(answer.assumed.join('\n')).toContain('its ground is not recorded')
    expect(answer.parts['feeder feed G']?.isAssumed).toBe(true)
    expect(answer.parts['bond main']?.isAssumed).toBe(false)
  })
  it('a panel nobody has traced, and a circuit without a breaker, are left out by name', () => {
    const node = house()
    ;(node.enclosures as Node[]).push({ id: 'attic', name: 'Attic panel', type: 'panel' })
    ;(node as { circuits?: Node[] }).circuits = [{ id: 'lost', label: 'Unknown' }]
    const { leftOut } = networkOf(siteOf(node))
    expect(leftOut.join('\n')).toContain('Attic panel')
    expect(leftOut.join('\n')).toContain('Unknown')
  })
  it('a supply nobody measured, and conductors a tester finds on the wrong screws, are told', () => {
    const { assumed } = networkOf(
      siteOf(oneCircuit([{ id: 'x', after: 'panel', lamps: 'reversed' }])),
    )
    expect(assumed.join('\n')).toContain('supply from the utility not recorded')
    expect(assumed.join('\n')).toContain('the tester says reversed')
  })
  it('legs a third of a turn apart are refused, not drawn wrong', () => {
    const node = house()
    node.premises = { supply: '208Y/120 V' }
    expect(() => networkOf(siteOf(node))).toThrow(UndrawableProperty)
  })
})

describe('changes that cannot be made', () => {
  it.each<[string, PathChange, string]>([
    ['a part that is not there', { change: 'open', part: 'no such' }, 'changes[0].part'],
    ['an outlet that is not there', { change: 'load', at: 'nowhere', amperes: 3 }, 'changes[0].at'],
    [
      'a bond in what is no enclosure',
      { change: 'bond', at: 'o-left', isClosed: true },
      'changes[0].at',
    ],
    ['a body on no node', { change: 'body', from: 'moon', to: 'earth' }, 'changes[0].from'],
    ['a path to no node', { change: 'path', from: 'main G', to: 'moon', ohms: 1 }, 'changes[0].to'],
  ])('%s is named', (_, change, path) => {
    const site = siteOf(house())
    const made = () => new PropertyTracer(site, [change])
    expect(made).toThrow(UnsolvablePaths)
    try {
      made()
    } catch (error) {
      expect((error as UnsolvablePaths).path).toBe(path)
    }
  })
})

describe('the demo houses', () => {
  it.each(DEMO_HOUSES.map(h => [h.id, h.file()] as const))(
    '%s adds up, nothing is NaN',
    (_, file) => {
      const answer = traceProperty(siteOf(file as Node))
      expect(answer.residual).toBeLessThan(1e-9)
      expect(Object.values(answer.nodes).every(Number.isFinite)).toBe(true)
      expect(answer.branches.every(b => b.amperes === null || Number.isFinite(b.amperes))).toBe(
        true,
      )
      expect(answer.branches.length).toBeGreaterThan(50)
    },
  )
})
