import type { FactRef } from '../model/house'
import type { Step } from './say'

/** In order of precedence, worst first. */
export const OUTCOMES = ['fault', 'undecided', 'clear', 'n/a'] as const
export type Outcome = (typeof OUTCOMES)[number]

/** 4 lethal · 3 breaks the protection the system relies on · 2 weakens it · 1 labels and neatness. */
export type Danger = 1 | 2 | 3 | 4

/** The one comparison a person should see first: 20 A breaker > 15 A allowed. */
export interface Comparison { left: number, leftLabel: string, sign: '>' | '<' | '=', right: number, rightLabel: string, unit: string }

interface Common {
  /** The conclusion in one sentence. */
  readonly why: Step
  readonly working: readonly Step[]
  /** Every fact the rule asked for, known or not, in order. */
  readonly asked: readonly FactRef[]
}
export interface Fault extends Common {
  readonly outcome: 'fault'
  readonly danger: Danger
  readonly compare?: Comparison
  /** First edition in which this very thing is a fault, where it differs from the rule's. */
  readonly since?: number
  /** The thing was lawful when made in years before this one, whatever the edition. */
  readonly lawfulBefore?: number
  /** Facts that would have settled more than this verdict needed. */
  readonly remark?: Step
}
export interface Clear extends Common { readonly outcome: 'clear', readonly compare?: Comparison }
export interface Undecided extends Common {
  readonly outcome: 'undecided'
  /** The facts to look at, most telling first. Never empty, unless a rule crashed. */
  readonly missing: readonly FactRef[]
  readonly defect?: string
}
export interface NotApplicable { readonly outcome: 'n/a', readonly why: Step, readonly working: readonly Step[], readonly asked: readonly FactRef[] }
export type Verdict = Fault | Clear | Undecided | NotApplicable
