import { assess, type SpokenResult } from '../assess/assess'
import { SEVERITIES } from '../engine/severity'
import { isKind, PREMISES_ID, valueOf, type House, type Subject } from '../model/house'
import { tasksInOrder } from '../plan/works'
import { ruleById } from '../rules'
import type { Change } from '../plan/change'

export const RECHECK_STATES = [
  'passed',
  'not corrected',
  'could not be seen',
  'record disagrees',
  'open',
] as const
/**
 * `record disagrees`: somebody says that it is corrected, and what is recorded is still judged a fault; what is there
 * now has to be recorded before it passes.
 */
export type RecheckState = (typeof RECHECK_STATES)[number]
export interface Recheck {
  readonly thing: Subject<'recheck'>
  readonly rule: string
  readonly subject: string
  readonly was: string
  readonly state: RecheckState
  /** The finding as it is judged now, where it still is one. */
  readonly now: SpokenResult | undefined
}
export interface ReturnSheet {
  readonly visit: Subject<'returnVisit'>
  readonly rechecks: readonly Recheck[]
  /** Every line passed. */
  readonly isPassed: boolean
}

const isFault = (r: SpokenResult) => r.outcome === 'fault'
const place = (r: SpokenResult) => SEVERITIES.indexOf(r.severity ?? 'note')

/**
 * The sheet of a return visit: one line for each correction, worst first, or for each finding of the accepted works.
 * @param newId ids for the things of the sheet
 */
export function returnSheet(
  house: House,
  basis: 'corrections' | 'plan',
  on: string,
  by: string,
  newId: () => string,
): readonly Change[] {
  const { results } = assess(house)
  const corrections = results.filter(isFault).sort((a, b) => place(a) - place(b))
  const listed =
    basis === 'plan'
      ? worksToCheck(house, results)
      : corrections.map(f => ({ rule: f.rule, of: f.subject.id, was: wasOf(f) }))
  const number = returnVisitsOf(house).length + 1
  const visit = newId()
  const note = (subject: string, field: string, value: string | number): Change => ({
    act: 'note',
    subject,
    field,
    value,
  })
  return [
    { act: 'add', subject: visit, kind: 'returnVisit', parent: PREMISES_ID },
    note(visit, 'number', number),
    note(visit, 'basis', basis),
    ...(on ? [note(visit, 'on', on)] : []),
    ...(by ? [note(visit, 'by', by)] : []),
    ...listed.flatMap((f, i): Change[] => {
      const id = newId()
      return [
        { act: 'add', subject: id, kind: 'recheck', parent: visit },
        note(id, 'order', i),
        note(id, 'rule', f.rule),
        note(id, 'of', f.of),
        note(id, 'was', f.was.slice(0, 600)),
      ]
    }),
  ]
}

const wasOf = (f: SpokenResult): string => `${f.title}: ${f.subject.label}. ${f.why}.`

/** The finding of each accepted work, done or not: what was done is looked at too, though it is no fault any more. */
function worksToCheck(house: House, results: readonly SpokenResult[]) {
  const seen = new Set<string>()
  return tasksInOrder(house).flatMap(task => {
    const rule = valueOf(task, 'rule')
    const of = valueOf(task, 'of')
    if (rule === undefined || of === undefined || valueOf(task, 'state') === 'given up') return []
    if (seen.has(`${rule} ${of}`)) return []
    seen.add(`${rule} ${of}`)
    const now = results.find(r => r.rule === rule && r.subject.id === of)
    const isStill = now && (isFault(now) || now.leans)
    const title = ruleById(rule)?.fault ?? rule
    return [{ rule, of, was: isStill ? wasOf(now) : `${title}: ${now?.subject.label ?? of}.` }]
  })
}

export const returnVisitsOf = (house: House): readonly Subject<'returnVisit'>[] =>
  [...house.subjects.values()]
    .filter((s): s is Subject<'returnVisit'> => isKind(s, 'returnVisit'))
    .sort((a, b) => (valueOf(a, 'number') ?? 0) - (valueOf(b, 'number') ?? 0))

/** A return visit, line by line, judged against what is recorded now. */
export function sheetOf(
  house: House,
  visit: Subject<'returnVisit'>,
  results: readonly SpokenResult[] = assess(house).results,
): ReturnSheet {
  const byKey = new Map(results.map(r => [`${r.rule} ${r.subject.id}`, r]))
  const rechecks = [...house.subjects.values()]
    .filter((s): s is Subject<'recheck'> => isKind(s, 'recheck') && s.parent === visit.id)
    .sort((a, b) => (valueOf(a, 'order') ?? 0) - (valueOf(b, 'order') ?? 0))
    .map((thing): Recheck => {
      const rule = valueOf(thing, 'rule') ?? ''
      const subject = valueOf(thing, 'of') ?? ''
      const now = byKey.get(`${rule} ${subject}`)
      return {
        thing,
        rule,
        subject,
        was: valueOf(thing, 'was') ?? '',
        // A line that does not say what it is about cannot have passed.
        state: stateOf(valueOf(thing, 'outcome'), now, rule !== '' && subject !== ''),
        now: now && (isFault(now) || now.leans) ? now : undefined,
      }
    })
  return {
    visit,
    rechecks,
    isPassed: rechecks.length > 0 && rechecks.every(r => r.state === 'passed'),
  }
}

/** Corrected is what a person says and the record bears out; undecided is not corrected. */
function stateOf(
  outcome: string | undefined,
  now: SpokenResult | undefined,
  isNamed: boolean,
): RecheckState {
  if (outcome === undefined) return 'open'
  if (outcome !== 'corrected') return outcome as RecheckState
  const isOpen = !isNamed || now?.outcome === 'fault' || now?.outcome === 'undecided'
  return isOpen ? 'record disagrees' : 'passed'
}

/** The same correction across the visits, side by side. */
export function visitsSideBySide(house: House): {
  readonly visits: readonly Subject<'returnVisit'>[]
  readonly rows: readonly {
    readonly was: string
    readonly states: readonly (RecheckState | '')[]
  }[]
} {
  const results = assess(house).results
  const sheets = returnVisitsOf(house).map(v => sheetOf(house, v, results))
  const rows = new Map<string, { was: string; states: (RecheckState | '')[] }>()
  sheets.forEach((sheet, column) => {
    for (const r of sheet.rechecks) {
      const key = `${r.rule} ${r.subject}`
      const row = rows.get(key) ?? { was: r.was, states: sheets.map(() => '' as const) }
      row.states[column] = r.state
      rows.set(key, row)
    }
  })
  return { visits: sheets.map(s => s.visit), rows: [...rows.values()] }
}
