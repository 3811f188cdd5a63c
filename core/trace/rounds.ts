/**
 * Which breaker feeds which outlet, with the fewest trips to the panel: every breaker gets a pattern of rounds in which
 * it is off, so that about log₂ n rounds tell n of them apart; one more round is a check, and one last trip settles
 * whatever the check threw out.
 */
export interface TraceBreaker {
  readonly id: string
  /** Feeds something that must not lose power. */ readonly mustStayOn?: boolean
}
export interface Round {
  readonly number: number
  readonly off: readonly string[]
  readonly isCheck: boolean
}
export interface TracePlan {
  readonly rounds: readonly Round[]
  /** Rounds in which each breaker is off, as 0 and 1. */
  readonly codes: Readonly<Record<string, readonly number[]>>
  /** Breakers that are never switched off and so cannot be told apart by switching. */
  readonly together: readonly string[]
  /** Trips to the panel at most: the rounds, and one more to settle what the check throws out. */
  readonly tripsAtMost: number
}
export type Seen = 'live' | 'dead' | undefined
export type Traced =
  | { readonly outlet: string; readonly kind: 'found'; readonly breaker: string }
  /**
   * A wrong observation, or one not made: plug in something to be heard, and at the panel switch
   * these off one after another.
   */
  | {
      readonly outlet: string
      readonly kind: 'ask again'
      readonly candidates: readonly string[]
      readonly why: string
    }
  | {
      readonly outlet: string
      readonly kind: 'one of'
      readonly breakers: readonly string[]
      readonly why: string
    }
  | { readonly outlet: string; readonly kind: 'none'; readonly why: string }

const weight = (n: number): number => n.toString(2).replaceAll('0', '').length

/**
 * Plans the rounds.
 * @param breakers ids must be unique; outlets already known need no round of their own and are left out beforehand
 */
export function planRounds(breakers: readonly TraceBreaker[]): TracePlan {
  const free = breakers.filter(b => !b.mustStayOn).map(b => b.id)
  const together = breakers.filter(b => b.mustStayOn).map(b => b.id)
  // Never off is a pattern too: it is kept for what must stay on, or used by one breaker where patterns are scarce.
  const patterns = free.length + (together.length > 0 ? 1 : 0)
  const data = patterns <= 1 ? free.length : Math.ceil(Math.log2(patterns))
  const words = Array.from({ length: 2 ** data }, (_, i) => i)
    .filter(w => w > 0 || (together.length === 0 && free.length === 2 ** data))
    .sort((a, b) => weight(a) - weight(b) || a - b)
  const codes: Record<string, number[]> = {}
  free.forEach((id, i) => {
    const word = words[i]!
    const bits = Array.from({ length: data }, (_, k) => (word >> k) & 1)
    codes[id] = data === 0 ? [] : [...bits, bits.reduce((a, b) => a ^ b, 0)]
  })
  const length = data === 0 ? 0 : data + 1
  for (const id of together) codes[id] = Array.from({ length }, () => 0)
  const rounds = Array.from({ length }, (_, k): Round => ({
    number: k + 1,
    off: free.filter(id => codes[id]![k] === 1),
    isCheck: k === length - 1,
  }))
  return { rounds, codes, together, tripsAtMost: length + (length > 0 ? 1 : 0) }
}

/** Reads the live and dead seen at each outlet, round by round, against the plan. */
export function readRounds(
  plan: TracePlan,
  seen: Readonly<Record<string, readonly Seen[]>>,
): Traced[] {
  const byCode = new Map<string, string[]>()
  for (const [id, code] of Object.entries(plan.codes))
    byCode.set(code.join(''), [...(byCode.get(code.join('')) ?? []), id])
  return Object.entries(seen).map(([outlet, list]): Traced => {
    const bits = plan.rounds.map((_, k) =>
      list[k] === undefined ? undefined : list[k] === 'dead' ? 1 : 0,
    )
    const differs = (code: readonly number[]) =>
      code.reduce((n, b, k) => n + (bits[k] !== undefined && bits[k] !== b ? 1 : 0), 0)
    const at = (distance: number) =>
      Object.entries(plan.codes)
        .filter(([, code]) => differs(code) === distance)
        .map(([id]) => id)
    const exact = at(0)
    const isWhole = bits.every(b => b !== undefined)
    if (isWhole && bits.length > 0 && bits.every(b => b === 0) && exact.length > 0)
      // Live in every round was never switched: by the plan's own, or by a panel nobody thought of.
      return {
        outlet,
        kind: 'one of',
        breakers: exact,
        why: 'live in every round: on a breaker that was never switched off, or fed from another panel',
      }
    if (isWhole && bits.length > 0 && bits.every(b => b === 1)) {
      const why =
        'dead in every round: see it live with every breaker on; else it is dead, not traced'
      return exact.length > 0
        ? { outlet, kind: 'ask again', candidates: exact, why }
        : { outlet, kind: 'none', why }
    }
    if (exact.length === 1 && isWhole) return { outlet, kind: 'found', breaker: exact[0]! }
    if (exact.length > 0)
      return { outlet, kind: 'ask again', candidates: exact, why: 'not looked at in every round' }
    const near = at(1)
    if (near.length > 0)
      return {
        outlet,
        kind: 'ask again',
        candidates: near,
        why: 'no breaker has this pattern: one of the looks was wrong',
      }
    return {
      outlet,
      kind: 'none',
      why: 'no breaker of this plan, nor one wrong look, explains the pattern',
    }
  })
}

/** The outcome of the last trip: the first candidate that silenced the outlet, or none of them. */
export const settle = (traced: Traced, silencedBy: string | undefined): Traced =>
  traced.kind !== 'ask again'
    ? traced
    : silencedBy !== undefined && traced.candidates.includes(silencedBy)
      ? { outlet: traced.outlet, kind: 'found', breaker: silencedBy }
      : { outlet: traced.outlet, kind: 'none', why: 'none of the candidates silenced it' }
