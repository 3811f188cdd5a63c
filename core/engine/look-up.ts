import type { FieldName, Kind, Value } from '../model/fields'
import { factIn, placeOf, type Subject } from '../model/house'
import { neutralGroupOf } from '../derive/neutrals'
import type { Context } from './context'
import { defineRule, type Rule } from './rule'
import { say } from './say'
import {
  Clear,
  Failure,
  Fault,
  NotApplicable,
  Undecided,
  type Check,
  type Danger,
  type Verdict,
} from './verdict'

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
  const open = new Undecided(say(unseen))
  const conditions = only.map(condition => conditionOf(row.subject, condition))
  const place = placeOf(row.subject, field)
  const answers = meanings.map(([word, meaning]) => answerOf(word, meaning))

  /** Verdicts are made once: the same answer is given to a thousand things. */
  function answerOf(word: string, meaning: Meaning): Answer {
    const value = word === 'true' || word === 'false' ? word === 'true' : word
    const slots = (text = '') =>
      as !== undefined && text.includes('{') ? { [as]: word } : undefined
    if ('fine' in meaning)
      return { value, verdict: new Clear(say(meaning.fine, slots(meaning.fine))) }
    if ('na' in meaning)
      return { value, verdict: new NotApplicable(say(meaning.na, slots(meaning.na))) }
    if ('stays' in meaning) {
      const stays = say(meaning.stays, slots(meaning.stays))
      return { value, verdict: new Clear(stays, undefined, undefined, say(meaning.means)) }
    }
    const { danger, check = first, since } = meaning
    const data = slots(says[check]) ?? {}
    const detail = since === undefined ? {} : { since }
    const failure = new Failure(check, data, { danger, says: says[check] ?? '' }, detail)
    return { value, verdict: new Fault([failure]) }
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
        const found = condition.bears ? condition.bears(subject, c) : isOneOf(condition, subject, c)
        if (found === false) return c.give(condition.excuse)
        if (found === undefined) isOpen = true
      }
      const value = c.ask(factIn(subject, place, field))
      if (value === undefined || isOpen) return c.give(open)
      for (let i = 0; i < answers.length; i++) {
        const answer = answers[i]!
        if (answer.value === value) return c.give(answer.verdict)
      }
      throw new Error(`${row.id}: nothing is said of ${field} ${value}`)
    },
  } as Rule<K>)
}

/** What one value of the field is answered with. */
interface Answer {
  readonly value: string | boolean
  readonly verdict: Verdict
}

/** Whether the row bears on a thing; undefined while nobody has seen what that rests on. */
type Bears = (subject: Subject, c: Context) => boolean | undefined
interface Condition {
  readonly excuse: Verdict
  /** The place of a field of the thing with the values that count, and what is taken while nobody has seen it ... */
  readonly place: number
  readonly field: string
  readonly right: readonly unknown[]
  readonly unknown: true | undefined
  /** ... unless it takes a walk to tell. */
  readonly bears: Bears | undefined
}
function isOneOf({ place, field, right, unknown }: Condition, subject: Subject, c: Context) {
  const value = c.ask(factIn(subject, place, field))
  if (value === undefined) return unknown
  for (let i = 0; i < right.length; i++) if (right[i] === value) return true
  return false
}
function conditionOf<K extends Kind>(kind: K, condition: Only<K>): Condition {
  const excuse = new NotApplicable(say(condition.otherwise))
  if (!('field' in condition)) {
    return {
      excuse,
      place: 0,
      field: '',
      right: [],
      unknown: undefined,
      bears: walkOf(kind, condition),
    }
  }
  const { field, is, isPresumed } = condition
  const place = placeOf(kind, field)
  return {
    excuse,
    place,
    field,
    right: is,
    unknown: isPresumed ? true : undefined,
    bears: undefined,
  }
}
function walkOf<K extends Kind>(
  kind: K,
  condition: Exclude<Only<K>, { readonly field: unknown }>,
): Bears {
  if ('roomUse' in condition) {
    const place = placeOf(kind, 'room')
    const uses: readonly string[] = condition.roomUse
    return (subject, c) => {
      const room = c.site.get(c.ask(factIn(subject, place, 'room')) as string | undefined, 'room')
      const use = room && c.ask(room.facts.use)
      return use === undefined ? undefined : uses.includes(use)
    }
  }
  const place = placeOf(kind, 'circuit')
  return (subject, c) => {
    const id = c.ask(factIn(subject, place, 'circuit')) as string | undefined
    const circuit = c.site.get(id, 'circuit')
    if (!circuit) return undefined
    const group = neutralGroupOf(c.site, circuit)
    c.rest(group.rests)
    if (group.circuits.length > 1) return true
    return group.rests.some(f => f.state !== 'known') ? undefined : false
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
