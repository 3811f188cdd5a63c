import type { FactRef, Subject } from '../model/house'
import { say, type Slots, type Step } from './say'

const NO_FAILURES: readonly Failure[] = []
const NO_STEPS: readonly Step[] = []

/** How a judgment ends, for whoever reads it; worst first. */
export const OUTCOMES = ['fault', 'allowed', 'undecided', 'clear', 'n/a'] as const
export type Outcome = (typeof OUTCOMES)[number]
/** What a rule itself says. Whether a failure is a fault or allowed to remain follows from the years of the part. */
export type Ruled = Exclude<Outcome, 'allowed'>

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

interface Common {
  /** The conclusion in one sentence. */
  readonly why: Step
  readonly working: readonly Step[]
  /** Every fact the rule asked for, known or not, in order. */
  readonly asked: readonly FactRef[]
}
export interface Fault extends Common {
  readonly outcome: 'fault'
  /** Every check that failed, the most dangerous first; never empty. */
  readonly failures: readonly Failure[]
}
export interface Clear extends Common {
  readonly outcome: 'clear'
  readonly compare?: Comparison
  /** Lawful when made and may stay, but no longer made so: recorded, with its risk and its trigger. */
  readonly mayStay?: Step
}
export interface Undecided extends Common {
  readonly outcome: 'undecided'
  /** The facts to look at, most telling first. Never empty, unless a rule crashed. */
  readonly missing: readonly FactRef[]
  readonly leans?: Lean
  readonly defect?: string
}
export interface NotApplicable {
  readonly outcome: 'n/a'
  readonly why: Step
  readonly working: readonly Step[]
  readonly asked: readonly FactRef[]
}
export type Verdict = Fault | Clear | Undecided | NotApplicable

/** Facts that a verdict lacks, or how they are found; most verdicts are never asked. */
export type Lacks = readonly FactRef[] | (() => readonly FactRef[])
/** Details only some verdicts have. */
export interface Detail {
  readonly failures?: readonly Failure[]
  readonly leans?: Lean
  readonly compare?: Comparison
  readonly mayStay?: Step
  /** Facts to look at: a list, one that is made when it is read, or which of the asked ones. */
  readonly lacks?: Lacks | 'open' | 'assumed'
}

/** The part of a rule that judging needs. */
export interface Judging {
  readonly checks: Readonly<Record<string, Check>>
  judge(subject: never, c: never): Verdict
}
/** Where a judgment was made: it says what a rule asked for, as long as it remembers, or by judging again. */
export interface Witness {
  askedBy(ruling: Ruling): readonly FactRef[]
}
/**
 * A verdict as the reader makes it. What was asked for on the way is listed when somebody wants the list: most
 * judgments are only counted.
 */
export class Ruling {
  private list: readonly FactRef[] | undefined = undefined
  constructor(
    readonly outcome: Ruled,
    /** Undefined where the first failure says it. */
    private readonly conclusion: Step | undefined,
    private readonly steps: readonly Step[] | undefined,
    private readonly detail: Detail | undefined,
    private readonly witness: Witness,
    /** Which judgment of the witness this is. */
    readonly turn: number,
    readonly rule: Judging,
    readonly subject: Subject,
  ) {}

  get why(): Step {
    return this.conclusion ?? (this.failures[0] as Failure).says
  }
  get working(): readonly Step[] {
    return this.steps ?? this.detail?.failures?.[0]?.working ?? NO_STEPS
  }
  get asked(): readonly FactRef[] {
    return (this.list ??= this.witness.askedBy(this))
  }
  get failures(): readonly Failure[] {
    return this.detail?.failures ?? NO_FAILURES
  }
  get leans(): Lean | undefined {
    return this.detail?.leans
  }
  get compare(): Comparison | undefined {
    return this.detail?.compare
  }
  get mayStay(): Step | undefined {
    return this.detail?.mayStay
  }
  get missing(): readonly FactRef[] {
    const lacks = this.detail?.lacks
    if (lacks === undefined) return []
    return unique(
      lacks === 'open'
        ? this.asked.filter(isOpen)
        : lacks === 'assumed'
          ? this.asked.filter(f => f.state === 'known' && f.grade === 'assumed')
          : typeof lacks === 'function'
            ? lacks()
            : lacks,
    )
  }
}

/** Not known; or a year known only as an interval, which is half an answer. */
export const isOpen = (fact: FactRef): boolean =>
  fact.state !== 'known' ||
  ((fact.field === 'year' || fact.field === 'yearBuilt') && typeof fact.value !== 'number')

/** The same fact asked for twice is named once. */
function unique(refs: readonly FactRef[]): FactRef[] {
  const found: FactRef[] = []
  for (const r of refs)
    if (!found.some(o => o.subject === r.subject && o.field === r.field)) found.push(r)
  return found
}
