/**
 * Where the conductors of a property stand when its currents are drawn: the bond map, with every conductor of a supply
 * or feeder as a line of its own and the outlets in question below their panels. Only places; what flows is told apart.
 */
import type { PropertyNetwork, PropertyPart } from '../paths/property'
import { valueOf } from '../model/house'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'
import { isToTheSide, type BondMap, type MapNode, type MapTie } from '../views/bond-map'
import { bondLayout, type PlacedNode } from './bond-layout'

export interface CurrentLine {
  readonly part: string
  readonly kind: PropertyPart['kind']
  /** From the panel side outwards, in right angles. */
  readonly d: string
  /** Where its number stands. */
  readonly tx: number
  readonly ty: number
  readonly anchor: 'start' | 'middle' | 'end'
}
export interface CurrentNode extends PlacedNode {
  readonly isOutlet: boolean
  /** The bond of neutral and metal inside, where there is one to be made. */
  readonly bond: string | undefined
  /** Where its metal is told against the earth. */
  readonly frame: string | undefined
}
export interface CurrentLayout {
  readonly nodes: readonly CurrentNode[]
  readonly lines: readonly CurrentLine[]
  readonly width: number
  readonly height: number
}

const OUTLET = 'outlet '
/** Distance of the conductors of one cable. */
const APART = 26
const ORDER: readonly PropertyPart['kind'][] = ['device', 'hot', 'neutral', 'ground', 'pipe']

/** The bond map with the outlets in question hung below their panels. */
function withOutlets(
  site: Site,
  map: BondMap,
  network: PropertyNetwork,
  focus: readonly string[],
): BondMap {
  const nodes: MapNode[] = []
  const ties: MapTie[] = []
  for (const subject of focus) {
    const place = network.places.find(p => p.subject === subject)
    const circuit = site.get(place?.circuit, 'circuit')
    const panel = site.get(valueOf(circuit, 'fedBy'), 'breaker')?.parent
    const host = map.nodes.find(node => node.id === panel)
    if (!place || !host) continue
    const thing = site.house.subjects.get(subject)
    const id = `${OUTLET}${subject}`
    nodes.push({
      id,
      kind: 'enclosure',
      label: thing ? labelOf(site, thing) : subject,
      what: 'outlet',
      depth: host.depth + 1,
      building: '',
      subject,
    })
    ties.push({
      id: `to ${id}`,
      from: host.id,
      to: id,
      kind: 'feeder',
      state: 'sound',
      text: '',
      subject,
    })
  }
  return { ...map, nodes: [...map.nodes, ...nodes], ties: [...map.ties, ...ties] }
}

/** The enclosures on the way of power to some outlets. */
function onTheWay(
  site: Site,
  map: BondMap,
  network: PropertyNetwork,
  focus: readonly string[],
): ReadonlySet<string> {
  const up = new Map(
    map.ties.filter(t => t.kind === 'supply' || t.kind === 'feeder').map(t => [t.to, t.from]),
  )
  const found = new Set<string>()
  for (const subject of focus) {
    const circuit = site.get(network.places.find(p => p.subject === subject)?.circuit, 'circuit')
    let at = site.get(valueOf(circuit, 'fedBy'), 'breaker')?.parent ?? undefined
    for (; at !== undefined && !found.has(at); at = up.get(at)) found.add(at)
  }
  return found
}

/**
 * Lays out the conductors: of the enclosures on the way to the outlets in question, or of all that power is drawn to,
 * and of what hangs on them.
 */
export function currentLayout(
  site: Site,
  bonds: BondMap,
  network: PropertyNetwork,
  focus: readonly string[],
  isWhole = false,
): CurrentLayout {
  const ids = new Set(network.parts.map(p => p.id))
  const way = onTheWay(site, bonds, network, focus)
  const hosts = new Map(bonds.ties.filter(isToTheSide).map(t => [t.from, t.to]))
  const isWanted = (id: string) => ids.has(`bond ${id}`) && (isWhole || way.has(id))
  const isDrawn = (node: MapNode) =>
    node.kind === 'utility' ||
    (node.kind !== 'communications' &&
      isWanted(node.kind === 'enclosure' ? node.id : (hosts.get(node.id) ?? '')))
  const kept = new Set(bonds.nodes.filter(isDrawn).map(node => node.id))
  const map = withOutlets(
    site,
    {
      ...bonds,
      nodes: bonds.nodes.filter(node => kept.has(node.id)),
      ties: bonds.ties.filter(tie => kept.has(tie.from) && kept.has(tie.to)),
    },
    network,
    focus,
  )
  const layout = bondLayout(map)
  const at = new Map(layout.nodes.map(p => [p.node.id, p]))
  const lines: CurrentLine[] = []
  const byTie = new Map<string, PropertyPart[]>()
  for (const part of network.parts)
    if (part.tie !== undefined) byTie.set(part.tie, [...(byTie.get(part.tie) ?? []), part])
  /** Cables drawn so far below each. */
  const below = new Map<string, number>()
  for (const tie of map.ties) {
    const [from, to] = [at.get(tie.from), at.get(tie.to)]
    if (!from || !to || tie.kind === 'neutral bond' || tie.kind === 'ground') continue
    if (isToTheSide(tie)) {
      const part = byTie.get(tie.id)?.find(p => p.kind !== 'soil')
      if (part) lines.push(toLeaf(part, from, to))
      continue
    }
    const outlet = tie.to.startsWith(OUTLET) ? tie.to.slice(OUTLET.length) : undefined
    const parts =
      outlet === undefined
        ? [...(byTie.get(tie.id) ?? []), ...(byTie.get(`egc ${tie.subject}`) ?? [])]
        : network.parts.filter(p =>
            ['hot', 'second', 'neutral', 'ground'].some(x => p.id === `${x} ${outlet}`),
          )
    const order = [...parts].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind))
    const sibling = below.get(tie.from) ?? 0
    below.set(tie.from, sibling + 1)
    order.forEach((part, i) => lines.push(down(part, from, to, i, order.length, sibling)))
  }
  return {
    nodes: layout.nodes.map(p => {
      const subject = p.node.id.startsWith(OUTLET) ? p.node.id.slice(OUTLET.length) : undefined
      const isEnclosure = p.node.kind === 'enclosure' && subject === undefined
      return {
        ...p,
        isOutlet: subject !== undefined,
        bond: isEnclosure && ids.has(`bond ${p.node.id}`) ? `bond ${p.node.id}` : undefined,
        frame:
          subject !== undefined
            ? network.places.find(x => x.subject === subject)?.ground
            : isEnclosure
              ? `${p.node.id} G`
              : undefined,
      }
    }),
    lines,
    width: layout.width,
    height: layout.height,
  }
}

/** One conductor of a cable that goes down: beside the others, bent where they bend. */
function down(
  part: PropertyPart,
  from: PlacedNode,
  to: PlacedNode,
  i: number,
  count: number,
  sibling: number,
): CurrentLine {
  const off = (i - (count - 1) / 2) * APART
  const x1 = from.x + from.w / 2 + off
  const x2 = to.x + to.w / 2 + off
  const y1 = from.y + from.h
  // To the left the outermost bends last, to the right first, so that no two cross.
  const turn = x2 < x1 ? i : count - 1 - i
  // Two cables that part at one place bend at different heights.
  const mid = to.y - (sibling % 2 === 0 ? 60 : 86) + turn * 6
  return {
    part: part.id,
    kind: part.kind,
    d: `M${x1} ${y1} V${mid} H${x2} V${to.y}`,
    tx: x2,
    ty: to.y - 8 - (i % 2) * 13,
    anchor: 'middle',
  }
}

function toLeaf(part: PropertyPart, leaf: PlacedNode, host: PlacedNode): CurrentLine {
  const y = leaf.y + leaf.h / 2
  const mid = leaf.x - 20
  const hy = host.y + host.h - 12
  return {
    part: part.id,
    kind: part.kind,
    d: `M${host.x + host.w} ${hy} H${mid} V${y} H${leaf.x}`,
    tx: mid + 2,
    ty: Math.min(y, hy) - 5,
    anchor: 'middle',
  }
}
