/**
 * A hybrid logical clock: the time of day where it can be trusted, a counter where it cannot, and the device.
 *
 * Written as text of one shape, `2026-03-04T10:15:00.000Z~000003~tablet`, so that the order of texts is the order of
 * events. A device that has seen an observation never stamps a smaller clock afterwards, whatever its own clock shows:
 * what was recorded after seeing a value therefore counts after that value.
 */
export interface ClockReading {
  ms: number
  count: number
  device: string
}

/** Clocks of observations from before there were clocks, and of files written by hand. */
export const NO_DEVICE = 'none'
/** Nothing was recorded by Corvit before this, and no clock is believed after the other. */
export const EARLIEST_MS = Date.UTC(1990, 0, 1)
export const LATEST_MS = Date.UTC(2100, 0, 1)
/** How far ahead of the server a device may be and still be believed. */
export const MAX_AHEAD_MS = 48 * 3600 * 1000
/** A difference between a device and the server that is worth telling. */
export const TOLD_SKEW_MS = 2 * 60 * 1000

const COUNT_DIGITS = 6
const MAX_COUNT = 10 ** COUNT_DIGITS - 1
export const CLOCK_SHAPE = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z~\d{6}~[\w-]{1,24}$/

/** A clock as text. */
export function writeClock({ ms, count, device }: ClockReading): string {
  return `${new Date(ms).toISOString()}~${String(count).padStart(COUNT_DIGITS, '0')}~${device}`
}

/** The parts of a clock, or undefined where the text is no clock. */
export function readClock(text: string): ClockReading | undefined {
  if (!CLOCK_SHAPE.test(text)) return undefined
  const ms = Date.parse(text.slice(0, 24))
  if (Number.isNaN(ms)) return undefined
  return { ms, count: Number(text.slice(25, 31)), device: text.slice(32) }
}

/** The clock right after another, on the same device or on a named one. */
export function clockAfter(clock: string, device?: string): string {
  const at = readClock(clock)
  if (!at) throw new Error(`not a clock: ${clock}`)
  const own = device ?? at.device
  if (at.count < MAX_COUNT) return writeClock({ ms: at.ms, count: at.count + 1, device: own })
  return writeClock({ ms: at.ms + 1, count: 0, device: own })
}

/**
 * The clock of an instant, for an observation that came without one.
 * @param at ISO 8601 instant, with any offset
 */
export function clockOfInstant(at: string, device: string = NO_DEVICE): string {
  const ms = Date.parse(at)
  return writeClock({ ms: Number.isNaN(ms) ? 0 : ms, count: 0, device })
}

/** The clock of one device. The time is handed in, so that the same calls always give the same clocks. */
export class HybridClock {
  #ms = 0
  #count = 0

  constructor(
    readonly device: string,
    last?: string,
  ) {
    if (last !== undefined) this.see(last)
  }

  /** The last clock given or seen, with this device's name. */
  get last(): string {
    return writeClock({ ms: this.#ms, count: this.#count, device: this.device })
  }

  /** Takes note of a clock made elsewhere: everything stamped from now on counts after it. */
  see(clock: string): void {
    const at = readClock(clock)
    if (!at || at.ms < this.#ms) return
    this.#count = at.ms > this.#ms ? at.count : Math.max(this.#count, at.count)
    this.#ms = at.ms
  }

  /**
   * The clock for something that happens now.
   * @param nowMs what the device's own clock shows, in milliseconds since 1970
   */
  next(nowMs: number): string {
    if (nowMs > this.#ms) {
      this.#ms = nowMs
      this.#count = 0
    } else if (this.#count < MAX_COUNT) {
      this.#count++
    } else {
      this.#ms++
      this.#count = 0
    }
    return this.last
  }
}
