import type { SpokenResult } from '../assess/assess'
import type { Site } from '../derive/site'
import { roleOf } from '../derive/service-role'
import { SEVERITIES } from '../engine/severity'
import { valueOf, type Subject } from '../model/house'
import { labelOf } from '../texts/labels'
import { cut, drawing, element, INK, PAPER, SOFT, TINT, words } from './svg'

const WIDTH = 720
const ROW = 30
const TOP = 70
const LEFT = 196
const RIGHT = 368
const BREAKER = 156

/** Which side and row of a panel a space stands at, by how the spaces are numbered. */
export function spaceAt(
  space: number,
  rows: number,
  isDownEachSide: boolean,
): { readonly side: 'left' | 'right'; readonly row: number } {
  if (isDownEachSide) return { side: space <= rows ? 'left' : 'right', row: (space - 1) % rows }
  return { side: space % 2 === 1 ? 'left' : 'right', row: Math.ceil(space / 2) - 1 }
}
/** Spaces of a panel as far as known: its marking, else what its breakers take up. */
export const spacesOf = (site: Site, panel: Subject<'enclosure'>): number =>
  valueOf(panel, 'spaces') ??
  Math.max(8, ...site.children(panel, 'breaker').map(b => (valueOf(b, 'space') ?? 1) + 2))

/** The worst finding at a breaker, with what hangs on it, as the number of its row in the legend. */
function findingAt(
  site: Site,
  breaker: Subject<'breaker'>,
  results: readonly SpokenResult[],
): string | undefined {
  const circuits = site.circuitsOf(breaker)
  const ids = new Set([
    breaker.id,
    ...circuits.map(c => c.id),
    ...circuits.flatMap(c => site.children(c, 'segment').map(s => s.id)),
  ])
  const mine = results.filter(r => r.outcome === 'fault' && ids.has(r.subject.id))
  return SEVERITIES.find(s => mine.some(r => r.severity === s))
}

/** A panel with its cover off, as found, for paper: breakers, ratings, conductors, names; a flag where a fault is. */
export function panelFaceSvg(
  site: Site,
  panel: Subject<'enclosure'>,
  results: readonly SpokenResult[],
): string {
  const spaces = spacesOf(site, panel)
  const rows = Math.ceil(spaces / 2)
  const isDown = valueOf(panel, 'numbering') === 'down each side'
  const height = TOP + rows * ROW + 46
  const parts: string[] = [
    element('rect', {
      x: 6,
      y: 6,
      width: WIDTH - 12,
      height: height - 12,
      rx: 4,
      fill: PAPER,
      stroke: INK,
      'stroke-width': 1.6,
    }),
  ]
  const main = [valueOf(panel, 'mainKind') ?? 'main not seen', valueOf(panel, 'mainAmps')]
  const role = roleOf(site, panel).value
  const says =
    role === 'service'
      ? 'service disconnect'
      : role === 'load'
        ? 'after the service'
        : 'not settled'
  parts.push(words(cut(labelOf(site, panel), 40), 22, 32, { size: 16, isBold: true }))
  const amps = main[1] === undefined ? '' : ` ${main[1]} A`
  parts.push(words(`${main[0]}${amps} · ${says}`, 22, 52, { fill: SOFT }))
  parts.push(
    element('rect', { x: 356, y: TOP, width: 8, height: rows * ROW, fill: TINT, stroke: SOFT }),
  )
  const taken = new Set<string>()
  for (const b of site.children(panel, 'breaker')) {
    const space = valueOf(b, 'space')
    if (space === undefined) continue
    const half = valueOf(b, 'half')
    const poles = valueOf(b, 'poles') ?? 1
    const at = spaceAt(space, rows, isDown)
    for (let p = 0; p < poles; p++) taken.add(`${at.side} ${at.row + p}`)
    const y = TOP + at.row * ROW + (half === 'b' ? ROW / 2 : 0)
    const h = half ? ROW / 2 : ROW * poles
    const x = at.side === 'left' ? LEFT : RIGHT
    const isSmall = h < ROW
    const size = isSmall ? 9.5 : 12
    const middle = y + h / 2 + size / 3
    parts.push(
      element('rect', {
        x,
        y: y + 1,
        width: BREAKER,
        height: h - 2,
        fill: PAPER,
        stroke: INK,
        'stroke-width': poles > 1 ? 2 : 1.1,
      }),
    )
    const rating = valueOf(b, 'ratingAmps')
    const near = at.side === 'left' ? x + BREAKER - 8 : x + 8
    const anchor = at.side === 'left' ? 'end' : 'start'
    parts.push(
      words(rating === undefined ? '? A' : `${rating} A`, near, middle, {
        size,
        isBold: true,
        anchor,
      }),
    )
    const far = at.side === 'left' ? x + 8 : x + BREAKER - 8
    parts.push(
      words(`${space}${half ?? ''}`, far, middle, {
        size: size - 1,
        fill: SOFT,
        anchor: at.side === 'left' ? 'start' : 'end',
      }),
    )
    const circuit = site.circuitsOf(b)[0]
    const wire = circuit ? site.children(circuit, 'segment')[0] : site.feedersFrom(b)[0]
    const gauge = valueOf(wire as Subject<'segment'> | undefined, 'size')
    const metal = valueOf(wire as Subject<'segment'> | undefined, 'metal')
    const name = valueOf(circuit, 'label') ?? valueOf(b, 'label') ?? valueOf(b, 'role') ?? 'no name'
    const out = at.side === 'left' ? x - 8 : x + BREAKER + 8
    const outAnchor = at.side === 'left' ? 'end' : 'start'
    if (isSmall) {
      parts.push(words(cut(name, 26), out, middle, { size, anchor: outAnchor }))
    } else {
      parts.push(words(cut(name, 26), out, y + h / 2 - 1, { anchor: outAnchor }))
      const text = [gauge && `${gauge} AWG`, metal].filter(Boolean).join(' ') || 'not gauged'
      parts.push(
        words(cut(text, 28), out, y + h / 2 + 11, { size: 10, fill: SOFT, anchor: outAnchor }),
      )
    }
    const worst = findingAt(site, b, results)
    if (worst !== undefined) {
      const mx = x + BREAKER / 2
      const points = `${mx - 5},${y + h / 2 + 5} ${mx + 5},${y + h / 2 + 5} ${mx},${y + h / 2 - 5}`
      const fill = worst === 'make safe now' ? INK : PAPER
      parts.push(element('polygon', { points, fill, stroke: INK, 'stroke-width': 1.4 }))
    }
  }
  for (let space = 1; space <= spaces; space++) {
    const at = spaceAt(space, rows, isDown)
    if (taken.has(`${at.side} ${at.row}`)) continue
    const x = at.side === 'left' ? LEFT : RIGHT
    const y = TOP + at.row * ROW
    parts.push(
      element('rect', {
        x,
        y: y + 1,
        width: BREAKER,
        height: ROW - 2,
        fill: TINT,
        stroke: SOFT,
        'stroke-dasharray': '3 4',
      }),
      words(`${space}`, x + BREAKER / 2, y + ROW / 2 + 4, {
        size: 10,
        fill: SOFT,
        anchor: 'middle',
      }),
    )
  }
  const legend =
    'Filled triangle: make safe now. Open triangle: another fault. Dashed: empty space.'
  parts.push(words(legend, 22, height - 20, { size: 11, fill: SOFT }))
  return drawing(WIDTH, height, parts)
}
