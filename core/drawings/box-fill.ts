import type { Comparison } from '../engine/verdict'
import { cut, drawing, element, INK, SOFT, TINT, words } from './svg'

const WIDTH = 420
const TALL = 130
const LEFT = 20
const BOX_W = 96
const TOP = 14
/** Lines of the sum beside the box. */
const MOST = 7

/** A box as tall as its volume, what is in it filled up to what that needs; the sum stands beside. */
export function boxFillSvg({ left, right, unit }: Comparison, working: readonly string[]): string {
  const scale = TALL / Math.max(left, right, 1)
  const bottom = TOP + TALL
  const boxTop = bottom - right * scale
  const fillTop = bottom - left * scale
  const lines = working.slice(0, MOST)
  return drawing(WIDTH, bottom + 16, [
    element('rect', {
      x: LEFT,
      y: fillTop,
      width: BOX_W,
      height: bottom - fillTop,
      fill: TINT,
      stroke: SOFT,
      'stroke-dasharray': '3 3',
    }),
    element('path', {
      d: `M${LEFT - 3} ${boxTop} V${bottom + 2} H${LEFT + BOX_W + 3} V${boxTop}`,
      fill: 'none',
      stroke: INK,
      'stroke-width': 4,
    }),
    ...(left > right
      ? [
          element('path', {
            d: `M${LEFT - 12} ${boxTop} H${LEFT + BOX_W + 12}`,
            stroke: INK,
            'stroke-dasharray': '6 4',
          }),
        ]
      : []),
    words(`needs ${left} ${unit}`, LEFT + BOX_W + 24, Math.max(TOP + 8, fillTop + 8), {
      isBold: true,
    }),
    words(`box ${right} ${unit}`, LEFT + BOX_W + 24, bottom, { isBold: true }),
    ...lines.map((line, i) =>
      words(cut(line, 42), LEFT + BOX_W + 24, TOP + 26 + i * 14, { size: 10.5, fill: SOFT }),
    ),
  ])
}
