export type Random = () => number
/** A small generator of even numbers from 0 to 1, the same for the same seed. */
export function seeded(seed: number): Random {
  let s = seed >>> 0
  return () => {
    s = (s + 0x6d2b79f5) >>> 0
    let t = Math.imul(s ^ (s >>> 15), 1 | s)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
/** Around 0, spread 1. */
export const bell = (random: Random): number =>
  Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random())
export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random() * list.length)]!
