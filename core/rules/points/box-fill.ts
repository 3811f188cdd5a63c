import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { unopened } from '../../derive/box'
import type { Verdict } from '../../engine/verdict'
import type { FactRef, Subject } from '../../model/house'
import { boxFill, type FillSize } from '../../tables/box-fill'

export const boxTooFull = defineRule({
  id: 'box-fill',
  family: 'points',
  subject: 'point',
  title: 'The box has room for what is in it',
  fault: 'Box too full',
  cites: [{ section: '314.16' }],
  triggers: ['replaced', 'new'],
  remedies: ['larger-box'],
  traps: [
    'Judge with the remedy device too: a protective device is no larger by this sum, but deeper in the box',
    'A marked volume beats the table',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    const volume = c.ask(point.facts.boxVolumeIn3)
    const count = c.ask(point.facts.conductorsInBox)
    const grounds = c.ask(point.facts.groundsInBox)
    const largest = c.ask(point.facts.largestInBox)
    const clamps = c.ask(point.facts.hasInternalClamps)
    if (
      type === undefined ||
      volume === undefined ||
      count === undefined ||
      grounds === undefined ||
      largest === undefined ||
      clamps === undefined
    )
      return c.undecided(
        say('What is in the box, or its volume, has not been counted'),
        [],
        unopened(point, c),
      )
    const through = c.ask(point.facts.throughInBox)
    const fittings = c.ask(point.facts.fittingsInBox)
    const yokes = c.ask(point.facts.yokesInBox)
    const least = type === 'receptacle' || type === 'switch' ? 1 : 0
    const fill = (size: FillSize) =>
      boxFill(
        {
          conductors: [{ size, count }],
          grounds: { size, count: grounds },
          hasInternalClamps: clamps,
          through: [{ size, count: through ?? 0 }],
          supportFittings: fittings ?? 0,
          devices: Array.from({ length: yokes ?? least }, () => ({ largest: size })),
        },
        volume,
        c.site.edition,
      )
    const full = fill(largest)
    const working = [
      ...full.lines.map(l =>
        say('{what}: {count} × {each} = {volume} in³', {
          what: l.what,
          count: l.count,
          each: l.each,
          volume: l.volume,
        }),
      ),
      say('together {total} in³, box {volume} in³', { total: full.total, volume }),
    ]
    const compare = {
      left: full.total,
      leftLabel: 'needed',
      sign: full.fits ? (full.total === volume ? '=' : '<') : '>',
      right: volume,
      rightLabel: 'box',
      unit: 'in³',
    } as const
    if (full.fits && (through === undefined || fittings === undefined || yokes === undefined))
      return c.undecided(
        say('{total} in³ so far in a box of {volume}; not all of it has been counted', {
          total: full.total,
          volume,
        }),
        working,
      )
    if (full.fits)
      return c.clear(
        say('{total} in³ in a box of {volume}', { total: full.total, volume }),
        working,
        compare,
      )
    if (largest !== '14' && !fill('14').fits)
      return c.fault(
        say('{total} in³ wanted, even with 14 AWG more than the {volume} in³ there are', {
          total: full.total,
          volume,
        }),
        { danger: 1, working, compare },
      )
    const isOneSize = largest === '14' ? true : c.ask(point.facts.isOneSize)
    if (isOneSize === undefined)
      return c.undecided(say('Too full if all are {largest} AWG', { largest }), working)
    if (isOneSize === false) return bySize()
    return c.fault(
      say('{total} in³ wanted, the box has {volume} in³', { total: full.total, volume }),
      { danger: 1, working, compare },
    )

    /**
     * Sizes differ: each counted with its own volume, grounds and fittings with the largest, the
     * device with its own conductor.
     */
    function bySize(): Verdict {
      const counts = [
        ['14', c.ask(point.facts.conductors14InBox)],
        ['12', c.ask(point.facts.conductors12InBox)],
        ['10', c.ask(point.facts.conductors10InBox)],
      ] as const
      const onDevice = c.ask(point.facts.size)
      const open =
        counts.some(([, n]) => n === undefined) || (onDevice === undefined && (yokes ?? least) > 0)
      const sorted = counts.reduce((sum, [, n]) => sum + (n ?? 0), 0)
      if (open || sorted !== count)
        return c.undecided(
          open
            ? say('Sizes differ, and they have not been counted apart')
            : say('{sorted} conductors counted by size, {count} in all: count again', {
                sorted,
                count: count!,
              }),
          working,
          open ? undefined : [unseenCount(point)],
        )
      const mixed = boxFill(
        {
          conductors: counts.map(([size, n]) => ({ size, count: n! })),
          grounds: { size: largest!, count: grounds! },
          hasInternalClamps: clamps!,
          through: [{ size: largest!, count: through ?? 0 }],
          supportFittings: fittings ?? 0,
          devices: Array.from({ length: yokes ?? least }, () => ({ largest: onDevice! })),
        },
        volume!,
        c.site.edition,
      )
      const sum = [
        ...mixed.lines.map(l =>
          say('{what}: {count} × {each} = {volume} in³', {
            what: l.what,
            count: l.count,
            each: l.each,
            volume: l.volume,
          }),
        ),
        say('together {total} in³, box {volume} in³', { total: mixed.total, volume: volume! }),
      ]
      const sides = {
        left: mixed.total,
        leftLabel: 'needed',
        sign: mixed.fits ? (mixed.total === volume ? '=' : '<') : '>',
        right: volume!,
        rightLabel: 'box',
        unit: 'in³',
      } as const
      if (!mixed.fits)
        return c.fault(
          say('{total} in³ wanted, the box has {volume} in³', {
            total: mixed.total,
            volume: volume!,
          }),
          { danger: 1, working: sum, compare: sides },
        )
      if (through === undefined || fittings === undefined || yokes === undefined)
        return c.undecided(
          say('{total} in³ so far in a box of {volume}; not all of it has been counted', {
            total: mixed.total,
            volume: volume!,
          }),
          sum,
        )
      return c.clear(
        say('{total} in³ in a box of {volume}', { total: mixed.total, volume: volume! }),
        sum,
        sides,
      )
    }
  },
})

const unseenCount = (point: Subject<'point'>): FactRef => ({
  state: 'unseen',
  subject: point.id,
  field: 'conductorsInBox',
})
