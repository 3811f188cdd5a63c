import type { FactRef } from '../model/house'
import { say, type Slots, type Step } from './say'

const NO_STEPS: readonly Step[] = []

/** A sentence; where it carries no values, its words alone: it is made of them when somebody reads it. */
export type Said = Step | string
const stepOf = (said: Said): Step => (typeof said === 'string' ? say(said) : said)

/** How a judgment ends, for whoever reads it; worst first. */
export const OUTCOMES = ['fault', 'allowed', 'undecided', 'clear', 'n/a'] as const
export type Outcome = (typeof OUTCOMES)[number]

/** 4 lethal · 3 breaks the protection the system relies on · 2 weakens it · 1 labels and neatness. */
export type Danger = 1 | 2 | 3 | 4

/** The one comparison a person should see first: 20 A breaker > 15 A allowed. */
export interface Comparison {
  left: number
  leftLabel: string
  sign: '>' | '<' | '='
  right: number
  rightLabel: string
  unit: string
  /** Ratings are shown in the unit they are printed in. */
  isRating?: boolean
}

/** One thing a rule looks at, and what is said where it does not hold. */
export interface Check {
  /** How dangerous a failure is; two numbers where that goes by degree, the least and the most. */
  readonly danger: Danger | readonly [Danger, Danger]
  /** The sentence of a failure, with its data in braces. */
  readonly says: string
}
/** What a failure carries besides its sentence, where it differs from its check or its rule. */
export interface FailureDetail {
  /** Only where the check leaves it to the degree. */
  readonly danger?: Danger
  readonly compare?: Comparison
  readonly working?: readonly Step[]
  /** First edition in which this very thing is a fault, where it differs from the rule's. */
  readonly since?: number
  /** The thing was lawful when made in years before this one, whatever the edition. */
  readonly lawfulBefore?: number
  /** The kinds of work that bring this very thing along, where not all of the rule's do. */
  readonly broughtBy?: readonly string[]
  /** When the rule began is not settled: it may be older than `since`. */
  readonly isSinceOpen?: boolean
  /** Unseen facts by which an older rule than that of `since` could bear on it. */
  readonly olderIf?: readonly FactRef[]
  /** Facts that would have settled more than this verdict needed. */
  readonly remark?: Step
}
/** A check that does not hold. Its sentence is made when somebody reads it: most are counted only. */
export class Failure implements FailureDetail {
  constructor(
    /** Message id: the name of the check in its rule. */
    readonly id: string,
    readonly data: Slots,
    private readonly check: Check,
    readonly detail: FailureDetail,
  ) {}

  get says(): Step {
    return say(this.check.says, this.data)
  }
  get danger(): Danger {
    const { danger } = this.check
    return this.detail.danger ?? (typeof danger === 'number' ? danger : danger[1])
  }
  get compare(): Comparison | undefined {
    return this.detail.compare
  }
  get working(): readonly Step[] | undefined {
    return this.detail.working
  }
  get since(): number | undefined {
    return this.detail.since
  }
  get lawfulBefore(): number | undefined {
    return this.detail.lawfulBefore
  }
  get broughtBy(): readonly string[] | undefined {
    return this.detail.broughtBy
  }
  get isSinceOpen(): boolean | undefined {
    return this.detail.isSinceOpen
  }
  get olderIf(): readonly FactRef[] | undefined {
    return this.detail.olderIf
  }
  get remark(): Step | undefined {
    return this.detail.remark
  }
}
/** Every way it can still be is a fault, but for named exceptions; one question settles it. */
export interface Lean {
  readonly failure: Failure
  /** What it would have to be to be no fault, each in a few words. */
  readonly unless: readonly string[]
  /** The fact that settles it. */
  readonly ask: FactRef
}

/** A fact or facts that a verdict lacks, or how they are found among what was asked; most verdicts are never asked. */
export type Lacks =
  FactRef | readonly FactRef[] | ((asked: readonly FactRef[]) => readonly FactRef[])
/** Those of some facts that are not known. */
export const openOf = (facts: readonly FactRef[]) => (): readonly FactRef[] =>
  facts.filter(f => f.state !== 'known')
/** Of the facts a judgment asked for: those that are open, or those that are only assumed. */
export type OfAsked = 'open' | 'assumed'

// Verdicts are of classes, with few parts: a house makes thousands. A literal that one of them held on to the engine
// might take for long-lived, and the house judged would stay in memory with it.

/** Some checks failed. */
export class Fault {
  readonly outcome = 'fault'
  /** @param failures every check that failed, the most dangerous first; never empty */
  constructor(readonly failures: readonly Failure[]) {}

  /** The conclusion in one sentence. */
  get why(): Step {
    return (this.failures[0] as Failure).says
  }
  get working(): readonly Step[] {
    return this.failures[0]?.working ?? NO_STEPS
  }
}
/** The rule is kept. */
export class Clear {
  readonly outcome = 'clear'
  /** @param mayStay lawful when made and may stay, but no longer made so: recorded, with its risk and its trigger */
  constructor(
    private readonly said: Said,
    readonly working: readonly Step[] = NO_STEPS,
    readonly compare?: Comparison,
    readonly mayStay?: Step,
  ) {}

  get why(): Step {
    return stepOf(this.said)
  }
}
/** Not enough has been seen. */
export class Undecided {
  readonly outcome = 'undecided'
  /**
   * @param lacks the facts to look at, most telling first; never none, unless a rule crashed
   * @param defect what a rule that crashed threw
   */
  constructor(
    private readonly said: Said,
    readonly working: readonly Step[] = NO_STEPS,
    readonly lacks: Lacks | OfAsked = 'open',
    readonly leans?: Lean,
    readonly defect?: string,
  ) {}

  get why(): Step {
    return stepOf(this.said)
  }
}
/** The rule does not bear on the thing. */
export class NotApplicable {
  readonly outcome = 'n/a'
  constructor(private readonly said: Said) {}

  get why(): Step {
    return stepOf(this.said)
  }
  get working(): readonly Step[] {
    return NO_STEPS
  }
}
/** What a rule says of a thing. It is a value: many things may be given the same one. */
export type Verdict = Fault | Clear | Undecided | NotApplicable

/** The part of a rule that judging needs. */
export interface Judging {
  readonly checks: Readonly<Record<string, Check>>
  judge(subject: never, c: never): Verdict
}

/** Not known; or a year known only as an interval, which is half an answer. */
export const isOpen = (fact: FactRef): boolean =>
  fact.state !== 'known' ||
  ((fact.field === 'year' || fact.field === 'yearBuilt') && typeof fact.value !== 'number')

/** The facts a verdict lacks, each named once. @param asked what the judgment asked for */
export function lackedBy(verdict: Undecided, asked: () => readonly FactRef[]): FactRef[] {
  const { lacks } = verdict
  if (lacks === 'open') return unique(asked().filter(isOpen))
  if (lacks === 'assumed')
    return unique(asked().filter(f => f.state === 'known' && f.grade === 'assumed'))
  if ('state' in lacks) return [lacks]
  return unique(typeof lacks === 'function' ? lacks(asked()) : lacks)
}

function unique(refs: readonly FactRef[]): FactRef[] {
  const found: FactRef[] = []
  for (const r of refs)
    if (!found.some(o => o.subject === r.subject && o.field === r.field)) found.push(r)
  return found
}
