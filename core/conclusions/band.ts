import type { FactRef } from '../model/house'
import { settled, unique, unknown, type Truth } from './truth'

/** A number between two others, ends included: a measured 20 is the band from 20 to 20. */
export interface Band {
  readonly from: number
  readonly to: number
  readonly rests: readonly FactRef[]
  /** Facts that would narrow it; empty where the ends are one. */
  readonly missing: readonly FactRef[]
}

/** A band. One that is open names what it waits for. */
export function band(
  from: number,
  to: number,
  rests: readonly FactRef[] = [],
  missing: readonly FactRef[] = [],
): Band {
  if (!(from <= to)) throw new Error(`a band from ${from} to ${to}`)
  if (from < to && missing.length === 0) throw new Error('an open band names what it waits for')
  return { from, to, rests, missing: from === to ? [] : unique(missing) }
}
export const exactly = (value: number, rests: readonly FactRef[] = []): Band =>
  band(value, value, rests)

/** A fact as a band; between the given ends while nobody knows it. */
export function bandOf(fact: FactRef, from: number, to: number): Band {
  if (fact.state === 'known') return exactly(fact.value as number, [fact])
  return band(from, to, [fact], [fact])
}

/** Whether one is at most the other, wherever in its band each may be. */
export function atMost(a: Band, b: Band): Truth {
  const rests = unique([...a.rests, ...b.rests])
  if (a.to <= b.from) return settled(true, rests)
  if (a.from > b.to) return settled(false, rests)
  return unknown([...a.missing, ...b.missing], rests)
}
export const atLeast = (a: Band, b: Band): Truth => atMost(b, a)

/** The smallest of some; the least that a chain of devices or conductors allows. */
export const least = (bands: readonly Band[]): Band => ends(bands, list => Math.min(...list))
export const most = (bands: readonly Band[]): Band => ends(bands, list => Math.max(...list))
export const sum = (bands: readonly Band[]): Band =>
  ends(bands, list => list.reduce((a, b) => a + b, 0))
/** A band times a plain factor that is not negative. */
export function times(of: Band, factor: number): Band {
  if (factor < 0) throw new Error(`a factor of ${factor}`)
  return band(of.from * factor, of.to * factor, of.rests, of.missing)
}

/** Works on both ends at once, for functions that grow with each of their numbers. */
function ends(bands: readonly Band[], fold: (list: readonly number[]) => number): Band {
  if (bands.length === 0) throw new Error('nothing to fold')
  const rests = unique(bands.flatMap(b => b.rests))
  const missing = bands.flatMap(b => b.missing)
  return band(fold(bands.map(b => b.from)), fold(bands.map(b => b.to)), rests, missing)
}
