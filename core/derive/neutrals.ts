import type { Subject, FactRef } from '../model/house'
import { Question, type Kept, type Site } from './site'

/** Circuits recorded as sharing one neutral, and what that rests on. */
export interface NeutralGroup {
  readonly circuits: readonly Subject<'circuit'>[]
  readonly rests: readonly FactRef[]
}
const GROUPS = new Question<NeutralGroup>()

/** The circuits that share one neutral with this one, itself included. */
export function neutralGroupOf(site: Site, circuit: Subject<'circuit'>): NeutralGroup {
  const groups = site.kept(GROUPS)
  if (groups.size === 0) shareNeutrals(site, groups)
  return groups.get(circuit.id)!
}

/** Groups circuits by shared neutral: what either of two circuits says about sharing counts for both. */
function shareNeutrals(site: Site, groups: Kept<NeutralGroup>): void {
  const linked = new Map<string, Set<string>>()
  const link = (a: string, b: string) => {
    let set = linked.get(a)
    if (!set) linked.set(a, (set = new Set()))
    set.add(b)
  }
  for (const circuit of site.all.circuit) {
    const { sharesNeutralWith: shares } = circuit.facts
    if (shares.state !== 'known') continue
    for (const other of shares.value) {
      if (other === circuit.id || !site.get(other, 'circuit')) continue
      link(circuit.id, other)
      link(other, circuit.id)
    }
  }
  const done = new Set<string>()
  for (const circuit of site.all.circuit) {
    if (done.has(circuit.id)) continue
    if (!linked.has(circuit.id)) {
      groups.set(circuit.id, { circuits: [circuit], rests: [circuit.facts.sharesNeutralWith] })
      continue
    }
    const members = reach(circuit.id, linked)
    const circuits = site.all.circuit.filter(c => members.has(c.id))
    const group = { circuits, rests: circuits.map(c => c.facts.sharesNeutralWith) }
    for (const id of members) {
      done.add(id)
      groups.set(id, group)
    }
  }
}

function reach(start: string, linked: ReadonlyMap<string, ReadonlySet<string>>): Set<string> {
  const found = new Set([start])
  for (const id of found) for (const next of linked.get(id) ?? []) found.add(next)
  return found
}
