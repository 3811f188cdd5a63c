/** Volume one conductor takes, cubic inches, by AWG. 314.16(B). */
export const CONDUCTOR_VOLUME = {
  '18': 1.5,
  '16': 1.75,
  '14': 2.0,
  '12': 2.25,
  '10': 2.5,
  '8': 3.0,
  '6': 5.0,
} as const
export type FillSize = keyof typeof CONDUCTOR_VOLUME

/** Volumes of common metal boxes, cubic inches. 314.16(A). A volume marked on the box beats this table. */
export const BOX_VOLUME = {
  'round 4 x 1-1/4': 12.5,
  'round 4 x 1-1/2': 15.5,
  'round 4 x 2-1/8': 21.5,
  'square 4 x 1-1/4': 18.0,
  'square 4 x 1-1/2': 21.0,
  'square 4 x 2-1/8': 30.3,
  'square 4-11/16 x 1-1/4': 25.5,
  'square 4-11/16 x 1-1/2': 29.5,
  'square 4-11/16 x 2-1/8': 42.0,
  'device 3 x 2 x 1-1/2': 7.5,
  'device 3 x 2 x 2': 10.0,
  'device 3 x 2 x 2-1/4': 10.5,
  'device 3 x 2 x 2-1/2': 12.5,
  'device 3 x 2 x 2-3/4': 14.0,
  'device 3 x 2 x 3-1/2': 18.0,
  'device 4 x 2-1/8 x 1-1/2': 10.3,
  'device 4 x 2-1/8 x 1-7/8': 13.0,
  'device 4 x 2-1/8 x 2-1/8': 14.5,
} as const
export type BoxKind = keyof typeof BOX_VOLUME

/** What is in a box. Counts are whole conductors; sizes are AWG. */
export interface BoxContents {
  /** Conductors that enter and end or are spliced here, by size. Pigtails that never leave the box are not listed. */
  conductors: readonly { size: FillSize; count: number }[]
  /** Unbroken conductors passing through; `looped` ones have 12 in. or more of slack and count twice. */
  through?: readonly { size: FillSize; count: number; looped?: boolean }[]
  hasInternalClamps?: boolean
  /** Studs and hickeys. */
  supportFittings?: number
  /** Each yoke with the largest conductor on it; `gangs` above 1 for devices wider than 2 in. (2008 on). */
  devices?: readonly { largest: FillSize; gangs?: number }[]
  /** Equipment grounding conductors, all together. */
  grounds?: { size: FillSize; count: number }
}

export interface FillLine {
  what: string
  count: number
  each: number
  volume: number
}
export interface BoxFill {
  lines: FillLine[]
  total: number
  volume: number
  fits: boolean
}

const round = (value: number) => Math.round(value * 1000) / 1000

/**
 * Box fill in cubic inches, with each line of the sum. 314.16(B).
 * From the 2020 edition each grounding conductor beyond four adds a quarter; before, all count once.
 */
export function boxFill(box: BoxContents, volume: number, edition: number): BoxFill {
  const lines: FillLine[] = []
  const add = (what: string, count: number, each: number) => {
    if (count > 0) lines.push({ what, count, each, volume: round(count * each) })
  }
  const sizes: FillSize[] = []
  for (const c of box.conductors) {
    if (c.count > 0) sizes.push(c.size)
    add(`${c.size} AWG conductors`, c.count, CONDUCTOR_VOLUME[c.size])
  }
  for (const t of box.through ?? []) {
    if (t.count > 0) sizes.push(t.size)
    add(
      `${t.size} AWG passing through${t.looped ? ', looped' : ''}`,
      t.count * (t.looped ? 2 : 1),
      CONDUCTOR_VOLUME[t.size],
    )
  }
  if (box.grounds && box.grounds.count > 0) sizes.push(box.grounds.size)
  const largest = sizes.length ? Math.max(...sizes.map(s => CONDUCTOR_VOLUME[s])) : 0
  if (box.hasInternalClamps) add('internal clamps, together', 1, largest)
  add('support fittings', box.supportFittings ?? 0, largest)
  for (const d of box.devices ?? []) add('device', 2 * (d.gangs ?? 1), CONDUCTOR_VOLUME[d.largest])
  if (box.grounds && box.grounds.count > 0) {
    const each = CONDUCTOR_VOLUME[box.grounds.size]
    add('grounding conductors, together', 1, each)
    if (edition >= 2020) add('grounding conductors beyond four', box.grounds.count - 4, each / 4)
  }
  const total = round(lines.reduce((sum, line) => sum + line.volume, 0))
  return { lines, total, volume, fits: total <= volume }
}
