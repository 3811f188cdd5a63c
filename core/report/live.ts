import { Site } from '../derive/site'
import { evaluate, type Result } from '../engine/evaluate'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { RULES } from '../rules'
import { speak, totalsOf, type SpokenResult, type Totals } from './assess'

/** What changed after some observations: judgements to put in place, and keys of those that are gone. */
export interface Change { readonly changed: readonly SpokenResult[], readonly gone: readonly string[], readonly totals: Totals }

export const resultKey = (rule: string, subject: string): string => `${rule} ${subject}`

/** Names of things appear in the words of judgements about others, so a change here speaks everything anew. */
const NAMING = new Set(['name', 'label', 'space', 'half', 'room', 'fedBy', 'position', 'role'])

/**
 * Keeps a house judged while it is being recorded, and says only what changed. The whole house is judged at each
 * step, which is quick; putting judgements into words is what costs, so that is done for the changed ones.
 */
export class LiveAssessment {
  readonly ledger = new Ledger()
  readonly #spoken = new Map<string, { signature: string, text: string | undefined }>()

  append(observations: readonly Observation[]): Change {
    const isNaming = observations.some(o => o.act === 'retract' || o.act === 'drop' || (o.act === 'note' && NAMING.has(o.field)))
    this.ledger.append(observations)
    const site = new Site(this.ledger.house)
    const results = evaluate(site, RULES)
    const changed: SpokenResult[] = []
    const gone: string[] = []
    const present = new Set<string>()
    for (const result of results) {
      if (result.verdict.outcome === 'n/a') continue
      const key = resultKey(result.rule.id, result.subject.id)
      present.add(key)
      const before = this.#spoken.get(key)
      const signature = signatureOf(result)
      // Remedies read facts the judgement never asked for, so faults are always put into words and compared.
      const isFault = result.verdict.outcome === 'fault'
      if (!isNaming && !isFault && before?.signature === signature) continue
      const spoken = speak(result, site)
      const text = isFault || isNaming ? JSON.stringify(spoken) : undefined
      if (before && text !== undefined && before.text === text) continue
      this.#spoken.set(key, { signature, text })
      changed.push(spoken)
    }
    for (const key of this.#spoken.keys()) {
      if (present.has(key)) continue
      this.#spoken.delete(key)
      gone.push(key)
    }
    return { changed, gone, totals: totalsOf(results) }
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
