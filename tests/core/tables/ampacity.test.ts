import { allowedDevice, type Run } from '#core/tables/allowed-device'
import {
  ambientFactor,
  bundlingFactor,
  SIZES,
  smallConductorLimit,
  standardRatings,
  tableAmpacity,
  wholeDwellingRating,
} from '#core/tables/ampacity'
import { equipmentGroundSize } from '#core/tables/grounding'
import { render } from '#core/engine/say'

const base: Run = {
  size: '12',
  metal: 'copper',
  isCopperClad: false,
  insulation: 90,
  isCappedAt60: true,
  terminals: 60,
  ambientC: 30,
  currentCarrying: 3,
  feedsSeveralReceptacles: false,
  carriesWholeDwelling: false,
}
const nm = (size: Run['size'], more: Partial<Run> = {}): Run => ({ ...base, size, ...more })

describe('the largest device a conductor may stand behind', () => {
  it.each<[string, Run, number]>([
    ['14 Cu NM-B', nm('14'), 15],
    ['12 Cu NM-B', nm('12'), 20],
    ['10 Cu NM-B', nm('10'), 30],
    ['8 Cu NM-B', nm('8'), 40],
    ['6 Cu NM-B to a fixed appliance', nm('6'), 60],
    [
      '7–9 current-carrying 12 TW in one pipe, fixed load',
      { ...base, insulation: 60, isCappedAt60: false, currentCarrying: 8 },
      15,
    ],
    [
      'the same feeding several receptacles: no rounding up',
      {
        ...base,
        insulation: 60,
        isCappedAt60: false,
        currentCarrying: 8,
        feedsSeveralReceptacles: true,
      },
      14,
    ],
    ['10 CCA NM-B', nm('10', { metal: 'aluminum', isCopperClad: true }), 25],
    ['8 CCA NM-B', nm('8', { metal: 'aluminum', isCopperClad: true }), 35],
    [
      '6 Al, 75 °C terminals both ends, SE',
      {
        ...base,
        size: '6',
        metal: 'aluminum',
        insulation: 75,
        isCappedAt60: false,
        terminals: 75,
      },
      50,
    ],
    [
      '2 Al feeder, part of the dwelling, 75 °C',
      {
        ...base,
        size: '2',
        metal: 'aluminum',
        insulation: 75,
        isCappedAt60: false,
        terminals: 75,
      },
      90,
    ],
    [
      '2 Al, whole dwelling',
      {
        ...base,
        size: '2',
        metal: 'aluminum',
        insulation: 75,
        isCappedAt60: false,
        terminals: 75,
        carriesWholeDwelling: true,
      },
      100,
    ],
    [
      '1/0 Al feeder, part of the dwelling, 75 °C',
      {
        ...base,
        size: '1/0',
        metal: 'aluminum',
        insulation: 75,
        isCappedAt60: false,
        terminals: 75,
      },
      125,
    ],
    [
      'nine current-carrying 12 THHN in one pipe, 60 °C terminals',
      { ...base, isCappedAt60: false, currentCarrying: 9 },
      20,
    ],
    ['12 NM-B in a 50 °C attic', nm('12', { ambientC: 50 }), 20],
    ['twelve current-carrying 12 NM-B bundled', nm('12', { currentCarrying: 12 }), 15],
    ['14 aluminum is no conductor', nm('14', { metal: 'aluminum' }), 0],
  ])('%s', (_name, run, amps) => {
    expect(allowedDevice(run, 2020).allowed).toBe(amps)
  })

  it('shows the sum', () => {
    const { working, ampacity } = allowedDevice(nm('12', { ambientC: 50 }), 2020)
    expect(ampacity).toBe(20)
    expect(working.map(render).join('\n')).toContain('30 × 0.82 × 1 = 24.6 A')
  })
  it('keeps 60 °C terminals at 100 A or less and 75 °C above', () => {
    const thhn = { ...base, isCappedAt60: false }
    expect(allowedDevice({ ...thhn, size: '1' }, 2020).ampacity).toBe(110)
    expect(allowedDevice({ ...thhn, size: '1/0' }, 2020).ampacity).toBe(150)
  })
  it('uses the 2008 values where that edition is judged', () => {
    const eight = nm('8', { metal: 'aluminum', isCopperClad: true })
    expect(allowedDevice(eight, 2008).allowed).toBe(30)
    expect(allowedDevice(eight, 2011).allowed).toBe(35)
    expect(tableAmpacity('14', 'copper', 60, 2008)).toBe(20)
    expect(tableAmpacity('6', 'aluminum', 90, 2008)).toBe(60)
    expect(tableAmpacity('6', 'aluminum', 90, 2011)).toBe(55)
    expect([
      tableAmpacity('3', 'copper', 90, 2008),
      tableAmpacity('1', 'copper', 90, 2008),
    ]).toEqual([110, 150])
  })
  it('cites the table as the edition numbers it', () => {
    const cited = (edition: 2008 | 2014 | 2020) =>
      render(allowedDevice(nm('12'), edition).working[0]!)
    expect(cited(2008)).toContain('table 310.16')
    expect(cited(2014)).toContain('table 310.15(B)(16)')
    expect(cited(2020)).toContain('table 310.16')
  })
})

describe('the tables behind it', () => {
  it('never let a larger conductor carry less', () => {
    for (const metal of ['copper', 'aluminum'] as const)
      for (const column of [60, 75, 90] as const) {
        const amps = SIZES.map(s => tableAmpacity(s, metal, column, 2020)).filter(
          a => a !== undefined,
        )
        expect(amps.length).toBeGreaterThan(15)
        expect(amps).toEqual([...amps].sort((a, b) => a - b))
      }
  })
  it('correct for ambient on both sides of a band', () => {
    expect([
      ambientFactor(30, 60),
      ambientFactor(30.1, 60),
      ambientFactor(35, 60),
      ambientFactor(36, 60),
    ]).toEqual([1, 0.91, 0.91, 0.82])
    expect([
      ambientFactor(5, 90),
      ambientFactor(56, 60),
      ambientFactor(85, 90),
      ambientFactor(86, 90),
    ]).toEqual([1.15, 0, 0.29, 0])
  })
  it('adjust for bundling on both sides of a step', () => {
    expect([3, 4, 6, 7, 9, 10, 20, 21, 30, 31, 40, 41].map(bundlingFactor)).toEqual([
      1, 0.8, 0.8, 0.7, 0.7, 0.5, 0.5, 0.45, 0.45, 0.4, 0.4, 0.35,
    ])
  })
  it('limit small conductors', () => {
    expect([
      smallConductorLimit('14', 'copper', false, 2020),
      smallConductorLimit('12', 'copper', false, 2020),
      smallConductorLimit('10', 'copper', false, 2020),
      smallConductorLimit('8', 'copper', false, 2020),
    ]).toEqual([15, 20, 30, undefined])
    expect([
      smallConductorLimit('12', 'aluminum', false, 2020),
      smallConductorLimit('10', 'aluminum', true, 2020),
    ]).toEqual([15, 25])
    expect([
      smallConductorLimit('14', 'aluminum', true, 2020),
      smallConductorLimit('14', 'aluminum', true, 2023),
    ]).toEqual([undefined, 10])
  })
  it('know the 10 A device from 2023', () => {
    expect(standardRatings(2020)[0]).toBe(15)
    expect(standardRatings(2023)[0]).toBe(10)
  })
  it.each([
    ['4', 'copper', 100],
    ['2', 'aluminum', 100],
    ['1', 'aluminum', 110],
    ['1/0', 'aluminum', 125],
    ['2/0', 'copper', 200],
    ['4/0', 'aluminum', 200],
    ['6', 'copper', undefined],
  ] as const)('whole dwelling: %s %s → %s', (size, metal, amps) => {
    expect(wholeDwellingRating(size, metal)).toBe(amps)
  })
  it.each([
    [15, 'copper', '14'],
    [20, 'copper', '12'],
    [25, 'copper', '10'],
    [30, 'copper', '10'],
    [60, 'copper', '10'],
    [70, 'copper', '8'],
    [200, 'copper', '6'],
    [200, 'aluminum', '4'],
    [400, 'copper', '3'],
    [401, 'copper', undefined],
  ] as const)('ground for %s A %s: %s', (amps, metal, size) => {
    expect(equipmentGroundSize(amps, metal)).toBe(size)
  })
})
