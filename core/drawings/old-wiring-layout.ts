import type { OldWiring, TracedConductor } from '../trace/old-wiring'

/** Sizes of the drawing, in its own units. */
const ROW = 54
const STEP = 150
const LEFT = 150
const TOP = 34
const OUTLET_W = 132

export interface PlacedConductor {
  readonly conductor: TracedConductor
  /** From the tap, down or along, to its end. */
  readonly d: string
  readonly tapX: number
  readonly tapY: number
  readonly endX: number
  readonly y: number
}
export interface OldWiringLayout {
  readonly conductors: readonly PlacedConductor[]
  readonly outlets: readonly {
    readonly id: string
    readonly x: number
    readonly y: number
    readonly w: number
  }[]
  readonly width: number
  readonly height: number
}

/** One conductor a row, in the order they were followed; each begins under the one it is tapped from. */
export function oldWiringLayout({ conductors }: OldWiring): OldWiringLayout {
  const placed: PlacedConductor[] = []
  const at = new Map<string, PlacedConductor>()
  const taps = new Map<string, number>()
  const most = Math.max(0, ...conductors.map(c => c.depth))
  const endX = LEFT + (most + 1) * STEP
  conductors.forEach((conductor, i) => {
    const y = TOP + i * ROW
    const parent = conductor.from === undefined ? undefined : at.get(conductor.from)
    const nth = conductor.from === undefined ? 0 : (taps.get(conductor.from) ?? 0)
    if (conductor.from !== undefined) taps.set(conductor.from, nth + 1)
    const tapX = parent ? Math.min(endX - 30, parent.tapX + 60 + nth * 34) : LEFT
    const tapY = parent ? parent.y : y
    const one = { conductor, d: `M${tapX} ${tapY} V${y} H${endX}`, tapX, tapY, endX, y }
    placed.push(one)
    at.set(conductor.id, one)
  })
  // An outlet that two conductors feed stands once, between the two.
  const rows = new Map<string, number[]>()
  for (const p of placed)
    for (const outlet of p.conductor.feeds) rows.set(outlet, [...(rows.get(outlet) ?? []), p.y])
  const used: number[] = []
  const outlets = [...rows].map(([id, ys]) => {
    let y = ys.reduce((sum, v) => sum + v, 0) / ys.length
    while (used.some(v => Math.abs(v - y) < 34)) y += 36
    used.push(y)
    return { id, x: endX + 60, y, w: OUTLET_W }
  })
  return {
    conductors: placed,
    outlets,
    width: endX + 60 + OUTLET_W + 20,
    height: Math.max(120, TOP + conductors.length * ROW, ...used.map(v => v + 40)),
  }
}
