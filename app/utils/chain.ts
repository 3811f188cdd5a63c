import { gfciOf, valueOf, type Site, type Subject } from '#core'

/** One row of the chain drawing. */
export interface ChainRow {
  outlet: Subject<'outlet'>
  depth: number
  /** It is known what feeds it. */
  isPlaced: boolean
  isProtected: boolean | undefined
}

/** The outlets of a circuit in the order power reaches them; those whose place is not known come last. */
export function chainRows(site: Site, circuit: Subject<'circuit'>): ChainRow[] {
  const outlets = site.outletsOf(circuit)
  const next = new Map<string, Subject<'outlet'>[]>()
  for (const outlet of outlets) {
    const after = valueOf(outlet, 'after')
    if (after !== undefined) next.set(after, [...(next.get(after) ?? []), outlet])
  }
  const rows: ChainRow[] = []
  const seen = new Set<string>()
  const protectedBy = (outlet: Subject<'outlet'>) => {
    const source = gfciOf(site, outlet).value
    return source === undefined ? undefined : source !== 'none'
  }
  const walk = (from: string, depth: number) => {
    const here = next.get(from) ?? []
    here.forEach((outlet, i) => {
      if (seen.has(outlet.id)) return
      seen.add(outlet.id)
      rows.push({
        outlet,
        depth: depth + (here.length > 1 && i < here.length - 1 ? 1 : 0),
        isPlaced: true,
        isProtected: protectedBy(outlet),
      })
      walk(outlet.id, depth + (here.length > 1 && i < here.length - 1 ? 1 : 0))
    })
  }
  walk('panel', 0)
  for (const outlet of outlets)
    if (!seen.has(outlet.id))
      rows.push({ outlet, depth: 0, isPlaced: false, isProtected: protectedBy(outlet) })
  return rows
}
