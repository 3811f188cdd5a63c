import { ALWAYS } from '../tables/years'
import { adoptedFrom } from '../derive/adoption'
import { roleOf } from '../derive/service-role'
import type { Site } from '../derive/site'
import { valueAt, type FactRef, type Subject } from '../model/house'
import type { Rule } from './rule'
import { say, type Step } from './say'
import type { Failure } from './verdict'

/** What a fault means for this part, given its years, the edition in force and the work being done. */
export const STANDINGS = [
  'violation when installed',
  'allowed to remain',
  'required by this work',
  'hazard',
  'depends on the year',
] as const
export type StandingKind = (typeof STANDINGS)[number]
export interface Standing {
  readonly kind: StandingKind
  readonly why: Step
  /** Years that would change the answer, where the year of the part is open. */
  readonly turningYears: readonly number[]
  readonly rests: readonly FactRef[]
  /** What settles it, where that is not a year of the part. */
  readonly ask?: FactRef | undefined
}

/**
 * Works out the standing of a fault. 90.4, 406.4(D), 80 of the adopting law; see the handbook of
 * the trade on standing.
 */
export function standingOf(rule: Rule, failure: Failure, subject: Subject, site: Site): Standing {
  const since = failure.since ?? rule.since
  const { lawfulBefore } = failure
  const part = rule.isOfService ? serviceOf(site) : { thing: subject, rests: [] }
  const years = site.yearsOf(part.thing)
  const rests = [...part.rests, ...years.rests]
  const span =
    years.from === years.to
      ? `${years.from}`
      : years.from === 0
        ? `year not known`
        : `${years.from} to ${years.to}`
  const work = workOn(part.thing, site)
  const turn = lawfulBefore ?? since
  if (turn === undefined || turn === ALWAYS) {
    if (rule.isHazard)
      return {
        kind: 'hazard',
        why: say('No rule has to be broken: it is a hazard or a defect as it is'),
        turningYears: [],
        rests: [],
      }
    return {
      kind: 'violation when installed',
      why: say('No year of this part makes it lawful'),
      turningYears: [],
      rests: [],
    }
  }
  const law = adoptedFrom(site, turn)
  rests.push(...law.rests)
  if (years.from >= law.to)
    return {
      kind: 'violation when installed',
      why:
        law.from === turn
          ? say('Put in {span}; required since {turn}', { span, turn })
          : say('Put in {span}; required since {turn}, which is law here from {law}', {
              span,
              turn,
              law: law.from,
            }),
      turningYears: [],
      rests,
    }
  if (
    work !== undefined &&
    work !== 'none' &&
    triggersOf(rule, site).includes(work) &&
    (failure.broughtBy?.includes(work) ?? true)
  ) {
    return {
      kind: 'required by this work',
      why: say('Being {work} now: the rule of today applies', {
        work: work === 'new' ? 'newly made' : work,
      }),
      turningYears: [],
      rests,
    }
  }
  if (failure.isSinceOpen && years.from < law.from) {
    return {
      kind: 'depends on the year',
      why: say(
        'Required since {turn} at the latest; when it began is not settled, and the part is of {span}',
        { turn, span },
      ),
      turningYears: [turn],
      rests,
    }
  }
  if (years.to < law.from && failure.olderIf?.length) {
    return {
      kind: 'depends on the year',
      why: say(
        'Put in {span}, required since {turn}; whether an older rule bore on it has not been seen',
        { span, turn },
      ),
      turningYears: [],
      rests: [...rests, ...failure.olderIf],
    }
  }
  if (years.to < law.from) {
    return {
      kind: 'allowed to remain',
      why: say('Put in {span}, required since {turn}; {trigger}', {
        span,
        turn,
        trigger: triggerText(triggersOf(rule, site)),
      }),
      turningYears: [],
      rests,
    }
  }
  if (years.from >= law.from)
    return {
      kind: 'depends on the year',
      why: say(
        'Put in {span}; required since the {turn} edition, and from which year that is law here nobody has recorded',
        { span, turn },
      ),
      turningYears: [turn],
      rests,
      ask: law.ask,
    }
  return {
    kind: 'depends on the year',
    why: say('Before {turn} it was lawful when made, from {turn} not; the part is of {span}', {
      turn: law.from,
      span,
    }),
    turningYears: [law.from],
    rests,
  }
}

/** The service disconnect, where it is settled which it is; else the property. */
function serviceOf(site: Site): { thing: Subject; rests: readonly FactRef[] } {
  const rests: FactRef[] = []
  for (const enclosure of site.all.enclosure) {
    const role = roleOf(site, enclosure)
    rests.push(...role.rests)
    if (role.value === 'service') return { thing: enclosure, rests }
  }
  return { thing: site.premises, rests }
}

function workOn(subject: Subject, site: Site): string | undefined {
  const own = valueAt(subject, 'work')
  if (subject.kind === 'outlet') {
    // An outlet of a circuit that is newly made is new; what is extended bears on outlets nobody says anything else of.
    const circuit = valueAt(site.get(String(valueAt(subject, 'circuit')), 'circuit'), 'work')
    if (circuit === 'new' || (circuit === 'extended' && own === undefined)) return circuit
  }
  if (own !== undefined) return String(own)
  if (subject.kind === 'segment' && subject.parent)
    return workOn(site.get(subject.parent, 'circuit') ?? site.premises, site)
  if ((subject.kind === 'bar' || subject.kind === 'breaker') && subject.parent)
    return workOn(site.get(subject.parent, 'enclosure') ?? site.premises, site)
  return undefined
}

/** The work that brings the rule along under the edition in force. */
function triggersOf(rule: Rule, site: Site): readonly string[] {
  return rule.triggers.filter(t => (rule.triggersSince?.[t] ?? ALWAYS) <= site.edition)
}

function triggerText(triggers: readonly string[]): string {
  if (triggers.length === 0) return 'allowed to remain as it is'
  return `required once it is ${triggers.map(t => (t === 'new' ? 'newly made' : t)).join(' or ')}`
}
