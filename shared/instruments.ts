/**
 * What a wireless instrument gives, real or simulated: it is connected, asked to read something at a thing, and gives
 * readings one after another, each with its unit, its time and the serial number of what read it.
 */
import { z } from 'zod'

export const INSTRUMENT_KINDS = [
  'multimeter',
  'three-lamp tester',
  'branch analyzer',
  'clamp meter',
  'infrared thermometer',
  'thermometer',
  'circuit tracer',
  'plug-in GFCI/AFCI tester',
] as const
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number]

/** One reading as it comes in; whatever sends it, it is checked by this before it is shown. */
export const InstrumentReading = z.strictObject({
  kind: z.enum(INSTRUMENT_KINDS),
  serial: z.string().min(1).max(60),
  /** ISO 8601 instant at which it was read. */
  at: z.iso.datetime({ offset: true }),
  /** What is read, as the field it belongs to. */
  field: z.string().min(1).max(60),
  value: z.union([z.number(), z.string().max(200), z.boolean()]),
  unit: z.string().max(20),
})
export type InstrumentReading = z.infer<typeof InstrumentReading>

/** What is to be read, where. */
export interface InstrumentTarget {
  readonly subject: string
  readonly kind: string
  readonly field: string
}
export interface WirelessInstrument {
  readonly kind: InstrumentKind
  readonly name: string
  readonly serial: string
  readonly isSimulated: boolean
  /** @throws Error in words where it cannot be reached */
  connect(): Promise<void>
  disconnect(): void
  canRead(target: InstrumentTarget): boolean
  /** Readings until the signal ends them; nothing where there is nothing to read there. */
  read(target: InstrumentTarget, signal: AbortSignal): AsyncIterable<InstrumentReading>
}
