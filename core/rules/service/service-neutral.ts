import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Context } from '../../engine/context'
import { absent, whereSeen, type Subject } from '../../model/house'

/** Volts by which the two halves may differ in ordinary use. */
const ORDINARY_V = 6
/** Volts of difference that no ordinary load makes: the neutral is loose or open. */
const LOST_V = 20

/** The neutral of the service holds both halves at the same voltage, whatever runs on them. */
export const serviceNeutral = defineRule({
  id: 'service-neutral',
  family: 'service',
  subject: 'enclosure',
  isHazard: true,
  title: 'Both halves of the supply stand at the same voltage',
  fault: 'Neutral loose or open',
  consequence:
    'Appliances on one half burn out, those on the other stop, and pipes carry the current.',
  cites: [{ section: '110.14' }, { section: '230' }],
  checks: {
    'neutral-lost': {
      danger: 4,
      says: '{high} V on one half and {low} V on the other: the neutral is loose or open',
    },
    'current-in-electrode': {
      danger: 4,
      says: '{amps} A in the conductor to the {type}: the neutral current goes through the soil',
    },
  },
  triggers: [],
  until: 'Unplug electronics, and call the utility at once if lights brighten or dim by themselves',
  remedies: ['call-utility'],
  traps: [
    'No rod, lifted bond or moved circuit cures it: the utility is called',
    'Measure with large loads on and off: with little running both halves look alike',
    'At a panel after the service it may be the neutral of its feeder',
    'Rods carry current only where the neutral does not; a metal water pipe shared with neighbors carries some always',
  ],
  judge(enclosure, c) {
    const astray = currentAstray(enclosure, c)
    const a = c.ask(enclosure.facts.legAToNeutralV)
    const b = c.ask(enclosure.facts.legBToNeutralV)
    if (a === undefined || b === undefined)
      return c.undecided('The voltages of both halves have not been measured')
    const [low, high] = [Math.min(a, b), Math.max(a, b)]
    const apart = high - low
    if (apart >= LOST_V)
      return c.fault(
        'neutral-lost',
        { low, high },
        {
          compare: {
            left: apart,
            leftLabel: 'between the halves',
            sign: '>',
            right: ORDINARY_V,
            rightLabel: 'ordinary',
            unit: 'V',
          },
        },
      )
    if (astray)
      return c.undecided(
        say(
          '{amps} A in a grounding electrode conductor: neutral current of this house or of a neighbor',
          {
            amps: astray.amps,
          },
        ),
        absent(enclosure, 'legAToNeutralV'),
      )
    if (apart <= ORDINARY_V && c.ask(enclosure.facts.wereLoadsOn) !== true)
      return c.undecided(
        say('{high} and {low} V: with little running a loose neutral does not show', { high, low }),
        absent(enclosure, 'wereLoadsOn'),
      )
    return apart > ORDINARY_V
      ? c.undecided(
          say('{high} and {low} V: measure again with large loads on, then off', { high, low }),
          absent(enclosure, 'legAToNeutralV'),
        )
      : c.clear(say('{high} and {low} V: both halves alike', { high, low }))
  },
})

/** Amperes in an electrode conductor from which something drives them; less is what filters and pipes share. */
const ASTRAY_A = 1
/** Electrodes in the soil only: current through them means volts along the soil. */
const IN_SOIL: ReadonlySet<string> = new Set(['rod', 'plate', 'ring', 'concrete-encased'])

/**
 * Current in the electrode conductors of this enclosure. Through rods it proves that the neutral does not carry it: a
 * fault of its own. Through a water pipe it may be a neighbor's: returned, so that the voltages decide.
 */
function currentAstray(enclosure: Subject<'enclosure'>, c: Context): { amps: number } | undefined {
  let shared: { amps: number } | undefined
  for (const electrode of c.site.all.electrode) {
    const { currentA, landsIn, type } = electrode.facts
    if (!whereSeen(currentA)) continue
    const at = c.ask(landsIn)
    if (at !== undefined && at !== enclosure.id) continue
    const amps = c.ask(currentA)
    if (amps === undefined || amps < ASTRAY_A) continue
    const kind = c.ask(type)
    // Of one whose landing nobody followed, or whose kind, it is open whose neutral that is.
    if (at !== undefined && kind !== undefined && IN_SOIL.has(kind))
      c.fails('current-in-electrode', { amps, type: kind })
    else shared = { amps }
  }
  return shared
}
