import { band, bandOf, exactly, most, times, type Band } from '../conclusions/band'
import { valueOf, type FactRef, type Subject, whereSeen } from '../model/house'
import { Question, type Site } from './site'

/** What a circuit has to carry, and why. Bands where facts are open. */
export interface Load {
  /** Least rating of the breaker, amperes. */
  readonly device: Band
  /** Least ampacity of the conductors. */
  readonly conductor: Band
  /** The rule in a few words. */
  readonly why: string
}

/** A range of this rating or more has at least a 40 A circuit. 210.19. */
const RANGE_KW = 8.75
const RANGE_LEAST_AMPS = 40
const isLarge = (kw: number): boolean => kw >= RANGE_KW
/** Demand of one range up to 12 kW, and what each further kW adds to it. 220.55. */
const RANGE_DEMAND_KW = 8
const RANGE_FULL_KW = 12
const RANGE_MORE = 0.05
/** Loads that run three hours and more, and motors, take this much of their amperes. 210.19, 422.13, 430.22, 625.41. */
const CONTINUOUS = 1.25
/** No appliance draws more than this; an upper end for what nobody has read. */
const MOST_AMPS = 200

/** Volts of a circuit: one pole to the neutral, or two legs of the supply. */
function voltsOf(site: Site, circuit: Subject<'circuit'>): readonly number[] {
  const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
  if (valueOf(breaker, 'poles') === 1) return [120]
  const supply = valueOf(site.premises, 'supply')
  return supply === undefined ? [240, 208] : [supply === '208Y/120 V' ? 208 : 240]
}

/** Kilowatts as amperes of this circuit; open between two where nobody measured the supply. */
function asAmps(site: Site, circuit: Subject<'circuit'>, kw: number): Band {
  const rests: FactRef[] = [circuit.facts.applianceKw]
  const volts = voltsOf(site, circuit)
  const amps = volts.map(v => Math.round(((kw * 1000) / v) * 100) / 100)
  const supply = site.premises.facts.supply
  if (volts[0] !== 120) rests.push(supply)
  return band(Math.min(...amps), Math.max(...amps), rests, [supply])
}

/** The amperes of the appliance on a circuit: read, or by its kilowatts. */
export function applianceAmpsOf(site: Site, circuit: Subject<'circuit'>): Band {
  const amps = valueOf(circuit, 'applianceAmps')
  const kw = valueOf(circuit, 'applianceKw')
  if (amps === undefined && kw !== undefined) return asAmps(site, circuit, kw)
  return bandOf(circuit.facts.applianceAmps, 0, MOST_AMPS)
}

/** Demand of a single range, kW. 220.55. */
export function rangeDemandKw(kw: number): number {
  if (!isLarge(kw)) return kw
  const over = Math.max(0, Math.ceil(kw - RANGE_FULL_KW))
  return RANGE_DEMAND_KW * (1 + RANGE_MORE * over)
}
const LOADS = new Question<Load | null>()

/**
 * The load that the code asks breaker and conductors of a circuit to carry, by what it supplies: heaters that run for
 * hours, motors and vehicle chargers at 125 %, a range by its demand, other appliances by their marking. Nothing where
 * no single appliance says. 210.19, 210.20, 422.10, 422.13, 424.4, 430.22, 625.41.
 */
export function loadOf(site: Site, circuit: Subject<'circuit'>): Load | undefined {
  const answers = site.kept(LOADS)
  let load = answers.get(circuit.id)
  if (load === undefined) answers.set(circuit.id, (load = work(site, circuit) ?? null))
  return load ?? undefined
}

function work(site: Site, circuit: Subject<'circuit'>): Load | undefined {
  const amps = applianceAmpsOf(site, circuit)
  const long = times(amps, CONTINUOUS)
  switch (valueOf(circuit, 'supplies')) {
    case 'vehicle charger':
      return { device: long, conductor: long, why: '125 % of what the charger is set to' }
    case 'space heating':
      return { device: long, conductor: long, why: '125 % of fixed heating' }
    case 'water heater':
      return waterHeater(circuit, amps, long)
    case 'motor':
      // The breaker of a motor may be larger, and is judged by its nameplate.
      return { device: exactly(0), conductor: long, why: '125 % of the motor' }
    case 'fixed appliance':
      return { device: amps, conductor: amps, why: 'the marked rating of the appliance' }
    case 'cooking appliance':
      return range(site, circuit, amps)
    default:
      return undefined
  }
}

function waterHeater(circuit: Subject<'circuit'>, amps: Band, long: Band): Load {
  const { heaterKind } = circuit.facts
  const kind = whereSeen(heaterKind)
  if (!kind) {
    const rests = [...amps.rests, heaterKind]
    const open = band(amps.from, long.to, rests, [...amps.missing, heaterKind])
    return { device: open, conductor: open, why: '125 % of a storage water heater' }
  }
  return kind.value === 'storage, 120 gal or less'
    ? { device: long, conductor: long, why: '125 % of a storage water heater' }
    : { device: amps, conductor: amps, why: 'the marking of the heater' }
}

function range(site: Site, circuit: Subject<'circuit'>, amps: Band): Load {
  const why = 'the demand of the range; at least 40 A from 8¾ kW'
  const kw = valueOf(circuit, 'applianceKw')
  if (kw !== undefined) {
    const demand = asAmps(site, circuit, rangeDemandKw(kw))
    const least = isLarge(kw) ? most([demand, exactly(RANGE_LEAST_AMPS)]) : demand
    return { device: least, conductor: least, why }
  }
  const read = valueOf(circuit, 'applianceAmps')
  const volts = voltsOf(site, circuit)
  const { applianceKw } = circuit.facts
  if (read === undefined) {
    const open = band(0, MOST_AMPS, [applianceKw], [applianceKw])
    return { device: open, conductor: open, why }
  }
  const kwAt = (v: number) => (read * v) / 1000
  if (!volts.some(v => isLarge(kwAt(v))))
    return { device: amps, conductor: amps, why: 'the marked rating of the appliance' }
  const ends = volts.map(v => {
    const demand = (rangeDemandKw(kwAt(v)) * 1000) / v
    return isLarge(kwAt(v)) ? Math.max(RANGE_LEAST_AMPS, demand) : read
  })
  const supply = site.premises.facts.supply
  const least = band(Math.min(...ends), Math.max(...ends), [...amps.rests, supply], [supply])
  return { device: least, conductor: least, why }
}
