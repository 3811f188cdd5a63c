import { defineRule } from '../../engine/rule'
import type { Context } from '../../engine/context'
import { say } from '../../engine/say'
import type { Comparison, Verdict } from '../../engine/verdict'
import type { Site } from '../../derive/site'
import type { FactRef, Subject } from '../../model/house'

export const receptacleRating = defineRule({
  id: 'receptacle-rating',
  family: 'outlets',
  subject: 'outlet',
  title: 'The receptacle suits the circuit',
  fault: 'Receptacle rating against the circuit',
  consequence: 'The receptacle can be loaded beyond what it or the circuit is rated for.',
  cites: [{ section: '210.21(B)' }],
  checks: {
    'too-large-allowed': { danger: 1, says: 'A {amps} A receptacle on a {rating} A circuit' },
    'too-small-for-circuit': { danger: 3, says: 'A {amps} A receptacle on a {rating} A circuit' },
    'single-too-small': {
      danger: 2,
      says: 'A single {amps} A receptacle alone on a {rating} A circuit',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['replace-device'],
  traps: [
    'A 15 A duplex on a 20 A circuit is fine; a single one alone is not',
    'The T-slot is a 20 A receptacle',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle') return c.na('Not a receptacle')

    const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
    const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
    const rating = breaker && c.ask(breaker.facts.ratingAmps)
    const slots = c.ask(outlet.facts.slots)
    const amps = slots === 'T-slot' ? 20 : c.ask(outlet.facts.deviceAmps)
    if (type === undefined || rating === undefined || slots === undefined || amps === undefined)
      return c.undecided('The device or the breaker has not been read')
    const compare = {
      left: amps,
      leftLabel: 'receptacle',
      sign: amps > rating ? '>' : amps < rating ? '<' : '=',
      right: rating,
      rightLabel: 'circuit',
      unit: 'A',
    } as const
    if (amps === 50 && rating === 40) return c.clear('50 A is right on 40 A', [], compare)
    const single = amps > rating ? c.ask(outlet.facts.isSingle) : undefined
    if (amps > rating && single !== false) {
      const alone = isAlone(outlet, circuit, c)
      if (alone !== false && single === undefined)
        return c.faultUnless(
          'too-large-allowed',
          { amps, rating },
          {
            compare,
            unless: ['it is a single receptacle on a circuit of its own'],
            ask: outlet.facts.isSingle,
          },
        )
      if (single && alone)
        return c.clear('A single receptacle on a circuit of its own', [], compare)
      if (single && alone === undefined)
        return c.undecided('Right only where it is alone on the circuit', untraced(outlet, c.site))
    }
    if (amps > rating) return c.fault('too-large-allowed', { amps, rating }, { compare })
    if (amps === rating)
      return c.clear(say('{amps} A on {rating} A', { amps, rating }), [], compare)
    if (rating > 20) return c.fault('too-small-for-circuit', { amps, rating }, { compare })
    return smallerOf(outlet, circuit!, { amps, rating, compare }, c)
  },
})

/** The device and what it hangs on. */
interface Sides {
  readonly amps: number
  readonly rating: number
  readonly compare: Comparison
}

/** 15 A on a circuit of 20 A: right with others on it. */
function smallerOf(
  outlet: Subject<'outlet'>,
  circuit: Subject<'circuit'>,
  sides: Sides,
  c: Context,
): Verdict {
  const isSingle = c.ask(outlet.facts.isSingle)
  if (isSingle === undefined)
    return c.undecided(
      '15 A on 20 A: right for a duplex or with others, wrong for a single one alone',
    )
  // A duplex is two of them by itself.
  if (!isSingle) return c.clear(SEVERAL, [], sides.compare)
  return singleOf(outlet, circuit, sides, c)
}
const SEVERAL = '15 A receptacles on a 20 A circuit with more than one'

/** A single one of 15 A on a circuit of 20 A: right only where another is on it. */
function singleOf(
  outlet: Subject<'outlet'>,
  circuit: Subject<'circuit'>,
  { amps, rating, compare }: Sides,
  c: Context,
): Verdict {
  const others = c.site.outletsOf(circuit).filter(p => p !== outlet)
  const types = others.map(p => c.ask(p.facts.type))
  c.rest(others.map(p => p.facts.circuit))
  if (types.includes('receptacle')) return c.clear(SEVERAL, [], compare)
  const unseen = others.filter((_, i) => types[i] === undefined)
  const adrift = [
    ...unseen,
    ...c.site.all.outlet.filter(p => p !== outlet && c.ask(p.facts.circuit) === undefined),
  ]
  if (adrift.length > 0)
    return c.undecided(
      'Alone on its circuit, unless an outlet nobody has traced is on it',
      adrift.map(p => p.facts[unseen.includes(p) ? 'type' : 'circuit']),
    )
  return c.fault('single-too-small', { amps, rating }, { compare })
}

/** Where the other outlets hang, of those that nobody has traced. */
const untraced = (outlet: Subject<'outlet'>, site: Site): FactRef[] =>
  site.all.outlet
    .filter(p => p !== outlet)
    .map(p => p.facts.circuit)
    .filter(f => f.state !== 'known')

/** The only outlet of its circuit; undefined while an outlet nobody has traced may be on it. */
function isAlone(
  outlet: Subject<'outlet'>,
  circuit: Subject<'circuit'> | undefined,
  c: Context,
): boolean | undefined {
  if (!circuit) return undefined
  if (c.site.outletsOf(circuit).length > 1) return false
  return c.site.all.outlet.some(p => p !== outlet && c.ask(p.facts.circuit) === undefined)
    ? undefined
    : true
}
