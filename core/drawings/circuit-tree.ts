import type { Site } from '../derive/site'
import { groundOf } from '../derive/ground'
import { valueOf, type Subject } from '../model/house'
import { labelOf } from '../texts/labels'
import { cut, drawing, element, INK, PAPER, SOFT, words } from './svg'

const WIDTH = 720
const BOX_W = 124
const BOX_H = 34
const GAP = 14
const LEFT = 150
/** Outlets in one line before it is folded. */
const PER_LINE = Math.floor((WIDTH - LEFT) / (BOX_W + GAP))

/** What an outlet is, in a few letters of the trade. */
function shortOf(outlet: Subject<'outlet'>): string {
  const type = valueOf(outlet, 'type') ?? 'outlet'
  const slots = valueOf(outlet, 'slots')
  return slots === undefined ? type : `${slots}-slot ${type}`
}
/** Outlets of a circuit in the order of the wire as far as traced, the rest after them. */
function inOrder(site: Site, circuit: Subject<'circuit'>): readonly Subject<'outlet'>[] {
  const all = site.all.outlet.filter(o => valueOf(o, 'circuit') === circuit.id)
  const done = new Set<string>()
  const list: Subject<'outlet'>[] = []
  const take = (o: Subject<'outlet'>) => {
    if (done.has(o.id)) return
    done.add(o.id)
    list.push(o)
    for (const next of all) if (valueOf(next, 'after') === o.id) take(next)
  }
  for (const o of all) if (valueOf(o, 'after') === 'panel') take(o)
  for (const o of all) take(o)
  return list
}

/** A sheet is no taller than this, so that it fits on a page with its caption. */
const SHEET = 840

/** What a panel feeds, circuit by circuit, on as many sheets as it takes: none where no outlet is known on it. */
export function circuitTreeSvgs(site: Site, panel: Subject<'enclosure'>): readonly string[] {
  const sheets: string[] = []
  let parts: string[] = []
  let y = 10
  const finish = () => {
    if (parts.length === 0) return
    const legend =
      'Heavy frame: grounded, as far as proved. Dashed: order along the wire not traced.'
    parts.push(words(legend, 6, y + 12, { size: 10.5, fill: SOFT }))
    sheets.push(drawing(WIDTH, y + 22, parts))
    parts = []
    y = 10
  }
  for (const breaker of site.children(panel, 'breaker'))
    for (const circuit of site.circuitsOf(breaker)) {
      const outlets = inOrder(site, circuit)
      if (outlets.length === 0) continue
      const lines = Math.ceil(outlets.length / PER_LINE)
      const tall = lines * (BOX_H + 8) + 8
      if (y + tall > SHEET) finish()
      const space = `${valueOf(breaker, 'space') ?? '?'}${valueOf(breaker, 'half') ?? ''}`
      const rating = valueOf(breaker, 'ratingAmps')
      parts.push(words(`${space}`, 6, y + 15, { isBold: true }))
      parts.push(words(cut(valueOf(circuit, 'label') ?? 'no name', 18), 32, y + 15))
      const amps = rating === undefined ? 'rating not read' : `${rating} A`
      parts.push(words(amps, 32, y + 29, { size: 10.5, fill: SOFT }))
      outlets.forEach((outlet, i) => {
        const x = LEFT + (i % PER_LINE) * (BOX_W + GAP)
        const top = y + Math.floor(i / PER_LINE) * (BOX_H + 8)
        const isTraced = valueOf(outlet, 'after') !== undefined
        parts.push(
          element('path', {
            d: `M${x - GAP} ${top + BOX_H / 2} H${x}`,
            stroke: INK,
            'stroke-width': 1.4,
            'stroke-dasharray': isTraced ? undefined : '3 3',
          }),
          element('rect', {
            x,
            y: top,
            width: BOX_W,
            height: BOX_H,
            rx: 3,
            fill: PAPER,
            stroke: INK,
            'stroke-width': groundOf(site, outlet).value === 'good' ? 2 : 1,
            'stroke-dasharray': isTraced ? undefined : '4 3',
          }),
          words(cut(labelOf(site, outlet), 22), x + 6, top + 14, { size: 10.5, isBold: true }),
          words(cut(shortOf(outlet), 24), x + 6, top + 27, { size: 9.5, fill: SOFT }),
        )
      })
      y += tall
    }
  finish()
  return sheets
}
