import { appendFileSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import {
  EDITIONS,
  evaluate,
  fieldOf,
  Site,
  type AnyValue,
  type FactRef,
  type House,
  type Result,
  type Rule,
} from '#core'
import { sumOf } from './sum'

/**
 * The houses next to a row: one fact hidden, two facts hidden, one thing gone, one fact of another value (every
 * other choice; numbers on both sides of every number the rule's own code knows or the answer was worked out with,
 * and on it), judged under every edition. What all of them answer is kept as one short sum beside the row, so that
 * a limit moved by one, an exception dropped or a question forgotten shows at the row it bears on.
 * CORVIT_NEIGHBORS=FILE lists the answers themselves, to compare two states of the code line by line.
 */
export function neighborsOf(rule: Rule, house: House, on: string, row: string): string {
  const lines: string[] = []
  const judge = (what: string, next: House) => {
    const result = evaluate(new Site(next), [rule]).find(r => r.subject.id === on)
    lines.push(`${what}: ${result ? spoken(result) : 'gone'}`)
  }
  const start = evaluate(new Site(house), [rule]).find(r => r.subject.id === on)
  const asked = start ? unique(start.asked).filter(f => house.subjects.has(f.subject)) : []
  for (const edition of EDITIONS)
    judge(`edition ${edition}`, put(house, { subject: 'premises', field: 'edition' }, edition))
  const known = asked.filter(f => f.state === 'known')
  for (const fact of known) judge(`without ${nameOf(fact)}`, put(house, fact))
  for (const [a, b] of pairs(known))
    judge(`without ${nameOf(a)}, ${nameOf(b)}`, put(put(house, a), b))
  for (const id of house.subjects.keys())
    if (id !== on && id !== 'premises') judge(`without ${id}`, withoutThing(house, id))
  const met = start ? numbersMet(start) : []
  for (const fact of asked) {
    for (const value of otherValues(rule, house, fact, met))
      judge(`${nameOf(fact)} ${JSON.stringify(value)}`, put(house, fact, value))
  }
  const list = process.env.CORVIT_NEIGHBORS
  if (list) appendFileSync(list, lines.map(line => `${rule.id} | ${row} | ${line}\n`).join(''))
  return `${lines.length} ${sumOf(lines)}`
}

type Place = Pick<FactRef, 'subject' | 'field'>
const nameOf = (fact: Place) => `${fact.subject} ${fact.field}`
/** Pairs of facts, the first of a long list only. */
const pairs = <T>(list: readonly T[]): [T, T][] =>
  list.slice(0, 10).flatMap((a, i) => list.slice(i + 1, 10).map((b): [T, T] => [a, b]))

function unique(facts: readonly FactRef[]): FactRef[] {
  return [...new Map(facts.map(f => [nameOf(f), f])).values()]
}

/** The same house with a fact of another value, or with nobody having seen it. */
function put(house: House, { subject: id, field }: Place, value?: AnyValue): House {
  const subject = house.subjects.get(id)
  if (!subject) return house
  const fact =
    value === undefined
      ? { state: 'unseen', subject: id, field }
      : {
          state: 'known',
          subject: id,
          field,
          value,
          grade: 'measured',
          observation: 'n',
          earlier: [],
          rivals: [],
        }
  const subjects = new Map(house.subjects)
  subjects.set(id, { ...subject, facts: { ...subject.facts, [field]: fact } } as never)
  return { subjects }
}

/** The same house without a thing and what hangs under it. */
function withoutThing(house: House, gone: string): House {
  const subjects = new Map(house.subjects)
  const remove = (id: string) => {
    subjects.delete(id)
    for (const [child, { parent }] of subjects) if (parent === id) remove(child)
  }
  remove(gone)
  return { subjects }
}

/** The numbers an answer was worked out with: a fact that equals one of them stands on a limit. */
function numbersMet(result: Result): number[] {
  const { compare, failures, why, verdict } = result
  const slots = [why, ...(verdict.working ?? []), ...failures.flatMap(f => f.working ?? [])]
    .map(step => step.slots ?? {})
    .concat(failures.map(f => f.data))
  return [
    ...(compare ? [compare.left, compare.right] : []),
    ...slots.flatMap(s => Object.values(s).filter(v => typeof v === 'number')),
  ]
}

function otherValues(rule: Rule, house: House, fact: FactRef, met: readonly number[]): AnyValue[] {
  const subject = house.subjects.get(fact.subject)
  const field = subject && fieldOf(subject.kind, fact.field)
  if (!field) return []
  const now = fact.state === 'known' ? fact.value : undefined
  if (field.type === 'choice') return field.options.filter(o => o !== now)
  if (field.type === 'flag') return [true, false].filter(v => v !== now)
  if (field.type === 'year') return yearsIn(rule).flatMap((y): AnyValue[] => [y - 1, y, [y - 1, y]])
  if (field.type !== 'number') return []
  const step = field.integer ? 1 : 0.25
  const own = typeof now === 'number' ? [now - step, now + step] : []
  const limits = [...met, ...numbersIn(rule)].flatMap(n => [n - step, n, n + step])
  return [...new Set([...own, ...limits])]
    .filter(v => v >= field.min && v <= field.max && (!field.integer || Number.isInteger(v)))
    .slice(0, MOST_VALUES)
}

/** Values of one fact that are tried at most. */
const MOST_VALUES = 160
const KNOWN = new Map<string, readonly number[]>()
/** Every number in the code of a rule and in what it calls, to the second step: where answers may turn. */
function numbersOf(rule: Rule): readonly number[] {
  let numbers = KNOWN.get(rule.id)
  if (!numbers) {
    const path = [
      `core/rules/${rule.family}/${rule.id}.ts`,
      `core/rules/${rule.family}/look-ups.ts`,
    ]
    const own = path.map(read).find(text => text !== '') ?? ''
    const called = calledBy(own, dirname(path[0]!))
    const deeper = called.flatMap(c => calledBy(c.text, dirname(c.path)))
    const texts = new Map([...called, ...deeper].map(c => [c.path, c.text]))
    const text = [own, ...texts.values()].join('\n').replace(/'[^'\n]*'|\/\/.*|\/\*[^]*?\*\//g, '')
    numbers = [...new Set([...text.matchAll(/\b\d+(?:\.\d+)?\b/g)].map(m => Number(m[0])))].sort(
      (a, b) => a - b,
    )
    KNOWN.set(rule.id, numbers)
  }
  return numbers
}
function calledBy(text: string, folder: string): { path: string; text: string }[] {
  return [...text.matchAll(/from '(\.{1,2}\/[\w/.-]+)'/g)]
    .map(([, name]) => `${join(folder, name!)}.ts`)
    .filter(
      path => /core\/(?:derive|tables)\//.test(path) && !/ampacity|editions|site\.ts/.test(path),
    )
    .map(path => ({ path, text: read(path) }))
}
const isYear = (n: number) => n >= 1900 && n <= 2030
const numbersIn = (rule: Rule) => numbersOf(rule).filter(n => !isYear(n))
const yearsIn = (rule: Rule) => [
  ...new Set([...numbersOf(rule).filter(isYear), ...(rule.since ? [rule.since] : [])]),
]
function read(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return ''
  }
}

function spoken(result: Result): string {
  const { compare, leaning, outcome, severity, standing } = result
  return [
    outcome,
    severity,
    standing?.kind,
    ...result.failures.map(f => `${f.id} ${JSON.stringify(f.data)} ${f.danger}`),
    compare && `${compare.left} ${compare.sign} ${compare.right}`,
    result.missing.map(nameOf).join(),
    leaning && `${leaning.to} ${leaning.unless.length} ${nameOf(leaning.ask)}`,
  ]
    .filter(Boolean)
    .join(' / ')
}
