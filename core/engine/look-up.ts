import type { FieldName, Kind, Value } from '../model/fields'
import { absent, factAt, type FactRef, type Subject } from '../model/house'
import { neutralGroupOf } from '../derive/neutrals'
import type { Context } from './context'
import { defineRule, type Rule } from './rule'
import { say } from './say'
import { Failure, type Check, type Danger, type Verdict } from './verdict'

/** What one value of the field means. */
export type Meaning =
  | { readonly fine: string }
  | { readonly na: string }
  /** Lawful, and put on record with what it means. */
  | { readonly stays: string; readonly means: string }
  | {
      readonly danger: Danger
      /** The check it fails, where the row has several; the first one otherwise. */
      readonly check?: string
      /** First edition in which this very value is a fault, where it differs from the rule's. */
      readonly since?: number
    }
type Word<V> = V extends boolean ? `${V}` : V extends string ? V : never

/** What must be so for the row to bear on a thing at all: a field of it, or the use of the room it stands in. */
type Only<K extends Kind> =
  | {
      [F in FieldName<K>]: {
        readonly field: F
        readonly is: readonly Value<K, F>[]
        readonly otherwise: string
        /** Taken for granted while nobody says otherwise, since a look at the thing would have told. */
        readonly isPresumed?: boolean
      }
    }[FieldName<K>]
  | {
      /** On a circuit that shares its neutral. */
      readonly onMultiwire: true
      readonly otherwise: string
    }
  | {
      readonly roomUse: readonly Value<'room', 'use'>[]
      readonly otherwise: string
    }

type Meta = Omit<Rule, 'subject' | 'checks' | 'judge' | 'triggers' | 'isHazard'>
/** A rule that one look settles: each value of one field is fine, a fault, or none of the rule's business. */
export interface LookUp<K extends Kind, F extends FieldName<K>> extends Meta {
  readonly subject: K
  readonly field: F
  readonly only?: readonly Only<K>[]
  /** Sentences by message id; the value stands in them by the name given in `as`. */
  readonly says: Readonly<Record<string, string>>
  /** Name of the value in the sentences and their data. */
  readonly as?: string
  /** What is said while nobody has looked. */
  readonly unseen: string
  /** Every value the field can have. */
  readonly values: Readonly<Record<Word<Value<K, F>>, Meaning>>
  /** Work that brings the rule to bear; a row without any, and without `since`, is of a hazard. */
  readonly triggers?: Rule['triggers']
  /** True where the thing is dangerous or defective whatever the code said. */
  readonly isHazard?: boolean
}

/**
 * Makes a rule of a row. What is known to be fine is fine only on things the row bears on; while that is open, so is
 * the answer.
 */
export function lookUp<K extends Kind, F extends FieldName<K>>(row: LookUp<K, F>): Rule {
  const { field, only = [], says, as, unseen, values, triggers = [], isHazard, ...meta } = row
  const [first = ''] = Object.keys(says)
  const meanings = Object.entries(values) as [string, Meaning][]
  const checks = Object.fromEntries(
    Object.entries(says).map(([id, text]) => [id, checkOf(id, text, first, meanings)]),
  )
  const open = say(unseen)
  const conditions = only.map(condition => ({
    bears: bearing(condition),
    excuse: say(condition.otherwise),
  }))
  const answers = new Map(meanings.map(([value, meaning]) => [value, answerOf(value, meaning)]))

  /** Sentences are made once: the same answer is given to a thousand things. */
  function answerOf(value: string, meaning: Meaning): (c: Context) => Verdict {
    const slots = (text = '') =>
      as !== undefined && text.includes('{') ? { [as]: value } : undefined
    if ('fine' in meaning) {
      const step = say(meaning.fine, slots(meaning.fine))
      return c => c.clear(step)
    }
    if ('na' in meaning) {
      const step = say(meaning.na, slots(meaning.na))
      return c => c.na(step)
    }
    if ('stays' in meaning) {
      const step = say(meaning.stays, slots(meaning.stays))
      const means = say(meaning.means)
      return c => c.mayStay(step, means)
    }
    const { danger, check = first, since } = meaning
    const data = slots(says[check]) ?? {}
    const detail = since === undefined ? {} : { since }
    const failures = [
      new Failure(check, data, { danger, says: says[check] ?? '' }, detail),
    ] as const
    return c => c.faultAlike(failures)
  }

  return defineRule<K>({
    ...meta,
    checks,
    look: { field, values: Object.fromEntries(meanings), only },
    triggers,
    ...(isHazard && { isHazard }),
    judge(subject: Subject, c: Context): Verdict {
      let isOpen = false
      for (let i = 0; i < conditions.length; i++) {
        const condition = conditions[i]!
        const found = condition.bears(subject, c)
        if (found === false) return c.na(condition.excuse)
        if (found === undefined) isOpen = true
      }
      const value = c.ask(factOf(subject, field))
      if (value === undefined || isOpen) return c.undecided(open)
      const answer = answers.get(typeof value === 'string' ? value : String(value))
      if (!answer) throw new Error(`${row.id}: nothing is said of ${field} ${value}`)
      return answer(c)
    },
  } as Rule<K>)
}

/** The fact of a field that may be any of the kind's. */
const factOf = (subject: Subject, field: string): FactRef =>
  factAt(subject, field) ?? absent(subject, field)

/** Whether the row bears on a thing; undefined while nobody has seen what that rests on. */
type Bears = (subject: Subject, c: Context) => boolean | undefined
function bearing<K extends Kind>(condition: Only<K>): Bears {
  if ('roomUse' in condition) {
    const uses: readonly string[] = condition.roomUse
    return (subject, c) => {
      const room = c.site.get(c.ask(factOf(subject, 'room')) as string | undefined, 'room')
      const use = room && c.ask(room.facts.use)
      return use === undefined ? undefined : uses.includes(use)
    }
  }
  if ('onMultiwire' in condition) {
    return (subject, c) => {
      const id = c.ask(factOf(subject, 'circuit')) as string | undefined
      const circuit = c.site.get(id, 'circuit')
      if (!circuit) return undefined
      const group = neutralGroupOf(c.site, circuit)
      c.rest(group.rests)
      if (group.circuits.length > 1) return true
      return group.rests.some(f => f.state !== 'known') ? undefined : false
    }
  }
  const { field, isPresumed } = condition
  const right: readonly unknown[] = condition.is
  const unknown = isPresumed ? true : undefined
  return (subject, c) => {
    const value = c.ask(factOf(subject, field))
    if (value === undefined) return unknown
    for (let i = 0; i < right.length; i++) if (right[i] === value) return true
    return false
  }
}

function checkOf(
  id: string,
  says: string,
  first: string,
  meanings: readonly (readonly [string, Meaning])[],
): Check {
  const dangers = meanings
    .flatMap(([, m]) => ('danger' in m && (m.check ?? first) === id ? [m.danger] : []))
    .sort()
  const [least, most] = [dangers[0], dangers.at(-1)]
  if (least === undefined || most === undefined) throw new Error(`No value fails ${id}`)
  return { says, danger: least === most ? most : [least, most] }
}
