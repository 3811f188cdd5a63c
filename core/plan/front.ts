/** The mark of a set of nothing. */
export const NOTHING_TAKEN = -1

/** Sets that are heavier only because they are worth more, the lightest first, as three lists side by side. */
export interface Front {
  readonly weights: readonly number[]
  readonly worths: readonly number[]
  /** Where it is written what each was made of. */
  readonly marks: readonly number[]
}

/** Two fronts as one: heavier only where it is worth more. */
export function joinFronts(a: Front, b: Front): Front {
  const weights: number[] = []
  const worths: number[] = []
  const marks: number[] = []
  let most = -1
  let i = 0
  let k = 0
  while (i < a.weights.length || k < b.weights.length) {
    const left = a.weights[i] ?? Infinity
    const right = b.weights[k] ?? Infinity
    const isLeft = left < right || (left === right && (a.worths[i] ?? -1) >= (b.worths[k] ?? -1))
    const from = isLeft ? a : b
    const n = isLeft ? i++ : k++
    const worth = from.worths[n] ?? 0
    if (worth <= most) continue
    most = worth
    weights.push(from.weights[n] ?? 0)
    worths.push(worth)
    marks.push(from.marks[n] ?? NOTHING_TAKEN)
  }
  return { weights, worths, marks }
}
