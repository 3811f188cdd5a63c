import { worstOf } from '../engine/rule'
import { ruleById } from '../rules'
import { STAGES } from '../model/fields'
import type { Look } from '../texts/labels'
import type { SpokenResult } from '../assess/assess'

/** One look and how many judgments it bears on. */
export interface OpenLook extends Look {
  settles: number
  rules: string[]
  danger: number
}

/**
 * The undecided list as looks: each missing fact once, in the order people work, then by danger, then by how many
 * judgments it settles.
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
      open.danger = Math.max(open.danger, dangerOf(result.rule))
    }
  }
  return [...looks.values()].sort(
    (a, b) =>
      STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage) ||
      b.danger - a.danger ||
      b.settles - a.settles,
  )
}

/** What a rule left undecided could turn out to be, at worst: for the order of the looks only. */
function dangerOf(id: string): number {
  const rule = ruleById(id)
  return rule ? worstOf(rule) : 0
}
