import type { Subject, FactRef } from '../model/house'
import { Question, type Site } from './site'
import { Trail } from './trail'

/** Circuits recorded as sharing one neutral, and what that rests on. */
export interface NeutralGroup {
  readonly circuits: readonly Subject<'circuit'>[]
  readonly rests: readonly FactRef[]
}
const GROUPS = new Question<NeutralGroup>()

/** The circuits that share one neutral with this one, itself included. */
export function neutralGroupOf(site: Site, circuit: Subject<'circuit'>): NeutralGroup {
  const groups = site.kept(GROUPS)
  if (groups.size === 0) for (const [id, group] of sharedNeutrals(site)) groups.set(id, group)
  return groups.get(circuit.id)!
}

/** Groups circuits by shared neutral: what either of two circuits says about sharing counts for both. */
function sharedNeutrals(site: Site): Map<string, NeutralGroup> {
  const linked = new Map<string, Set<string>>()
  const trails = new Map<string, FactRef[]>()
  const link = (a: string, b: string) => {
    let set = linked.get(a)
    if (!set) linked.set(a, (set = new Set()))
    set.add(b)
  }
  for (const circuit of site.all.circuit) {
    const trail = new Trail()
    const shares = trail.ask(circuit.facts.sharesNeutralWith) ?? []
    trails.set(circuit.id, trail.rests)
    for (const other of shares) {
      if (other === circuit.id || !site.get(other, 'circuit')) continue
      link(circuit.id, other)
      link(other, circuit.id)
    }
  }
  const groups = new Map<string, NeutralGroup>()
  for (const circuit of site.all.circuit) {
    if (groups.has(circuit.id)) continue
    if (!linked.has(circuit.id)) {
      groups.set(circuit.id, { circuits: [circuit], rests: trails.get(circuit.id)! })
      continue
    }
    const members = reach(circuit.id, linked)
    const circuits = site.all.circuit.filter(c => members.has(c.id))
    const group = { circuits, rests: circuits.flatMap(c => trails.get(c.id)!) }
    for (const id of members) groups.set(id, group)
  }
  return groups
}

function reach(start: string, linked: ReadonlyMap<string, ReadonlySet<string>>): Set<string> {
  const found = new Set([start])
  for (const id of found) for (const next of linked.get(id) ?? []) found.add(next)
  return found
}
