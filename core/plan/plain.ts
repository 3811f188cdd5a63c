import type { Result } from '../engine/evaluate'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'
import type { Consequences, FollowUp, Turned } from './consequences'
import type { Chosen, Plan } from './plan'
import type { PriceBook } from './prices'
import { schoolById } from './schools'
import type { Aim, RunnerUp } from './solve'

/** `$1,234.50` */
export const money = (cents: number): string =>
  (cents / 100).toLocaleString('en-US', { style: 'currency', currency: 'USD' })

const findingOf = (site: Site, r: Result) => ({
  rule: r.rule.id,
  subject: r.subject.id,
  label: labelOf(site, r.subject),
  title: r.rule.fault,
  severity: r.severity ?? null,
})
const labelAt = (site: Site, id: string): string => {
  const thing = site.house.subjects.get(id)
  return thing ? labelOf(site, thing) : id
}

/** Why this one: said with the runner-up, and what it would have to cost to be no longer the one. */
export function whyOf({ runnerUp, option }: Chosen, aim: Aim): string {
  if (!runnerUp) return 'The only way here that cures it and leaves nothing behind'
  const other = runnerUp.remedies.join(' and ') || 'doing it another way'
  if (aim === 'least-opening' && runnerUp.wallFt > 0)
    return `${other} would open ${runnerUp.wallFt} ft more of wall`
  if (aim === 'fewest-tests' && runnerUp.buttons > 0)
    return `${other} would put in ${runnerUp.buttons} more to test each month`
  return runnerUp.more === 0
    ? `As cheap as: ${other}`
    : `${other} would make the plan ${money(runnerUp.more)} dearer; it would be the one if this cost more than ${money(
        option.cents + runnerUp.more,
      )}`
}

const decidesByCents = (r: RunnerUp, aim: Aim): boolean =>
  !(aim === 'least-opening' && r.wallFt !== 0) && !(aim === 'fewest-tests' && r.buttons !== 0)

/** A plan as plain data: what `corvit plan` prints. */
export function plainPlan(plan: Plan, site: Site, book: PriceBook) {
  return {
    corvit: 1,
    status: plan.status,
    aim: plan.aim,
    prices: { name: book.name, isSample: book.isSample },
    total: plan.total,
    choices: plan.choices.map(c => ({
      findings: c.findings.map(f => findingOf(site, f)),
      severity: c.severity,
      remedy: c.option.steps[0]?.remedy.id ?? null,
      subject: c.option.steps[0]?.subject ?? null,
      steps: c.option.steps.map(s => ({
        remedy: s.remedy.id,
        title: s.remedy.title,
        subject: s.subject,
        label: labelAt(site, s.subject),
        cents: s.cost.cents,
        do: s.remedy.steps,
        duties: s.remedy.duties,
        markings: s.remedy.markings,
        cautions: s.remedy.cautions,
        tests: s.remedy.tests,
        lacks: s.remedy.lacks ?? null,
      })),
      cost: {
        cents: c.option.cents,
        materials: c.option.materials,
        minutes: c.option.minutes,
        wallFt: c.option.wallFt,
        buttons: c.option.buttons,
        needsPermit: c.option.needsPermit,
      },
      why: whyOf(c, plan.aim),
      runnerUp: c.runnerUp ?? null,
      // Where walls or buttons come first, no price flips it.
      flipsAt:
        c.runnerUp && decidesByCents(c.runnerUp, plan.aim)
          ? c.option.cents + c.runnerUp.more
          : null,
    })),
    shared: plan.shared,
    stages: plan.stages,
    relax: plan.clash.map(({ finding, others }) => ({
      ...findingOf(site, finding),
      remedies: others,
    })),
    left: plan.left.map(f => findingOf(site, f)),
    newlyRequired: plan.newlyRequired,
    newlyUndecided: plan.newlyUndecided,
    unmetLocks: plan.unmetLocks,
    departures: plan.departures.map(d => ({
      ...d,
      label: labelAt(site, d.subject),
      said: `${schoolById(d.school)?.label ?? d.school}: no way here, so another was let in`,
    })),
    proof: plan.proof,
  }
}

/** Consequences as plain data: what `corvit consequences` prints. */
export function plainConsequences(done: Consequences) {
  const turned = (t: Turned) => ({ ...t })
  const follow = (t: FollowUp) => ({ ...t })
  return {
    corvit: 1,
    remedy: done.remedy,
    subject: done.subject,
    status:
      done.changes === undefined
        ? 'cannot be said before it is done'
        : done.isRefused
          ? 'refused'
          : done.isCured
            ? 'cures'
            : 'does not cure',
    changes: done.changes ?? null,
    fixed: done.fixed.map(turned),
    broken: done.broken.map(follow),
    required: done.required.map(follow),
    undecided: done.undecided.map(turned),
    decided: done.decided.map(turned),
  }
}
