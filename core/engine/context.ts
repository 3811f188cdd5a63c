import type { Fact, FactRef, Known, Unseen } from '../model/house'
import type { Site } from '../derive/site'
import { say, type Step } from './say'
import {
  Ruling,
  type Clear,
  type Detail,
  type Comparison,
  type Danger,
  type Fault,
  type NotApplicable,
  type Outcome,
  type Undecided,
  type Verdict,
} from './verdict'

/** Facts on one sheet; then a new one is begun, and the old lives as long as its verdicts. */
const PAPER = 1920
/** Room for the facts of the last judgement on the sheet; longer ones make it grow. */
const SHEET = PAPER + 128
const NO_STEPS: readonly Step[] = []
const ASSUMED = say(
  'Rests on something only assumed: an assumption may raise an alarm, never clear one',
)
const NOT_SEEN = say('Not enough has been seen')
const OPEN: Detail = { lacks: 'open' }

interface FaultDetail {
  danger: Danger
  compare?: Comparison
  working?: readonly Step[]
  since?: number
  lawfulBefore?: number
  isSinceOpen?: boolean
  remark?: Step
}

/**
 * What a rule sees: the site, and a reader that notes every fact asked for, so that evidence and
 * missing facts come without the rule keeping books. One context serves many judgements in turn.
 */
export class Context {
  // Judgements write what they ask one after another into shared paper; a verdict keeps its place
  // on it and copies nothing.
  // TypeScript-private rather than #private: the engine compiles plain fields to faster code, and
  // this is its hottest spot.
  private paper = new Array<FactRef>(SHEET)
  private from = 0
  private count = 0
  private restsOnAssumption = false
  /** @param always facts every judgement of this context rests on */
  constructor(
    readonly site: Site,
    private readonly always: readonly FactRef[] = [],
  ) {}

  begin(): void {
    if (this.count > PAPER) {
      this.paper = new Array<FactRef>(SHEET)
      this.count = 0
    }
    this.from = this.count
    this.restsOnAssumption = false
    if (this.always.length > 0) this.rest(this.always)
  }

  private note(fact: FactRef): void {
    this.paper[this.count++] = fact
    if ((fact as Known).grade === 'assumed') this.restsOnAssumption = true
  }

  /** The value of a fact, or undefined where nobody has seen it. Either way it is noted. */
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    this.paper[this.count++] = fact as FactRef
    if (fact.state !== 'known') return undefined
    if (fact.grade === 'assumed') this.restsOnAssumption = true
    return fact.value
  }

  /** Notes facts that a walk over the site rested on. */
  rest(refs: readonly FactRef[]): void {
    for (let i = 0; i < refs.length; i++) this.note(refs[i]!)
  }

  /** What has been asked so far, as a copy of its own. */
  get asked(): readonly FactRef[] {
    return this.paper.slice(this.from, this.count)
  }

  fault(why: Step, detail: FaultDetail): Fault {
    return this.ruling('fault', why, detail.working, detail) as Fault
  }

  /** The rule is kept. Where a fact it rests on is only assumed, the answer is undecided on that fact instead. */
  clear(why: Step, working?: readonly Step[], compare?: Comparison): Clear | Undecided {
    if (this.restsOnAssumption) return this.assumed(working)
    return this.ruling('clear', why, working, compare && { compare }) as Clear
  }

  /**
   * The rule is kept by something that was lawful when made and may stay: clear, and put on record
   * with what it means.
   */
  mayStay(why: Step, means: Step, working?: readonly Step[]): Clear | Undecided {
    if (this.restsOnAssumption) return this.assumed(working)
    return this.ruling('clear', why, working, { mayStay: means }) as Clear
  }

  /** Undecided on the given facts, or on everything asked for that is not known. */
  undecided(
    why: Step = NOT_SEEN,
    working?: readonly Step[],
    missing?: readonly FactRef[],
  ): Undecided {
    return this.ruling('undecided', why, working, missing ? { lacks: missing } : OPEN) as Undecided
  }

  /** Does not apply. Rests on facts too: an assumption may not excuse anything either. */
  na(why: Step): NotApplicable | Undecided {
    return this.restsOnAssumption ? this.assumed() : (this.ruling('n/a', why) as NotApplicable)
  }

  private assumed(working?: readonly Step[]): Undecided {
    return this.ruling('undecided', ASSUMED, working, { lacks: 'assumed' }) as Undecided
  }

  private ruling(
    outcome: Outcome,
    why: Step,
    working: readonly Step[] = NO_STEPS,
    detail?: Detail,
  ): Ruling {
    return new Ruling(outcome, why, working, this.paper, this.from, this.count, detail)
  }
}

export type { Verdict }
