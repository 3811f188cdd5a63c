import { AREAS, electrodeConductorSize } from '#core/tables/grounding'
import { ADOPTION_LAG, isEditionYear } from '#core/tables/years'
import { diameterMm, gaugeOf } from '#core/tables/diameter'
import { judge, oneOutlet, panel, type Node } from '../../support/house'

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
