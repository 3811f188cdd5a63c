import {
  typedIn,
  type Units,
  BOX_VOLUME,
  CONDUCTOR_VOLUME,
  EDITIONS,
  HEATING_KINDS,
  LAMPS,
  SIZES,
} from '#core'

/** One thing a sum asks for, as the Bench shows it. */
export interface BenchField {
  key: string
  label: string
  unit?: string
  options?: readonly (string | number)[]
  yesNo?: boolean
  hint?: string
}
const METALS = [
  'copper',
  'aluminum',
  'copper-clad aluminum',
  'copper-looking',
  'silver-looking',
] as const
const COLORS = ['copper color', 'silver color'] as const

/** Inputs of the sums that are plain fields. What is left open is unknown, never assumed. */
export const BENCH: Record<string, readonly BenchField[]> = {
  ampacity: [
    { key: 'size', label: 'Size', unit: 'AWG', options: SIZES.slice(0, 13) },
    { key: 'metal', label: 'Metal', options: METALS },
    {
      key: 'wiring',
      label: 'Wiring',
      options: ['NM-B', 'NM', 'cloth NM', 'UF', 'knob-and-tube', 'raceway', 'SE', 'MC'],
    },
    { key: 'insulationC', label: 'Insulation', unit: '°C', options: [60, 75, 90] },
    { key: 'terminalsC', label: 'Terminals, both ends', unit: '°C', options: [60, 75] },
    { key: 'ambientC', label: 'Air', unit: '°C' },
    { key: 'currentCarrying', label: 'Current-carrying together' },
    { key: 'feedsSeveralReceptacles', label: 'Feeds several receptacles', yesNo: true },
    { key: 'carriesWholeDwelling', label: 'Carries the whole dwelling', yesNo: true },
    { key: 'breakerAmps', label: 'Breaker', unit: 'A' },
    { key: 'edition', label: 'Edition', options: EDITIONS },
  ],
  diagnose: [
    { key: 'lamps', label: 'Lamp tester', options: LAMPS },
    { key: 'hotNeutral', label: 'Hot to neutral', unit: 'V' },
    { key: 'hotGround', label: 'Hot to ground', unit: 'V' },
    { key: 'neutralGround', label: 'Neutral to ground', unit: 'V' },
    { key: 'groundEarth', label: 'Ground to reference', unit: 'V', hint: 'proved, long lead' },
    { key: 'narrowEarth', label: 'Narrow slot to reference', unit: 'V', hint: 'proved, long lead' },
    { key: 'dropPercent', label: 'Drop under load', unit: '%' },
    { key: 'neutralGroundLoaded', label: 'Neutral to ground, loaded', unit: 'V' },
    { key: 'groundOhms', label: 'Ground impedance', unit: 'Ω', hint: '100000 for open' },
    { key: 'groundClampAmps', label: 'In the ground, loaded', unit: 'A' },
    { key: 'otherHalf', label: 'Other half of the pair', unit: 'V' },
    { key: 'panelLegNeutral', label: 'This leg at the panel', unit: 'V' },
    { key: 'panelOtherLegNeutral', label: 'Other leg at the panel', unit: 'V' },
    {
      key: 'electrodeAmps',
      label: 'In the electrode conductor',
      unit: 'A',
      hint: 'large loads on',
    },
    { key: 'detectorOnGround', label: 'Detector alarms on ground', yesNo: true },
    { key: 'jumperSeen', label: 'Jumper in the box', yesNo: true },
    { key: 'setting.meter', label: 'Meter impedance', options: ['low', 'high'] },
    { key: 'setting.loadsOn', label: 'Loads on this neutral', yesNo: true },
    { key: 'setting.runFt', label: 'Run to the panel', unit: 'ft' },
    { key: 'setting.testAmps', label: 'Test load', unit: 'A' },
  ],
  identify: [
    { key: 'surface', label: 'Surface of the bare end', options: COLORS },
    { key: 'core', label: 'Under the surface', options: COLORS, hint: 'scrape or fresh cut' },
    { key: 'legend', label: 'Print', options: ['CU', 'AL', 'CU-CLAD'] },
    { key: 'isSoft', label: 'Bends softly', yesNo: true },
    { key: 'insulation', label: 'Insulation', options: ['rubber or cloth', 'plastic'] },
    { key: 'year', label: 'Year' },
    { key: 'bareMm', label: 'Bare diameter', unit: 'mm' },
    { key: 'size', label: 'Slide gauge', unit: 'AWG', options: SIZES.slice(0, 10) },
  ],
  boxfill: [
    { key: 'box', label: 'Box', options: Object.keys(BOX_VOLUME) },
    { key: 'volumeIn3', label: 'or marked volume', unit: 'in³' },
    { key: 'conductors.14', label: '14 AWG ending here' },
    { key: 'conductors.12', label: '12 AWG ending here' },
    { key: 'conductors.10', label: '10 AWG ending here' },
    { key: 'grounds.count', label: 'Grounding conductors' },
    {
      key: 'grounds.size',
      label: 'their size',
      unit: 'AWG',
      options: Object.keys(CONDUCTOR_VOLUME).slice(2, 5),
    },
    { key: 'hasInternalClamps', label: 'Clamps inside', yesNo: true },
    { key: 'yokes', label: 'Device yokes' },
    { key: 'supportFittings', label: 'Studs, hickeys' },
    { key: 'edition', label: 'Edition', options: EDITIONS },
  ],
  'voltage-drop': [
    { key: 'size', label: 'Size', unit: 'AWG', options: SIZES.slice(0, 13) },
    { key: 'metal', label: 'Metal', options: ['copper', 'aluminum'] },
    { key: 'lengthFt', label: 'Length, one way', unit: 'ft' },
    { key: 'amps', label: 'Load', unit: 'A' },
    { key: 'volts', label: 'Voltage', unit: 'V' },
  ],
  'gfci-time': [
    { key: 'milliamperes', label: 'Current to ground', unit: 'mA' },
    { key: 'measuredSeconds', label: 'Measured', unit: 's' },
  ],
  'working-space': [
    { key: 'depthIn', label: 'Depth', unit: 'in' },
    { key: 'widthIn', label: 'Width', unit: 'in' },
    { key: 'heightIn', label: 'Height', unit: 'in' },
    { key: 'equipmentWidthIn', label: 'Width of the equipment', unit: 'in' },
  ],
  'dwelling-load': [
    { key: 'method', label: 'Method', options: ['220.83', '220.82'] },
    { key: 'floorAreaFt2', label: 'Floor area', unit: 'ft²' },
    { key: 'smallApplianceCircuits', label: 'Small-appliance circuits' },
    { key: 'appliances.range', label: 'Range and ovens', unit: 'VA' },
    { key: 'appliances.dryer', label: 'Dryer', unit: 'VA' },
    { key: 'appliances.water heater', label: 'Water heater', unit: 'VA' },
    { key: 'appliances.other fixed appliances', label: 'Other fixed appliances', unit: 'VA' },
    { key: 'vehicleChargers', label: 'Vehicle charger', unit: 'VA' },
    { key: 'airConditioningVa', label: 'Air conditioning', unit: 'VA' },
    { key: 'heating.va', label: 'Electric heating', unit: 'VA' },
    { key: 'heating.kind', label: 'Kind of heating', options: HEATING_KINDS },
    { key: 'addsHeatingOrCooling', label: 'Heating or cooling being added', yesNo: true },
    { key: 'serviceAmps', label: 'Service', unit: 'A' },
    { key: 'edition', label: 'Edition', options: EDITIONS },
  ],
  'trip-estimate': [
    { key: 'rating', label: 'Breaker', unit: 'A' },
    { key: 'amps', label: 'Current', unit: 'A' },
  ],
}
/** One worked example of each, as the form holds it. */
export const BENCH_EXAMPLES: Record<string, Readonly<Record<string, unknown>>> = {
  diagnose: {
    lamps: 'correct',
    hotNeutral: 120,
    hotGround: 120,
    neutralGround: 0,
    'setting.meter': 'low',
  },
  ampacity: { size: '14', metal: 'copper', wiring: 'NM-B', breakerAmps: 20, edition: 2020 },
  boxfill: {
    volumeIn3: 18,
    'conductors.12': 6,
    'grounds.count': 3,
    'grounds.size': '12',
    hasInternalClamps: true,
    yokes: 1,
    edition: 2020,
  },
  identify: { surface: 'copper color', core: 'silver color', year: 1972, bareMm: 2.59 },
  'voltage-drop': { size: '12', metal: 'copper', lengthFt: 100, amps: 15, volts: 120 },
  'gfci-time': { milliamperes: 30, measuredSeconds: 0.4 },
  'working-space': { depthIn: 36, widthIn: 34, heightIn: 80, equipmentWidthIn: 36 },
  'dwelling-load': {
    method: '220.83',
    floorAreaFt2: 1500,
    smallApplianceCircuits: 2,
    'appliances.range': 12000,
    'appliances.dryer': 5000,
    airConditioningVa: 5000,
    addsHeatingOrCooling: true,
    serviceAmps: 100,
  },
  'trip-estimate': { rating: 20, amps: 40 },
}
export const BENCH_NAMES: Record<string, string> = {
  diagnose: 'Readings',
  trace: 'Tracing',
  ampacity: 'Ampacity',
  boxfill: 'Box fill',
  identify: 'Conductor',
  heat: 'Heat',
  'voltage-drop': 'Voltage drop',
  'gfci-time': 'Trip time',
  'dwelling-load': 'Load of a dwelling',
  'working-space': 'Working space',
  'trip-estimate': 'Trip estimate',
}

/** The form’s values as the sum takes them. */
export function benchInput(
  id: string,
  values: Readonly<Record<string, unknown>>,
  units?: Units,
): unknown {
  const fields = new Map((BENCH[id] ?? []).map(f => [f.key, f]))
  // Air is typed in the unit that is shown; ratings, which are chosen from a list, are printed in °C.
  const declared = (key: string, value: unknown) => {
    const field = fields.get(key)
    const isTyped = field?.unit === '°C' && !field.options && typeof value === 'number'
    return isTyped ? typedIn('°C', units).declared(value) : value
  }
  const given = Object.fromEntries(
    Object.entries(values)
      .filter(([, v]) => v !== undefined && v !== '')
      .map(([k, v]) => [k, declared(k, v)]),
  )
  if (id === 'diagnose') {
    const readings = Object.fromEntries(
      Object.entries(given).filter(([k]) => !k.startsWith('setting.')),
    )
    return {
      readings,
      setting: Object.fromEntries(
        Object.entries(given)
          .filter(([k]) => k.startsWith('setting.'))
          .map(([k, v]) => [k.slice(8), v]),
      ),
    }
  }
  if (id === 'boxfill') {
    const conductors = (['14', '12', '10'] as const).flatMap(size =>
      given[`conductors.${size}`] ? [{ size, count: given[`conductors.${size}`] }] : [],
    )
    const largest = conductors.at(-1)?.size ?? '14'
    const { box, volumeIn3, hasInternalClamps, supportFittings, edition } = given
    return {
      ...(box !== undefined && volumeIn3 === undefined && { box }),
      ...(volumeIn3 !== undefined && { volumeIn3 }),
      ...(hasInternalClamps !== undefined && { hasInternalClamps }),
      ...(supportFittings !== undefined && { supportFittings }),
      ...(edition !== undefined && { edition }),
      conductors,
      devices: Array.from({ length: Number(given.yokes ?? 0) }, () => ({ largest })),
      ...(given['grounds.count']
        ? { grounds: { size: given['grounds.size'] ?? largest, count: given['grounds.count'] } }
        : {}),
    }
  }
  if (id === 'dwelling-load') {
    const appliances = Object.entries(given)
      .filter(([k]) => k.startsWith('appliances.'))
      .map(([k, va]) => ({ what: k.slice(11), va }))
    const { vehicleChargers, ...rest } = Object.fromEntries(
      Object.entries(given).filter(([k]) => !/^(appliances|heating)\./.test(k)),
    )
    return {
      ...rest,
      appliances,
      ...(vehicleChargers !== undefined && { vehicleChargers: [vehicleChargers] }),
      ...(given['heating.va'] !== undefined && {
        heating: { kind: given['heating.kind'] ?? 'central', va: given['heating.va'] },
      }),
    }
  }
  return given
}
