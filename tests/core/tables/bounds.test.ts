import { dwellingLoad, type DwellingLoads } from '#core'
import { canGround } from '#core/derive/feeder-ground'
import { allowedDevice } from '#core/tables/allowed-device'
import type { Edition } from '#core/tables/editions'
import { AREAS, electrodeConductorSize } from '#core/tables/grounding'
import { ADOPTION_LAG, isEditionYear } from '#core/tables/years'
import { diameterMm, gaugeOf } from '#core/tables/diameter'
import { judge, oneOutlet, panel, run, type Node } from '../../support/house'

describe('areas of conductors, circular mils (chapter 9, table 8)', () => {
  it('are those of the table', () =>
    expect(AREAS).toEqual({
      '14': 4110,
      '12': 6530,
      '10': 10380,
      '8': 16510,
      '6': 26240,
      '4': 41740,
      '3': 52620,
      '2': 66360,
      '1': 83690,
      '1/0': 105600,
      '2/0': 133100,
      '3/0': 167800,
      '4/0': 211600,
    }))
})

describe('several service conductors in parallel count by their areas', () => {
  it.each([
    // Up to 1/0 aluminum the first row; 105 600 circular mils are still in it.
    ['1/0', 1, 'aluminum', '8'],
    ['4', 2, 'copper', '6'],
    ['1', 2, 'copper', '4'],
    ['1/0', 2, 'copper', '2'],
    ['3/0', 2, 'copper', '2'],
    ['250', 2, 'aluminum', '2'],
    ['4/0', 2, 'copper', '1/0'],
    ['300', 3, 'aluminum', '1/0'],
    ['500', 2, 'aluminum', '2/0'],
    ['350', 5, 'aluminum', '2/0'],
    ['500', 2, 'copper', '2/0'],
    ['600', 3, 'aluminum', undefined],
    ['600', 2, 'copper', undefined],
  ] as const)('%s in %i sets of %s: %s copper', (size, sets, metal, least) =>
    expect(electrodeConductorSize(size, metal, 'copper', 'jumper', sets)).toBe(least),
  )
  it('the sole connection to a rod stays at its own size', () => {
    expect(electrodeConductorSize('500', 'copper', 'copper', 'rod', 2)).toBe('6')
    expect(electrodeConductorSize('4', 'copper', 'copper', 'rod')).toBe('8')
  })
})

describe('years of the code', () => {
  const years = [
    1940, 1947, 1951, 1953, 1956, 1959, 1962, 1965, 1968, 1971, 1975, 1978, 1981, 1984, 1987, 1990,
    1993, 1996, 1999, 2002, 2005, 2008, 2011, 2014, 2017, 2020, 2023,
  ]
  it('are the years of its editions and no others', () => {
    const found = Array.from({ length: 130 }, (_, i) => 1900 + i).filter(isEditionYear)
    expect(found).toEqual(years)
  })
  it('places adopt late', () => expect(ADOPTION_LAG).toBe(3))
})

describe('a bare diameter between two sizes', () => {
  it.each([
    [14.69, true],
    [14.71, false],
    [-3.39, true],
    [-3.41, false],
  ])('gauge number %d lies within the sizes: %s', (number, isWithin) =>
    expect(gaugeOf(diameterMm(number)).nearest).toHaveLength(isWithin ? 2 : 1),
  )
  it.each([
    [12.64, '12'],
    [12.69, undefined],
  ])('gauge number %d is %s', (number, size) => expect(gaugeOf(diameterMm(number)).size).toBe(size))
})

describe('thresholds of rules, one on each side', () => {
  const legs = (a: number, b: number, on: boolean | undefined): Node =>
    panel([], {
      legAToNeutralV: a,
      legBToNeutralV: b,
      ...(on !== undefined && { wereLoadsOn: on }),
    })
  it.each([
    ['20 V apart under load', legs(130, 110, true), 'fault'],
    ['19 V apart under load', legs(130, 111, true), 'undecided'],
    ['the other leg high', legs(110, 130, true), 'fault'],
    ['6 V apart under load', legs(123, 117, true), 'clear'],
    ['7 V apart under load', legs(124, 117, true), 'undecided'],
    ['6 V apart, loads not said', legs(123, 117, undefined), 'undecided'],
  ])('service-neutral: %s', (_, house, outcome) =>
    expect(judge('service-neutral', house, 'main').outcome).toBe(outcome),
  )
  it.each([
    [20, 'fault'],
    [21, 'n/a'],
    [30, 'n/a'],
  ])('tamper-resistant: a receptacle of %i A', (deviceAmps, outcome) => {
    const outlet = {
      isTamperResistant: false,
      isDedicated: false,
      isHigh: false,
      year: 2019,
      deviceAmps,
    }
    expect(judge('tamper-resistant', oneOutlet(outlet), 'p').outcome).toBe(outcome)
  })
  it.each([
    [5.5, 'fault'],
    [5.6, 'n/a'],
  ])('tamper-resistant: %d ft up', (heightFt, outcome) => {
    const outlet = { isTamperResistant: false, isDedicated: false, heightFt, year: 2019 }
    expect(judge('tamper-resistant', oneOutlet(outlet), 'p').outcome).toBe(outcome)
  })
  it.each([
    [2014, '208Y/120 V', 'fault'],
    [2014, '120/240 V single phase', 'clear'],
    [2017, '208Y/120 V', 'clear'],
  ])('service-conductor: 2 AWG aluminum at 100 A, edition %i on %s', (edition, supply, outcome) => {
    const service = {
      mainAmps: 100,
      serviceSize: '2',
      serviceMetal: 'aluminum',
      serviceInsulationC: 75,
    }
    expect(
      judge('service-conductor', panel([], service, { edition, supply }), 'main').outcome,
    ).toBe(outcome)
  })
  const fed = (tapFt: number, mainAmps: number, ahead: number): Node => ({
    ...panel([], { mainAmps: ahead, busAmps: ahead }),
    enclosures: [
      ...(panel([], { mainAmps: ahead, busAmps: ahead }).enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        place: 'indoors',
        fedFrom: 'f',
        mainKind: 'main breaker',
        mainAmps,
      },
    ],
    feeders: [
      {
        id: 'f',
        from: 'main',
        size: '6',
        metal: 'copper',
        wiring: 'steel conduit',
        insulationC: 90,
        terminalsC: 75,
        carriesWholeDwelling: false,
        isTap: true,
        tapEndsIn: 'one breaker or set of fuses',
        tapFt,
        year: 2022,
      },
    ],
  })
  // 6 AWG copper carries 65 A: a third of 195 A at 25 ft, a tenth of 650 A at 10 ft.
  it.each([
    [25, 60, 175, 'clear'],
    [26, 60, 175, 'fault'],
    [25, 60, 200, 'fault'],
    [10, 60, 400, 'clear'],
    [11, 60, 400, 'fault'],
    [10, 70, 400, 'fault'],
  ])('overfused-feeder: a tap of %i ft into %i A behind %i A', (feet, main, ahead, outcome) =>
    expect(judge('overfused-feeder', fed(feet, main, ahead), 'f').outcome).toBe(outcome),
  )
  it.each([
    [20, ['mains-added']],
    [25, []],
  ])('split-bus: a %i A breaker above the gap', (ratingAmps, checks) => {
    const above = { id: 'x', space: 1, poles: 1, ratingAmps, section: 'upper' }
    const house = panel([above], {
      mainKind: 'split bus',
      upperMains: 2,
      hasAddedUpper: false,
      year: 1970,
    })
    const { verdict } = judge('split-bus', house, 'main')
    expect(verdict.outcome === 'fault' ? verdict.failures.map(f => f.id) : []).toEqual(checks)
  })
})

describe('thresholds that stood untested', () => {
  const load = (more: Partial<DwellingLoads>) =>
    dwellingLoad({
      method: '220.83',
      floorAreaFt2: 1000,
      smallApplianceCircuits: 2,
      laundryCircuits: 1,
      appliances: [],
      edition: 2023,
      ...more,
    })
  it('a dwelling of 8 kVA counts in full, and nothing is said of a rest', () => {
    const all = load({ appliances: [{ what: 'dishwasher', va: 500 }] })
    expect(all.totalVa).toBe(8000)
    expect(all.lines.map(l => l.what).join()).not.toContain('the rest')
    const more = load({ appliances: [{ what: 'dishwasher', va: 501 }] })
    expect(more.lines.map(l => l.what).join()).toContain('the rest')
    expect(load({ appliances: [{ what: 'clock', va: 1 }] }).lines.map(l => l.what)).toContain(
      'clock',
    )
  })
  it('a charger counts for 7200 VA at least from the 2023 edition on, and for itself before', () => {
    const charger = (edition: Edition) =>
      load({ vehicleChargers: [100], edition }).lines.find(l => l.what === 'vehicle charger')?.va
    expect(charger(2023)).toBe(7200)
    expect(charger(2020)).toBe(100)
    expect(load({ vehicleChargers: [0], edition: 2020 }).totalVa).toBe(7500)
  })
  it('names the section of the edition for a whole dwelling', () => {
    const said = (edition: Edition) =>
      JSON.stringify(
        allowedDevice(
          {
            size: '2/0',
            metal: 'copper',
            isCopperClad: false,
            insulation: 75,
            terminals: 75,
            isCappedAt60: false,
            ambientC: 30,
            currentCarrying: 3,
            feedsSeveralReceptacles: false,
            carriesWholeDwelling: true,
          },
          edition,
        ).working,
      )
    expect(said(2008)).toContain('310.15(B)(6)')
    expect(said(2011)).toContain('310.15(B)(7)')
    expect(said(2020)).toContain('310.12')
  })
  const wire = (amps: number, segment: Node, circuit: Node = {}, breaker: Node = {}) =>
    panel([run(amps, { metal: 'copper', wiring: 'NM-B', ...segment }, circuit, breaker)])
  it('a storage heater nobody has named, at exactly its amperes', () => {
    const heater = { supplies: 'water heater', applianceAmps: 20 }
    const result = judge('appliance-overcurrent', wire(20, { size: '10' }, heater), 'c')
    expect(result.outcome).toBe('undecided')
    expect(result.leaning?.ask.field).toBe('heaterKind')
  })
  it('a charger whose larger current is exactly what the breaker carries', () => {
    const charger = { supplies: 'vehicle charger', applianceKw: 9.984 }
    const house = (amps: number) =>
      wire(amps, { size: '3', wiring: 'steel conduit', insulationC: 75, terminalsC: 75 }, charger, {
        poles: 2,
      })
    expect(judge('load-over-circuit', house(60), 'c').outcome).toBe('clear')
    expect(judge('load-over-circuit', house(55), 'c').outcome).toBe('undecided')
  })
  it('circuits that share a neutral and of which no conductors are recorded', () => {
    const pair = panel(
      [1, 3].map(space => ({
        id: `b${space}`,
        space,
        poles: 1,
        ratingAmps: 20,
        handleTie: 'listed tie',
        circuit: { id: `c${space}`, sharesNeutralWith: [`c${4 - space}`], isGroupedInPanel: false },
      })),
    )
    expect(judge('multiwire-not-grouped', pair, 'c1').outcome).toBe('undecided')
  })
  it('handles in two panels are not next to each other', () => {
    const one = (id: string, space: number, other: string): Node => ({
      id: `b-${id}`,
      space,
      poles: 1,
      ratingAmps: 20,
      handleTie: 'listed tie',
      circuit: { id, sharesNeutralWith: [other], feedsLineToLine: false },
    })
    const apart = panel([one('c1', 1, 'c2')]) as { enclosures: Node[] }
    const [main] = apart.enclosures
    apart.enclosures.push({
      ...main,
      id: 'second',
      fedFrom: 'utility',
      breakers: [one('c2', 3, 'c1')],
    })
    const found = judge('multiwire-no-common-trip', apart as Node, 'c1')
    expect(found.failures.map(f => f.id)).toEqual(['tie-not-adjacent'])
  })
  it('how hot a conductor runs behind a breaker too large for it', () => {
    const { failures } = judge('overfused-conductor', wire(30, { size: '12' }), 's')
    expect(failures[0]?.remark?.slots).toEqual({ allowed: 20, rating: 30, heat: 2.3 })
  })
  it.each([
    [50, '12', 'n/a'],
    [60, '12', 'fault'],
    [50, '14', 'fault'],
  ])('a tap to a luminaire on %i A: %s AWG', (amps, size, outcome) => {
    const circuit = {
      supplies: 'lighting',
      segments: [
        { id: 's', size: '6', metal: 'copper', wiring: 'NM-B' },
        { id: 't', size, metal: 'copper', wiring: 'NM-B', isTap: true },
      ],
    }
    const house = panel([
      {
        id: 'b',
        space: 1,
        poles: 1,
        ratingAmps: amps,
        circuit: { id: 'c', sharesNeutralWith: [], ...circuit },
      },
    ])
    expect(judge('overfused-conductor', house, 't').outcome).toBe(outcome)
  })
  it.each([
    [0.25, 'clear'],
    [0.26, 'fault'],
  ])('a box %d in. behind a surface that does not burn', (setbackIn, outcome) => {
    const outlet = { setbackIn, finish: 'non-combustible', hasExtender: false }
    expect(judge('box-setback', oneOutlet(outlet), 'p').outcome).toBe(outcome)
  })
  it.each([
    [49, 'undecided', []],
    [50, 'fault', ['ground-live']],
  ])('%i V on a ground terminal', (groundToReferenceV, outcome, checks) => {
    const found = judge('bootleg-ground', oneOutlet({ groundToReferenceV }), 'p')
    expect(found.outcome).toBe(outcome)
    expect(found.failures.map(f => f.id)).toEqual(checks)
  })
  it('a feeder without a device ahead needs no ground of a size', () => {
    const house = {
      ...panel([]),
      enclosures: [
        ...(panel([]) as { enclosures: Node[] }).enclosures,
        {
          id: 'sub',
          type: 'panel',
          place: 'indoors',
          fedFrom: 'f',
          mainKind: 'main breaker',
          mainAmps: 100,
        },
      ],
      feeders: [
        {
          id: 'f',
          from: 'main',
          fromTerminals: 'line lugs',
          egc: 'wire',
          egcSize: '10',
          egcMetal: 'copper',
        },
      ],
    }
    expect(judge('feeder-ground-size', house, 'f').outcome).toBe('n/a')
  })
  const raceway = {
    ground: 'metal raceway or armor',
    groundOhms: 0.4,
    groundToReferenceV: 0,
    lamps: 'correct',
    hasNeutralGroundJumper: false,
  }
  const conduit = { circuit: { segments: [{ wiring: 'steel conduit' }] } }
  it('a ground carried on from a device that has one is no fault', () => {
    const outlet = { protection: 'GFCI', carriesGroundOn: true }
    const judged = (more: Node) =>
      judge('ground-carried-from-ungrounded-gfci', oneOutlet({ ...outlet, ...more }, conduit), 'p')
        .outcome
    expect(judged(raceway)).toBe('n/a')
    expect(judged({ ground: 'none' })).toBe('fault')
  })
  const luminaire = { type: 'luminaire', slots: undefined, hasMetalParts: true }
  it('metal is grounded by its raceway, once that is measured', () => {
    const judged = (more: Node) =>
      judge('metal-ungrounded', oneOutlet({ ...luminaire, ...more }, conduit), 'p').outcome
    expect(judged(raceway)).toBe('clear')
    expect(judged({ ground: 'metal raceway or armor' })).toBe('undecided')
  })
  it.each([
    [219, false],
    [220, true],
    [260, true],
    [261, false],
  ])('%i V between slots nobody has seen may be a 240 V receptacle: %s', (hotNeutralV, may) => {
    const { why } = judge('miswire', oneOutlet({ slots: undefined, hotNeutralV }), 'p')
    expect(why.text.includes('right for a 240 V receptacle')).toBe(may)
  })
  it.each([
    [2014, 'n/a'],
    [2017, 'fault'],
  ])('tamper-resistant: a receptacle of 250 V under the %i edition', (edition, outcome) => {
    const outlet = {
      slots: '240 V',
      deviceAmps: 20,
      isTamperResistant: false,
      isDedicated: false,
      isHigh: false,
      year: 2019,
    }
    const house = oneOutlet(outlet, { premises: { edition } })
    expect(judge('tamper-resistant', house, 'p').outcome).toBe(outcome)
  })
  it('an entry that says spare, on a breaker whose circuit has no outlet', () => {
    const spare = (outlets: Node[]): Node =>
      panel([{ id: 'b', space: 1, poles: 1, label: 'spare', circuit: { id: 'c', outlets } }], {
        directory: 'legible and specific',
      })
    const checks = (outlets: Node[]) =>
      judge('directory', spare(outlets), 'main').failures.map(f => f.id)
    expect(checks([{ id: 'p', type: 'receptacle' }])).toContain('spare-feeds-outlets')
    expect(checks([])).not.toContain('spare-feeds-outlets')
  })
  it('a screw of which only one half was seen', () => {
    const screw = (facts: Node): Node => ({
      ...panel([], {
        bars: [
          {
            id: 'bar',
            role: 'common',
            screws: 2,
            areAllScrewsSeen: true,
            screwList: [{ position: 1, ...facts }],
          },
        ],
      }),
    })
    const outcome = (facts: Node) => judge('doubled-neutral', screw(facts), 'bar').outcome
    expect(outcome({ neutrals: 1, grounds: 1 })).toBe('fault')
    expect(outcome({ neutrals: 1, grounds: 0 })).toBe('clear')
    expect(outcome({ neutrals: 1 })).toBe('undecided')
    expect(outcome({ grounds: 1 })).toBe('undecided')
  })
  const pipe = (more: Node, premises: Node): Node => ({
    ...panel(
      [],
      {
        marking: 'service disconnect',
        serviceSize: '4',
        serviceMetal: 'copper',
        year: premises.yearBuilt,
        electrodes: 'found',
      },
      premises,
    ),
    electrodes: [
      {
        id: 'e',
        type: 'water pipe',
        landsIn: 'main',
        landsOn: 'neutral bar',
        size: '8',
        metal: 'copper',
        connection: 'sound',
        isSpliced: false,
        isProtected: true,
        isJumpered: true,
        isTenFtInEarth: true,
        clampFt: 3,
        ...more,
      },
    ],
  })
  const service = (more: Node, premises: Node) =>
    judge('electrode-conductor', pipe(more, premises), 'main')
  it.each([
    [1977, 'allowed'],
    [1978, 'fault'],
  ])('a water pipe alone in a house of %i', (yearBuilt, outcome) => {
    const found = service({ year: yearBuilt }, { yearBuilt })
    expect(found.outcome).toBe(outcome)
    expect(found.failures.map(f => f.id)).toEqual(['water-pipe-alone'])
  })
  it('a jumper in a panel behind the service is none of the service', () => {
    const { enclosures } = panel([], { marking: 'service disconnect' }) as { enclosures: Node[] }
    const sub = {
      id: 'sub',
      type: 'panel',
      place: 'indoors',
      fedFrom: 'f',
      mainKind: 'main lugs',
      bondMeans: 'wire jumper',
      jumperSize: '14',
      jumperMetal: 'copper',
    }
    const behind = {
      ...panel([]),
      enclosures: [...enclosures, sub],
      feeders: [{ id: 'f', from: 'main', fromTerminals: 'load lugs' }],
    }
    expect(judge('bonding-jumper-size', behind, 'sub').outcome).toBe('n/a')
  })
  it.each([
    [2008, 'fault'],
    [2011, 'clear'],
  ])('service-entrance cable to a range is capped at 60 °C in %i: %s', (edition, outcome) => {
    const cable = {
      size: '6',
      metal: 'copper',
      wiring: 'SE',
      insulationC: 75,
      terminalsC: 75,
      isInInsulation: false,
    }
    const house = panel(
      [run(70, cable, { supplies: 'fixed appliance' }, { poles: 2 })],
      {},
      { edition },
    )
    expect(judge('overfused-conductor', house, 's').outcome).toBe(outcome)
  })
  it.each([
    [20, 6, true],
    [20, 6.5, false],
    [21, 6, false],
    [undefined, 6, undefined],
    [20, undefined, undefined],
  ])('flexible conduit behind %s A, %s ft long, is a ground: %s', (amps, feet, is) =>
    expect(canGround('flexible conduit', amps, feet)).toBe(is),
  )
  it('kilowatts of a 120 V appliance are amperes at 120 V', () => {
    const house = wire(20, { size: '12' }, { supplies: 'fixed appliance', applianceKw: 1.8 })
    const { outcome, why } = judge('load-over-circuit', house, 'c')
    expect(outcome).toBe('clear')
    expect(why.slots?.least).toBe(15)
  })
  it('a conduit of exactly 1 ohm is a ground, one above it is none', () => {
    const judged = (groundOhms: number) =>
      judge('metal-ungrounded', oneOutlet({ ...luminaire, ...raceway, groundOhms }, conduit), 'p')
        .outcome
    expect(judged(1)).toBe('clear')
    expect(judged(1.1)).not.toBe('clear')
  })
})
