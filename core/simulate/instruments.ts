/** What simulated instruments read at the things of a house as it is recorded, by the fields they read. */
import { fieldOf, type AnyValue, type Kind } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import { afciOf, gfciOf } from '../derive/fault-protection'
import type { Site } from '../derive/site'
import { HouseMeters, type Hidden } from './meters'
import type { Random } from './random'

/** Fields each kind of instrument reads, as `kind.field`. */
export const INSTRUMENT_READS: Readonly<Record<string, readonly string[]>> = {
  multimeter: [
    'outlet.hotNeutralV',
    'outlet.hotGroundV',
    'outlet.neutralGroundV',
    'outlet.groundToReferenceV',
    'outlet.narrowToReferenceV',
    'enclosure.legAToNeutralV',
    'enclosure.legBToNeutralV',
    'breaker.polesV',
  ],
  'three-lamp tester': ['outlet.lamps'],
  'branch analyzer': [
    'outlet.dropPercent',
    'outlet.groundOhms',
    'outlet.neutralGroundRiseV',
    'outlet.testLoadA',
  ],
  'clamp meter': [
    'circuit.loadAmps',
    'breaker.loadAmps',
    'outlet.groundClampA',
    'electrode.currentA',
  ],
  'infrared thermometer': ['breaker.temperatureC'],
  thermometer: ['enclosure.ambientC'],
  'circuit tracer': ['outlet.circuit'],
  'plug-in GFCI/AFCI tester': ['outlet.gfciTest', 'outlet.afciTest'],
}

/** Below this a plug-in tester does not come up. */
const ARC_NEEDS_V = 85

/** One house with the instruments of one visit. */
export class SimulatedInstruments {
  readonly #meters: HouseMeters
  /** @throws UndrawableProperty where its supply is none the network knows */
  constructor(
    readonly site: Site,
    random: Random,
    readonly hidden?: Hidden,
  ) {
    this.#meters = new HouseMeters(site, hidden, random)
  }
  /** What an instrument shows there now; undefined where there is nothing to read. */
  read(instrument: string, subject: string, field: string): AnyValue | undefined {
    const thing = this.site.house.subjects.get(subject)
    if (!thing || !INSTRUMENT_READS[instrument]?.includes(`${thing.kind}.${field}`))
      return undefined
    if (instrument === 'circuit tracer')
      return thing.kind === 'outlet' ? valueOf(thing, 'circuit') : undefined
    if (instrument === 'plug-in GFCI/AFCI tester')
      return thing.kind !== 'outlet'
        ? undefined
        : field === 'afciTest'
          ? this.#arc(thing)
          : this.#plugIn(thing)
    return this.#all(thing)[field]
  }
  #all(thing: Subject): Readonly<Record<string, AnyValue>> {
    switch (thing.kind) {
      case 'outlet':
        return this.#meters.outlet(thing)
      case 'enclosure':
        return this.#meters.enclosure(thing)
      case 'breaker':
        return this.#meters.breaker(thing)
      case 'circuit':
        return this.#meters.circuit(thing)
      case 'electrode':
        return this.#meters.electrode(thing)
      default:
        return {}
    }
  }
  /** It sends a few milliamperes into the ground: without a ground nothing flows, and a good device holds. */
  #plugIn(outlet: Subject<'outlet'>): string {
    const ohms = this.#meters.outlet(outlet).groundOhms
    const isGrounded = typeof ohms === 'number' && ohms < 1000
    const { value } = gfciOf(this.site, outlet)
    // Whose own button does not open it will not be opened by a tester either.
    const isDead = valueOf(outlet, 'gfciButton') === 'does not trip'
    const isProtected = value !== undefined && value !== 'none' && !isDead
    return isGrounded && isProtected ? 'goes dead' : 'stays live'
  }
  /** It strikes an arc between hot and neutral: it needs both, no ground, and a device that works. */
  #arc(outlet: Subject<'outlet'>): string {
    const volts = this.#meters.outlet(outlet).hotNeutralV
    const isFed = typeof volts === 'number' && volts > ARC_NEEDS_V
    const { value } = afciOf(this.site, outlet)
    return isFed && value !== undefined && value !== 'none' ? 'goes dead' : 'stays live'
  }
}
/** The unit a reading of a field comes in. */
export function readingUnit(kind: Kind, field: string): string {
  const declared = fieldOf(kind, field)
  return declared && 'unit' in declared ? (declared.unit ?? '') : ''
}
