import { STAGES } from '../model/fields'
import type { Look } from './labels'
import type { SpokenResult } from './assess'

/** One look and how many judgements it bears on. */
export interface OpenLook extends Look {
  settles: number
  rules: string[]
  danger: number
}

/** What a rule left undecided could turn out to be, at worst: for the order of the looks only. */
const LETHAL = new Set([
  'main-bond-missing',
  'bootleg-ground',
  'dead-front-missing',
  'multiwire-same-leg',
  'overfused-conductor',
  'insulation-failed',
])

/**
 * The undecided list as looks: each missing fact once, in the order people work, then by danger, then by how many
 * judgements it settles.
 */
export function looksOf(results: readonly SpokenResult[]): OpenLook[] {
  const looks = new Map<string, OpenLook>()
  for (const result of results) {
    for (const look of result.missing) {
      const key = `${look.subject} ${look.field}`
      let open = looks.get(key)
      if (!open) looks.set(key, (open = { ...look, settles: 0, rules: [], danger: 0 }))
      open.settles++
      if (!open.rules.includes(result.rule)) open.rules.push(result.rule)
      if (LETHAL.has(result.rule)) open.danger = 1
    }
  }
  return [...looks.values()].sort(
    (a, b) =>
      STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage) ||
      b.danger - a.danger ||
      b.settles - a.settles,
  )
}
