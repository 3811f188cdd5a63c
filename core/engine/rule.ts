import type { Kind } from '../model/fields'
import type { Citation } from '../tables/editions'
import type { Subject } from '../model/house'
import type { Context } from './context'
import type { Check, Danger, Verdict } from './verdict'

/** Work that brings a rule to bear on something older than the rule. */
export type Trigger = 'replaced' | 'extended' | 'new'

/** What a rule is about beyond its family, for views that show some rules only. */
export type Tag = 'bond'

/**
 * One rule: what must hold, on what, since when, and the function that judges it.
 * `judge` only looks and reports; standing, severity and remedies are worked out from what it returns.
 */
export interface Rule<K extends Kind = Kind> {
  /** Id of the fault in the catalog; never reused. */
  readonly id: string
  readonly family: 'conductors' | 'circuits' | 'service' | 'panels' | 'rooms' | 'outlets'
  /** What must hold. */
  readonly title: string
  /** The fault in a few words, for lists. */
  readonly fault: string
  /** What it can lead to, in words for a household. */
  readonly consequence: string
  readonly tags?: readonly Tag[]
  readonly subject: K
  /** Every check by its message id; ids are never reused for something else. */
  readonly checks: Readonly<Record<string, Check>>
  readonly cites: readonly Citation[]
  /** First edition that has the rule; absent where it is older than any house Corvit will see. */
  readonly since?: number
  /** True where the thing is dangerous or defective whatever the code said. */
  readonly isHazard?: boolean
  readonly triggers: readonly Trigger[]
  /** True where years and work that count are those of the service equipment, though it is said of the property. */
  readonly isOfService?: boolean
  /** Edition from which a trigger brings this rule along, where that is later than the rule itself. */
  readonly triggersSince?: Readonly<Partial<Record<Trigger, number>>>
  readonly remedies: readonly string[]
  /** Exceptions and easy mistakes the rule knows about, in plain words. */
  readonly traps: readonly string[]
  /** What to do while the answer is open and could be dangerous, where the rule knows better than its subject. */
  readonly until?: string
  /** Of a rule that one look settles: the field, what each value means, and what must be so for it to bear. */
  readonly look?: {
    readonly field: string
    readonly values: Readonly<Record<string, object>>
    readonly only: readonly object[]
  }
  judge(subject: Subject<K>, c: Context): Verdict
}

/** Every rule has the same parts in the same order, there or not: judging a thousand things reads them quickly. */
const PARTS: Readonly<Record<keyof Rule, undefined>> = {
  id: undefined,
  subject: undefined,
  checks: undefined,
  judge: undefined,
  isHazard: undefined,
  since: undefined,
  family: undefined,
  title: undefined,
  fault: undefined,
  consequence: undefined,
  tags: undefined,
  cites: undefined,
  triggers: undefined,
  isOfService: undefined,
  triggersSince: undefined,
  remedies: undefined,
  traps: undefined,
  until: undefined,
  look: undefined,
}
/** Types a rule against its own subject kind, then lets it stand in a list of all rules. */
export const defineRule = <K extends Kind>(rule: Rule<K>): Rule =>
  ({ ...PARTS, ...rule }) as unknown as Rule

/** The worst a rule can find. */
export function worstOf(rule: Rule): Danger {
  let worst: Danger = 1
  for (const { danger } of Object.values(rule.checks)) {
    const most = typeof danger === 'number' ? danger : danger[1]
    worst = Math.max(worst, most) as Danger
  }
  return worst
}
