import type { Fact, FactRef, Known, Unseen } from '../model/house'
import type { Site } from '../derive/site'
import type { Edition } from '../tables/editions'
import { say, type Slots, type Step } from './say'
import {
  Ruling,
  type Check,
  type Comparison,
  type Detail,
  type Failure,
  type Ruled,
  type Verdict,
  listed,
  type Written,
} from './verdict'

/** Facts on one sheet; then a new one is begun, and the old lives as long as its verdicts. */
const PAPER = 1920
/** Room for the facts of the last judgment on the sheet; longer ones make it grow. */
const SHEET = PAPER + 128
const NO_STEPS: readonly Step[] = []
const ASSUMED = say(
  'Rests on something only assumed: an assumption may raise an alarm, never clear one',
)
const NOT_SEEN = say('Not enough has been seen')
const OPEN: Detail = { lacks: 'open' }

/** What a failure carries besides its sentence. The danger only where the check leaves it to the degree. */
type FailureDetail = Partial<Omit<Failure, 'id' | 'data' | 'says'>>
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
    if (refs.length > LONG && Object.isExtensible(refs)) refs.isAssumed = is
  }
  return is
}
const LONG = 3
const NO_DATA: Slots = {}
const NO_DETAIL: FailureDetail = {}
const NO_FAILURES: readonly Failure[] = []

/**
 * What a rule sees: the site, and a reader that notes every fact asked for, so that evidence and
 * missing facts come without the rule keeping books. One context serves many judgments in turn.
 */
export class Context {
  // Judgments write what they ask one after another into shared paper; a verdict keeps its place
  // on it and copies nothing.
  // TypeScript-private rather than #private: the engine compiles plain fields to faster code, and
  // this is its hottest spot.
  private paper: Written[] = new Array<Written>(SHEET)
  private from = 0
  private count = 0
  private restsOnAssumption = false
  private failures: readonly Failure[] = NO_FAILURES
  private readonly editions = new Map<Edition, Context>()
  private checks: Readonly<Record<string, Check>> = {}
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

  begin(rule: { readonly checks: Readonly<Record<string, Check>> }): void {
    this.checks = rule.checks
    this.failures = NO_FAILURES
    if (this.count > PAPER) {
      this.paper = new Array<Written>(SHEET)
      this.count = 0
    }
    this.from = this.count
    this.restsOnAssumption = false
    if (this.always.length > 0) this.rest(this.always)
  }

  /** The value of a fact, or undefined where nobody has seen it. Either way it is noted. */
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    this.paper[this.count++] = fact as FactRef
    if (fact.state !== 'known') return undefined
    if (fact.grade === 'assumed') this.restsOnAssumption = true
    return fact.value
  }

  /** Notes facts that a walk over the site rested on. The list is kept as it is, and must not grow afterwards. */
  rest(refs: readonly FactRef[]): void {
    if (refs.length === 0) return
    this.paper[this.count++] = refs
    if (isAssumedIn(refs)) this.restsOnAssumption = true
  }

  /** What has been asked so far, as a copy of its own. */
  get asked(): readonly FactRef[] {
    return listed(this.paper, this.from, this.count)
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
    const check = this.checks[id]
    if (!check) throw new Error(`The rule has no check ${id}`)
    const danger =
      detail.danger ?? (typeof check.danger === 'number' ? check.danger : check.danger[1])
    const says = say(check.says, data)
    // Most failures carry no more than their sentence, and spreading is what takes long here.
    return detail === NO_DETAIL ? { id, data, says, danger } : { ...detail, id, data, says, danger }
  }

  /** Fails by a failure that was made once, for what many things fail alike. */
  faultAlike(failures: readonly [Failure]): Verdict {
    const [{ says, working }] = failures
    return this.ruling('fault', says, working, { failures }) as Verdict
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
    const first = failures[0]!
    return this.ruling('fault', first.says, first.working, { failures }) as Verdict
  }

  /** A fault, unless one of the named exceptions holds; none of them has been looked for. */
  faultUnless(id: string, data: Slots, detail: LeanDetail): Verdict {
    if (this.failures.length > 0) return this.failed()
    const { unless, ask, missing, ...more } = detail
    const failure = this.failure(id, data, more)
    const lacks = missing ? [ask, ...missing] : [ask]
    return this.ruling('undecided', failure.says, failure.working, {
      lacks,
      leans: { failure, unless, ask },
    }) as Verdict
  }

  /** The rule is kept. Where a fact it rests on is only assumed, the answer is undecided on that fact instead. */
  clear(why: Step, working?: readonly Step[], compare?: Comparison): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (this.restsOnAssumption) return this.assumed(working)
    return this.ruling('clear', why, working, compare && { compare }) as Verdict
  }

  /**
   * The rule is kept by something that was lawful when made and may stay: clear, and put on record
   * with what it means.
   */
  mayStay(why: Step, means: Step, working?: readonly Step[]): Verdict {
    if (this.failures.length > 0) return this.failed()
    if (this.restsOnAssumption) return this.assumed(working)
    return this.ruling('clear', why, working, { mayStay: means }) as Verdict
  }

  /** Undecided on the given facts, or on everything asked for that is not known. */
  undecided(
    why: Step = NOT_SEEN,
    working?: readonly Step[],
    missing?: readonly FactRef[],
  ): Verdict {
    if (this.failures.length > 0) return this.failed()
    return this.ruling('undecided', why, working, missing ? { lacks: missing } : OPEN) as Verdict
  }

  /** Does not apply. Rests on facts too: an assumption may not excuse anything either. */
  na(why: Step): Verdict {
    if (this.failures.length > 0) return this.failed()
    return this.restsOnAssumption ? this.assumed() : (this.ruling('n/a', why) as Verdict)
  }

  private assumed(working?: readonly Step[]): Verdict {
    return this.ruling('undecided', ASSUMED, working, { lacks: 'assumed' }) as Verdict
  }

  private ruling(
    outcome: Ruled,
    why: Step,
    working: readonly Step[] = NO_STEPS,
    detail?: Detail,
  ): Ruling {
    return new Ruling(outcome, why, working, this.paper, this.from, this.count, detail)
  }
}

export type { Verdict }
