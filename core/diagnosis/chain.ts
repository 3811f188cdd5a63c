/** Where along a circuit a state begins. Outlets hang on a tree from the breaker by `after`. */
export interface ChainOutlet<S extends string = string> {
  readonly id: string
  readonly after: string | 'panel' | undefined
  readonly state?: S
  readonly dropPercent?: number
}
export interface Origin<S extends string = string> {
  readonly state: S
  /** First outlet that shows it. */ readonly first: string
  /** The outlet or panel before it. */ readonly before: string | undefined
  readonly affects: readonly string[]
  readonly text: string
}

/** A state that starts at one outlet and holds for all after it lies in the joint before the first. */
export function originsOf<S extends string>(
  outlets: readonly ChainOutlet<S>[],
  good: S,
): Origin<S>[] {
  const by = new Map(outlets.map(o => [o.id, o]))
  const origins: Origin<S>[] = []
  for (const outlet of outlets) {
    if (outlet.state === undefined || outlet.state === good) continue
    const before = outlet.after === undefined ? undefined : by.get(outlet.after)
    if (before && (before.state === outlet.state || before.state === undefined)) continue
    const affects = outlets.filter(o => o !== outlet && leadsTo(by, o, outlet.id))
    const same = affects.filter(o => o.state === outlet.state)
    const other = affects.filter(o => o.state !== undefined && o.state !== outlet.state)
    const isBranch = affects.length > 0 && other.length === 0
    origins.push({
      state: outlet.state,
      first: outlet.id,
      before: outlet.after,
      affects: same.map(o => o.id),
      text: isBranch
        ? `${outlet.state} from ${outlet.id} on: the joint between ${outlet.after ?? 'what is ahead'} and ${outlet.id}`
        : `${outlet.state} at ${outlet.id} alone: look in its box`,
    })
  }
  return origins
}

/** The joint the drop is lost in: between the two neighbors it jumps most at. Nothing under a jump of 2 per cent. */
export function jointOf(
  outlets: readonly ChainOutlet[],
): { between: readonly [string, string]; jump: number } | undefined {
  const by = new Map(outlets.map(o => [o.id, o]))
  let found: { between: readonly [string, string]; jump: number } | undefined
  for (const o of outlets) {
    if (o.dropPercent === undefined || o.after === undefined) continue
    const before = o.after === 'panel' ? 0 : by.get(o.after)?.dropPercent
    if (before === undefined) continue
    const jump = Math.round((o.dropPercent - before) * 100) / 100
    if (jump >= 2 && (!found || jump > found.jump)) found = { between: [o.after, o.id], jump }
  }
  return found
}

function leadsTo(by: ReadonlyMap<string, ChainOutlet>, from: ChainOutlet, target: string): boolean {
  const walked = new Set<string>()
  for (
    let at: ChainOutlet | undefined = from;
    at && !walked.has(at.id);
    at = at.after === undefined ? undefined : by.get(at.after)
  ) {
    if (at.after === target) return true
    walked.add(at.id)
  }
  return false
}
