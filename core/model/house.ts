import { FIELDS, type AnyValue, type FieldName, type Kind, type Value } from './fields'
import type { Grade } from './observation'

/**
 * A fact that was seen. `earlier` are other values seen before, newest first; they are kept and shown. What a judgment
 * reads comes first wherever one is made: it lies together in memory then.
 */
export interface Known<V = AnyValue> {
  readonly state: 'known'
  readonly value: V
  readonly grade: Grade
  readonly subject: string
  readonly field: string
  readonly observation: string
  /** At most `MAX_EARLIER`; the log has them all. */
  readonly earlier: readonly Opinion[]
  /** Other values that somebody recorded without having seen this one: two opinions, until a person settles it. */
  readonly rivals: readonly Opinion[]
  /** The observations a new value takes the place of, where there is more than the one that stands. */
  readonly heads: readonly string[] | undefined
}
/** A value of a fact, with who recorded it and when. */
export interface Opinion {
  value: AnyValue
  grade: Grade
  observation: string
  by: string
  at: string
}
/** Other values a fact carries along. */
export const MAX_EARLIER = 20
/** A fact somebody tried to see and could not. */
export interface BlockedFact {
  readonly state: 'blocked'
  readonly subject: string
  readonly field: string
  readonly reason: string
  readonly observation: string
}
/** A fact nobody has looked at yet. */
export interface Unseen {
  readonly state: 'unseen'
  readonly subject: string
  readonly field: string
}
export type Fact<V = AnyValue> = Known<V> | BlockedFact
export type FactRef = Fact | Unseen

/**
 * Every field of the kind has its fact, seen or not. All subjects of a kind so share one shape, which makes reading
 * quick, and a rule hands its reader the fact itself: what it asked for is known even where nobody has looked.
 */
export type FactsOf<K extends Kind> = { readonly [F in FieldName<K>]: Fact<Value<K, F>> | Unseen }

/** One thing of a kind. */
export interface Thing<K extends Kind> {
  readonly id: string
  readonly kind: K
  readonly parent: string | null
  /** Time and id of the observation that added it; lists are in this order. */
  readonly born: string
  readonly facts: FactsOf<K>
  /**
   * The same facts in declared order, for a reader that learns only while running which of them it wants. Not there on
   * a copy that somebody spreads from a thing with other facts: it would tell the old ones.
   */
  readonly inOrder?: readonly FactRef[]
}
/**
 * One thing in the house. Replaced whole when something about it changes. Without a kind it is any of them, told
 * apart by `kind`.
 */
export type Subject<K extends Kind = Kind> = { [P in K]: Thing<P> }[K]
/** The state of the house: what is there, in the order it was first recorded. */
export interface House {
  readonly subjects: ReadonlyMap<string, Subject>
}

export const PREMISES_ID = 'premises'

/** A year nobody knows, or knows only as an interval, which is half an answer. */
export const isOpenYear = (fact: FactRef): boolean =>
  (fact.field === 'year' || fact.field === 'yearBuilt') &&
  (fact.state !== 'known' || typeof fact.value !== 'number')

/**
 * A fact that stands for a thing nobody has recorded: what is missing is the thing, and the look is named at its owner.
 * @param field the field whose look finds the thing
 */
export const absent = (owner: { readonly id: string } | string, field: string): Unseen => ({
  state: 'unseen',
  subject: typeof owner === 'string' ? owner : owner.id,
  field,
})

let watcher: Set<string> | undefined
/** Runs something and notes the name of every field that is read aside, by `valueOf`, while it runs. */
export function watchReads<T>(into: Set<string>, run: () => T): T {
  const before = watcher
  watcher = into
  try {
    return run()
  } finally {
    watcher = before
  }
}

let trail: string[] | undefined
/** Runs something and lists, as `thing field`, every fact that is read aside while it runs. */
export function listReads<T>(into: string[], run: () => T): T {
  const before = trail
  trail = into
  try {
    return run()
  } finally {
    trail = before
  }
}
/** The list being written, where somebody asked for one: what is remembered adds what it rests on. */
export const readsBeingListed = (): string[] | undefined => trail

/** Whether anybody notes or lists what is read aside: then it is read at once, and not when somebody asks. */
export const areReadsNoted = (): boolean => watcher !== undefined || trail !== undefined

function noteRead(id: string | undefined, field: string): void {
  watcher?.add(field)
  if (trail && id !== undefined) trail.push(`${id} ${field}`)
}

/**
 * The known value of a fact, or undefined where it is unseen or blocked. Not for rules: they ask
 * through their reader.
 */
export function valueOf<K extends Kind, F extends FieldName<K>>(
  subject: Thing<K> | undefined,
  field: F,
): Value<K, F> | undefined {
  if (watcher || trail) noteRead(subject?.id, field)
  const fact = subject?.facts[field] as Fact<Value<K, F>> | Unseen | undefined
  return fact?.state === 'known' ? fact.value : undefined
}
/** The facts of a subject that were seen or tried, in declared order. */
export const factsOf = (subject: Subject): Fact[] =>
  Object.values(subject.facts as Record<string, FactRef>).filter(fact => fact.state !== 'unseen')
/** A fact by a name known only while running; undefined where the kind has no such field. */
export const factAt = (
  subject: { readonly facts: object } | undefined,
  field: string,
): FactRef | undefined => (subject?.facts as Record<string, FactRef> | undefined)?.[field]

/**
 * A fact that speaks only where somebody has seen it: what is presumed while nobody says otherwise. Read aside, so that
 * seeing it later turns what rested on its absence.
 */
export function whereSeen<V>(fact: Fact<V> | Unseen): Known<V> | undefined {
  if (watcher || trail) noteRead(fact.subject, fact.field)
  return fact.state === 'known' ? fact : undefined
}

/** The same where somebody looked, seen or not; undefined where nobody has. */
export function triedAt(subject: Subject | undefined, field: string): Fact | undefined {
  const fact = factAt(subject, field)
  return fact === undefined || fact.state === 'unseen' ? undefined : fact
}

/** The known value of a field by a name known only while running. */
export function valueAt(subject: Subject | undefined, field: string): AnyValue | undefined {
  if (watcher || trail) noteRead(subject?.id, field)
  const fact = factAt(subject, field)
  return fact?.state === 'known' ? fact.value : undefined
}

const BLANK = Object.fromEntries(
  Object.entries(FIELDS).map(([kind, fields]) => [
    kind,
    Object.fromEntries(Object.keys(fields).map(field => [field, undefined])),
  ]),
) as Record<Kind, Record<string, undefined>>
const NAMES = Object.fromEntries(
  Object.entries(FIELDS).map(([kind, fields]) => [kind, Object.keys(fields)]),
) as Record<Kind, string[]>
/** The facts of a thing nobody has looked at. */
export function unseenFacts<K extends Kind>(kind: K, subject: string): FactsOf<K> {
  const facts: Record<string, Unseen | undefined> = { ...BLANK[kind] }
  for (const field of NAMES[kind]) facts[field] = { state: 'unseen', subject, field }
  return facts as FactsOf<K>
}
type Facts = Readonly<Record<string, FactRef>>
class Recorded {
  #inOrder: readonly FactRef[] | undefined
  constructor(
    readonly id: string,
    readonly kind: Kind,
    readonly parent: string | null,
    readonly born: string,
    readonly facts: Facts,
  ) {}

  /** Nothing where somebody put a proxy before it, which has no private parts. */
  get inOrder(): readonly FactRef[] | undefined {
    if (!(#inOrder in this)) return undefined
    return (this.#inOrder ??= Object.values(this.facts))
  }
}
/** A thing with these facts, of every field of its kind in declared order; all things of a house are made here. */
export function thingOf(
  what: Pick<Subject, 'id' | 'kind' | 'parent' | 'born'>,
  facts: Subject['facts'] | Facts,
): Subject {
  return new Recorded(
    what.id,
    what.kind,
    what.parent,
    what.born,
    facts as Facts,
  ) as Thing<Kind> as Subject
}
/** A fact by its field, and by the place of that as `placeOf` tells. */
export function factIn(subject: Subject, place: number, field: string): FactRef {
  const { inOrder } = subject
  return (inOrder ? inOrder[place] : factAt(subject, field)) as FactRef
}
/** Where a field of a kind stands among the facts of a thing. */
export function placeOf(kind: Kind, field: string): number {
  const place = NAMES[kind].indexOf(field)
  if (place < 0) throw new Error(`${kind} has no field ${field}`)
  return place
}
export const isKind = <K extends Kind>(
  subject: Subject | undefined,
  kind: K,
): subject is Extract<Subject, { readonly kind: K }> => subject?.kind === kind
