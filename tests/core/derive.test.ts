import { loadOf, rangeDemandKw } from '#core/derive/load'
import {
  gfciOf,
  groundOf,
  legsOf,
  neutralBondOf,
  overlapsIn,
  roleOf,
  upstreamOf,
  type Subject,
} from '#core'
import { allowedBand } from '#core/derive/allowed'
import { sharesBar } from '#core/derive/bond'
import { crowdOf } from '#core/derive/crowd'
import { hillside } from '#core/examples/hillside'
import { allowedDevice } from '#core/tables/allowed-device'
import { panel, siteOf, oneOutlet, run, type Node } from '../support/house'

const enclosures = (...list: Node[]): Node => ({
  corvit: 1,
  form: 'house',
  premises: { edition: 2020 },
  enclosures: list,
})
const roles = (house: Node) => {
  const site = siteOf(house)
  return Object.fromEntries(site.all.enclosure.map(e => [e.id, roleOf(site, e).value ?? 'open']))
}

describe('which enclosure is the service disconnect', () => {
  const meter = { id: 'meter', type: 'meter', place: 'outdoors', fedFrom: 'utility' }
  const inside = (from: string) => ({
    id: 'in',
    type: 'panel',
    place: 'indoors',
    feeder: { id: 'f-in', from },
  })
  it.each<[string, Node, Record<string, string>]>([
    [
      'a meter, then the panel',
      enclosures(meter, inside('meter')),
      { meter: 'supply', in: 'service' },
    ],
    [
      'an outdoor disconnect seen to carry no marking',
      enclosures(
        { id: 'out', type: 'disconnect', place: 'outdoors', fedFrom: 'utility', marking: 'none' },
        inside('out'),
      ),
      { out: 'service', in: 'load' },
    ],
    [
      'an outdoor disconnect marked as not service equipment',
      enclosures(
        {
          id: 'out',
          type: 'disconnect',
          place: 'outdoors',
          fedFrom: 'utility',
          marking: 'not service equipment',
        },
        inside('out'),
      ),
      { out: 'supply', in: 'service' },
    ],
    [
      'an outdoor disconnect whose marking nobody read',
      enclosures(
        { id: 'out', type: 'disconnect', place: 'outdoors', fedFrom: 'utility' },
        inside('out'),
      ),
      { out: 'open', in: 'open' },
    ],
    [
      'an indoor panel needs no marking',
      enclosures({ id: 'a', type: 'panel', place: 'indoors', fedFrom: 'utility' }),
      { a: 'service' },
    ],
    [
      'a panel that says so, fed from nobody knows where',
      enclosures({ id: 'a', type: 'panel', marking: 'service disconnect' }),
      { a: 'service' },
    ],
    ['nothing known', enclosures({ id: 'a' }), { a: 'open' }],
    [
      'three in a row',
      enclosures(
        meter,
        inside('meter'),
        { id: 'sub', type: 'panel', feeder: { id: 'f2', from: 'in' } },
        { id: 'subsub', type: 'panel', feeder: { id: 'f3', from: 'sub' } },
      ),
      { meter: 'supply', in: 'service', sub: 'load', subsub: 'load' },
    ],
    [
      'two services',
      enclosures(
        { id: 'a', type: 'panel', place: 'indoors', fedFrom: 'utility' },
        { id: 'b', type: 'panel', place: 'indoors', fedFrom: 'utility' },
      ),
      { a: 'service', b: 'service' },
    ],
  ])('%s', (_name, house, expected) => {
    expect(roles(house)).toEqual(expected)
  })
})

describe('legs', () => {
  const leg = (space: number, more: Node = {}, breaker: Node = {}) => {
    const site = siteOf(panel([{ id: 'b', space, poles: 1, ...breaker }], more))
    return legsOf(site, site.get('b', 'breaker')!).value?.join('')
  }
  it.each<[string, string | undefined, string | undefined]>([
    ['spaces 1 and 2 stand across from each other', leg(1), leg(2)],
    ['3 is the other leg, like 4', leg(3), leg(4)],
    ['5 is the first again', leg(5), leg(1)],
    [
      'down each side of 24, 1 and 13 are one row',
      leg(1, { numbering: 'down each side' }),
      leg(13, { numbering: 'down each side' }),
    ],
    ['both halves of a space', leg(7, {}, { half: 'a' }), leg(7, {}, { half: 'b' })],
    [
      'three-phase rows repeat after three',
      leg(1, { bus: 'three phase' }),
      leg(7, { bus: 'three phase' }),
    ],
  ])('%s', (_name, a, b) => {
    expect(a).toBeDefined()
    expect(a).toBe(b)
  })
  it('a two-pole breaker spans both', () => expect(leg(1, {}, { poles: 2 })).toBe('AB'))
  it('a measurement beats the drawing', () => expect(leg(1, {}, { measuredLeg: 'B' })).toBe('B'))
  it.each([
    ['bus', { bus: undefined }],
    ['numbering', { numbering: undefined }],
  ])('without the %s nothing is known', (_what, more) => expect(leg(1, more)).toBeUndefined())
  it('numbered down each side needs the number of spaces', () =>
    expect(leg(1, { numbering: 'down each side', spaces: undefined })).toBeUndefined())
})

describe('bonds', () => {
  const bond = (more: Node) => {
    const site = siteOf(panel([], more))
    const main = site.get('main', 'enclosure')!
    return [neutralBondOf(site, main).value, sharesBar(site, main).value]
  }
  it.each<[string, Node, (boolean | undefined)[]]>([
    ['nothing looked at', {}, [undefined, undefined]],
    ['a screw', { bondMeans: 'screw' }, [true, undefined]],
    ['none, and bars apart', { bondMeans: 'none', landings: 'on separate bars' }, [false, false]],
    [
      'none, but the neutral bar sits on metal',
      { bondMeans: 'none', bars: [{ role: 'neutral', isBondedToEnclosure: true }] },
      [true, false],
    ],
    [
      'none, neutral bar not looked at',
      { bondMeans: 'none', bars: [{ role: 'neutral' }] },
      [undefined, false],
    ],
    [
      'a ground bar on metal is no bond of the neutral',
      {
        bondMeans: 'none',
        bars: [{ role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false }],
      },
      [false, false],
    ],
    [
      'a ground bar on metal, the jumper to the neutral bar not looked for',
      { bondMeans: 'none', bars: [{ role: 'ground', isBondedToEnclosure: true }] },
      [undefined, false],
    ],
    [
      'a ground bar on metal with a jumper to the neutral bar is a bond',
      {
        bondMeans: 'none',
        bars: [{ role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: true }],
      },
      [true, false],
    ],
    [
      'one bar for both',
      { bondMeans: 'none', bars: [{ role: 'common', isBondedToEnclosure: false }] },
      [false, true],
    ],
    [
      'a neutral that strayed to the ground bar',
      {
        bondMeans: 'none',
        bars: [
          {
            role: 'ground',
            isTiedToNeutral: false,
            screws: [{ position: 1, neutrals: 1, grounds: 0 }],
          },
        ],
      },
      [false, true],
    ],
    [
      'a bar nobody identified',
      { bondMeans: 'none', bars: [{ isBondedToEnclosure: false }] },
      [false, undefined],
    ],
  ])('%s', (_name, more, expected) => {
    expect(bond(more)).toEqual(expected)
  })
})

describe('the ground and the protection of a receptacle', () => {
  const of = (outlet: Node, more?: Parameters<typeof oneOutlet>[1]) => {
    const site = siteOf(oneOutlet(outlet, more))
    const p = site.get('p', 'outlet')!
    return [groundOf(site, p).value, gfciOf(site, p).value]
  }
  const gfciFirst: Node[] = [
    { id: 'a', type: 'receptacle', after: 'panel', protection: 'GFCI' },
    { id: 'lamp', type: 'luminaire', after: 'a', isFedFromLoadSide: true },
  ]
  it.each<[string, (string | undefined)[], (string | undefined)[]]>([
    [
      'a wire and a lamp tester together',
      of({ ground: 'connected', lamps: 'correct' }),
      ['good', undefined],
    ],
    [
      'a path of 50 Ω is no ground, wire or not',
      of({ ground: 'connected', groundOhms: 50 }),
      ['none', undefined],
    ],
    ['a lamp tester alone', of({ lamps: 'correct' }), [undefined, undefined]],
    [
      'open ground whatever the box shows',
      of({ ground: 'connected', lamps: 'open ground' }),
      ['none', undefined],
    ],
    ['the device itself', of({ protection: 'GFCI' }), [undefined, 'own']],
    [
      'through a luminaire on the load side',
      of({ protection: 'none', after: 'lamp' }, { others: gfciFirst }),
      [undefined, 'ahead'],
    ],
    [
      'first on the circuit, nothing there',
      of({ protection: 'none', after: 'panel' }),
      [undefined, 'none'],
    ],
    [
      'behind a device nobody looked at',
      of(
        { protection: 'none', after: 'a' },
        { others: [{ id: 'a', type: 'receptacle', after: 'panel' }] },
      ),
      [undefined, undefined],
    ],
    [
      'stays live with the GFCI tripped',
      of({ protection: 'none', gfciTest: 'stays live' }),
      [undefined, 'none'],
    ],
    [
      'breaker',
      of({ protection: 'none', after: 'panel' }, { breaker: { protection: 'GFCI' } }),
      [undefined, 'breaker'],
    ],
  ])('%s', (_name, got, expected) => {
    expect(got).toEqual(expected)
  })
})

describe('the band of allowed devices', () => {
  const bandOf = (segment: Node) => {
    const site = siteOf(panel([run(20, segment)]))
    const band = allowedBand(
      site,
      site.get('s', 'segment') as Subject<'segment'>,
      { value: false, fact: undefined },
      { value: false, fact: undefined },
    )
    if (!band.isKnown) throw new Error('no band')
    return band
  }
  it('is one number where everything is known', () => {
    const band = bandOf({ size: '12', metal: 'copper', wiring: 'NM-B' })
    expect([band.low.allowed, band.high.allowed]).toEqual([20, 20])
  })
  it('holds every answer the unseen facts could give, and no other', () => {
    for (const size of ['14', '12', '10', '8', '6'] as const) {
      const band = bandOf({ size, wiring: 'steel conduit' })
      const answers: number[] = []
      for (const metal of ['copper', 'aluminum'] as const)
        for (const isCopperClad of metal === 'copper' ? [false] : [false, true])
          for (const insulation of [60, 75, 90] as const)
            for (const terminals of [60, 75] as const) {
              answers.push(
                allowedDevice(
                  {
                    size,
                    metal,
                    isCopperClad,
                    insulation,
                    terminals,
                    isCappedAt60: false,
                    ambientC: 30,
                    currentCarrying: 3,
                    feedsSeveralReceptacles: false,
                    carriesWholeDwelling: false,
                  },
                  2020,
                ).allowed,
              )
            }
      expect([band.low.allowed, band.high.allowed]).toEqual([
        Math.min(...answers),
        Math.max(...answers),
      ])
    }
  })
  it('names only the facts that could turn the answer', () => {
    expect(
      bandOf({ size: '12' })
        .missingFor(20)
        .map(f => f.field),
    ).toEqual(['metal'])
    expect(
      bandOf({ size: '8', metal: 'copper', wiring: 'steel conduit', insulationC: 75 })
        .missingFor(50)
        .map(f => f.field),
    ).toEqual(['terminalsC'])
    expect(
      bandOf({ size: '8', metal: 'copper', wiring: 'steel conduit', insulationC: 75 }).missingFor(
        40,
      ),
    ).toEqual([])
  })
  it.each<[number, string, Node, number[]]>([
    [2008, '6', {}, [40, 40]],
    [2011, '6', {}, [40, 50]],
    [2014, '6', { isInInsulation: false }, [50, 50]],
    [2014, '6', { isInInsulation: true }, [40, 40]],
    [2020, '6', {}, [50, 50]],
    [2020, '10', {}, [25, 25]],
  ])('service-entrance cable under %s, %s Al, %j', (edition, size, more, expected) => {
    const site = siteOf(
      panel(
        [
          run(20, {
            size,
            metal: 'aluminum',
            wiring: 'SE',
            insulationC: 75,
            terminalsC: 75,
            ...more,
          }),
        ],
        {},
        { edition },
      ),
    )
    const band = allowedBand(
      site,
      site.get('s', 'segment') as Subject<'segment'>,
      { value: false, fact: undefined },
      { value: false, fact: undefined },
    )
    expect(band.isKnown && [band.low.allowed, band.high.allowed]).toEqual(expected)
  })
  it('takes the worst of several stretches', () => {
    expect(
      bandOf({
        size: '10',
        metal: 'copper',
        wiring: 'NM-B',
        exposures: [
          { what: 'hot', ambientC: 40 },
          { what: 'crowded', currentCarrying: 12 },
        ],
      }).low.ampacity,
    ).toBe(20)
  })
})

describe('breakers in one space', () => {
  const pairs = (more: Node, ...list: Node[]) => {
    const site = siteOf(
      panel(
        list.map((b, i) => ({ id: `b${i}`, poles: 1, ...b })),
        more,
      ),
    )
    return overlapsIn(site, site.get('main', 'enclosure')!).map(p => p.map(b => b.id).join(' '))
  }
  it.each<[string, string[], string[]]>([
    [
      'a two-pole breaker in 18 reaches 20',
      pairs({}, { space: 18, poles: 2 }, { space: 20 }),
      ['b0 b1'],
    ],
    [
      '18 and 19 stand across from each other',
      pairs({}, { space: 18, poles: 2 }, { space: 19 }),
      [],
    ],
    [
      'down each side a two-pole breaker in 3 reaches 4',
      pairs({ numbering: 'down each side' }, { space: 3, poles: 2 }, { space: 4 }),
      ['b0 b1'],
    ],
    ['two halves share a space', pairs({}, { space: 5, half: 'a' }, { space: 5, half: 'b' }), []],
    ['the same half twice', pairs({}, { space: 5, half: 'a' }, { space: 5, half: 'a' }), ['b0 b1']],
    ['a whole breaker over a half', pairs({}, { space: 5, half: 'b' }, { space: 5 }), ['b0 b1']],
    ['no space recorded', pairs({}, { space: 5 }, {}), []],
  ])('%s', (_name, got, expected) => {
    expect(got).toEqual(expected)
  })
})
it('the demo panels have no two breakers in one space', () => {
  const site = siteOf(hillside() as Node)
  expect(site.all.enclosure.flatMap(e => overlapsIn(site, e))).toEqual([])
})

it('a backfed breaker is a second source, whatever else was said', () => {
  const house = (role: string) =>
    panel([
      { id: 'b', space: 1, poles: 1, ratingAmps: 15 },
      { id: 'inlet', space: 2, poles: 2, ratingAmps: 30, role },
    ])
  const sources = (role: string) => {
    const site = siteOf(house(role))
    return upstreamOf(site, site.get('b', 'breaker')!).value!.hasOneSource
  }
  expect([sources('branch'), sources('backfed source')]).toEqual([true, false])
})

it('a meter nobody opened is no unread main: what stands ahead of the panel is settled', () => {
  const house = (type: string): Node => ({
    ...panel([]),
    enclosures: [
      { id: 'm', type, place: 'outdoors', fedFrom: 'utility', hasSecondSource: false },
      {
        id: 'main',
        type: 'panel',
        mainKind: 'main breaker',
        mainAmps: 200,
        hasSecondSource: false,
        feeder: { id: 'f', from: 'm' },
        breakers: [{ id: 'b', space: 1, poles: 1, ratingAmps: 20 }],
      },
    ],
  })
  const unread = (type: string) => {
    const site = siteOf(house(type))
    return upstreamOf(site, site.get('b', 'breaker')!).value!.unreadFrom
  }
  expect([unread('meter'), unread('disconnect')]).toEqual([undefined, 30])
})

it('of two devices ahead that are as small, the nearer one is named', () => {
  const site = siteOf({
    ...panel([{ id: 'fb', space: 1, poles: 2, ratingAmps: 60 }]),
    enclosures: [
      ...(panel([{ id: 'fb', space: 1, poles: 2, ratingAmps: 60 }]).enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        mainKind: 'main breaker',
        mainAmps: 60,
        hasSecondSource: false,
        feeder: { id: 'f', from: 'fb' },
        breakers: [{ id: 'b', space: 1, poles: 1, ratingAmps: 20 }],
      },
    ],
  })
  const { value } = upstreamOf(site, site.get('b', 'breaker')!)
  expect([value?.smallestAmps, value?.smallest?.id]).toEqual([60, 'sub'])
})

describe('the demand of one range', () => {
  // Worked lines of 220.55: 8 kW up to 12 kW, and 5 % more for each further kilowatt or part of one.
  it.each([
    [8, 8],
    [8.74, 8.74],
    [8.75, 8],
    [12, 8],
    [12.1, 8.4],
    [13, 8.4],
    [16, 9.6],
    [18, 10.4],
  ])('%d kW count as %d kW', (kw, demand) => {
    expect(rangeDemandKw(kw)).toBeCloseTo(demand, 9)
  })
})

describe('conductors that carry current together', () => {
  const HOUSE = '120/240 V single phase'
  const STAR = '208Y/120 V'
  /** Circuits in one pipe: poles, and the others that share its neutral; `feeder` puts the pipe round a feeder. */
  function together(
    circuits: readonly (readonly [poles: number | undefined, shares: string[] | undefined])[],
    supply?: string,
    feeder?: Node,
  ): [number, number] {
    const breakers = circuits.map(([poles, sharesNeutralWith], i) => ({
      id: `b${i}`,
      space: 2 * i + 1,
      ...(poles !== undefined && { poles }),
      circuit: {
        id: `c${i}`,
        ...(sharesNeutralWith && { sharesNeutralWith }),
        ...(i === 0 && {
          segments: [{ id: 's', ...(!feeder && { exposures: [PIPE(circuits.length)] }) }],
        }),
      },
    }))
    const site = siteOf({
      ...panel(breakers, {}, supply === undefined ? {} : { supply }),
      ...(feeder && {
        feeders: [
          {
            id: 'f',
            from: 'main',
            fromTerminals: 'load lugs',
            ...feeder,
            exposures: [PIPE(circuits.length)],
          },
        ],
      }),
    })
    const [pipe] = site.all.exposure
    const { least, most } = crowdOf(site, pipe!)!
    return [least, most]
  }
  const PIPE = (n: number): Node => ({
    what: 'crowded',
    circuits: Array.from({ length: n }, (_, i) => `c${i}`),
  })
  it('two stretches of a run are not one stretch that may be the one or the other', () => {
    const run = (exposures: Node[]) => {
      const cable = { id: 's', size: '12', metal: 'copper', wiring: 'cloth NM', terminalsC: 60 }
      const breakers = Array.from({ length: 4 }, (_, i) => ({
        id: `b${i}`,
        space: 2 * i + 1,
        poles: 1,
        circuit: { id: `c${i}`, ...(i === 0 && { segments: [{ ...cable, exposures }] }) },
      }))
      const site = siteOf(panel(breakers))
      const no = { value: false, fact: undefined }
      const band = allowedBand(site, site.all.segment[0]!, no, no)
      return band.isKnown ? [band.low.ampacity, band.high.ampacity] : band.missing
    }
    const counted = (currentCarrying: number) => ({ what: 'crowded', currentCarrying })
    // 20 A at 60 °C, of which 8 conductors leave 70 % and 4 leave 80 %.
    expect(run([counted(8), counted(4)])).toEqual([14, 14])
    expect(run([PIPE(4)])).toEqual([14, 16])
  })
  it.each<[string, [number, number], [number, number]]>([
    [
      'three circuits of 120 V, each with its neutral',
      together([
        [1, []],
        [1, []],
        [1, []],
      ]),
      [6, 6],
    ],
    [
      'two hots on one neutral',
      together(
        [
          [1, ['c1']],
          [1, ['c0']],
        ],
        HOUSE,
      ),
      [2, 2],
    ],
    [
      'two hots on one neutral of a star',
      together(
        [
          [1, ['c1']],
          [1, ['c0']],
        ],
        STAR,
      ),
      [3, 3],
    ],
    [
      'two hots on one neutral of a supply nobody measured',
      together([
        [1, ['c1']],
        [1, ['c0']],
      ]),
      [2, 3],
    ],
    [
      'three hots on one neutral: two share a leg',
      together(
        [
          [1, ['c1', 'c2']],
          [1, ['c0', 'c2']],
          [1, ['c0', 'c1']],
        ],
        HOUSE,
      ),
      [4, 4],
    ],
    [
      'a circuit of 240 V and one of 120 V',
      together(
        [
          [2, []],
          [1, []],
        ],
        HOUSE,
      ),
      [4, 4],
    ],
    ['a circuit of 240 V on a star', together([[2, []]], STAR), [3, 3]],
    ['a circuit of unknown poles', together([[undefined, []]], HOUSE), [2, 2]],
    ['a circuit of unknown poles on a star', together([[undefined, []]], STAR), [2, 3]],
    ['a circuit that may share its neutral', together([[1, undefined]], HOUSE), [1, 2]],
    ['a feeder beside a circuit', together([[1, []]], HOUSE, {}), [4, 4]],
    ['a feeder of two sets on a star', together([[1, []]], STAR, { sets: 2 }), [8, 8]],
  ])('%s', (_, found, expected) => expect(found).toEqual(expected))
})

describe('what a range asks for, read in amperes', () => {
  const ofRange = (applianceAmps: number, supply?: string) => {
    const range = { supplies: 'cooking appliance', applianceAmps }
    const site = siteOf(
      panel([run(50, {}, range, { poles: 2 })], {}, supply === undefined ? {} : { supply }),
    )
    const circuit = site.get('c', 'circuit')
    const load = circuit && loadOf(site, circuit)
    return [load?.device.from, load?.device.to].map(x => Math.round(1e4 * (x ?? NaN)) / 1e4)
  }
  const HOUSE = '120/240 V single phase'
  it.each<[number, string | undefined, number[]]>([
    // 8.74 kW: by its marking. 8.75 kW and more: at least 40 A. 18 kW: a demand of 10.4 kW.
    [36.41, HOUSE, [36.41, 36.41]],
    [36.46, HOUSE, [40, 40]],
    [75, HOUSE, [43.3333, 43.3333]],
    [75, '208Y/120 V', [46.1538, 46.1538]],
    [75, undefined, [43.3333, 46.1538]],
    // 9.6 kW at 240 V, 8.32 kW at 208 V.
    [40, undefined, [40, 40]],
  ])('%d A on %s', (amps, supply, band) => expect(ofRange(amps, supply)).toEqual(band))
})
