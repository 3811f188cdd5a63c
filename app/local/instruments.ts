import {
  readingUnit,
  seeded,
  SimulatedInstruments,
  INSTRUMENT_READS,
  type Kind,
  type Site,
} from '#core'
import {
  INSTRUMENT_KINDS,
  InstrumentReading,
  type InstrumentKind,
  type InstrumentTarget,
  type WirelessInstrument,
} from '#shared/instruments'

/** A reading comes in this often. */
const EVERY_MS = 700

/** A simulated instrument: reads the open house as it is recorded, with the errors such an instrument has. */
class SimulatedInstrument implements WirelessInstrument {
  readonly isSimulated = true
  readonly name: string
  readonly serial: string
  #isConnected = false

  constructor(
    readonly kind: InstrumentKind,
    readonly siteNow: () => Site,
  ) {
    this.name = `${kind[0]?.toUpperCase() ?? ''}${kind.slice(1)}`
    this.serial = `SIM-${100 + INSTRUMENT_KINDS.indexOf(kind)}`
  }
  connect(): Promise<void> {
    this.#isConnected = true
    return Promise.resolve()
  }
  disconnect(): void {
    this.#isConnected = false
  }
  canRead({ kind, field }: InstrumentTarget): boolean {
    return INSTRUMENT_READS[this.kind]?.includes(`${kind}.${field}`) === true
  }
  async *read(target: InstrumentTarget, signal: AbortSignal): AsyncIterable<InstrumentReading> {
    const random = seeded(Date.now() % 2 ** 31)
    while (this.#isConnected && !signal.aborted) {
      const house = new SimulatedInstruments(this.siteNow(), random)
      const value = house.read(this.kind, target.subject, target.field)
      if (value === undefined || typeof value === 'object') return
      yield InstrumentReading.parse({
        kind: this.kind,
        serial: this.serial,
        at: new Date().toISOString(),
        field: target.field,
        value,
        unit: readingUnit(target.kind as Kind, target.field),
      })
      await new Promise(resolve => setTimeout(resolve, EVERY_MS))
    }
  }
}

/** The instruments of this device. Real ones would be found by their radio; these ship with the application. */
export const instrumentsAtHand = (siteNow: () => Site): readonly WirelessInstrument[] =>
  INSTRUMENT_KINDS.map(kind => new SimulatedInstrument(kind, siteNow))
