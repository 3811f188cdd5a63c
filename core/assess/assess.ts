import { citeIn } from '../tables/editions'
import { Site } from '../derive/site'
import type { FactRef, House, Known as KnownFact, Opinion, Subject } from '../model/house'
import { fieldOf, type AnyValue } from '../model/fields'
import { weaker, type Grade } from '../model/observation'
import { judgeEach, type Result } from '../engine/evaluate'
import type { Rule } from '../engine/rule'
import { render, type Slots } from '../engine/say'
import type { Comparison, Outcome } from '../engine/verdict'
import type { Severity } from '../engine/severity'
import type { StandingKind } from '../engine/standing'
import { RULES } from '../rules'
import { remediesFor, type RemedyVerdict } from '../remedies'
import { untilSettled } from '../texts/until'
import { labelOf, lookFor, valueText, type Look } from '../texts/labels'

export const ASSESS_VERSION = 1

/** One judgment, spoken: plain data for screens, reports and the command line. */
export interface SpokenResult {
  rule: string
  title: string
  subject: { kind: string; id: string; label: string }
  outcome: Outcome
  why: string
  severity: Severity | null
  severityWhy: string | null
  /** Every check that failed, the one that decides first; of a fault and of what is allowed to remain. */
  checks: {
    /** Message id: the name of the check in its rule; it stays the same when the sentence is worded anew. */
    id: string
    data: Slots
    sentence: string
  }[]
  /** Where an undecided judgment leans; absent where it leans nowhere. */
  leans?: {
    to: 'fault' | 'allowed or fault by year'
    /** What it would have to be to be no fault. */
    unless: string[]
    /** The one look that settles it. */
    ask: Look
  }
  /** The safe act while the judgment is open; absent where nothing dangerous is. */
  until?: string
  /** Set by a person in place of the computed one, with the reason. */
  byHand: { computed: Severity; reason: string } | null
  /** Of a fault, of what is allowed to remain, and of an undecided judgment that leans. */
  standing: StandingKind | null
  standingWhy: string | null
  turningYears: number[]
  compare: Comparison | null
  working: string[]
  remark: string | null
  evidence: {
    subject: string
    field: string
    label: string
    value: string
    grade: Grade
    observation: string
    earlier: { value: string; by: string; at: string }[]
    rivals?: { value: string; by: string; at: string }[]
  }[]
  /** The weakest grade it rests on. */
  grade: Grade | null
  missing: Look[]
  sections: string[]
  defect?: string
  remedies: {
    id: string
    title: string
    verdict: RemedyVerdict
    why: string
    missing: Look[]
    gives: string
    lacks: string | null
    duties: string[]
    markings: string[]
    steps: string[]
    cautions: string[]
    needsPermit: boolean
    tests: string[]
  }[]
}

export interface Totals {
  fault: number
  allowed: number
  clear: number
  undecided: number
  'n/a': number
  /** Those of the undecided that lean to a fault; never counted as proven. */
  leaning: number
  /** Of the faults. */
  severity: Record<Severity, number>
}
export interface Assessment {
  corvit: 1
  version: number
  edition: number
  results: SpokenResult[]
  totals: Totals
}

/**
 * A result in words, with its evidence, missing facts and remedies.
 * @param looked takes every fact the remedies looked at
 */
export function speak(result: Result, site: Site, looked?: FactRef[]): SpokenResult {
  const { rule, subject, verdict, standing, asked } = result
  const evidence: SpokenResult['evidence'] = []
  let grade: Grade | null = null
  for (const fact of new Set(standing ? [...asked, ...standing.rests] : asked)) {
    if (fact.state !== 'known') continue
    const entry = evidenceOf(site, fact)
    if (!entry) continue
    grade = grade === null ? fact.grade : weaker(grade, fact.grade)
    evidence.push(entry)
  }
  const mayStay = verdict.outcome === 'clear' ? verdict.mayStay : undefined
  const { outcome, leaning } = result
  const until = untilSettled(result)
  return {
    rule: rule.id,
    title: outcome === 'fault' || outcome === 'allowed' || leaning ? rule.fault : rule.title,
    subject: { kind: subject.kind, id: subject.id, label: labelOf(site, subject) },
    outcome,
    why: render(result.why, site.units),
    checks: result.failures.map(f => ({
      id: f.id,
      data: f.data,
      sentence: render(f.says, site.units),
    })),
    ...(leaning && {
      leans: {
        to: leaning.to,
        unless: leaning.unless.map(u => render(u, site.units)),
        ask: lookFor(site, leaning.ask),
      },
    }),
    ...(until !== undefined && { until }),
    severity: result.severity ?? null,
    severityWhy: result.severityWhy ? render(result.severityWhy) : null,
    byHand: result.byHand
      ? { computed: result.computedSeverity!, reason: result.byHand.reason }
      : null,
    standing: standing?.kind ?? (mayStay ? 'allowed to remain' : null),
    standingWhy: standing ? render(standing.why) : mayStay ? render(mayStay) : null,
    turningYears: [...(standing?.turningYears ?? [])],
    compare: result.compare ?? null,
    working: result.working.map(w => render(w, site.units)),
    remark: result.failure?.remark ? render(result.failure.remark, site.units) : null,
    evidence,
    grade,
    missing: result.missing.map(f => lookFor(site, f)),
    sections: citeIn(rule.cites, result.site.edition),
    ...(verdict.outcome === 'undecided' &&
      verdict.defect !== undefined && { defect: verdict.defect }),
    remedies: remediesFor(result, site).map(
      ({ remedy, advice, asked }) => (
        looked?.push(...asked),
        {
          id: remedy.id,
          title: remedy.title,
          verdict: advice.verdict,
          why: render(advice.why),
          missing: advice.missing.map(f => lookFor(site, f)),
          gives: remedy.gives,
          lacks: remedy.lacks ?? null,
          duties: [...remedy.duties],
          markings: [...remedy.markings],
          steps: [...remedy.steps],
          cautions: [...remedy.cautions],
          needsPermit: remedy.needsPermit,
          tests: [...remedy.tests],
        }
      ),
    ),
  }
}

type EvidenceEntry = SpokenResult['evidence'][number]
const EVIDENCE = new WeakMap<Site['names'], Map<KnownFact, EvidenceEntry>>()

/** A known fact in words. Made once per site, since many judgments rest on the same fact. */
function evidenceOf(site: Site, fact: KnownFact): EvidenceEntry | undefined {
  let made = EVIDENCE.get(site.names)
  if (made === undefined) EVIDENCE.set(site.names, (made = new Map()))
  const before = made.get(fact)
  if (before) return before
  const of = site.house.subjects.get(fact.subject)
  const field = of && fieldOf(of.kind, fact.field)
  if (!field) return undefined
  const isLink = field.type === 'ref' || field.type === 'refs'
  const text = (value: AnyValue) =>
    isLink ? refText(site, value) : valueText(field, value, site.units)
  const told = (list: readonly Opinion[]) =>
    list.map(e => ({ value: text(e.value), by: e.by, at: e.at }))
  const entry: EvidenceEntry = {
    subject: fact.subject,
    field: fact.field,
    label: `${labelOf(site, of)}: ${field.label}`,
    value: text(fact.value),
    grade: fact.grade,
    observation: fact.observation,
    earlier: told(fact.earlier),
    ...(fact.rivals.length > 0 && { rivals: told(fact.rivals) }),
  }
  made.set(fact, entry)
  return entry
}

function refText(site: Site, value: unknown): string {
  const one = (id: string) => {
    const subject: Subject | undefined = site.house.subjects.get(id)
    return subject ? labelOf(site, subject) : id
  }
  if (!Array.isArray(value)) return one(String(value))
  return value.length === 0 ? 'none' : value.map(id => one(String(id))).join(', ')
}

export const noTotals = (): Totals => ({
  fault: 0,
  allowed: 0,
  clear: 0,
  undecided: 0,
  'n/a': 0,
  leaning: 0,
  severity: { 'make safe now': 0, repair: 0, upgrade: 0, note: 0 },
})
/** Counts a judgment in, or with -1 out again. Only what is proven and wrong is counted by its severity. */
export function count(
  totals: Totals,
  outcome: Outcome,
  severity: Severity | undefined,
  by: 1 | -1 = 1,
): void {
  totals[outcome] += by
  if (!severity) return
  if (outcome === 'undecided') totals.leaning += by
  if (outcome === 'fault') totals.severity[severity] += by
}

/** How many judgments ended how. */
export function totalsOf(results: readonly Result[]): Totals {
  const totals = noTotals()
  for (const r of results) count(totals, r.outcome, r.severity)
  return totals
}

/** Judges a whole house and says everything: the document the command line prints. */
export function assess(
  house: House,
  { rules = RULES }: { rules?: readonly Rule[] } = {},
): Assessment {
  const site = new Site(house)
  const results: SpokenResult[] = []
  const totals = noTotals()
  judgeEach(site, rules, result => {
    results.push(speak(result, site))
    count(totals, result.outcome, result.severity)
  })
  return { corvit: 1, version: ASSESS_VERSION, edition: site.edition, results, totals }
}
