import { Site } from '../derive/site'
import { valueOf, type House, type Subject } from '../model/house'
import { Context } from './context'
import type { Rule } from './rule'
import { say } from './say'
import { severityOf, type Severity } from './severity'
import { standingOf, type Standing } from './standing'
import type { Step } from './say'
import type { Verdict } from './verdict'

/** One rule judged on one thing. Standing and severity are there for faults only, worked out when first asked for. */
export class Result {
  private settled: Standing | undefined = undefined
  private weighed: { severity: Severity; why: Step } | undefined = undefined
  constructor(
    readonly rule: Rule,
    readonly subject: Subject,
    readonly verdict: Verdict,
    readonly site: Site,
  ) {}

  get standing(): Standing | undefined {
    return this.verdict.outcome === 'fault'
      ? (this.settled ??= standingOf(this.rule, this.verdict, this.subject, this.site))
      : undefined
  }

  /** As set by hand, else as computed. */
  get severity(): Severity | undefined {
    return this.byHand?.severity ?? this.weigh()?.severity
  }
  get computedSeverity(): Severity | undefined {
    return this.weigh()?.severity
  }
  get severityWhy(): Step | undefined {
    return this.weigh()?.why
  }

  /** What a person set instead, with the reason; the computed one is kept beside it. */
  get byHand(): { severity: Severity; reason: string } | undefined {
    const set =
      this.verdict.outcome === 'fault' && this.site.overrides.size > 0
        ? this.site.overrides.get(`${this.rule.id} ${this.subject.id}`)
        : undefined
    return set && { severity: valueOf(set, 'severity')!, reason: valueOf(set, 'reason')! }
  }

  private weigh(): { severity: Severity; why: Step } | undefined {
    return this.verdict.outcome === 'fault'
      ? (this.weighed ??= severityOf(this.verdict, this.standing!, this.subject, this.site))
      : undefined
  }
}

/**
 * Judges every rule on every thing it is about. The same house always gives the same results in the same order.
 * A rule that throws is undecided with its error attached, never a pass.
 */
export function evaluate(house: House | Site, rules: readonly Rule[]): Result[] {
  const site = house instanceof Site ? house : new Site(house)
  const context = new Context(site)
  const results = new Array<Result>(
    rules.reduce((sum, rule) => sum + site.all[rule.subject].length, 0),
  )
  let n = 0
  for (const rule of rules) {
    const subjects = site.all[rule.subject] as readonly Subject[]
    for (let i = 0; i < subjects.length; i++) results[n++] = judgeOne(rule, subjects[i]!, context)
  }
  return results
}

/** One rule on one thing, by the edition in force or by what local law says of this rule. */
export function judgeOne(rule: Rule, subject: Subject, context: Context): Result {
  const amendment =
    context.site.amendments.size > 0 ? context.site.amendments.get(rule.id) : undefined
  if (amendment && !rule.isHazard) return judgeAmended(rule, subject, context, amendment)
  context.begin()
  let verdict: Verdict
  try {
    verdict = rule.judge(subject as never, context)
  } catch (error) {
    verdict = crashed(error, context)
  }
  if (verdict.outcome === 'fault') verdict = gated(rule, verdict, context.site.edition)
  return new Result(rule, subject, verdict, context.site)
}

/** Local law can take a rule away or hold another edition of it; it takes away no hazard. 90.4. */
function judgeAmended(
  rule: Rule,
  subject: Subject,
  context: Context,
  amendment: Subject<'amendment'>,
): Result {
  context.begin()
  const law = [
    amendment.facts.rule,
    amendment.facts.effect,
    amendment.facts.asIn,
    amendment.facts.source,
  ]
  const effect = context.ask(amendment.facts.effect)
  const asIn = effect === 'as in another edition' ? context.ask(amendment.facts.asIn) : undefined
  const source = valueOf(amendment, 'source') ?? 'a local amendment'
  if (effect === 'not enforced here')
    return new Result(
      rule,
      subject,
      context.na(say('Not enforced here: {source}', { source })),
      context.site,
    )
  if (asIn === undefined)
    return new Result(
      rule,
      subject,
      context.undecided(
        say('Local law changes this rule ({source}); how has not been read', { source }),
      ),
      context.site,
    )
  // Judged by that edition, where nothing is amended; what the law rests on is noted with the rest.
  const inner = new Context(
    context.site.under(asIn),
    law.filter(f => f.state === 'known'),
  )
  return judgeOne(rule, subject, inner)
}

/** A rule that throws is undecided with its error attached. */
const crashed = (error: unknown, context: Context): Verdict => ({
  outcome: 'undecided',
  why: say('The rule could not be worked out; this is a defect of the program'),
  working: [],
  asked: context.asked,
  missing: [],
  defect: String(error),
})

/** A rule newer than the edition in force is no rule here; a hazard stands regardless. */
function gated(rule: Rule, verdict: Verdict, edition: number): Verdict {
  if (verdict.outcome !== 'fault' || rule.isHazard) return verdict
  const since = verdict.since ?? rule.since
  if (since === undefined || since <= edition) return verdict
  return {
    outcome: 'n/a',
    why: say('Required from {since}; the edition in force here is {edition}', { since, edition }),
    working: [],
    asked: verdict.asked,
  }
}
