import { gfciOf, valueOf, type Site, type Subject } from '#core'

/** One row of the chain drawing. */
export interface ChainRow {
  point: Subject<'point'>
  depth: number
  /** It is known what feeds it. */
  isPlaced: boolean
  isProtected: boolean | undefined
}

/** The points of a circuit in the order power reaches them; those whose place is not known come last. */
export function chainRows(site: Site, circuit: Subject<'circuit'>): ChainRow[] {
  const points = site.pointsOf(circuit)
  const next = new Map<string, Subject<'point'>[]>()
  for (const point of points) {
    const after = valueOf(point, 'after')
    if (after !== undefined) next.set(after, [...(next.get(after) ?? []), point])
  }
  const rows: ChainRow[] = []
  const seen = new Set<string>()
  const protectedBy = (point: Subject<'point'>) => {
    const source = gfciOf(site, point).value
    return source === undefined ? undefined : source !== 'none'
  }
  const walk = (from: string, depth: number) => {
    const here = next.get(from) ?? []
    here.forEach((point, i) => {
      if (seen.has(point.id)) return
      seen.add(point.id)
      rows.push({
        point,
        depth: depth + (here.length > 1 && i < here.length - 1 ? 1 : 0),
        isPlaced: true,
        isProtected: protectedBy(point),
      })
      walk(point.id, depth + (here.length > 1 && i < here.length - 1 ? 1 : 0))
    })
  }
  walk('panel', 0)
  for (const point of points)
    if (!seen.has(point.id))
      rows.push({ point, depth: 0, isPlaced: false, isProtected: protectedBy(point) })
  return rows
}
