/**
 * One way of each part, so that all together are worth most within a weight: exact. The straight-line relaxation says
 * what an ounce of weight is worth at most, and how much any choice loses against that; sets that lose more than the
 * best set known need not be looked at, and those are nearly all.
 */

import { joinFronts, NOTHING_TAKEN, type Front } from './front'

/** One way of a part. */
export interface Way {
  readonly weight: number
  readonly worth: number
}
export interface Filled extends Way {
  /** The way of each part, by its number. */
  readonly ways: readonly number[]
}
const ROUNDING = 1e-9

/**
 * The most worth within a weight, and the lightest set that has it.
 * @param parts the ways of each, one of which is taken: ascending in weight and in worth, worths are whole numbers
 * @returns undefined where even the lightest ways weigh too much
 */
export function fill(parts: readonly (readonly Way[])[], room: number): Filled | undefined {
  const lightest = parts.reduce((n, ways) => n + (ways[0]?.weight ?? Infinity), 0)
  if (lightest > room) return undefined
  const rate = rateAt(parts, room - lightest)
  const tops = parts.map(ways => Math.max(...ways.map(w => w.worth - rate * w.weight)))
  const most = tops.reduce((n, t) => n + t, rate * room)
  for (let slack = 1; ; slack *= 2) {
    const found = search(parts, tops, rate, room, slack)
    if (found && most - found.worth <= slack + ROUNDING) return found
  }
}

interface Step {
  readonly weight: number
  readonly worth: number
}
/** What the last bit of weight is worth where parts could be taken in pieces; 0 where there is room for all. */
function rateAt(parts: readonly (readonly Way[])[], room: number): number {
  const steps: Step[] = parts.flatMap(stepsOf)
  steps.sort((a, b) => b.worth * a.weight - a.worth * b.weight)
  let left = room
  for (const { weight, worth } of steps) {
    if (weight > left) return worth / weight
    left -= weight
  }
  return 0
}
/** The steps from way to way along the upper hull of a part, the steepest first. */
function stepsOf(ways: readonly Way[]): Step[] {
  const hull: Way[] = []
  for (const way of ways) {
    for (;;) {
      const last = hull.at(-1)
      const before = hull.at(-2)
      if (!last || !before) break
      const isBelow =
        (last.worth - before.worth) * (way.weight - before.weight) <=
        (way.worth - before.worth) * (last.weight - before.weight)
      if (!isBelow) break
      hull.pop()
    }
    hull.push(way)
  }
  return hull.slice(1).map((way, n) => {
    const { weight, worth } = hull[n] as Way
    return { weight: way.weight - weight, worth: way.worth - worth }
  })
}

/** The best of the sets that lose no more than so much against the straight line; undefined where none fits. */
function search(
  parts: readonly (readonly Way[])[],
  tops: readonly number[],
  rate: number,
  room: number,
  slack: number,
): Filled | undefined {
  const choices: number[] = []
  const rests: number[] = []
  const limit = slack + ROUNDING
  let top = 0
  let labels: Front = { weights: [0], worths: [0], marks: [NOTHING_TAKEN] }
  for (const [p, ways] of parts.entries()) {
    top += tops[p] ?? 0
    let next: Front | undefined
    for (const [n, way] of ways.entries()) {
      if ((tops[p] ?? 0) - (way.worth - rate * way.weight) > limit) continue
      const weights: number[] = []
      const worths: number[] = []
      const marks: number[] = []
      for (let k = 0; k < labels.weights.length; k++) {
        const weight = (labels.weights[k] ?? 0) + way.weight
        if (weight > room) break
        const worth = (labels.worths[k] ?? 0) + way.worth
        if (top - (worth - rate * weight) > limit) continue
        weights.push(weight)
        worths.push(worth)
        choices.push(n)
        marks.push(rests.push(labels.marks[k] ?? NOTHING_TAKEN) - 1)
      }
      const added = { weights, worths, marks }
      next = next ? joinFronts(next, added) : added
    }
    if (!next || next.weights.length === 0) return undefined
    labels = next
  }
  const last = labels.weights.length - 1
  const ways: number[] = []
  for (
    let at = labels.marks[last] ?? NOTHING_TAKEN;
    at !== NOTHING_TAKEN;
    at = rests[at] ?? NOTHING_TAKEN
  )
    ways.push(choices[at] ?? 0)
  return {
    weight: labels.weights[last] ?? 0,
    worth: labels.worths[last] ?? 0,
    ways: ways.reverse(),
  }
}
