import { diameterMm, gaugeOf } from '#core/tables/diameter'
import { electrodeConductorSize, equipmentGroundSize } from '#core/tables/grounding'
import { longestTripSeconds, tripBand } from '#core/tables/protective-devices'
import { heatOf } from '#core/diagnosis/heat'

describe('grounding tables', () => {
  it.each([
    [15, '14', '12'],
    [20, '12', '10'],
    [25, '10', '8'],
    [60, '10', '8'],
    [70, '8', '6'],
    [100, '8', '6'],
    [150, '6', '4'],
    [200, '6', '4'],
    [300, '4', '2'],
    [400, '3', '1'],
  ] as const)('a %i A device wants %s copper, %s aluminum', (amps, cu, al) => {
    expect([equipmentGroundSize(amps, 'copper'), equipmentGroundSize(amps, 'aluminum')]).toEqual([
      cu,
      al,
    ])
  })
  it.each([
    ['2', 'copper', '8', '6'],
    ['1/0', 'aluminum', '8', '6'],
    ['1', 'copper', '6', '4'],
    ['3/0', 'aluminum', '6', '4'],
    ['2/0', 'copper', '4', '2'],
    ['250', 'aluminum', '4', '2'],
    ['250', 'copper', '2', '1/0'],
    ['300', 'aluminum', '2', '1/0'],
    ['400', 'copper', '1/0', '3/0'],
    ['600', 'aluminum', '1/0', '3/0'],
  ] as const)('%s %s service: %s copper, %s aluminum to a water pipe', (size, metal, cu, al) => {
    expect([
      electrodeConductorSize(size, metal, 'copper', 'water pipe'),
      electrodeConductorSize(size, metal, 'aluminum', 'water pipe'),
    ]).toEqual([cu, al])
  })
  it('a rod never wants more than 6, a footing never more than 4', () => {
    expect(electrodeConductorSize('400', 'copper', 'copper', 'rod')).toBe('6')
    expect(electrodeConductorSize('400', 'copper', 'copper', 'concrete-encased')).toBe('4')
    expect(electrodeConductorSize('4', 'copper', 'copper', 'rod')).toBe('8')
  })
})

describe('bare diameter', () => {
  it.each([
    [14, 1.628],
    [12, 2.053],
    [10, 2.588],
    [8, 3.264],
    [6, 4.115],
  ])('%i AWG is %f mm', (n, mm) => expect(diameterMm(n)).toBeCloseTo(mm, 3))
  it.each([
    [1.63, '14'],
    [2.05, '12'],
    [2.5, '10'],
    [3.3, '8'],
    [4.1, '6'],
    [5.19, '4'],
  ])('%f mm is %s', (mm, size) => expect(gaugeOf(mm).size).toBe(size))
  it.each([
    [1.83, ['14', '12']],
    [2.31, ['12', '10']],
    [2.9, ['10', '8']],
  ])('%f mm lies half way and is neither', (mm, near) => {
    expect(gaugeOf(mm).size).toBeUndefined()
    expect([...gaugeOf(mm).nearest].sort()).toEqual([...near].sort())
  })
  it('far outside the trade sizes is none of them', () => expect(gaugeOf(0.8).size).toBeUndefined())
})

describe('protective devices', () => {
  it.each([
    [6, 5.59],
    [20, 1],
    [30, 0.56],
    [264, 0.025],
  ])('at %i mA within %f s', (ma, s) => expect(longestTripSeconds(ma)).toBeCloseTo(s, 2))
  it('under 6 mA it need not open', () => expect(longestTripSeconds(5)).toBeUndefined())
  it('the trip estimate is a band', () => {
    expect(tripBand(20, 20).withinSeconds).toBeUndefined()
    expect(tripBand(20, 40).withinSeconds).toBe(120)
    expect(tripBand(40, 80).withinSeconds).toBe(240)
    expect(tripBand(60, 120).withinSeconds).toBe(360)
    expect(tripBand(20, 27).withinSeconds).toBe(3600)
  })
})

describe('heat', () => {
  it('the worked line: 29 °C air, 55 °C at 16 of 30 A, neighbors 32 °C', () => {
    const heat = heatOf(
      [
        { id: 'b', temperatureC: 55, ratingAmps: 30, loadAmps: 16, isElectronic: false },
        { id: 'n', temperatureC: 32, ratingAmps: 20, isElectronic: false },
      ],
      29,
    )[0]!
    expect(heat).toMatchObject({
      overAirC: 26,
      airClass: 'watch and repair',
      overWarmestC: 23,
      likeClass: 'major',
      atRatedC: [71, 91],
      isWeak: false,
    })
    expect(heat.causes[0]!.cause).toBe('loose terminal or stab')
  })
  it('near full load the load is suspected first', () =>
    expect(
      heatOf(
        [{ id: 'b', temperatureC: 55, ratingAmps: 30, loadAmps: 27, isElectronic: false }],
        29,
      )[0]!.causes[0]!.cause,
    ).toContain('80 %'))
  it('electronics are compared with their own kind, less their own warmth', () => {
    const [a] = heatOf(
      [
        { id: 'a', temperatureC: 40, ratingAmps: 20, loadAmps: 2, isElectronic: true },
        { id: 'b', temperatureC: 39, ratingAmps: 20, isElectronic: true },
        { id: 'c', temperatureC: 25, ratingAmps: 20, isElectronic: false },
      ],
      25,
    )
    expect(a).toMatchObject({ overAirC: 5, overWarmestC: 1, isWeak: true })
  })
  const scan = (id: string, temperatureC: number, loadAmps?: number, isElectronic = false) => ({
    id,
    temperatureC,
    ratingAmps: 20,
    isElectronic,
    ...(loadAmps !== undefined && { loadAmps }),
  })
  it.each([
    ['nothing under a tenth of the rating', 1.9, undefined],
    ['a tenth scaled as 30 %', 2, [69, 111]],
    ['a quarter scaled as 30 %', 5, [69, 111]],
    ['30 % as it is', 6, [69, 111]],
    ['40 % as it is', 8, [43, 62]],
  ])('D5: %s', (_name, amps, atRatedC) =>
    expect(heatOf([scan('a', 35, amps)], 25)[0]!.atRatedC).toEqual(atRatedC),
  )
  it('D5: neighbors at a like load only, where both were clamped', () => {
    const over = (amps: number | undefined) =>
      heatOf([scan('a', 40, 12), scan('b', 30, amps)], 25)[0]!.overWarmestC
    expect([over(8), over(16), over(7.9), over(16.1), over(undefined)]).toEqual([
      10,
      10,
      undefined,
      undefined,
      10,
    ])
  })
  it('D5: an unloaded twin is the baseline of electronics', () => {
    const over = (twin: number, amps: number) =>
      heatOf([scan('a', 45, 10, true), scan('t', twin, amps, true)], 25)[0]!.overAirC
    expect([over(31, 0), over(31, 1), over(31, 1.1), over(20, 0)]).toEqual([14, 14, 10, 20])
  })
  it.each([
    [0, 'none'],
    [1, 'possible'],
    [11, 'probable'],
    [21, 'watch and repair'],
    [41, 'major'],
  ])('%f °C over air is %s', (over, expected) =>
    expect(
      heatOf([{ id: 'b', temperatureC: 20 + over, ratingAmps: 20, isElectronic: false }], 20)[0]!
        .airClass,
    ).toBe(expected),
  )
})
