import {
  diagnose,
  doubtsOf,
  jointOf,
  originsOf,
  refereeDevice,
  STATES,
  type OutletState,
  type Readings,
  type Setting,
} from '#core'
import { accuracyOf } from '#core/simulate/accuracy'
import { HYPOTHESES, nameOf, visible } from '#core/diagnosis/states'
import { lampsOf, wire } from '#core/diagnosis/wiring'
import { simulateCircuit } from '#core/simulate/chain'
import { seeded } from '#core/simulate/random'

const low: Setting = { meter: 'low', runFt: 70, testAmps: 13 }
describe('diagnosis of an outlet', () => {
  it.each<[OutletState, Readings, Setting?]>([
    [
      'good',
      {
        hotNeutral: 120,
        hotGround: 120,
        neutralGround: 0.4,
        neutralGroundLoaded: 2.1,
        dropPercent: 3.2,
        groundOhms: 0.4,
        groundEarth: 0,
        groundClampAmps: 0,
        detectorOnGround: false,
      },
    ],
    [
      'ground missing',
      { hotNeutral: 120, hotGround: 2, neutralGround: 1, lamps: 'open ground', groundOhms: 100000 },
    ],
    [
      'bootleg',
      {
        hotNeutral: 120,
        hotGround: 120,
        neutralGround: 0,
        neutralGroundLoaded: 0,
        dropPercent: 3.6,
        groundEarth: 0.2,
        detectorOnGround: false,
      },
    ],
    [
      'reversed bootleg',
      { hotNeutral: 120, hotGround: 120, neutralGround: 0, lamps: 'correct', groundEarth: 119 },
    ],
    [
      'reversed polarity',
      { hotNeutral: 120, hotGround: 0.2, neutralGround: 120, lamps: 'reversed' },
    ],
    ['open neutral', { hotNeutral: 0, hotGround: 120, neutralGround: 119, groundEarth: 0 }],
    [
      'hot and ground swapped',
      { hotNeutral: 0, hotGround: 120, neutralGround: 120, groundEarth: 120 },
    ],
    ['open hot', { hotNeutral: 0, hotGround: 0, neutralGround: 0, lamps: 'open hot' }],
    [
      'neutral and ground swapped',
      {
        hotNeutral: 120,
        hotGround: 120,
        neutralGroundLoaded: 2,
        groundClampAmps: 12.8,
        groundEarth: 0.2,
      },
    ],
    ['lost shared neutral', { hotNeutral: 138, otherHalf: 102, hotGround: 120 }],
    [
      'high-resistance joint',
      {
        hotNeutral: 120,
        hotGround: 120,
        dropPercent: 14,
        neutralGroundLoaded: 2,
        groundEarth: 0,
        groundClampAmps: 0,
        lamps: 'correct',
      },
    ],
  ])('%s', (state, readings, setting = low) => {
    const d = diagnose(readings, setting)
    expect(d.states[0]!.state).toBe(state)
    expect(d.fitting).toContain(state)
    expect(d.ruledOut).not.toContain(state)
  })
  it.each<[string, Readings, OutletState[], Setting?]>([
    [
      'a lamp tester that says correct',
      { lamps: 'correct' },
      ['good', 'bootleg', 'reversed bootleg'],
    ],
    [
      'hot and ground reversed on the lamps',
      { lamps: 'hot and ground reversed' },
      ['open neutral', 'hot and ground swapped'],
    ],
    [
      'the voltages of an open neutral with a load on',
      { hotNeutral: 0, hotGround: 120, neutralGround: 119 },
      ['open neutral', 'hot and ground swapped'],
    ],
    [
      'no voltage under load near the panel',
      {
        hotNeutral: 120,
        hotGround: 120,
        neutralGround: 0,
        neutralGroundLoaded: 0.1,
        groundEarth: 0,
        detectorOnGround: false,
      },
      ['good', 'bootleg'],
      { meter: 'low', runFt: 8, testAmps: 13 },
    ],
    ['nothing at all', {}, [...STATES]],
  ])(
    '%s leaves more than one, and one more reading is named',
    (_name, readings, fitting, setting = low) => {
      const d = diagnose(readings, setting)
      expect(d.answer).toBeUndefined()
      expect(d.fitting).toEqual(expect.arrayContaining(fitting))
      expect(d.next).toBeDefined()
      expect(readings).not.toHaveProperty(d.next!.reading)
    },
  )
  it('names the reading that rules a state out', () => {
    const d = diagnose({ hotNeutral: 0, hotGround: 120, neutralGround: 120, groundEarth: 0 }, low)
    expect(d.states.find(s => s.state === 'hot and ground swapped')!.ruledOutBy).toContain(
      'groundEarth',
    )
  })
  it('following the next reading leads to what is true, and to no single answer that is not', () => {
    const random = seeded(11)
    const outlets = Array.from({ length: 60 }, () => simulateCircuit(random))
      .flatMap(c => c.outlets)
      .filter((o, i) => nameOf(o.truth) !== 'good' || i % 8 === 0)
      .slice(0, 120)
    let steps = 0
    let answered = 0
    for (const o of outlets) {
      let taken: Readings = { ...(o.readings.lamps && { lamps: o.readings.lamps }) }
      for (let k = 0; k < 14; k++) {
        const d = diagnose(taken, o.setting)
        if (d.answer) {
          expect(d.answer).toBe(nameOf(o.truth))
          answered++
          break
        }
        if (!d.next || o.readings[d.next.reading] === undefined) break
        taken = { ...taken, [d.next.reading]: o.readings[d.next.reading] }
        steps++
      }
    }
    expect(answered / outlets.length).toBeGreaterThan(0.5)
    expect(steps / outlets.length).toBeLessThan(10)
  }, 60_000)
  it('gives faults put into 1 500 outlets back, one and two at a time', () => {
    const a = accuracyOf(1500, 2026)
    expect(a.whole.first).toBeGreaterThanOrEqual(0.98)
    for (const r of [a.whole, a.some, a.quick]) {
      expect(r.notRuledOut).toBeGreaterThanOrEqual(0.999)
      expect(r.wrongSingle).toBe(0)
    }
    expect(a.twice).toBeGreaterThan(30)
    expect(a.pairs.filter(p => p.outlets > 0).length).toBeGreaterThan(8)
    expect(a.joints.named / a.joints.put).toBeGreaterThan(0.98)
    expect(a.whole.single).toBeGreaterThan(0.6)
  }, 180_000)
})

describe('two faults at once', () => {
  it.each<[string, Readings]>([
    [
      'ground missing with reversed polarity',
      {
        hotNeutral: 120,
        lamps: 'open ground',
        groundOhms: 100000,
        narrowEarth: 0.2,
        groundEarth: 0,
      },
    ],
    [
      'ground missing with high-resistance joint',
      {
        hotNeutral: 120,
        groundOhms: 100000,
        dropPercent: 22,
        narrowEarth: 119,
        lamps: 'open ground',
      },
    ],
    [
      'high-resistance joint with bootleg',
      {
        hotNeutral: 120,
        hotGround: 120,
        neutralGround: 0,
        neutralGroundLoaded: 0,
        dropPercent: 19,
        jumperSeen: true,
        groundEarth: 0.4,
        narrowEarth: 119,
      },
    ],
    [
      'open neutral with bootleg',
      {
        hotNeutral: 0,
        neutralGround: 0,
        groundEarth: 118,
        narrowEarth: 120,
        detectorOnGround: true,
        jumperSeen: true,
      },
    ],
    [
      'ground missing with open hot',
      { hotNeutral: 0, narrowEarth: 0, lamps: 'open hot', groundOhms: 100000, neutralGround: 0 },
    ],
  ])('%s', (name, readings) => {
    const d = diagnose(readings, low)
    expect(d.states[0]!.state).toBe(name)
    for (const part of d.states[0]!.parts) expect(d.ruledOut).not.toContain(part)
  })
  it('a jumper on a neutral that is open puts the supply on the frame, and is called lethal', () => {
    expect(
      diagnose({ groundEarth: 118, jumperSeen: true, hotNeutral: 0 }, low).states.find(
        s => s.state === 'open neutral with bootleg',
      )!.isLethal,
    ).toBe(true)
  })
  it('without a ground, what tells hot from neutral is a proved earth', () => {
    const d = diagnose(
      {
        hotNeutral: 120,
        hotGround: 2,
        neutralGround: 1,
        lamps: 'open ground',
        groundOhms: 100000,
        dropPercent: 3,
      },
      low,
    )
    expect(d.answer).toBeUndefined()
    expect(d.fitting).toEqual(
      expect.arrayContaining(['ground missing', 'ground missing with reversed polarity']),
    )
    expect(d.doubts.some(x => x.instead.includes('Narrow slot'))).toBe(true)
  })
  it.each<[readonly OutletState[], string | undefined]>([
    [[], 'good'],
    [['open hot', 'reversed polarity'], 'open hot'],
    [['bootleg', 'ground missing'], 'bootleg'],
    [['open hot', 'high-resistance joint'], 'open hot'],
    [['reversed bootleg', 'open hot'], 'ground missing with open hot'],
    [['reversed polarity', 'ground missing'], 'ground missing with reversed polarity'],
    [['lost shared neutral', 'bootleg'], undefined],
  ])('%j shows as %s', (states, name) => {
    const h = visible(states)
    expect(h && nameOf(h)).toBe(name)
  })
  it('every way is wired, and its lamps are those of the legend or none', () => {
    expect(HYPOTHESES.length).toBeGreaterThan(20)
    expect(new Set(HYPOTHESES.map(nameOf)).size).toBe(HYPOTHESES.length)
    const lamps = (states: readonly OutletState[], on = false) => lampsOf(wire(states, on))
    expect([
      lamps(['good']),
      lamps(['reversed bootleg']),
      lamps(['reversed polarity']),
      lamps(['ground missing']),
      lamps(['open neutral']),
      lamps(['open neutral'], true),
      lamps(['hot and ground swapped']),
      lamps(['open hot']),
      lamps(['open neutral', 'reversed polarity']),
    ]).toEqual([
      'correct',
      'correct',
      'reversed',
      'open ground',
      'open neutral',
      'hot and ground reversed',
      'hot and ground reversed',
      'open hot',
      undefined,
    ])
  })
})

describe('the referee', () => {
  it.each<[string, Readings, Setting, string]>([
    ['a lamp tester on its own', { lamps: 'correct' }, low, 'jumper'],
    ['60 V on a high-impedance meter', { hotGround: 60 }, { meter: 'high' }, 'floating'],
    [
      'near line voltage on a high-impedance meter',
      { hotGround: 118 },
      { meter: 'high' },
      'Coupled',
    ],
    ['neutral to ground without a load', { neutralGround: 0 }, low, 'without a load'],
    ['0 V under load near the panel', { neutralGroundLoaded: 0 }, { runFt: 10 }, 'Near the panel'],
    ['open ground', { lamps: 'open ground' }, low, 'loose'],
  ])('%s proves nothing, and what would is said', (_name, readings, setting, why) => {
    const doubts = doubtsOf(readings, setting)
    expect(doubts.map(d => d.why).join()).toContain(why)
    for (const d of doubts) expect(d.instead.length).toBeGreaterThan(5)
  })
  it('nothing is doubted that proves something', () =>
    expect(doubtsOf({ hotNeutral: 120, hotGround: 120, groundOhms: 0.3 }, low)).toEqual([]))
  it.each([
    [{ what: 'GFCI', by: 'plug-in tester', trips: false }, false],
    [{ what: 'GFCI', by: 'plug-in tester', trips: false, isGroundProved: true }, true],
    [{ what: 'GFCI', by: 'own button', trips: true }, false],
    [{ what: 'GFCI', by: 'own button', trips: true, isOutletDead: true }, true],
    [{ what: 'GFCI', by: 'own button', trips: false }, true],
    [{ what: 'AFCI', by: 'plug-in tester', trips: true }, false],
    [{ what: 'GFCI', by: 'indicator light', trips: true }, false],
  ] as const)('%j', (test, proves) => expect(refereeDevice(test).proves).toBe(proves))
})

describe('along a chain', () => {
  const chain = (...list: [string, string, string?, number?][]) =>
    list.map(([id, after, state, dropPercent]) => ({
      id,
      after,
      ...(state && { state }),
      ...(dropPercent !== undefined && { dropPercent }),
    }))
  it('a state that holds for all after lies in the joint before the first', () => {
    const [origin] = originsOf(
      chain(
        ['a', 'panel', 'good'],
        ['b', 'a', 'open neutral'],
        ['c', 'b', 'open neutral'],
        ['d', 'a', 'good'],
      ),
      'good',
    )
    expect(origin).toMatchObject({ first: 'b', before: 'a', affects: ['c'] })
    expect(origin!.text).toContain('between a and b')
  })
  it('a state at one outlet alone lies in its box', () =>
    expect(
      originsOf(
        chain(['a', 'panel', 'good'], ['b', 'a', 'reversed polarity'], ['c', 'b', 'good']),
        'good',
      )[0]!.text,
    ).toContain('alone'))
  it('the drop jumps at the joint', () => {
    expect(
      jointOf(
        chain(
          ['a', 'panel', '', 1.2],
          ['b', 'a', '', 2.1],
          ['c', 'b', '', 9.8],
          ['d', 'c', '', 10.4],
        ),
      ),
    ).toEqual({ between: ['b', 'c'], jump: 7.7 })
    expect(jointOf(chain(['a', 'panel', '', 1.2], ['b', 'a', '', 2.1]))).toBeUndefined()
  })
})
