import { valueOf, whereSeen, type FactRef, type Subject } from '../model/house'
import { dwellingLoad, type DwellingLoad } from '../tables/dwelling-load'
import type { Site } from './site'
import { Trail } from './trail'

export interface ServiceLoad {
  /** By what is recorded, at each voltage the supply can have: the least the dwelling can have. */
  readonly loads: readonly { readonly load: DwellingLoad; readonly amps: number }[]
  /** Everything that counts has been recorded. */
  readonly isWhole: boolean
  readonly rests: readonly FactRef[]
}

/** First edition with energy management systems. 750.30. */
const HELD_OFF_SINCE = 2014
const SMALL = 'kitchen small-appliance'
/** Every dwelling has two of these and a laundry circuit counted, whatever was found. 220.52. */
const LEAST_SMALL = 2
const SUPPLY_VOLTS = { '120/240 V single phase': 240, '208Y/120 V': 208 } as const

/** The load of the existing dwelling from its circuits and floor area; no sum without the area. 220.83(A). */
export function serviceLoadOf(site: Site): ServiceLoad {
  const trail = new Trail()
  const area = trail.ask(site.premises.facts.floorAreaFt2)
  const supply = trail.ask(site.premises.facts.supply)
  let isWhole = trail.ask(site.premises.facts.areAppliancesRecorded) === true
  const found: Found[] = []
  for (const circuit of site.all.circuit) {
    const one = findOn(site, circuit, trail)
    if (!one.isSettled) isWhole = false
    found.push(one)
  }
  if (area === undefined) return { loads: [], isWhole: false, rests: trail.rests }
  const volts = supply === undefined ? Object.values(SUPPLY_VOLTS) : [SUPPLY_VOLTS[supply]]
  const small = found.filter(f => f.isSmallAppliance).length
  const loads = volts.map(v => {
    const of = (supplies: string) => found.filter(f => f.supplies === supplies).map(f => f.va(v))
    const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)
    const load = dwellingLoad({
      method: '220.83',
      floorAreaFt2: area,
      smallApplianceCircuits: Math.max(LEAST_SMALL, small),
      laundryCircuits: 1,
      appliances: found
        .filter(f => !APART.has(f.supplies ?? ''))
        .map(f => ({ what: f.what, va: f.va(v) })),
      vehicleChargers: of('vehicle charger'),
      airConditioningVa: sum(of('air conditioning')),
      heating: { kind: 'central', va: sum(of('space heating')) },
      edition: site.edition,
    })
    return { load, amps: Math.round((10 * load.totalVa) / v) / 10 }
  })
  return { loads, isWhole, rests: trail.rests }
}

/** Counted on lines of their own. */
const APART: ReadonlySet<string> = new Set(['vehicle charger', 'air conditioning', 'space heating'])

/** What one circuit adds. */
class Found {
  constructor(
    private readonly circuit: Subject<'circuit'>,
    readonly supplies: string | undefined,
    readonly isSmallAppliance: boolean,
    readonly isSettled: boolean,
    /** As read in kilowatts, or in amperes. */
    private readonly fixedVa: number = 0,
    private readonly amps: number = 0,
    /** It runs hot to hot, at the voltage of the supply. */
    private readonly isAcross: boolean = false,
  ) {}

  get what(): string {
    return valueOf(this.circuit, 'label') ?? this.supplies ?? 'appliance'
  }
  /** Volt-amperes by the voltage of the supply; 0 where nothing was read, or ordinary outlets are fed. */
  va(supplyVolts: number): number {
    return this.fixedVa + this.amps * (this.isAcross ? supplyVolts : 120)
  }
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

/** What one circuit adds, and whether all that tells has been seen. */
function findOn(site: Site, circuit: Subject<'circuit'>, trail: Trail): Found {
  const supplies = trail.ask(circuit.facts.supplies)
  const use = whereSeen(circuit.facts.requiredUse) && trail.ask(circuit.facts.requiredUse)
  const isSmall = use === SMALL
  const isKnown = supplies !== undefined
  // What a listed controller holds off does not run on top of the rest; the code knows them from 2014 on. 750.30.
  const { isHeldOff } = circuit.facts
  const isOff = whereSeen(isHeldOff) && trail.ask(isHeldOff) === true
  if (isOff && site.edition >= HELD_OFF_SINCE) return new Found(circuit, supplies, isSmall, isKnown)
  const kw = whereSeen(circuit.facts.applianceKw) && trail.ask(circuit.facts.applianceKw)
  if (kw !== undefined) return new Found(circuit, supplies, isSmall, isKnown, kw * 1000)
  const amps = whereSeen(circuit.facts.applianceAmps) && trail.ask(circuit.facts.applianceAmps)
  if (amps === undefined) {
    const isFixed = supplies !== undefined && FIXED.has(supplies)
    if (isFixed) trail.ask(circuit.facts.applianceKw)
    return new Found(circuit, supplies, isSmall, isKnown && !isFixed)
  }
  const breaker = site.get(trail.ask(circuit.facts.fedBy), 'breaker')
  const poles = breaker && trail.ask(breaker.facts.poles)
  // Nobody has said of how many poles its breaker is: at least 120 V.
  const isAcross = poles !== undefined && poles > 1
  const isSettled = isKnown && poles !== undefined
  return new Found(circuit, supplies, isSmall, isSettled, 0, amps, isAcross)
}
