import { neutralGroupOf, type NeutralGroup } from './neutrals'
import type { Context } from '../engine/context'
import { say } from '../engine/say'
import type { Verdict } from '../engine/verdict'
import type { Subject } from '../model/house'

/** The circuits on one shared neutral and their breakers; or the verdict, where there is no group to judge here. */
export type Multiwire = Gathered | Verdict
export class Gathered {
  constructor(
    readonly circuits: readonly Subject<'circuit'>[],
    readonly breakers: readonly Subject<'breaker'>[],
  ) {}
}

/** Looks at the one breaker of a group. */
type Spans = (breaker: Subject<'breaker'>, c: Context) => Verdict | undefined

/**
 * Gathers the multiwire group a circuit belongs to. The group is judged once, on its first circuit.
 * A group on one breaker of several poles keeps both multiwire rules, and `onePole` says how; `spans` looks at that
 * breaker before it is taken to span the legs.
 * Whether a circuit shares its neutral is asked, two-wire cables included: a neutral borrowed from the next circuit,
 * as at stair lights, lies in just those. A breaker of several poles answers by itself.
 */
export function multiwireOf(
  circuit: Subject<'circuit'>,
  c: Context,
  onePole: string,
  spans?: Spans,
): Multiwire {
  const group = neutralGroupOf(c.site, circuit)
  if (group.circuits.length < 2) return alone(circuit, c)
  if (group.circuits[0] !== circuit) {
    c.rest(group.rests)
    return c.na('Judged together with the circuit it shares its neutral with')
  }
  return gather(group, c, onePole, spans)
}

function gather(
  group: NeutralGroup,
  c: Context,
  onePole: string,
  spans: Spans | undefined,
): Multiwire {
  c.rest(group.rests.filter(f => f.state === 'known'))
  const breakers: Subject<'breaker'>[] = []
  let isOpen = false
  for (const member of group.circuits) {
    const breaker = c.site.get(c.ask(member.facts.fedBy), 'breaker')
    if (!breaker) isOpen = true
    else if (!breakers.includes(breaker)) breakers.push(breaker)
  }
  if (isOpen) return c.undecided('Nobody has found which breaker feeds each of them')
  if (breakers.length === 1) {
    const poles = c.ask(breakers[0]!.facts.poles)
    if (poles === undefined) return c.undecided()
    const first = breakers[0]
    const verdict = poles > 1 && first ? spans?.(first, c) : undefined
    if (verdict) return verdict
    return poles > 1 ? c.clear(onePole) : c.na('Both on one single-pole breaker: no second hot')
  }
  return new Gathered(group.circuits, breakers)
}

function alone(circuit: Subject<'circuit'>, c: Context): Verdict {
  const shares = c.ask(circuit.facts.sharesNeutralWith)
  if (shares !== undefined) return c.na('Its neutral is its own')
  const breaker = c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
  const poles = breaker && c.ask(breaker.facts.poles)
  if (poles !== undefined && poles > 1)
    return c.na(say('A {poles}-pole breaker disconnects all its hots', { poles }))
  return c.undecided(
    'Whether it shares a neutral has not been looked at',
    circuit.facts.sharesNeutralWith,
  )
}
