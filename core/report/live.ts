import { Site } from '../derive/site'
import { Context } from '../engine/context'
import { evaluate, judgeOne, type Result } from '../engine/evaluate'
import type { Rule } from '../engine/rule'
import type { Severity } from '../engine/severity'
import type { Outcome } from '../engine/verdict'
import { FIELDS } from '../model/fields'
import { PREMISES_ID } from '../model/house'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { RULES } from '../rules'
import { speak, totalsOf, type SpokenResult, type Totals } from './assess'

/** What changed after some observations: judgements to put in place, and keys of those that are gone. */
export interface Change { readonly changed: readonly SpokenResult[], readonly gone: readonly string[], readonly totals: Totals }

export const resultKey = (rule: string, subject: string): string => `${rule} ${subject}`

/** Names of things appear in the words of judgements about others, so a change here speaks everything anew. */
const NAMING = new Set(['name', 'label', 'space', 'half', 'position', 'role'])
/** Facts that standing, severity or the shape of the house rest on: judgements elsewhere may turn, so all are judged. */
const EVERYWHERE = new Set(['year', 'yearBuilt', 'work', 'use', 'place', 'isDetached', 'type', 'bus', 'numbering', 'spaces', ...NAMING])
const SHAPING: ReadonlySet<string> = new Set(Object.values(FIELDS).flatMap(fields => Object.entries(fields).filter(([, f]) => f.type === 'ref' || f.type === 'refs').map(([name]) => name)))

interface Entry { rule: Rule, subject: string, signature: string, text: string | undefined, outcome: Outcome, severity: Severity | undefined, facts: Set<string> }

/**
 * Keeps a house judged while it is being recorded, and says only what changed. A fact that gives the house no new
 * shape can turn only judgements that asked for it, and those are known; anything else judges the whole house.
 */
export class LiveAssessment {
  readonly ledger = new Ledger()
  readonly #entries = new Map<string, Entry>()
  /** Which judgements asked for a fact, whether it was known or not. */
  readonly #askers = new Map<string, Set<string>>()

  append(observations: readonly Observation[]): Change {
    const isLocal = this.#entries.size > 0 && observations.every(o => (o.act === 'note' || o.act === 'block') && o.subject !== PREMISES_ID && !EVERYWHERE.has(o.field) && !SHAPING.has(o.field))
    const speaksAll = observations.some(o => o.act === 'retract' || o.act === 'drop' || o.act === 'add' || (o.act === 'note' && (NAMING.has(o.field) || SHAPING.has(o.field))))
    this.ledger.append(observations)
    const site = new Site(this.ledger.house)
    const changed: SpokenResult[] = []
    const gone: string[] = []
    if (isLocal) this.#judgeAskers(observations, site, changed)
    else this.#judgeAll(site, speaksAll, changed, gone)
    return { changed, gone, totals: this.#totals() }
  }

  #judgeAskers(observations: readonly Observation[], site: Site, changed: SpokenResult[]): void {
    const context = new Context(site)
    const keys = new Set<string>()
    for (const o of observations) if (o.act === 'note' || o.act === 'block') for (const key of this.#askers.get(`${o.subject} ${o.field}`) ?? []) keys.add(key)
    for (const key of keys) {
      const entry = this.#entries.get(key)!
      const subject = site.house.subjects.get(entry.subject)
      if (subject) this.#take(key, judgeOne(entry.rule, subject, context), site, true, changed)
    }
  }

  #judgeAll(site: Site, speaksAll: boolean, changed: SpokenResult[], gone: string[]): void {
    const present = new Set<string>()
    for (const result of evaluate(site, RULES)) {
      const key = resultKey(result.rule.id, result.subject.id)
      present.add(key)
      this.#take(key, result, site, speaksAll, changed)
    }
    for (const [key, entry] of this.#entries) {
      if (present.has(key)) continue
      this.#forget(key, entry)
      this.#entries.delete(key)
      if (entry.outcome !== 'n/a') gone.push(key)
    }
  }

  #take(key: string, result: Result, site: Site, always: boolean, changed: SpokenResult[]): void {
    const before = this.#entries.get(key)
    const signature = signatureOf(result)
    const { outcome } = result.verdict
    // Remedies look at facts the judgement never asked for, so faults are always put into words and compared.
    if (before && before.signature === signature && outcome !== 'fault' && !always) return
    const facts = new Set(result.verdict.asked.map(f => `${f.subject} ${f.field}`))
    let text: string | undefined
    let spoken: SpokenResult | undefined
    if (outcome !== 'n/a' || before?.outcome !== 'n/a') {
      spoken = speak(result, site, facts)
      text = outcome === 'fault' || always ? JSON.stringify(spoken) : undefined
    }
    if (before) this.#forget(key, before)
    this.#entries.set(key, { rule: result.rule, subject: result.subject.id, signature, text, outcome, severity: result.severity, facts })
    for (const fact of facts) {
      const askers = this.#askers.get(fact)
      if (askers) askers.add(key)
      else this.#askers.set(fact, new Set([key]))
    }
    if (!spoken || (outcome === 'n/a' && !before) || (before?.text !== undefined && before.text === text)) return
    changed.push(spoken)
  }

  #forget(key: string, entry: Entry): void {
    for (const fact of entry.facts) this.#askers.get(fact)?.delete(key)
  }

  #totals(): Totals {
    return totalsOf([...this.#entries.values()])
  }
}

/** Two judgements with the same signature read the same. */
function signatureOf({ verdict, standing }: Result): string {
  let signature = `${verdict.outcome}|${verdict.why.text}|${standing?.kind ?? ''}`
  const { slots } = verdict.why
  if (slots) for (const key in slots) signature += `|${slots[key]}`
  for (const fact of verdict.asked) signature += fact.state === 'unseen' ? `,${fact.subject} ${fact.field}` : `;${fact.observation}`
  return signature
}
