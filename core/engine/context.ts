import type { FieldName, Kind, Value } from '../model/fields'
import type { Fact, FactRef, Subject, Known } from '../model/house'
import type { Site } from '../derive/site'
import { say, type Step } from './say'
import type { Clear, Comparison, Danger, Fault, NotApplicable, Undecided, Verdict } from './verdict'

const NO_STEPS: readonly Step[] = []
const ASSUMED = say('Rests on something only assumed: an assumption may raise an alarm, never clear one')
const NOT_SEEN = say('Not enough has been seen')

interface FaultDetail { danger: Danger, compare?: Comparison, working?: readonly Step[], since?: number, lawfulBefore?: number, remark?: Step }

/**
 * What a rule sees: the site, and a reader that notes every fact asked for, so that evidence and
 * missing facts come without the rule keeping books. One context serves many judgements in turn.
 */
export class Context {
  // One buffer serves all judgements; a verdict takes an exact copy of what it rests on.
  // TypeScript-private rather than #private: the engine compiles plain fields to faster code, and this is its hottest spot.
  private readonly buffer: FactRef[] = []
  private count = 0
  private restsOnAssumption = false
  constructor(readonly site: Site) {}

  begin(): void {
    this.count = 0
    this.restsOnAssumption = false
  }

  private note(fact: FactRef): void {
    this.buffer[this.count++] = fact
    if ((fact as Known).grade === 'assumed') this.restsOnAssumption = true
  }

  /** The value of a fact, or undefined where nobody has seen it. Either way it is noted. */
  ask<K extends Kind, F extends FieldName<K>>(subject: Subject<K>, field: F): Value<K, F> | undefined {
    const fact = subject.facts[field] as Fact<Value<K, F>> | undefined
    if (fact === undefined) {
      this.buffer[this.count++] = { state: 'unseen', subject: subject.id, field }
      return undefined
    }
    this.note(fact as FactRef)
    return fact.state === 'known' ? fact.value : undefined
  }

  /** Notes facts that a walk over the site rested on. */
  rest(refs: readonly FactRef[]): void {
    for (let i = 0; i < refs.length; i++) this.note(refs[i]!)
  }

  /** What has been asked so far, as a copy of its own. */
  get asked(): readonly FactRef[] {
    const asked = new Array<FactRef>(this.count)
    for (let i = 0; i < asked.length; i++) asked[i] = this.buffer[i]!
    return asked
  }

  fault(why: Step, detail: FaultDetail): Fault {
    return {
      outcome: 'fault', why, working: detail.working ?? NO_STEPS, asked: this.asked,
      danger: detail.danger, compare: detail.compare, since: detail.since, lawfulBefore: detail.lawfulBefore, remark: detail.remark,
    }
  }

  /** The rule is kept. Where a fact it rests on is only assumed, the answer is undecided on that fact instead. */
  clear(why: Step, working: readonly Step[] = NO_STEPS, compare?: Comparison): Clear | Undecided {
    if (this.restsOnAssumption) return this.assumed(working)
    return { outcome: 'clear', why, working, asked: this.asked, compare }
  }

  /** Undecided on the given facts, or on everything asked for that is not known. */
  undecided(why: Step = NOT_SEEN, working: readonly Step[] = NO_STEPS, missing?: readonly FactRef[]): Undecided {
    const asked = this.asked
    return { outcome: 'undecided', why, working, asked, missing: unique(missing ?? asked.filter(isOpen)) }
  }

  /** Does not apply. Rests on facts too: an assumption may not excuse anything either. */
  na(why: Step): NotApplicable | Undecided {
    if (this.restsOnAssumption) return this.assumed(NO_STEPS)
    return { outcome: 'n/a', why, working: NO_STEPS, asked: this.asked }
  }

  private assumed(working: readonly Step[]): Undecided {
    const asked = this.asked
    return { outcome: 'undecided', why: ASSUMED, working, asked, missing: unique(asked.filter(f => (f as Known).grade === 'assumed')) }
  }

  /** A missing fact, for naming outside the order of asking. */
  lack<K extends Kind>(subject: Subject<K>, field: FieldName<K>): FactRef {
    return (subject.facts[field] as Fact | undefined) ?? { state: 'unseen', subject: subject.id, field }
  }
}

/** Not known; or a year known only as an interval, which is half an answer. */
const isOpen = (fact: FactRef): boolean => fact.state !== 'known' || ((fact.field === 'year' || fact.field === 'yearBuilt') && typeof fact.value !== 'number')

/** The same fact asked for twice is named once. */
function unique(refs: readonly FactRef[]): FactRef[] {
  const found: FactRef[] = []
  for (const r of refs) if (!found.some(o => o.subject === r.subject && o.field === r.field)) found.push(r)
  return found
}

export type { Verdict }
