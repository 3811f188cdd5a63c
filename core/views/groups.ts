import type { SpokenResult } from '../assess/assess'

/** The same finding on several things: said once, with every place it stands at. */
export interface FindingGroup {
  readonly first: SpokenResult
  readonly all: readonly SpokenResult[]
}

/**
 * Findings that read the same (rule, severity, conclusion, standing, and the remedies with their reasons) put together,
 * in the order of the first of each. What differs in any of it stays apart.
 */
export function groupAlike(findings: readonly SpokenResult[]): FindingGroup[] {
  const groups = new Map<string, SpokenResult[]>()
  for (const f of findings) {
    const key = JSON.stringify([
      f.rule,
      f.severity,
      f.byHand,
      f.standing,
      f.standingWhy,
      f.why,
      f.remark,
      f.compare,
      f.remedies.map(r => [r.id, r.verdict, r.why]),
    ])
    const group = groups.get(key)
    if (group) group.push(f)
    else groups.set(key, [f])
  }
  return [...groups.values()].map(all => ({ first: all[0]!, all }))
}
