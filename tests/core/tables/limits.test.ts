/** At the very number where an answer turns, and where a thing is not there at all. */
import { dwellingLoad, overlapsIn, type Subject } from '#core'
import { openGround } from '#core/derive/ground'
import { applianceAmpsOf, loadOf } from '#core/derive/load'
import { serviceLoadOf } from '#core/derive/service-load'
import { throwsOf } from '#core/derive/throws'
import { render } from '#core/engine/say'
import { Memo, MemoOfParts } from '#core/model/memo'
import { allowedDevice } from '#core/tables/allowed-device'
import { judge, oneOutlet, panel, run, siteOf, type Node } from '../../support/house'

const circuitOf = (circuit: Node, breaker: Node = {}, premises: Node = {}) => {
  const site = siteOf(panel([run(30, {}, circuit, breaker)], {}, premises))
  return { site, circuit: site.get('c', 'circuit') as Subject<'circuit'> }
}

it('what was worked out is forgotten past the bound, and not before', () => {
  const memo = new Memo<number, string>(2)
  memo.set(1, 'a')
  memo.set(2, 'b')
  expect([memo.size, memo.get(1)]).toEqual([2, 'a'])
  expect(memo.set(3, 'c')).toBe('c')
  expect([memo.size, memo.get(1), memo.get(3)]).toEqual([1, undefined, 'c'])
})

it('what was worked out by several parts is found by all of them, in their order', () => {
  const memo = new MemoOfParts<string>(4)
  expect(memo.set(['14', undefined, 3], 'a')).toBe('a')
  memo.set(['14', undefined], 'b')
  memo.set([undefined, '14', 3], 'c')
  // The same parts again are no more to keep.
  memo.set(['14', undefined], 'd')
  expect(memo.size).toBe(3)
  const found = [
    ['14', undefined, 3],
    ['14', undefined],
    [undefined, '14', 3],
    ['14'],
    [],
    ['14', 3],
    ['14', undefined, 3, 4],
  ].map(parts => memo.get(parts))
  expect(found).toEqual(['a', 'd', 'c', undefined, undefined, undefined, undefined])
  memo.set(['12'], 'e')
  expect([memo.size, memo.get(['14', undefined])]).toEqual([4, 'd'])
  // Past the bound everything is forgotten.
  memo.set(['10'], 'f')
  expect([memo.size, memo.get(['10']), memo.get(['14', undefined])]).toEqual([1, 'f', undefined])
})

describe('loads of circuits', () => {
  it('an appliance nobody has read draws anything up to 200 A', () => {
    const { site, circuit } = circuitOf({ supplies: 'fixed appliance' })
    expect(applianceAmpsOf(site, circuit)).toMatchObject({ from: 0, to: 200 })
  })
  it('kilowatts on one pole rest on no supply; on two they do, which settles them', () => {
    const one = circuitOf({ applianceKw: 1.2 }, { poles: 1 })
    const narrow = applianceAmpsOf(one.site, one.circuit)
    expect(narrow).toMatchObject({ from: 10, to: 10, missing: [] })
    expect(narrow.rests.map(f => f.field)).toEqual(['applianceKw'])
    const supply = { supply: '120/240 V single phase' }
    const two = circuitOf({ applianceKw: 4.8 }, { poles: 2 }, supply)
    const wide = applianceAmpsOf(two.site, two.circuit)
    expect(wide).toMatchObject({ from: 20, to: 20, missing: [] })
    expect(wide.rests.map(f => f.field)).toEqual(['applianceKw', 'supply'])
    const open = circuitOf({ applianceKw: 4.8 }, { poles: 2 })
    expect(applianceAmpsOf(open.site, open.circuit).missing.map(f => f.field)).toEqual(['supply'])
  })
  it('a range of which nothing was read asks for anything up to 200 A', () => {
    const { site, circuit } = circuitOf({ supplies: 'cooking appliance' })
    expect(loadOf(site, circuit)?.device).toMatchObject({ from: 0, to: 200 })
  })
  it('a motor asks nothing of its breaker here: the nameplate judges that', () => {
    const { site, circuit } = circuitOf({ supplies: 'motor', applianceAmps: 8 })
    expect(loadOf(site, circuit)?.device).toMatchObject({ from: 0, to: 0 })
  })
  it('what a controller holds off adds nothing at all', () => {
    const total = (circuit: Node, edition = 2023) => {
      const premises = {
        edition,
        floorAreaFt2: 1000,
        supply: '120/240 V single phase',
        areAppliancesRecorded: true,
      }
      const { site } = circuitOf({ supplies: 'fixed appliance', ...circuit }, {}, premises)
      return serviceLoadOf(site).loads[0]?.load.totalVa
    }
    // 1000 ft² at 3 VA, two small-appliance circuits and a laundry circuit.
    expect(total({ applianceKw: 5, isHeldOff: true })).toBe(7500)
    expect(total({ applianceKw: 5 })).toBe(9800)
    // The code knows such controllers from the 2014 edition on.
    expect(total({ applianceKw: 5, isHeldOff: true }, 2014)).toBe(7500)
    expect(total({ applianceKw: 5, isHeldOff: true }, 2011)).toBe(9800)
  })
  it('heating as large as cooling counts as cooling, apart from the rest', () => {
    const { lines, totalVa } = dwellingLoad({
      method: '220.83',
      edition: 2023,
      floorAreaFt2: 1000,
      smallApplianceCircuits: 2,
      laundryCircuits: 1,
      appliances: [],
      addsHeatingOrCooling: true,
      airConditioningVa: 5000,
      heating: { kind: 'separate units', va: 5000, units: 4 },
    })
    expect(lines.map(l => l.what)).toContain('cooling')
    expect(totalVa).toBe(12_500)
  })
})

describe('panels', () => {
  it('a breaker whose poles nobody counted takes one space', () => {
    const breakers = [
      { id: 'b1', space: 1 },
      { id: 'b3', space: 3, poles: 1 },
    ]
    const site = siteOf(panel(breakers))
    expect(overlapsIn(site, site.get('main', 'enclosure')!)).toEqual([])
  })
  it.each([
    ['no main known of', { mainKind: undefined }],
    ['lugs without a breaker', { mainKind: 'main lugs' }],
  ])('throws of a panel: none is counted where there is %s', (_, more) => {
    const site = siteOf(panel([], more))
    expect(throwsOf(site, site.get('main', 'enclosure')!)).toMatchObject({
      value: undefined,
      least: 0,
    })
  })
  it('a breaker 10 °C over the air at its full load is within what that explains', () => {
    const house = (temperatureC: number) =>
      panel([run(20, {}, { loadAmps: 20 }, { protection: 'standard', temperatureC })], {
        ambientC: 25,
      })
    expect(judge('breaker-hot', house(35), 'b').outcome).toBe('clear')
    expect(judge('breaker-hot', house(36), 'b').outcome).toBe('undecided')
  })
})

describe('years and places', () => {
  it('a house of which nothing is said is visited three years after the newest edition', () => {
    const site = siteOf({ corvit: 1, form: 'house', premises: {} })
    expect([site.visitYear, site.yearsOf(site.premises)]).toMatchObject([2026, { from: 0 }])
  })
  it.each([
    [1992, 'allowed'],
    [1993, 'fault'],
  ])('a clamp 20 ft inside on a water pipe of %i', (year, outcome) => {
    const electrode = {
      landsIn: 'main',
      landsOn: 'neutral bar',
      size: '4',
      metal: 'copper',
      connection: 'sound',
      isSpliced: false,
    }
    const house = {
      ...panel([], { electrodes: 'found', serviceSize: '2/0', serviceMetal: 'copper', year }),
      electrodes: [
        {
          ...electrode,
          id: 'e',
          type: 'water pipe',
          isJumpered: true,
          isTenFtInEarth: true,
          clampFt: 20,
        },
        { ...electrode, id: 'r', type: 'rod', rods: 2, spacingFt: 8 },
      ],
    }
    expect(judge('electrode-conductor', house, 'main').outcome).toBe(outcome)
  })
  it.each([
    [1969, 'allowed'],
    [1970, 'fault'],
  ])('a 16 AWG ground in a cable of %i on 20 A', (year, outcome) => {
    const cable = { wiring: 'NM', egc: 'wire', egcSize: '16', egcMetal: 'copper', year }
    const house = panel([run(20, { ...cable, size: '12', metal: 'copper' })])
    expect(judge('branch-ground-size', house, 's').outcome).toBe(outcome)
  })
  it.each([
    [50, 'fault'],
    [51, 'n/a'],
  ])('hard-wired outdoors on a breaker of %i A', (ratingAmps, outcome) => {
    const outlet = {
      type: 'hard-wired outlet',
      slots: undefined,
      room: 'r',
      protection: 'none',
      gfciTest: 'stays live',
      appliance: 'other fixed appliance',
      year: 2022,
    }
    const house = oneOutlet(outlet, {
      breaker: { ratingAmps },
      rooms: [{ id: 'r', use: 'outdoors' }],
    })
    expect(judge('gfci-missing', house, 'p').outcome).toBe(outcome)
  })
})

describe('conductors', () => {
  it('carrying a whole dwelling at 30 °C, beyond the listed sizes: by its own ampacity', () => {
    const at = (ambientC: number, currentCarrying = 3) =>
      allowedDevice(
        {
          size: '750',
          metal: 'copper',
          isCopperClad: false,
          insulation: 75,
          terminals: 75,
          isCappedAt60: false,
          ambientC,
          currentCarrying,
          feedsSeveralReceptacles: false,
          carriesWholeDwelling: true,
        },
        2020,
      ).working.map(w => render(w))
    expect(at(30).join()).not.toContain('83 %')
    expect(at(31).join()).toContain('83 %')
    expect(at(30, 4).join()).toContain('83 %')
  })
  it.each([
    [2008, 'fault'],
    [2014, 'fault'],
    [2017, 'clear'],
  ])('SE of 6 AWG aluminum in insulation on 50 A under the %i edition', (edition, outcome) => {
    const cable = { size: '6', metal: 'aluminum', wiring: 'SE', insulationC: 75, terminalsC: 75 }
    const house = panel(
      [run(50, { ...cable, isInInsulation: true }, { supplies: 'space heating' }, { poles: 2 })],
      {},
      { edition },
    )
    expect(judge('overfused-conductor', house, 's').verdict.outcome).toBe(outcome)
  })
  it('a conductor that carries nothing where it is so hot is not said to run infinitely hot', () => {
    const hot = { what: 'hot', ambientC: 75 }
    const cable = { size: '12', metal: 'copper', wiring: 'cloth NM', insulationC: 60, isTap: false }
    const house = panel([run(20, { ...cable, exposures: [hot] }, { supplies: 'receptacles' })])
    const { failures } = judge('overfused-conductor', house, 's')
    expect(failures.map(f => f.id)).toEqual(['device-over-conductor'])
    expect(failures[0]?.data.allowed).toBe(0)
    expect(failures[0]?.remark).toBeUndefined()
  })
  it('a conductor whose core was seen and of which nobody said what it is taken for', () => {
    const house = panel([run(20, { core: 'silver color' })])
    const { verdict } = judge('unidentified-conductor-metal', house, 's')
    expect(render(verdict.why)).toContain('taken for')
  })
  const tap = (ahead: number, more: Node): Node => ({
    ...panel([], { mainAmps: ahead, busAmps: ahead, place: 'outdoors' }),
    enclosures: [
      ...(panel([], { mainAmps: ahead, busAmps: ahead, place: 'outdoors' }).enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        place: 'indoors',
        fedFrom: 'f',
        mainKind: 'main breaker',
        mainAmps: 30,
      },
    ],
    feeders: [
      {
        id: 'f',
        from: 'main',
        size: '10',
        metal: 'copper',
        wiring: 'steel conduit',
        insulationC: 90,
        terminalsC: 75,
        carriesWholeDwelling: false,
        isTap: true,
        tapEndsIn: 'one breaker or set of fuses',
        year: 2022,
        ...more,
      },
    ],
  })
  // 10 AWG copper at 75 °C carries 35 A: 350 A ahead is ten times as much.
  it.each([
    [350, 10, 'clear'],
    [400, 10, 'fault'],
    [100, 25, 'clear'],
    [110, 25, 'fault'],
  ])('a tap of 10 AWG behind %i A, %i ft long', (ahead, tapFt, outcome) =>
    expect(
      judge('overfused-feeder', tap(ahead, { tapFt, tapIsOutdoors: false }), 'f').verdict.outcome,
    ).toBe(outcome),
  )
  it('a tap outdoors whose length nobody has measured', () => {
    const { verdict } = judge('overfused-feeder', tap(350, { tapIsOutdoors: true }), 'f')
    expect(verdict.outcome).toBe('clear')
    expect(render(verdict.why)).toContain('A tap outdoors')
  })
  it.each([
    [2007, 'allowed'],
    [2008, 'fault'],
  ])('a feeder of %i from the main, of the reduced size', (year, outcome) => {
    const house = {
      ...panel([], { mainAmps: 100, busAmps: 200, marking: 'service disconnect' }),
      enclosures: [
        ...(panel([], { mainAmps: 100, busAmps: 200, marking: 'service disconnect' })
          .enclosures as Node[]),
        { id: 'sub', type: 'panel', place: 'indoors', fedFrom: 'f', mainKind: 'main lugs' },
      ],
      feeders: [
        {
          id: 'f',
          from: 'main',
          size: '2',
          metal: 'aluminum',
          wiring: 'SE',
          isInInsulation: false,
          insulationC: 75,
          terminalsC: 75,
          carriesWholeDwelling: false,
          isTap: false,
          year,
        },
      ],
    }
    const found = judge('overfused-feeder', house, 'f')
    expect(found.outcome).toBe(outcome)
  })
})

describe('outlets', () => {
  it('5 V on a ground terminal are what a sound ground may show: nothing has to be measured again', () => {
    const site = siteOf(oneOutlet({ groundToReferenceV: 5, ground: 'connected' }))
    const outlet = site.get('p', 'outlet')!
    const fields = (house: Node) => {
      const at = siteOf(house)
      return openGround([outlet.facts.lamps], at.get('p', 'outlet')!).map(f => f.field)
    }
    expect(fields(oneOutlet({ groundToReferenceV: 5 }))).toEqual(['lamps'])
    expect(fields(oneOutlet({ groundToReferenceV: 6 }))).toEqual(['groundToReferenceV'])
  })
  it('circuits not tied together, of which no cable is recorded', () => {
    const pair = panel(
      [1, 3].map(space => ({
        id: `b${space}`,
        space,
        poles: 1,
        ratingAmps: 20,
        circuit: { id: `c${space}`, sharesNeutralWith: [`c${4 - space}`], isGroupedInPanel: false },
      })),
    )
    expect(judge('multiwire-not-grouped', pair, 'c1').verdict.outcome).toBe('undecided')
  })
  it('a single receptacle larger than its circuit, alone there or not', () => {
    const outlet = { slots: 'T-slot', isSingle: true }
    const judged = (others: Node[]) =>
      judge('receptacle-rating', oneOutlet(outlet, { others }), 'p').verdict.outcome
    expect(judged([])).toBe('clear')
    expect(judged([{ id: 'q', type: 'receptacle', circuit: undefined }])).not.toBe('clear')
    const house = oneOutlet(outlet) as { enclosures: Node[] }
    const adrift = { ...house, outlets: [{ id: 'q', type: 'receptacle' }] }
    expect(judge('receptacle-rating', adrift, 'p').verdict.outcome).toBe('undecided')
  })
})

it('a box of splices alone has no device whose conductor would have to be gauged', () => {
  const box = {
    type: 'junction box',
    slots: undefined,
    boxVolumeIn3: 19.5,
    isOneSize: false,
    conductorsInBox: 8,
    groundsInBox: 2,
    largestInBox: '12',
    hasInternalClamps: false,
    throughInBox: 0,
    fittingsInBox: 0,
    yokesInBox: 0,
    conductors14InBox: 4,
    conductors12InBox: 4,
    conductors10InBox: 0,
    groundSizeInBox: '12',
  }
  expect(judge('box-fill', oneOutlet(box), 'p').outcome).toBe('clear')
})
