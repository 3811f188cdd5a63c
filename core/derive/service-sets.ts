import { whereSeen, type Fact, type Subject, type Unseen } from '../model/house'

/** One who asks for facts and keeps what was asked. */
interface Asker {
  ask<V>(fact: Fact<V> | Unseen): V | undefined
}

/** Service conductors in parallel for each phase: one, where nobody says otherwise. 310.10(G). */
export function setsOf(enclosure: Subject<'enclosure'>, asker: Asker): number {
  const { serviceSets } = enclosure.facts
  return whereSeen(serviceSets) ? (asker.ask(serviceSets) ?? 1) : 1
}
