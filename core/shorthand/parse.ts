/**
 * One line for a whole breaker: space, rating, conductor, wiring, name, in any order that makes sense.
 * @example 7 20 14cu nm kiln room lights
 * @example 5 20 12-3 cu nm-b with 9 tie counter left
 */
import { SIZES, standardRatings, type Size } from '../tables/ampacity'
import type { Value } from '../model/fields'

export interface Line {
  space?: number
  half?: 'a' | 'b'
  poles?: number
  ratingAmps?: number
  size?: Size
  metal?: Value<'segment', 'metal'>
  wiring?: Value<'segment', 'wiring'>
  conductors?: number
  protection?: Value<'breaker', 'protection'>
  handleTie?: Value<'breaker', 'handleTie'>
  supplies?: Value<'circuit', 'supplies'>
  role?: 'spare' | 'feeder'
  sharesWith?: number
  label?: string
}
/** A piece of the line and what was understood; `isRead` false where nothing could be made of it. */
export interface Piece {
  text: string
  meaning: string
  isRead: boolean
}

const METAL: Record<string, Line['metal']> = {
  cu: 'copper',
  al: 'aluminum',
  cca: 'copper-clad aluminum',
  tinned: 'tinned copper',
  silver: 'silver-looking',
}
const WIRING: Record<string, Line['wiring']> = {
  nm: 'NM',
  nmb: 'NM-B',
  'nm-b': 'NM-B',
  cloth: 'cloth NM',
  uf: 'UF',
  ac: 'armored cable',
  spiral: 'old spiral armor',
  mc: 'MC',
  emt: 'steel conduit',
  steel: 'steel conduit',
  pvc: 'plastic conduit',
  flex: 'flexible conduit',
  se: 'SE',
  kt: 'knob-and-tube',
}
const PROTECTION: Record<string, Line['protection']> = {
  gfci: 'GFCI',
  afci: 'AFCI',
  dual: 'dual',
  plain: 'standard',
}
const TIE: Record<string, Line['handleTie']> = {
  tie: 'listed tie',
  untied: 'not tied',
  nail: 'improvised tie',
  common: 'common trip',
}
/** What the name of a circuit says about its load; the directory's word, not proof. */
const SUPPLIES: readonly (readonly [RegExp, NonNullable<Line['supplies']>])[] = [
  [
    /\b(lights? and (receptacles?|outlets?)|(receptacles?|outlets?) and lights?|bedrooms?|living|den)\b/i,
    'receptacles and lighting',
  ],
  [/\b(lights?|lighting)\b/i, 'lighting'],
  [/\b(range|oven|cooktop)\b/i, 'cooking appliance'],
  [/\b(water heater)\b/i, 'water heater'],
  [/\b(a\/?c|air conditioner|condenser|heat pump)\b/i, 'air conditioning'],
  [/\b(pump|fan motor)\b/i, 'motor'],
  [/\b(alarms?|smoke)\b/i, 'alarms'],
  [/\b(dryer|dishwasher|furnace|disposer)\b/i, 'fixed appliance'],
  [/\b(counter|receptacles?|outlets?|laundry|bath)\b/i, 'receptacles'],
]
const SIZED = new RegExp(
  `^(${[...SIZES]
    .sort((a, b) => b.length - a.length)
    .map(s => s.replace('/', '\\/'))
    .join('|')})(?:awg)?(?:-(\\d))?(cu|al|cca)?$`,
  'i',
)

/**
 * Reads a line. Numbers: the first is the space (unless `spaceGiven`), the next the rating; a number that is neither
 * but is a conductor size is the size. What cannot be read is said, never guessed. A line that begins with `=`, or a
 * space and `=`, is the line before over again, with whatever follows changed.
 */
export function parseLine(
  text: string,
  spaceGiven?: number,
  previous?: Line,
): { line: Line; pieces: Piece[] } {
  const again = /^\s*(?:(\d{1,2})([ab])?\s*)?=/.exec(text)
  if (again) return repeated(text.slice(again[0].length), again[1], again[2], spaceGiven, previous)
  const line: Line = {}
  const pieces: Piece[] = []
  const name: string[] = []
  const words = text.trim().split(/\s+/).filter(Boolean).slice(0, 60)
  const say = (word: string, meaning: string, isRead = true) =>
    pieces.push({ text: word, meaning, isRead })
  let hasSpace = false
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!
    const low = word.toLowerCase()
    if (name.length > 0 && !(low === 'with' || low === '+')) {
      // Once the name has begun, only the words that cannot be part of one are still read.
      if (!(low in PROTECTION && low !== 'plain')) {
        name.push(word)
        continue
      }
    }
    const space = /^(\d{1,2})([ab])?$/.exec(low)
    if (
      space &&
      !hasSpace &&
      (spaceGiven === undefined || i === 0) &&
      !(spaceGiven !== undefined && !looksLikeSpace(words, i))
    ) {
      hasSpace = true
      line.space = Number(space[1])
      if (space[2]) line.half = space[2] as 'a' | 'b'
      say(word, `space ${line.space}${line.half ?? ''}`)
      continue
    }
    const poles = /^([123])p$/.exec(low)
    if (poles) {
      line.poles = Number(poles[1])
      say(word, line.poles === 1 ? 'one pole' : `${line.poles} poles`)
      continue
    }
    const amps = /^(\d{1,3})a?$/.exec(low)
    if (amps && line.ratingAmps === undefined) {
      const value = Number(amps[1])
      line.ratingAmps = value
      if (value < 5 || value > 400) {
        delete line.ratingAmps
        say(word, 'no rating this small or large', false)
      } else
        say(
          word,
          standardRatings(2023).includes(value) ? `${value} A` : `${value} A, not a standard size`,
        )
      continue
    }
    const sized = SIZED.exec(low)
    if (sized) {
      line.size = sized[1] as Size
      if (sized[2]) line.conductors = Number(sized[2])
      if (sized[3]) line.metal = METAL[sized[3]]
      say(
        word,
        [`${line.size} AWG`, line.metal, sized[2] && `${sized[2]} conductors`]
          .filter(Boolean)
          .join(' '),
      )
      continue
    }
    if (/^\d+(awg|cu|al|cca)$/.test(low)) {
      say(word, 'no such conductor size', false)
      continue
    }
    if (low in METAL) {
      line.metal = METAL[low]
      say(word, line.metal!)
      continue
    }
    if (low in WIRING) {
      line.wiring = WIRING[low]
      say(word, line.wiring!)
      continue
    }
    if (low in PROTECTION) {
      line.protection = PROTECTION[low]
      say(word, line.protection === 'standard' ? 'no protection but overcurrent' : line.protection!)
      continue
    }
    if (low in TIE && name.length === 0) {
      line.handleTie = TIE[low]
      say(word, line.handleTie!)
      continue
    }
    if (low === 'with' || low === '+') {
      const other = /^\d{1,2}$/.exec(words[i + 1] ?? '')
      if (other) {
        line.sharesWith = Number(other[0])
        say(`${word} ${words[++i]}`, `shares its neutral with space ${line.sharesWith}`)
        continue
      }
    }
    if (low === 'spare' && words.length <= 4) {
      line.role = 'spare'
      say(word, 'spare')
      continue
    }
    if (low === 'feeder' && name.length === 0) {
      line.role = 'feeder'
      say(word, 'feeds another panel')
      continue
    }
    if (/^\d+\S*$/.test(low) && name.length === 0) {
      say(word, 'not understood', false)
      continue
    }
    name.push(word)
  }
  if (name.length > 0) {
    line.label = name.join(' ').slice(0, 200)
    say(line.label, `“${line.label}”`)
    const supplies = SUPPLIES.find(([pattern]) => pattern.test(line.label!))?.[1]
    if (supplies && line.role === undefined) {
      line.supplies = supplies
      say('', `directory says: ${supplies}`)
    }
  }
  return { line, pieces }
}

/** The line before, without its place, its name and whom it shares with; what follows the sign is read on top. */
function repeated(
  rest: string,
  space: string | undefined,
  half: string | undefined,
  spaceGiven: number | undefined,
  previous: Line | undefined,
): { line: Line; pieces: Piece[] } {
  if (!previous)
    return { line: {}, pieces: [{ text: '=', meaning: 'no line before this one', isRead: false }] }
  const own = parseLine(rest, spaceGiven ?? 0)
  const {
    space: _space,
    half: _half,
    label: _label,
    sharesWith: _shares,
    supplies: _supplies,
    ...kept
  } = previous
  const line: Line = {
    ...kept,
    ...own.line,
    ...(space !== undefined && { space: Number(space) }),
    ...(half !== undefined && { half: half as 'a' | 'b' }),
  }
  const words = [
    line.ratingAmps && `${line.ratingAmps} A`,
    line.poles && line.poles > 1 && `${line.poles} poles`,
    line.size && `${line.size} AWG`,
    line.metal,
    line.wiring,
    line.protection,
    line.role,
  ].filter(Boolean)
  return {
    line,
    pieces: [
      ...(space !== undefined
        ? [{ text: space, meaning: `space ${space}${half ?? ''}`, isRead: true }]
        : []),
      { text: '=', meaning: `same again: ${words.join(', ')}`, isRead: true },
      ...own.pieces,
    ],
  }
}

/** With a space selected, a leading number is another space only where a rating or a number of poles follows it. */
function looksLikeSpace(words: readonly string[], i: number): boolean {
  const next = (words[i + 1] ?? '').toLowerCase()
  return (
    /^[123]p$/.test(next) ||
    (/^\d{1,3}a?$/.test(next) && standardRatings(2020).includes(Number.parseInt(next, 10)))
  )
}
