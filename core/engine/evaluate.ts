import { Site } from '../derive/site'
import { isOpenYear, valueOf, type FactRef, type House, type Subject } from '../model/house'
import { Context } from './context'
import type { Rule } from './rule'
import { say } from './say'
import { EDITIONS } from '../tables/editions'
import { ALWAYS } from '../tables/years'
import { SEVERITIES, severityOf, severityOfAllowed, type Severity } from './severity'
import { standingOf, type Standing } from './standing'
import type { Step } from './say'
import {
  Fault,
  lackedBy,
  NotApplicable,
  Undecided,
  type Comparison,
  type Failure,
  type Outcome,
  type Verdict,
} from './verdict'

/** A failed check, weighed by the years of the part, the work being done and the place it is in. */
interface Weighed {
  readonly failure: Failure
  readonly standing: Standing
  readonly severity: Severity
  readonly why: Step
  readonly outcome: 'fault' | 'allowed' | 'undecided'
}

/** What was worked out of a result when somebody asked. */
class More {
  asked: readonly FactRef[] | undefined = undefined
  /** Null where there is nothing to weigh. */
  weighed: Weighed | null | undefined = undefined
  constructor(readonly context: Context) {}
}

/** Where an undecided judgment leans: to a fault but for named exceptions, or to one or the other by the year. */
export interface Leaning {
  readonly to: 'fault' | 'allowed or fault by year'
  readonly unless: readonly Step[]
  readonly ask: FactRef
}

/**
 * One rule judged on one thing. Standing and severity are there for faults, for what is allowed to remain and for
 * what leans to a fault; they are worked out when first asked for.
 */
export class Result {
  /** @param behind the context it has just been judged in; most judgments are only counted, so they stay small */
  constructor(
    readonly rule: Rule,
    readonly subject: Subject,
    readonly verdict: Verdict,
    private behind: Context | More,
  ) {}

  private get more(): More {
    const { behind } = this
    return behind instanceof More ? behind : (this.behind = new More(behind))
  }
  get site(): Site {
    const { behind } = this
    return (behind instanceof More ? behind.context : behind).site
  }

  /** Every fact the rule asked for, known or not, in order; listed when somebody wants the list. */
  get asked(): readonly FactRef[] {
    const { more } = this
    return (more.asked ??= more.context.askedBy(this))
  }

  /** Lists what was asked for now, where it was not the rule alone that asked: judged again, it would not. */
  listed(): this {
    void this.asked
    return this
  }

  /** A failed check is a fault, allowed to remain, or open where only the year is. */
  get outcome(): Outcome {
    const { verdict } = this
    if (verdict.outcome === 'fault') return this.weigh()?.outcome ?? 'fault'
    return verdict.outcome === 'clear' && verdict.mayStay ? 'allowed' : verdict.outcome
  }

  /** Every check that failed; the one that decides first. */
  get failures(): readonly Failure[] {
    const { verdict } = this
    if (verdict.outcome !== 'fault') return []
    const first = this.weigh()?.failure
    if (!first) return verdict.failures
    return [first, ...verdict.failures.filter(f => f !== first)]
  }

  /** The failure that decides: that of a fault, or the one an undecided judgment leans to. */
  get failure(): Failure | undefined {
    return this.weigh()?.failure
  }
  get why(): Step {
    return this.weigh()?.failure.says ?? this.verdict.why
  }
  get compare(): Comparison | undefined {
    const failure = this.failure
    if (failure) return failure.compare
    return 'compare' in this.verdict ? this.verdict.compare : undefined
  }
  get working(): readonly Step[] {
    return this.failure?.working ?? this.verdict.working
  }

  get leaning(): Leaning | undefined {
    const weighed = this.weigh()
    if (weighed?.outcome !== 'undecided') return undefined
    const { verdict } = this
    const byYear = weighed.standing.kind === 'depends on the year'
    const [turn] = weighed.standing.turningYears
    const { olderIf = [] } = weighed.failure
    const { ask: law } = weighed.standing
    const unless =
      law && turn !== undefined
        ? [say('the {turn} edition became law here later than it was made', { turn })]
        : byYear && turn !== undefined
          ? [say('it was made before {turn}', { turn })]
          : []
    if (verdict.outcome === 'undecided' && verdict.leans) {
      const { leans } = verdict
      return {
        to: byYear ? 'allowed or fault by year' : 'fault',
        unless: [...leans.unless.map(text => say(text)), ...unless],
        ask: leans.ask,
      }
    }
    return {
      to: 'allowed or fault by year',
      unless,
      ask: this.openYears()[0] ?? olderIf[0] ?? law ?? weighed.standing.rests.at(-1)!,
    }
  }

  /** What to look at so that an undecided judgment is decided. */
  get missing(): readonly FactRef[] {
    if (this.verdict.outcome === 'undecided') return lackedBy(this.verdict, () => this.asked)
    if (this.outcome !== 'undecided') return []
    const years = this.openYears()
    if (years.length > 0) return years
    const weighed = this.weigh()
    const { ask } = weighed?.standing ?? {}
    return ask ? [ask] : (weighed?.failure.olderIf ?? [])
  }

  /** The years nobody has settled. */
  private openYears(): readonly FactRef[] {
    return this.weigh()?.standing.rests.filter(isOpenYear) ?? []
  }

  get standing(): Standing | undefined {
    return this.weigh()?.standing
  }
  /** As set by hand, else as computed. */
  get severity(): Severity | undefined {
    return this.byHand?.severity ?? this.computedSeverity
  }
  get computedSeverity(): Severity | undefined {
    const weighed = this.weigh()
    if (weighed) return weighed.severity
    return this.outcome === 'allowed' ? severityOfAllowed(this.site) : undefined
  }
  get severityWhy(): Step | undefined {
    return this.weigh()?.why
  }

  /** What a person set instead, with the reason; the computed one is kept beside it. */
  get byHand(): { severity: Severity; reason: string } | undefined {
    const set =
      this.site.overrides.size > 0 && this.weigh()
        ? this.site.overrides.get(`${this.rule.id} ${this.subject.id}`)
        : undefined
    return set && { severity: valueOf(set, 'severity')!, reason: valueOf(set, 'reason')! }
  }

  private weigh(): Weighed | undefined {
    const { outcome } = this.verdict
    if (outcome === 'clear' || outcome === 'n/a') return undefined
    const { more } = this
    if (more.weighed === undefined) more.weighed = this.weighAll() ?? null
    return more.weighed ?? undefined
  }

  private weighAll(): Weighed | undefined {
    const { verdict } = this
    if (verdict.outcome === 'fault') {
      const each = verdict.failures.map(f => this.weighOne(f))
      return each.length === 1 ? each[0] : each.reduce((a, b) => (isWorse(b, a) ? b : a))
    }
    if (verdict.outcome !== 'undecided' || !verdict.leans) return undefined
    const weighed = this.weighOne(verdict.leans.failure)
    // What would be allowed to remain even if it failed leans to nothing.
    return weighed.outcome === 'allowed' ? undefined : { ...weighed, outcome: 'undecided' }
  }

  private weighOne(failure: Failure): Weighed {
    const standing = standingOf(this.rule, failure, this.subject, this.site)
    const { severity, why } = severityOf(failure, standing, this.subject, this.site)
    return { failure, standing, severity, why, outcome: outcomeOf(this.rule, standing, severity) }
  }
}

/** A hazard, and what may kill somebody, is a fault whatever its year. */
function outcomeOf(rule: Rule, standing: Standing, severity: Severity): Weighed['outcome'] {
  if (rule.isHazard || severity === 'make safe now') return 'fault'
  if (standing.kind === 'allowed to remain') return 'allowed'
  return standing.kind === 'depends on the year' ? 'undecided' : 'fault'
}

const OUTCOME_ORDER: readonly Weighed['outcome'][] = ['fault', 'undecided', 'allowed']
function isWorse(a: Weighed, b: Weighed): boolean {
  const byOutcome = OUTCOME_ORDER.indexOf(a.outcome) - OUTCOME_ORDER.indexOf(b.outcome)
  if (byOutcome !== 0) return byOutcome < 0
  return SEVERITIES.indexOf(a.severity) < SEVERITIES.indexOf(b.severity)
}

/**
 * Judges every rule on every thing it is about. The same house always gives the same results in the same order.
 * A rule that throws is undecided with its error attached, never a pass.
 */
export function evaluate(house: House | Site, rules: readonly Rule[]): Result[] {
  const site = house instanceof Site ? house : new Site(house)
  const results = new Array<Result>(
    rules.reduce((sum, rule) => sum + site.all[rule.subject].length, 0),
  )
  const context = new Context(site)
  let n = 0
  for (const rule of rules) {
    const subjects = site.all[rule.subject] as readonly Subject[]
    for (let i = 0; i < subjects.length; i++) results[n++] = judgeOne(rule, subjects[i]!, context)
  }
  return results
}

/** Judges like `evaluate`, and hands over each judgment when it is made: what it asked for is at hand then. */
export function judgeEach(
  site: Site,
  rules: readonly Rule[],
  take: (result: Result) => void,
): void {
  const context = new Context(site)
  for (const rule of rules) {
    const subjects = site.all[rule.subject] as readonly Subject[]
    for (let i = 0; i < subjects.length; i++) take(judgeOne(rule, subjects[i]!, context))
  }
}

/** One rule on one thing, by the edition in force or by what local law says of this rule. */
export function judgeOne(rule: Rule, subject: Subject, context: Context): Result {
  const { site } = context
  if (site.hasAmendments && !rule.isHazard) {
    const amendment = site.amendments.get(rule.id)
    if (amendment) return judgeAmended(rule, subject, context, amendment)
  }
  if (site.isEditionOpen) return judgeUnderAll(rule, subject, context)
  return judgeUnder(rule, subject, context)
}

/** One rule on one thing by the edition of the site. */
function judgeUnder(rule: Rule, subject: Subject, context: Context): Result {
  context.begin(rule, subject)
  let verdict: Verdict
  try {
    verdict = rule.judge(subject as never, context)
  } catch (error) {
    verdict = crashed(error)
  }
  if (verdict.outcome === 'fault') verdict = gated(rule, verdict, context.site.edition)
  return new Result(rule, subject, verdict, context)
}

const NO_FAULT: ReadonlySet<Outcome> = new Set(['allowed', 'clear', 'n/a'])

/**
 * Nobody has said which edition is in force: judged under each. Where they agree, or none finds a fault, that is the
 * answer; else the edition decides, and is asked for. 90.4.
 */
function judgeUnderAll(rule: Rule, subject: Subject, context: Context): Result {
  const results = EDITIONS.map(e => judgeUnder(rule, subject, context.under(e)))
  const newest = results.at(-1)!
  const isAlike = results.every(r => r.outcome === newest.outcome)
  if (isAlike || results.every(r => NO_FAULT.has(r.outcome))) return newest
  const { edition } = context.site.premises.facts
  context.begin(rule, subject)
  context.rest(newest.asked)
  const { failure } = newest
  // A fault in this edition and in every one after it.
  const since = EDITIONS[results.findLastIndex(r => r.outcome !== 'fault') + 1]
  const isFault = newest.outcome === 'fault' && failure !== undefined
  const verdict = isFault
    ? context.faultUnless(failure.id, failure.data, {
        ...failure.detail,
        unless: [`the edition in force here is older than ${since}`],
        ask: edition,
      })
    : context.undecided('The edition in force decides, and nobody has said which it is', [
        edition,
        ...results.flatMap(r => r.missing),
      ])
  return new Result(rule, subject, verdict, context).listed()
}

/** Local law can take a rule away or hold another edition of it; it takes away no hazard. 90.4. */
function judgeAmended(
  rule: Rule,
  subject: Subject,
  context: Context,
  amendment: Subject<'amendment'>,
): Result {
  context.begin(rule, subject)
  const law = [
    amendment.facts.rule,
    amendment.facts.effect,
    amendment.facts.asIn,
    amendment.facts.source,
  ]
  const effect = context.ask(amendment.facts.effect)
  const asIn = effect === 'as in another edition' ? context.ask(amendment.facts.asIn) : undefined
  const source = valueOf(amendment, 'source') ?? 'a local amendment'
  const ends = (verdict: Verdict) => new Result(rule, subject, verdict, context).listed()
  if (effect === 'not enforced here')
    return ends(context.na(say('Not enforced here: {source}', { source })))
  if (asIn === undefined)
    return ends(
      context.undecided(
        say('Local law changes this rule ({source}); how has not been read', { source }),
      ),
    )
  // Judged by that edition, where nothing is amended; what the law rests on is noted with the rest.
  const inner = new Context(
    context.site.under(asIn),
    law.filter(f => f.state === 'known'),
  )
  return judgeOne(rule, subject, inner)
}

/** A rule that throws is undecided with its error attached. */
const crashed = (error: unknown): Verdict =>
  new Undecided(CRASHED, undefined, [], undefined, String(error))
const CRASHED = say('The rule could not be worked out; this is a defect of the program')

/** A rule newer than the edition in force is no rule here; a hazard stands regardless. */
function gated(rule: Rule, verdict: Fault, edition: number): Verdict {
  if (rule.isHazard) return verdict
  for (const failure of verdict.failures)
    if (sinceOf(failure, rule) > edition) return withoutNewer(rule, verdict, edition)
  return verdict
}

const sinceOf = (failure: Failure, rule: Rule): number => failure.since ?? rule.since ?? ALWAYS

function withoutNewer(rule: Rule, { failures }: Fault, edition: number): Verdict {
  const since = (failure: Failure) => sinceOf(failure, rule)
  const left = failures.filter(f => since(f) <= edition)
  if (left.length > 0) return new Fault(left)
  const first = Math.min(...failures.map(since))
  return new NotApplicable(
    say('Required from {since}; the edition in force here is {edition}', {
      since: first,
      edition,
    }),
  )
}
