import { Site } from '../derive/site'
import type { House, Subject } from '../model/house'
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
  private weighed: { severity: Severity, why: Step } | undefined = undefined
  constructor(readonly rule: Rule, readonly subject: Subject, readonly verdict: Verdict, readonly site: Site) {}

  get standing(): Standing | undefined {
    return this.verdict.outcome === 'fault' ? this.settled ??= standingOf(this.rule, this.verdict, this.subject, this.site) : undefined
  }

  get severity(): Severity | undefined { return this.weigh()?.severity }
  get severityWhy(): Step | undefined { return this.weigh()?.why }

  private weigh(): { severity: Severity, why: Step } | undefined {
    return this.verdict.outcome === 'fault' ? this.weighed ??= severityOf(this.verdict, this.standing!, this.subject, this.site) : undefined
  }
}

/**
 * Judges every rule on every thing it is about. The same house always gives the same results in the same order.
 * A rule that throws is undecided with its error attached, never a pass.
 */
export function evaluate(house: House | Site, rules: readonly Rule[]): Result[] {
  const site = house instanceof Site ? house : new Site(house)
  const context = new Context(site)
  const results = new Array<Result>(rules.reduce((sum, rule) => sum + site.all[rule.subject].length, 0))
  let n = 0
  for (const rule of rules) {
    const subjects = site.all[rule.subject] as readonly Subject[]
    for (let i = 0; i < subjects.length; i++) {
      results[n++] = judgeOne(rule, subjects[i]!, context)
    }
  }
  return results
}

export function judgeOne(rule: Rule, subject: Subject, context: Context): Result {
  context.begin()
  let verdict: Verdict
  try {
    verdict = rule.judge(subject as never, context)
  } catch (error) {
    verdict = { outcome: 'undecided', why: say('The rule could not be worked out; this is a defect of the program'), working: [], asked: context.asked, missing: [], defect: String(error) }
  }
  // A rule newer than the edition in force is no rule here; a hazard stands regardless.
  if (verdict.outcome === 'fault' && !rule.isHazard) {
    const since = verdict.since ?? rule.since
    if (since !== undefined && since > context.site.edition) {
      verdict = { outcome: 'n/a', why: say('Required from {since}; the edition in force here is {edition}', { since, edition: context.site.edition }), working: [], asked: verdict.asked }
    }
  }
  return new Result(rule, subject, verdict, context.site)
}
