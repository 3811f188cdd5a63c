import { dwellingLoad, type DwellingLoads } from '#core'

const house: DwellingLoads = {
  method: '220.83',
  floorAreaFt2: 1500,
  smallApplianceCircuits: 2,
  laundryCircuits: 1,
  appliances: [
    { what: 'range', va: 12000 },
    { what: 'dryer', va: 5000 },
    { what: 'water heater', va: 4500 },
    { what: 'dishwasher', va: 1200 },
  ],
  edition: 2020,
}
const total = (more: Partial<DwellingLoads> = {}) => dwellingLoad({ ...house, ...more }).totalVa

describe('load of a dwelling (220.82, 220.83)', () => {
  // 4 500 lighting, 4 500 circuits, 22 700 appliances: 31 700; 8 000 + 0.4 × 23 700.
  it('an existing dwelling: the first 8 kVA in full, the rest at 40 %', () => {
    expect(total()).toBe(17480)
    expect(total({ appliances: [], floorAreaFt2: 1000 })).toBe(7500)
  })
  it.each<[string, Partial<DwellingLoads>, number]>([
    ['cooling that is there counts among the rest', { airConditioningVa: 5000 }, 17480 + 2000],
    [
      'cooling that is added counts in full',
      { airConditioningVa: 5000, addsHeatingOrCooling: true },
      17480 + 5000,
    ],
    [
      'only the larger of heating and cooling',
      {
        airConditioningVa: 5000,
        heating: { kind: 'central', va: 10000 },
        addsHeatingOrCooling: true,
      },
      17480 + 10000,
    ],
    [
      'four separate heaters are among the rest',
      { heating: { kind: 'separate units', units: 4, va: 6000 }, addsHeatingOrCooling: true },
      17480 + 2400,
    ],
    [
      'three separate heaters in full',
      { heating: { kind: 'separate units', units: 3, va: 6000 }, addsHeatingOrCooling: true },
      17480 + 6000,
    ],
    ['a charger at its own', { vehicleChargers: [5000] }, 17480 + 2000],
    [
      'a charger from 2023 at 7200 at least',
      { vehicleChargers: [5000], edition: 2023 },
      17480 + 2880,
    ],
    ['a larger charger at its own', { vehicleChargers: [11520], edition: 2023 }, 17480 + 4608],
  ])('%s', (_name, more, va) => expect(total(more)).toBe(va))
  // 10 000 + 0.4 × 21 700 = 18 680 in general loads.
  it.each<[string, Partial<DwellingLoads>, number]>([
    ['nothing else', {}, 18680],
    ['cooling in full', { airConditioningVa: 5000 }, 18680 + 5000],
    ['central heat at 65 %', { heating: { kind: 'central', va: 10000 } }, 18680 + 6500],
    [
      'three heaters at 65 %',
      { heating: { kind: 'separate units', units: 3, va: 6000 } },
      18680 + 3900,
    ],
    ['four at 40 %', { heating: { kind: 'separate units', units: 4, va: 6000 } }, 18680 + 2400],
    [
      'a heat pump in full, its supplement at 65 %',
      { heating: { kind: 'heat pump', va: 4000, supplementaryVa: 10000 } },
      18680 + 10500,
    ],
    ['storage heat in full', { heating: { kind: 'storage', va: 9000 } }, 18680 + 9000],
  ])('by 220.82: %s', (_name, more, va) => expect(total({ method: '220.82', ...more })).toBe(va))
  it('every line is in the sum', () => {
    const lines = dwellingLoad({ ...house, vehicleChargers: [9600] }).lines.map(l => l.what)
    expect(lines).toEqual([
      '1500 ft² at 3 VA',
      '3 small-appliance and laundry circuits',
      'range',
      'dryer',
      'water heater',
      'dishwasher',
      'vehicle charger',
      'first 8000 VA in full, the rest at 40 %',
    ])
  })
})
