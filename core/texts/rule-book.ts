import type { Rule } from '../engine/rule'
import { worstOf } from '../engine/rule'
import type { Edition } from '../tables/editions'
import { FIELDS, KIND_LABEL, type Field, type Kind } from '../model/fields'
import { remedyById } from '../remedies'
import { RULES } from '../rules'

/** One page of the rule book: what docs/RULES.md prints and the application searches. */
export interface RulePage {
  readonly id: string
  readonly kind: Kind
  readonly thing: string
  readonly family: Rule['family']
  readonly title: string
  readonly fault: string
  readonly consequence: string
  /** Sections, each with the editions that number it so. */
  readonly sections: readonly string[]
  /** First edition that has the rule; undefined where it is older than any house. */
  readonly since: number | undefined
  readonly isHazard: boolean
  readonly worst: number
  readonly triggers: readonly string[]
  readonly traps: readonly string[]
  readonly remedies: readonly string[]
  /** What settles it, where one look does; as the look is described. */
  readonly look: string | undefined
}

export const citesOf = (rule: Rule): readonly string[] =>
  rule.cites.map(({ section, from, until }) => {
    const years = [from && `from ${from}`, until && `until ${until}`].filter(Boolean).join(' ')
    return years ? `${section} (${years})` : section
  })

function lookOf(rule: Rule): string | undefined {
  if (!rule.look) return undefined
  const fields = FIELDS[rule.subject] as Record<string, Field>
  return fields[rule.look.field]?.look
}

const page = (rule: Rule): RulePage => ({
  id: rule.id,
  kind: rule.subject,
  thing: KIND_LABEL[rule.subject],
  family: rule.family,
  title: rule.title,
  fault: rule.fault,
  consequence: rule.consequence,
  sections: citesOf(rule),
  since: rule.since,
  isHazard: rule.isHazard === true,
  worst: worstOf(rule),
  triggers: rule.triggers,
  traps: rule.traps,
  remedies: rule.remedies.map(id => remedyById(id)?.title ?? id),
  look: lookOf(rule),
})

/** Every rule as a page to read, in the order of the catalog. */
export const ruleBook = (): readonly RulePage[] => RULES.map(page)

/** What somebody looks for in the rule book; what is absent does not narrow. */
export interface BookQuery {
  /** Words that must all stand on the page, wherever: room, thing, section, trap, remedy. */
  readonly words?: string
  readonly kind?: Kind
  readonly family?: Rule['family']
  /** Rules in the edition, and hazards of any year. */
  readonly edition?: Edition
}

const textOf = (p: RulePage): string =>
  [p.id, p.thing, p.family, p.title, p.fault, p.consequence, p.look ?? '']
    .concat(p.sections, p.traps, p.remedies)
    .join(' ')
    .toLowerCase()

/**
 * Pages that answer a query: those with all the words in their title first, else in the order of the catalog.
 * @example findRules(ruleBook(), { words: 'bathroom 210.8', edition: 2020 })
 */
export function findRules(book: readonly RulePage[], query: BookQuery): readonly RulePage[] {
  const words = (query.words ?? '').toLowerCase().split(/\s+/).filter(Boolean)
  const found = book.filter(p => {
    if (query.kind !== undefined && p.kind !== query.kind) return false
    if (query.family !== undefined && p.family !== query.family) return false
    if (query.edition !== undefined && (p.since ?? 0) > query.edition) return false
    if (words.length === 0) return true
    const text = textOf(p)
    return words.every(w => text.includes(w))
  })
  if (words.length === 0) return found
  const isInTitle = (p: RulePage) => {
    const title = `${p.title} ${p.fault}`.toLowerCase()
    return words.every(w => title.includes(w))
  }
  return [...found.filter(isInTitle), ...found.filter(p => !isInTitle(p))]
}
