import { isToTheSide, type BondMap, type MapNode, type MapTie } from '../views/bond-map'

/** Sizes of the drawing, in its own units. */
const W = 208
const H = 74
const GX = 40
const GY = 96
const LEAF = 178
/** Room for the words left of the first line down. */
const LEFT = 96

export interface PlacedNode {
  readonly node: MapNode
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
}
export interface PlacedTie {
  readonly tie: MapTie
  /** Path from one to the other, in right angles. */
  readonly d: string
  readonly tx: number
  readonly ty: number
  readonly anchor: 'start' | 'middle' | 'end'
}
export interface BondLayout {
  readonly nodes: readonly PlacedNode[]
  readonly ties: readonly PlacedTie[]
  readonly width: number
  readonly height: number
}

/** Dashes by state: a gap in what was seen is drawn as a gap, on screen and on paper. */
export const TIE_DASH: Partial<Record<MapTie['state'], string>> = {
  missing: '2 7',
  'not seen': '7 6',
  'lawful old': '12 4',
}

/** Where all of a bond map stands: enclosures in rows by depth, electrodes and pipes beside what they land on. */
export function bondLayout(map: BondMap): BondLayout {
  const nodes = placeNodes(map)
  return {
    nodes,
    ties: placeTies(map, nodes),
    width: Math.max(320, ...nodes.map(p => p.x + p.w)) + 20,
    height: Math.max(160, ...nodes.map(p => p.y + p.h)) + 24,
  }
}

function placeNodes(map: BondMap): readonly PlacedNode[] {
  const children = new Map<string, MapNode[]>()
  const up = new Map<string, string>()
  for (const t of map.ties)
    if ((t.kind === 'supply' || t.kind === 'feeder') && t.from !== t.to) up.set(t.to, t.from)
  for (const n of map.nodes) {
    const tie = map.ties.find(t => t.from === n.id && isToTheSide(t))
    const parent = up.get(n.id) ?? tie?.to ?? (n.id === 'utility' ? undefined : 'utility')
    if (parent) children.set(parent, [...(children.get(parent) ?? []), n])
  }
  const list: PlacedNode[] = []
  const isLeaf = (n: MapNode) => n.kind !== 'enclosure' && n.kind !== 'utility'
  /** First free place of each row. */
  const free: number[] = []
  /** Most leaves in a row: a row with many stands taller. */
  const most: number[] = []
  const count = (n: MapNode, depth: number) => {
    const all = children.get(n.id) ?? []
    most[depth] = Math.max(most[depth] ?? 0, all.filter(isLeaf).length)
    for (const c of all) if (!isLeaf(c)) count(c, depth + 1)
  }
  const top = (depth: number): number =>
    depth === 0 ? 20 : top(depth - 1) + Math.max(H, (most[depth - 1] ?? 0) * 46 - 24) + GY
  const place = (n: MapNode, depth: number): number => {
    const all = children.get(n.id) ?? []
    const leaves = all.filter(isLeaf)
    const below = all.filter(c => !isLeaf(c)).map(c => place(c, depth + 1))
    const middle = below.length === 0 ? 0 : ((below[0] ?? 0) + (below.at(-1) ?? 0)) / 2
    const x = Math.max(free[depth] ?? LEFT, middle)
    const y = top(depth)
    list.push({ node: n, x, y, w: W, h: H })
    // Electrodes and pipes stand beside their enclosure, one under another, so that a row stays readable.
    leaves.forEach((leaf, i) =>
      list.push({
        node: leaf,
        x: x + W + GX,
        y: y + i * 46 - (leaves.length > 2 ? 20 : 0),
        w: LEAF,
        h: 40,
      }),
    )
    free[depth] = x + W + GX + (leaves.length > 0 ? LEAF + GX : 0)
    return x
  }
  const root = map.nodes.find(n => n.id === 'utility')
  if (root) {
    count(root, 0)
    place(root, 0)
  }
  return list
}

function placeTies(map: BondMap, nodes: readonly PlacedNode[]): readonly PlacedTie[] {
  const at = new Map(nodes.map(p => [p.node.id, p]))
  return map.ties.flatMap((tie): PlacedTie[] => {
    const a = at.get(tie.from)
    const b = at.get(tie.to)
    if (!a || !b || tie.kind === 'neutral bond') return []
    if (isToTheSide(tie)) {
      const [leaf, host] = [a, b]
      const y = leaf.y + leaf.h / 2
      const mid = leaf.x - GX / 2
      const hy = host.y + H - 12
      return [
        {
          tie,
          d: `M${leaf.x} ${y} H${mid} V${hy} H${host.x + host.w}`,
          tx: leaf.x + leaf.w / 2,
          ty: y + 4,
          anchor: 'middle',
        },
      ]
    }
    // The grounding conductor of a feeder runs beside it.
    const off = tie.kind === 'ground' ? 9 : 0
    const x1 = a.x + a.w / 2 + off
    const x2 = b.x + b.w / 2 + off
    const y1 = a.y + a.h
    const mid = b.y - GY / 2 + (tie.kind === 'ground' ? 10 : 0)
    return [
      {
        tie,
        d: `M${x1} ${y1} V${mid} H${x2} V${b.y}`,
        tx: x2 + (tie.kind === 'ground' ? 8 : -8),
        ty: b.y - 12,
        anchor: tie.kind === 'ground' ? 'start' : 'end',
      },
    ]
  })
}
