import type { Fact, FactRef, Known, Subject, Unseen } from '../model/house'
import type { Site } from '../derive/site'
import type { Edition } from '../tables/editions'
import { say, type Slots, type Step } from './say'
import {
  Clear,
  Failure,
  Fault,
  NotApplicable,
  Undecided,
  type Comparison,
  type FailureDetail,
  type Judging,
  type Lacks,
  type Said,
  type Verdict,
} from './verdict'

const ASSUMED = say(
  'Rests on something only assumed: an assumption may raise an alarm, never clear one',
)
const NOT_SEEN = say('Not enough has been seen')
const ONLY_ASSUMED = new Undecided(ASSUMED, [], 'assumed')
const OPEN_YET = new Undecided(NOT_SEEN)

interface LeanDetail extends FailureDetail {
  /** What it would have to be to be no fault. */
  unless: readonly string[]
  /** The fact that settles it. */
  ask: FactRef
  /** All facts that would help, where there are more than that one. */
  missing?: readonly FactRef[]
}
/** Lists are read by many judgments, and whether one of their facts is assumed is found out once. */
interface Asked extends ReadonlyArray<FactRef> {
  isAssumed?: boolean
}
function isAssumedIn(refs: Asked): boolean {
  let is = refs.isAssumed
  if (is === undefined) {
    is = false
    for (let i = 0; i < refs.length; i++) if ((refs[i] as Known).grade === 'assumed') is = true
    // A frozen list is looked through every time.
    if (Object.isExtensible(refs)) refs.isAssumed = is
  }
  return is
}
/** What a judgment wrote down: facts, and lists of facts a walk rested on. */
type Written = FactRef | readonly FactRef[]
/** A judgment that was made, by what it was made of. */
interface Judged {
  readonly rule: Judging
  readonly subject: Subject
}
const NO_RULE: Judging = {
  checks: {},
  judge() {
    throw new Error('No judgment has begun')
  },
}
const NO_DATA: Slots = {}
const NO_DETAIL: FailureDetail = {}
const NO_FAILURES: readonly Failure[] = []

/**
 * What a rule sees: the site, and a reader that notes every fact asked for, so that evidence and
 * missing facts come without the rule keeping books. One context serves many judgments in turn.
 */
export class Context {
  // The notes of one judgment are written over by the next. Whoever wants those of an earlier one has it judged
  // again: the same house gives the same answer, and few are ever asked about.
  // TypeScript-private rather than #private: the engine compiles plain fields to faster code, and
  // this is its hottest spot.
  private readonly notes: Written[] = []
  private count = 0
  // Which judgment the notes are of; of an earlier one they are gone.
  private rule: Judging = NO_RULE
  private subject: Subject | undefined = undefined
  private again: Context | undefined = undefined
  private restsOnAssumption = false
  private failures: readonly Failure[] = NO_FAILURES
  private readonly editions = new Map<Edition, Context>()
  /** @param always facts every judgment of this context rests on */
  constructor(
    readonly site: Site,
    private readonly always: readonly FactRef[] = [],
  ) {}

  /** A context of the same house under another edition, made once. */
  under(edition: Edition): Context {
    let context = this.editions.get(edition)
    if (!context) this.editions.set(edition, (context = new Context(this.site.under(edition))))
    return context
  }

  begin(rule: Judging, subject: Subject): void {
    this.rule = rule
    this.subject = subject
    this.count = 0
    this.failures = NO_FAILURES
    this.restsOnAssumption = false
    this.rest(this.always)
  }

  /** The value of a fact, or undefined where nobody has seen it. Either way it is noted. */
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    this.notes[this.count++] = fact as FactRef
    if (fact.state !== 'known') return undefined
    if (fact.grade === 'assumed') this.restsOnAssumption = true
    return fact.value
  }

  /** Notes facts that a walk over the site rested on. The list must not grow before the judgment has ended. */
  rest(refs: readonly FactRef[]): void {
    if (refs.length === 0) return
    this.notes[this.count++] = refs
    if (isAssumedIn(refs)) this.restsOnAssumption = true
  }

  /** What has been asked so far, as a copy of its own. */
  get asked(): readonly FactRef[] {
    return this.askedSince(0)
  }

  /** A place in the notes, for `askedSince`. */
  mark(): number {
    return this.count
  }

  /** What has been asked since a place in the notes. */
  askedSince(mark: number): readonly FactRef[] {
    const facts: FactRef[] = []
    for (let i = mark; i < this.count; i++) {
      const written = this.notes[i] as Written
      if ('state' in written) facts.push(written)
      else for (const fact of written) facts.push(fact)
    }
    return facts
  }

  /** What a judgment of this context asked for: as noted, or found out by judging again. */
  askedBy(judged: Judged): readonly FactRef[] {
    const { rule, subject } = judged
    if (rule === this.rule && subject === this.subject) return this.asked
    const again = (this.again ??= new Context(this.site, this.always))
    again.begin(rule, subject)
    try {
      rule.judge(subject as never, again as never)
    } catch {
      // It threw the first time too; what it had asked for until then counts.
    }
    return again.asked
  }

  /**
   * Notes a check that does not hold, by its message id, and lets the rule go on to the next one. Whatever the rule
   * ends with then, the answer is a fault: what is proven is not held back by what nobody has seen.
   */
  fails(id: string, data: Slots = NO_DATA, detail: FailureDetail = NO_DETAIL): void {
    const failure = this.failure(id, data, detail)
    this.failures = this.failures.length === 0 ? [failure] : [...this.failures, failure]
  }

  private failure(id: string, data: Slots, detail: FailureDetail): Failure {
    const check = this.rule.checks[id]
    if (!check) throw new Error(`The rule has no check ${id}`)
    return new Failure(id, data, check, detail)
  }

  /** Ends with a verdict that was made once, for what many things are answered alike. */
  give(verdict: Verdict): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (!this.restsOnAssumption) return verdict
    return verdict.outcome === 'clear' || verdict.outcome === 'n/a' ? ONLY_ASSUMED : verdict
  }

  /** The check fails, and there is nothing more to look at. */
  fault(id: string, data?: Slots, detail?: FailureDetail): Verdict {
    this.fails(id, data, detail)
    return this.failed()
  }

  private failed(): Verdict {
    // The most dangerous first; among equals the first found.
    const failures =
      this.failures.length === 1
        ? this.failures
        : [...this.failures].sort((a, b) => b.danger - a.danger)
    return new Fault(failures)
  }

  /** A fault, unless one of the named exceptions holds; none of them has been looked for. */
  faultUnless(id: string, data: Slots, detail: LeanDetail): Verdict {
    if (this.failures.length > 0) return this.failed()
    const { unless, ask, missing, ...more } = detail
    const failure = this.failure(id, data, more)
    const lacks = missing ? [ask, ...missing] : ask
    return new Undecided(failure.says, failure.working, lacks, { failure, unless, ask })
  }

  /** The rule is kept. Where a fact it rests on is only assumed, the answer is undecided on that fact instead. */
  clear(why: Said, working?: readonly Step[], compare?: Comparison): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (this.restsOnAssumption) return this.assumed(working)
    return new Clear(why, working, compare)
  }

  /**
   * The rule is kept by something that was lawful when made and may stay: clear, and put on record
   * with what it means.
   */
  mayStay(why: Said, means: Step, working?: readonly Step[]): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (this.restsOnAssumption) return this.assumed(working)
    return new Clear(why, working, undefined, means)
  }

  /** Undecided on the given facts, or on everything asked for that is not known. */
  undecided(why?: Said, missing?: Lacks, working?: readonly Step[]): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (why === undefined) return OPEN_YET
    return new Undecided(why, working, missing)
  }

  /** Does not apply. Rests on facts too: an assumption may not excuse anything either. */
  na(why: Said): Verdict {
    if (this.failures.length > 0) return this.failed()
    return this.restsOnAssumption ? ONLY_ASSUMED : new NotApplicable(why)
  }

  private assumed(working?: readonly Step[]): Verdict {
    return working ? new Undecided(ASSUMED, working, 'assumed') : ONLY_ASSUMED
  }
}

export type { Verdict }
