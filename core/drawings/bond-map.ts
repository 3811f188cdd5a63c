import type { SpokenResult } from '../assess/assess'
import type { Site } from '../derive/site'
import { bondMapOf, type TieState } from '../views/bond-map'
import { bondLayout, TIE_DASH } from './bond-layout'
import { cut, drawing, element, INK, PAPER, SOFT, TINT, words } from './svg'

/** Said with words beside the line, so that it holds without color. */
const STATE_WORDS: Readonly<Record<TieState, string>> = {
  sound: '',
  missing: 'missing',
  second: 'a second one',
  unsound: 'not sound',
  'lawful old': 'lawful old',
  'not seen': 'not seen',
}
/** Texts that say the state themselves. */
const SAYS_IT = /not (seen|looked|gauged|been found)|^look for|^no(ne)? |again|lawful|old/
const said = (text: string, state: TieState) =>
  STATE_WORDS[state] && !SAYS_IT.test(text) ? `${text} (${STATE_WORDS[state]})` : text

/** Supply, grounding and bonding of a property as a drawing for paper. */
export function bondMapSvg(site: Site, results: readonly SpokenResult[]): string {
  const map = bondMapOf(site, results)
  const { nodes, ties, width, height } = bondLayout(map)
  const parts: string[] = []
  for (const { tie, d, tx, ty, anchor } of ties) {
    const isPower = tie.kind === 'supply' || tie.kind === 'feeder'
    parts.push(
      element('path', {
        d,
        fill: 'none',
        stroke: INK,
        'stroke-width': isPower ? 3.5 : 1.8,
        'stroke-dasharray': TIE_DASH[tie.state],
      }),
    )
    if (anchor !== 'middle')
      parts.push(words(cut(said(tie.text, tie.state), 30), tx, ty, { size: 11.5, anchor }))
  }
  for (const { node, x, y, w, h } of nodes) {
    const isService = node.what === 'service disconnect'
    parts.push(
      element('rect', {
        x,
        y,
        width: w,
        height: h,
        rx: node.kind === 'piping' ? 18 : 3,
        fill: node.kind === 'utility' ? TINT : PAPER,
        stroke: INK,
        'stroke-width': isService ? 2.6 : 1.1,
        'stroke-dasharray': node.what.includes('not settled') ? '7 5' : undefined,
      }),
    )
    if (node.kind === 'utility' || node.kind === 'enclosure') {
      parts.push(words(cut(node.label, 25), x + 12, y + 21, { size: 14, isBold: true }))
      const what = [node.what, node.building].filter(Boolean).join(' · ')
      parts.push(words(cut(what, 34), x + 12, y + 38, { fill: SOFT }))
      const bond = map.ties.find(t => t.kind === 'neutral bond' && t.from === node.id)
      if (bond) parts.push(words(cut(said(bond.text, bond.state), 32), x + 12, y + 60))
    } else {
      const tie = map.ties.find(t => t.from === node.id && t.kind !== 'neutral bond')
      parts.push(words(cut(node.label, 24), x + 12, y + 17, { isBold: true }))
      const text = tie ? said(tie.text || node.what, tie.state) : node.what
      parts.push(words(cut(text, 27), x + 12, y + 32, { size: 11.5 }))
    }
  }
  return drawing(width, height, parts)
}
