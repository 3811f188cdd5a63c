/**
 * The load of a whole dwelling as the optional methods count it: 220.82 for a dwelling served anew, 220.83 for an
 * existing one. Volt-amperes throughout.
 */

/** General lighting and receptacles. 220.41, before 2023 220.12. */
export const VA_PER_FT2 = 3
/** Each small-appliance and laundry circuit. 220.52. */
export const VA_PER_CIRCUIT = 1500
/** Least a vehicle charger counts for, from the 2023 edition. 220.57. */
export const CHARGER_LEAST_VA = 7200
const CHARGER_LEAST_SINCE = 2023
/** What counts in full before the rest counts for less. */
const FULL_VA = { '220.82': 10_000, '220.83': 8_000 } as const
const REST_SHARE = 0.4
/** Separately controlled heaters from this number on are rarely all on. */
const MANY_UNITS = 4

export const HEATING_KINDS = ['central', 'separate units', 'heat pump', 'storage'] as const
export interface Heating {
  readonly kind: (typeof HEATING_KINDS)[number]
  readonly va: number
  /** Separately controlled units. */
  readonly units?: number
  /** Supplementary heat of a heat pump. */
  readonly supplementaryVa?: number
}
export interface DwellingLoads {
  readonly method: keyof typeof FULL_VA
  readonly floorAreaFt2: number
  readonly smallApplianceCircuits: number
  readonly laundryCircuits: number
  /** Fastened in place, permanently connected or on a circuit of their own, heating and cooling left out. */
  readonly appliances: readonly { readonly what: string; readonly va: number }[]
  readonly vehicleChargers?: readonly number[]
  readonly airConditioningVa?: number
  readonly heating?: Heating
  /** Heating or cooling is being added to the existing dwelling. 220.83(B). */
  readonly addsHeatingOrCooling?: boolean
  readonly edition: number
}
export interface LoadLine {
  readonly what: string
  readonly va: number
}
export interface DwellingLoad {
  readonly lines: readonly LoadLine[]
  readonly totalVa: number
}

const round = Math.round

/** Adds the loads up by the method named, with every line of the sum. 220.82, 220.83. */
export function dwellingLoad(loads: DwellingLoads): DwellingLoad {
  const lines: LoadLine[] = []
  const add = (what: string, va: number) => {
    if (va > 0) lines.push({ what, va: round(va) })
    return va
  }
  const { method, edition } = loads
  const circuits = loads.smallApplianceCircuits + loads.laundryCircuits
  let general =
    add(`${loads.floorAreaFt2} ft² at ${VA_PER_FT2} VA`, loads.floorAreaFt2 * VA_PER_FT2) +
    add(`${circuits} small-appliance and laundry circuits`, circuits * VA_PER_CIRCUIT)
  for (const a of loads.appliances) general += add(a.what, a.va)
  for (const va of loads.vehicleChargers ?? []) {
    const least = edition >= CHARGER_LEAST_SINCE ? CHARGER_LEAST_VA : 0
    general += add('vehicle charger', Math.max(va, least))
  }
  const climate = climateOf(loads)
  // Without anything added an existing dwelling counts heating and cooling among the rest. 220.83(A).
  if (climate.isGeneral) general += add(climate.what, climate.va)
  const full = FULL_VA[method]
  const counted = Math.min(general, full) + REST_SHARE * Math.max(0, general - full)
  if (general > full)
    lines.push({
      what: `first ${full} VA in full, the rest at ${REST_SHARE * 100} %`,
      va: round(counted),
    })
  const apart = climate.isGeneral ? 0 : add(climate.what, climate.va)
  return { lines, totalVa: round(counted + apart) }
}

/** The larger of heating and cooling, at the share the method gives it. 220.82(C), 220.83(B). */
function climateOf(loads: DwellingLoads): { what: string; va: number; isGeneral: boolean } {
  const cooling = loads.airConditioningVa ?? 0
  const heating = heatingVa(loads)
  const isMany = areMany(loads.heating?.units)
  if (loads.method === '220.83' && !loads.addsHeatingOrCooling) {
    const connected = loads.heating ? loads.heating.va + (loads.heating.supplementaryVa ?? 0) : 0
    const va = Math.max(cooling, connected)
    return { what: 'heating or cooling, the larger', va, isGeneral: true }
  }
  // Four separate heaters and more are among the rest of an existing dwelling.
  if (loads.method === '220.83' && isMany && heating > cooling)
    return { what: 'separately controlled heaters', va: heating, isGeneral: true }
  return cooling >= heating
    ? { what: 'cooling', va: cooling, isGeneral: false }
    : { what: 'heating', va: heating, isGeneral: false }
}

const areMany = (units: number | undefined): boolean => units !== undefined && units >= MANY_UNITS

function heatingVa({ heating, method }: DwellingLoads): number {
  if (!heating) return 0
  const extra = heating.supplementaryVa ?? 0
  if (method === '220.83') return heating.va + extra
  switch (heating.kind) {
    case 'heat pump':
      return heating.va + 0.65 * extra
    case 'storage':
      return heating.va
    case 'central':
      return 0.65 * heating.va
    case 'separate units':
      return (areMany(heating.units) ? 0.4 : 0.65) * heating.va
  }
}
