import { absent } from '../../model/house'
import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say, type Step } from '../../engine/say'
import { unopened } from '../../derive/box'
import type { Comparison, Verdict } from '../../engine/verdict'
import type { FactRef, Subject } from '../../model/house'
import { boxFill, type BoxFill, type FillSize } from '../../tables/box-fill'

export const boxTooFull = defineRule({
  id: 'box-fill',
  family: 'outlets',
  subject: 'outlet',
  title: 'The box has room for what is in it',
  fault: 'Box too full',
  consequence: 'Crowded conductors are nicked and overheat.',
  cites: [{ section: '314.16' }],
  checks: {
    'too-small-for-any': {
      danger: 1,
      says: '{total} in³ required, even with 14 AWG more than the {volume} in³ there are',
    },
    'too-small': { danger: 1, says: '{total} in³ required, the box has {volume} in³' },
    'too-small-mixed': { danger: 1, says: '{total} in³ required, the box has {volume} in³' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['larger-box'],
  traps: [
    'Judge with the remedy device too: a protective device is no larger by this calculation, but deeper in the box',
    'A marked volume beats the table',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    const volume = c.ask(outlet.facts.boxVolumeIn3)
    const count = c.ask(outlet.facts.conductorsInBox)
    const grounds = c.ask(outlet.facts.groundsInBox)
    const largest = c.ask(outlet.facts.largestInBox)
    const clamps = c.ask(outlet.facts.hasInternalClamps)
    if (
      type === undefined ||
      volume === undefined ||
      count === undefined ||
      grounds === undefined ||
      largest === undefined ||
      clamps === undefined
    )
      return c.undecided(
        'What is in the box, or its volume, has not been counted',
        unopened(outlet, c),
      )
    const through = c.ask(outlet.facts.throughInBox)
    const fittings = c.ask(outlet.facts.fittingsInBox)
    const yokes = c.ask(outlet.facts.yokesInBox)
    const least = type === 'receptacle' || type === 'switch' ? 1 : 0
    return filled(
      outlet,
      { volume, count, grounds, largest, clamps, through, fittings, yokes, least },
      c,
    )
  },
})

/** What is in a box; undefined what need not be there and nobody has counted. */
interface Box {
  readonly volume: number
  readonly count: number
  readonly grounds: number
  readonly largest: FillSize
  readonly clamps: boolean
  readonly through: number | undefined
  readonly fittings: number | undefined
  readonly yokes: number | undefined
  /** Yokes that are counted while nobody has said. */
  readonly least: number
}

function filled(outlet: Subject<'outlet'>, box: Box, c: Context): Verdict {
  const { volume, largest } = box
  const full = fillOf(box, c.site.edition, largest)
  if (full.fits) return fits(box, full, c)
  const working = workingOf(full, volume)
  const compare = sidesOf(full, volume)
  if (largest !== '14' && !fillOf(box, c.site.edition, '14').fits)
    return c.fault('too-small-for-any', { total: full.total, volume }, { working, compare })
  const isOneSize = largest === '14' ? true : c.ask(outlet.facts.isOneSize)
  if (isOneSize === undefined)
    return c.undecided(say('Too full if all are {largest} AWG', { largest }), undefined, working)
  if (isOneSize === false) return bySize(outlet, box, working, c)
  return c.fault('too-small', { total: full.total, volume }, { working, compare })
}

/** The fill with every conductor of one size. */
const fillOf = (box: Box, edition: number, size: FillSize): BoxFill =>
  boxFill(
    {
      conductors: [{ size, count: box.count }],
      grounds: { size, count: box.grounds },
      hasInternalClamps: box.clamps,
      through: [{ size, count: box.through ?? 0 }],
      supportFittings: box.fittings ?? 0,
      devices: yokesOf(box, size),
    },
    box.volume,
    edition,
  )
const yokesOf = ({ yokes, least }: Box, largest: FillSize) =>
  Array.from({ length: yokes ?? least }, () => ({ largest }))

const workingOf = (fill: BoxFill, volume: number): Step[] => [
  ...fill.lines.map(l =>
    say('{what}: {count} × {each} = {volume} in³', {
      what: l.what,
      count: l.count,
      each: l.each,
      volume: l.volume,
    }),
  ),
  say('together {total} in³, box {volume} in³', { total: fill.total, volume }),
]
const sidesOf = (fill: BoxFill, volume: number): Comparison => ({
  left: fill.total,
  leftLabel: 'needed',
  sign: fill.fits ? (fill.total === volume ? '=' : '<') : '>',
  right: volume,
  rightLabel: 'box',
  unit: 'in³',
})

/** What was counted fits; not all that can be in a box may have been. */
function fits({ volume, through, fittings, yokes }: Box, fill: BoxFill, c: Context): Verdict {
  const working = workingOf(fill, volume)
  const { total } = fill
  if (through === undefined || fittings === undefined || yokes === undefined)
    return c.undecided(
      say('{total} in³ so far in a box of {volume}; not all of it has been counted', {
        total,
        volume,
      }),
      undefined,
      working,
    )
  return c.clear(
    say('{total} in³ in a box of {volume}', { total, volume }),
    working,
    sidesOf(fill, volume),
  )
}

/**
 * Sizes differ: each conductor counted with its own volume, the grounds with the largest of them, the device with
 * its own conductor. Where a size nobody read could turn the answer, it is asked for.
 */
function bySize(
  outlet: Subject<'outlet'>,
  box: Box,
  working: readonly Step[],
  c: Context,
): Verdict {
  const { yokes, least, grounds, through, volume } = box
  const counts = SIZES.map(([size, field]) => [size, c.ask(outlet.facts[field])] as const)
  // Nobody counts the thick ones where there are none: what is not said of 8 and 6 AWG is none.
  const thick = counts.slice(3).map(([size, n]) => [size, n ?? 0] as const)
  const thin = counts.slice(0, 3)
  const onDevice = c.ask(outlet.facts.size)
  const open =
    thin.some(([, n]) => n === undefined) || (onDevice === undefined && (yokes ?? least) > 0)
  const all = [...thin, ...thick].flatMap(([size, count]) =>
    count === undefined ? [] : [{ size, count }],
  )
  const sorted = all.reduce((sum, x) => sum + x.count, 0)
  if (open || sorted !== box.count)
    return c.undecided(
      open
        ? 'Sizes differ, and they have not been counted apart'
        : say('{sorted} conductors counted by size, {count} in all: count again', {
            sorted,
            count: box.count,
          }),
      open ? undefined : [unseenCount(outlet)],
      working,
    )
  const groundSize = grounds === 0 ? '14' : c.ask(outlet.facts.groundSizeInBox)
  const throughSize = (through ?? 0) === 0 ? '14' : c.ask(outlet.facts.throughSizeInBox)
  const fillWith = (ground: FillSize, passing: FillSize) =>
    boxFill(
      {
        conductors: all,
        grounds: { size: ground, count: grounds },
        hasInternalClamps: box.clamps,
        through: [{ size: passing, count: through ?? 0 }],
        supportFittings: box.fittings ?? 0,
        devices: yokesOf(box, onDevice!),
      },
      volume,
      c.site.edition,
    )
  const low = fillWith(groundSize ?? '14', throughSize ?? '14')
  const high = fillWith(groundSize ?? box.largest, throughSize ?? box.largest)
  if (!low.fits)
    return c.fault(
      'too-small-mixed',
      { total: low.total, volume },
      { working: workingOf(low, volume), compare: sidesOf(low, volume) },
    )
  if (!high.fits)
    return c.undecided(
      say('Too full if the grounds or what passes through are {largest} AWG', {
        largest: box.largest,
      }),
      [outlet.facts.groundSizeInBox, outlet.facts.throughSizeInBox].filter(
        f => f.state !== 'known',
      ),
      workingOf(high, volume),
    )
  return fits(box, high, c)
}

/** Sizes a box is counted by, the fields that hold their counts. */
const SIZES = [
  ['14', 'conductors14InBox'],
  ['12', 'conductors12InBox'],
  ['10', 'conductors10InBox'],
  ['8', 'conductors8InBox'],
  ['6', 'conductors6InBox'],
] as const
const unseenCount = (outlet: Subject<'outlet'>): FactRef => absent(outlet, 'conductorsInBox')
