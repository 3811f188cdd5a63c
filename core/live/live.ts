import { Site } from '../derive/site'
import { Context } from '../engine/context'
import { judgeEach, judgeOne, type Result } from '../engine/evaluate'
import type { Rule } from '../engine/rule'
import type { Step } from '../engine/say'
import type { Severity } from '../engine/severity'
import type { StandingKind } from '../engine/standing'
import type { Outcome } from '../engine/verdict'
import { SHAPING_FIELDS } from '../model/fields'
import { PREMISES_ID, watchReads, type FactRef } from '../model/house'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { RULES } from '../rules'
import { labelOf } from '../texts/labels'
import { count, noTotals, speak, type SpokenResult, type Totals } from '../assess/assess'

/** What changed after some observations: judgments to put in place, and keys of those that are gone. */
export interface Change {
  readonly changed: readonly SpokenResult[]
  readonly gone: readonly string[]
  readonly totals: Totals
}

export const resultKey = (rule: string, subject: string): string => `${rule} ${subject}`

const NOBODY: ReadonlySet<string> = new Set()
/**
 * Why a judgment is taken again: a fact it rests on was seen anew, names it may speak may have
 * changed, or it may be untouched.
 */
type Touched = 'asked anew' | 'named anew' | 'perhaps'

/** A judgment as it stood: what it said, what it asked for, and what its remedies looked at besides. */
interface Entry {
  readonly key: string
  readonly rule: Rule
  readonly subject: string
  outcome: Outcome
  severity: Severity | undefined
  standing: StandingKind | undefined
  why: Step
  /** Every fact it rests on, its remedies included. */
  facts: readonly FactRef[]
  /** How many of them the judgment itself asked for. */
  asked: number
  /** Kept where a later judgment may have to be compared with it word by word. */
  spoken: SpokenResult | undefined
}

/**
 * Keeps a house judged while it is being recorded, and says only what changed. A fact that gives the house no new
 * shape can turn only judgments that asked for it, and those are known; anything else judges the whole house.
 */
export class LiveAssessment {
  readonly ledger = new Ledger()
  readonly #entries = new Map<string, Entry>()
  readonly #totals = noTotals()
  readonly #labels = new Map<string, string>()
  #names: Site['names'] | undefined
  /** Which judgments asked for a fact, whether it was known or not: by subject, then by field. */
  readonly #askers = new Map<string, Map<string, Set<Entry>>>()

  /**
   * Fields that judgments read without asking for them: names, work, places, severities by hand. Any judgment may
   * rest on them, so all are taken again when one changes.
   */
  readonly #readAside = new Set<string>()

  append(observations: readonly Observation[]): Change {
    const isLocal =
      this.#entries.size > 0 &&
      observations.every(
        o =>
          (o.act === 'note' || o.act === 'block') &&
          o.subject !== PREMISES_ID &&
          !this.#readAside.has(o.field) &&
          !SHAPING_FIELDS.has(o.field),
      )
    return watchReads(this.#readAside, () => this.#take(observations, isLocal))
  }

  #take(observations: readonly Observation[], isLocal: boolean): Change {
    this.ledger.append(observations)
    const site = new Site(this.ledger.house)
    // A local edit renames nothing.
    if (isLocal && this.#names) site.names = this.#names
    this.#names = site.names
    const renamed = isLocal ? NOBODY : this.#renamed(site)
    const changed: SpokenResult[] = []
    const gone: string[] = []
    if (isLocal) this.#judgeAskers(observations, site, changed)
    else this.#judgeAll(site, renamed, changed, gone)
    return { changed, gone, totals: { ...this.#totals, severity: { ...this.#totals.severity } } }
  }

  #judgeAskers(observations: readonly Observation[], site: Site, changed: SpokenResult[]): void {
    const context = new Context(site)
    const askers = new Set<Entry>()
    for (const o of observations)
      if (o.act === 'note' || o.act === 'block')
        for (const entry of this.#askers.get(o.subject)?.get(o.field) ?? []) askers.add(entry)
    for (const { key, rule, subject: id } of askers) {
      const subject = site.house.subjects.get(id)
      if (subject) this.#settle(key, judgeOne(rule, subject, context), site, 'asked anew', changed)
    }
  }

  /** Things that are called otherwise than before; what speaks of them is put into words anew. */
  #renamed(site: Site): ReadonlySet<string> {
    const renamed = new Set<string>()
    for (const [id, subject] of site.house.subjects) {
      const label = labelOf(site, subject)
      if (this.#labels.get(id) === label) continue
      renamed.add(id)
      this.#labels.set(id, label)
    }
    return renamed
  }

  #judgeAll(
    site: Site,
    renamed: ReadonlySet<string>,
    changed: SpokenResult[],
    gone: string[],
  ): void {
    const present = new Set<string>()
    judgeEach(site, RULES, result => {
      const key = resultKey(result.rule.id, result.subject.id)
      present.add(key)
      this.#settle(
        key,
        result,
        site,
        renamed.size > 0 && speaksOf(this.#entries.get(key), result, renamed)
          ? 'named anew'
          : 'perhaps',
        changed,
      )
    })
    for (const [key, entry] of this.#entries) {
      if (present.has(key)) continue
      this.#forget(entry)
      this.#entries.delete(key)
      if (entry.outcome !== 'n/a') gone.push(key)
    }
  }

  #settle(
    key: string,
    result: Result,
    site: Site,
    touched: Touched,
    changed: SpokenResult[],
  ): void {
    const before = this.#entries.get(key)
    const { outcome, why, standing } = result
    const { asked } = result
    // Remedies look at facts the judgment never asked for, so what has any is always put into words and compared.
    const hasRemedies = standing !== undefined
    if (before && !hasRemedies && touched === 'perhaps' && readsTheSame(before, result)) return
    // What is missing may be a fact nobody asked for: the judgment names it all the same.
    const facts = [...asked, ...(standing?.rests ?? [])]
    for (const fact of result.missing) if (!facts.includes(fact)) facts.push(fact)
    const spoken =
      outcome !== 'n/a' || (before && before.outcome !== 'n/a')
        ? speak(result, site, facts)
        : undefined
    const after: Entry = {
      key,
      rule: result.rule,
      subject: result.subject.id,
      outcome,
      severity: result.severity,
      standing: standing?.kind,
      why,
      facts,
      asked: asked.length,
      spoken: hasRemedies || touched !== 'perhaps' ? spoken : undefined,
    }
    const isSame =
      touched !== 'asked anew' &&
      before?.spoken !== undefined &&
      spoken !== undefined &&
      reads(before.spoken, spoken)
    if (before) this.#forget(before)
    this.#keep(after)
    if (spoken && !isSame) changed.push(spoken)
  }

  #keep(entry: Entry): void {
    this.#entries.set(entry.key, entry)
    count(this.#totals, entry.outcome, entry.severity)
    for (const { subject, field } of entry.facts) {
      let fields = this.#askers.get(subject)
      if (!fields) this.#askers.set(subject, (fields = new Map()))
      const askers = fields.get(field)
      if (askers) askers.add(entry)
      else fields.set(field, new Set([entry]))
    }
  }

  #forget(entry: Entry): void {
    count(this.#totals, entry.outcome, entry.severity, -1)
    for (const { subject, field } of entry.facts)
      this.#askers.get(subject)?.get(field)?.delete(entry)
  }
}

/**
 * Whether a judgment names one of these things: its own, those of the facts it rests on, or those
 * such a fact points at.
 */
function speaksOf(
  entry: Entry | undefined,
  { subject, verdict }: Result,
  renamed: ReadonlySet<string>,
): boolean {
  if (verdict.outcome === 'n/a' && (!entry || entry.outcome === 'n/a')) return false
  if (!entry || renamed.has(subject.id)) return true
  const names = (value: unknown): boolean =>
    typeof value === 'string'
      ? renamed.has(value)
      : Array.isArray(value) && value.some(v => renamed.has(v as string))
  return entry.facts.some(
    f =>
      renamed.has(f.subject) ||
      (f.state === 'known' && (names(f.value) || f.earlier.some(e => names(e.value)))),
  )
}

/**
 * Two judgments that say the same for the same facts read the same. A fact is a new object once
 * anything about it changed.
 */
function readsTheSame(before: Entry, result: Result): boolean {
  const { asked, standing, outcome, why, severity } = result
  if (
    before.outcome !== outcome ||
    before.standing !== standing?.kind ||
    before.severity !== severity ||
    before.why.text !== why.text ||
    before.asked !== asked.length
  )
    return false
  for (const key in why.slots) if (why.slots[key] !== before.why.slots?.[key]) return false
  return asked.every((fact, i) => sameFact(fact, before.facts[i]!))
}
const sameFact = (a: FactRef, b: FactRef): boolean =>
  a === b ||
  (a.state === 'unseen' && b.state === 'unseen' && a.subject === b.subject && a.field === b.field)

/** Plain data that says the same: texts, numbers, lists and records of them. */
function reads(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a))
    return Array.isArray(b) && a.length === b.length && a.every((x, i) => reads(x, b[i]))
  const x = a as Record<string, unknown>
  const y = b as Record<string, unknown>
  for (const key in x) if (!reads(x[key], y[key])) return false
  for (const key in y) if (!(key in x)) return false
  return true
}
