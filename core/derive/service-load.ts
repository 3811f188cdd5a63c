import { valueOf, type FactRef, type Subject } from '../model/house'
import { dwellingLoad, type DwellingLoad } from '../tables/dwelling-load'
import { applianceAmpsOf } from './load'
import type { Site } from './site'

export interface ServiceLoad {
  /** By what is recorded: the least the dwelling can have. Undefined while the floor area is not known. */
  readonly load: DwellingLoad | undefined
  readonly amps: number | undefined
  /** Everything that counts has been recorded. */
  readonly isWhole: boolean
  readonly rests: readonly FactRef[]
}

const SMALL = 'kitchen small-appliance'
/** Every dwelling has two of these and a laundry circuit counted, whatever was found. 220.52. */
const LEAST_SMALL = 2

/** The load of the existing dwelling from its circuits and floor area. 220.83(A). */
export function serviceLoadOf(site: Site): ServiceLoad {
  const { floorAreaFt2, areAppliancesRecorded, supply } = site.premises.facts
  const rests: FactRef[] = [floorAreaFt2, areAppliancesRecorded, supply]
  const area = valueOf(site.premises, 'floorAreaFt2')
  const volts = valueOf(site.premises, 'supply') === '208Y/120 V' ? 208 : 240
  let isWhole = valueOf(site.premises, 'areAppliancesRecorded') === true
  const appliances: { what: string; va: number }[] = []
  const chargers: number[] = []
  let small = 0
  let cooling = 0
  let heating = 0
  for (const circuit of site.all.circuit) {
    const use = valueOf(circuit, 'requiredUse')
    if (use === SMALL) small++
    const supplies = valueOf(circuit, 'supplies')
    const va = vaOf(site, circuit)
    if (supplies === undefined) isWhole = false
    if (va === undefined) {
      if (supplies !== undefined && FIXED.has(supplies)) {
        isWhole = false
        rests.push(circuit.facts.applianceKw)
      }
      continue
    }
    rests.push(...va.rests)
    if (!va.isExact) isWhole = false
    if (supplies === 'vehicle charger') chargers.push(va.least)
    else if (supplies === 'air conditioning') cooling += va.least
    else if (supplies === 'space heating') heating += va.least
    else
      appliances.push({ what: valueOf(circuit, 'label') ?? supplies ?? 'appliance', va: va.least })
  }
  if (area === undefined) return { load: undefined, amps: undefined, isWhole: false, rests }
  const load = dwellingLoad({
    method: '220.83',
    floorAreaFt2: area,
    smallApplianceCircuits: Math.max(LEAST_SMALL, small),
    laundryCircuits: 1,
    appliances,
    vehicleChargers: chargers,
    airConditioningVa: cooling,
    heating: { kind: 'central', va: heating },
    edition: site.edition,
  })
  return { load, amps: Math.round((10 * load.totalVa) / volts) / 10, isWhole, rests }
}

/** What a circuit supplies that is fastened in place or on a circuit of its own. */
const FIXED: ReadonlySet<string> = new Set([
  'fixed appliance',
  'cooking appliance',
  'water heater',
  'space heating',
  'air conditioning',
  'motor',
  'vehicle charger',
])

/** Volt-amperes of the appliance on a circuit; nothing where none was read, or where it feeds ordinary outlets. */
function vaOf(
  site: Site,
  circuit: Subject<'circuit'>,
): { least: number; isExact: boolean; rests: readonly FactRef[] } | undefined {
  const kw = valueOf(circuit, 'applianceKw')
  if (kw !== undefined)
    return { least: kw * 1000, isExact: true, rests: [circuit.facts.applianceKw] }
  const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
  const poles = valueOf(breaker, 'poles')
  if (valueOf(circuit, 'applianceAmps') === undefined) return undefined
  const amps = applianceAmpsOf(site, circuit)
  const volts = poles === 1 ? 120 : valueOf(site.premises, 'supply') === '208Y/120 V' ? 208 : 240
  // Nobody has said of how many poles its breaker is: at least 120 V.
  const least = poles === undefined ? 120 * amps.from : volts * amps.from
  return { least, isExact: poles !== undefined, rests: amps.rests }
}
