import type { AnyValue, Kind } from './fields'
import {
  byClock,
  withClocks,
  type Added,
  type Blocked,
  type Dropped,
  type Noted,
  type Observation,
  type RawObservation,
  type Retracted,
} from './observation'
import {
  MAX_EARLIER,
  thingOf,
  unseenFacts,
  type FactRef,
  type House,
  type Opinion,
  type Subject,
} from './house'

type Existence = Added | Dropped
type Sighting = Noted | Blocked
interface Thread {
  existence: Existence[]
  fields: Map<string, Sighting[]>
}

/** Two people who did not see each other's work disagree; nobody has settled it yet. */
export type Conflict =
  | {
      kind: 'opinions'
      subject: string
      field: string
      stands: Opinion
      rivals: readonly Opinion[]
    }
  /** A thing was taken out, and something was recorded about it later by somebody who had not seen that. */
  | { kind: 'taken out'; subject: string; drop: Dropped; later: readonly Observation[] }

/**
 * The observation log and the house it folds to. Order of arrival does not matter: the same set of
 * observations always folds to the same house. Appending an id twice is harmless.
 *
 * Nothing here recurses, and no step costs more than n log n of the log, so that no log can stop the program.
 */
export class Ledger {
  #byId = new Map<string, Observation>()
  /** Retractions by what they take back; they may arrive before it. */
  #retractions = new Map<string, Retracted[]>()
  /** How many standing retractions an observation has against it. */
  #against = new Map<string, number>()
  #threads = new Map<string, Thread>()
  #subjects = new Map<string, Subject>()
  #isOrdered = true
  #lastBorn = ''
  #lastClock = ''
  /** Something was taken out once: what hung under it went with it. */
  #hasDrops = false
  #alive: Map<string, Subject> | undefined

  constructor(observations: readonly RawObservation[] = []) {
    this.append(observations)
  }

  get house(): House {
    if (!this.#isOrdered) {
      const ordered = [...this.#subjects.values()].sort((a, b) => (a.born < b.born ? -1 : 1))
      this.#subjects = new Map(ordered.map(s => [s.id, s]))
      this.#isOrdered = true
    }
    return {
      subjects: this.#hasDrops ? (this.#alive ??= withoutOrphans(this.#subjects)) : this.#subjects,
    }
  }

  get size(): number {
    return this.#byId.size
  }
  /** The largest clock in the log; a device that reads the log stamps larger ones. */
  get lastClock(): string | undefined {
    return this.#lastClock === '' ? undefined : this.#lastClock
  }
  has(id: string): boolean {
    return this.#byId.has(id)
  }
  /** Every observation, in the order they count. */
  log(): Observation[] {
    return [...this.#byId.values()].sort(byClock)
  }
  /** The observation of an id. */
  find(id: string): Observation | undefined {
    return this.#byId.get(id)
  }
  /** The kind a subject was last added as, even if it was dropped since. */
  everKind(subject: string): Kind | undefined {
    const last = this.#threads.get(subject)?.existence.findLast(o => o.act === 'add')
    return last?.act === 'add' ? last.kind : undefined
  }

  isRetracted(id: string): boolean {
    return (this.#against.get(id) ?? 0) > 0
  }

  /** What two people saw differently without knowing of each other, in the order of the house. */
  conflicts(): Conflict[] {
    const conflicts: Conflict[] = []
    for (const subject of this.house.subjects.values()) {
      for (const fact of Object.values(subject.facts as Record<string, FactRef>)) {
        if (fact.state !== 'known' || fact.rivals.length === 0) continue
        const stands = opinionOf(this.#byId.get(fact.observation) as Noted)
        conflicts.push({
          kind: 'opinions',
          subject: fact.subject,
          field: fact.field,
          stands,
          rivals: fact.rivals,
        })
      }
    }
    if (!this.#hasDrops) return conflicts
    for (const [subject, thread] of this.#threads) {
      const last = this.#active(thread.existence).at(-1)
      if (last?.act !== 'drop') continue
      const sightings = [...thread.fields.values()].flatMap(list => this.#active(list))
      const later = sightings.filter(o => byClock(o, last) > 0).sort(byClock)
      if (later.length > 0) conflicts.push({ kind: 'taken out', subject, drop: last, later })
    }
    return conflicts
  }

  /** Adds observations; returns the ids of the subjects that may have changed. */
  append(raw: readonly RawObservation[]): Set<string> {
    const isFirst = this.#byId.size === 0
    const fresh = withClocks(isFirst ? raw : raw.filter(o => !this.#byId.has(o.id)), id =>
      this.#byId.get(id),
    )
    // In order, nearly every one belongs at the end of its list.
    if (!isInOrder(fresh)) fresh.sort(byClock)
    const whole = new Set<string>()
    const single = new Map<string, Set<string>>()
    this.#alive = undefined
    const taken = fresh.filter(o => this.#register(o))
    this.#weigh(taken, whole)
    for (const o of taken) {
      if (o.act === 'retract') continue
      const thread = this.#thread(o.subject)
      if (o.act === 'add' || o.act === 'drop') {
        insert(thread.existence, o)
        if (o.act === 'drop') this.#hasDrops = true
        whole.add(o.subject)
      } else {
        const list = thread.fields.get(o.field)
        if (list) insert(list, o)
        else thread.fields.set(o.field, [o])
        // All of a thing that is folded anew is, whichever of its fields were seen.
        if (whole.has(o.subject)) continue
        const fields = single.get(o.subject)
        if (fields) fields.add(o.field)
        else single.set(o.subject, new Set([o.field]))
      }
    }
    for (const id of whole) this.#refold(id)
    for (const [id, fields] of single) if (!whole.has(id)) this.#refoldFields(id, fields)
    return new Set([...whole, ...single.keys()])
  }

  #thread(subject: string): Thread {
    let thread = this.#threads.get(subject)
    if (!thread) this.#threads.set(subject, (thread = { existence: [], fields: new Map() }))
    return thread
  }

  /** False where the id is there already. */
  #register(o: Observation): boolean {
    if (this.#byId.has(o.id)) return false
    this.#byId.set(o.id, o)
    if (o.clock > this.#lastClock) this.#lastClock = o.clock
    if (o.act === 'retract') push(this.#retractions, o.target, o)
    return true
  }

  /**
   * Works out which observations are taken back. From the latest to the earliest, each is final when its turn comes,
   * since a retraction takes back only what stands before it in the order.
   */
  #weigh(taken: readonly Observation[], whole: Set<string>): void {
    if (this.#retractions.size === 0) return
    const pending = new Set(taken.map(o => o.id))
    for (let i = taken.length - 1; i >= 0; i--) {
      const o = taken[i]!
      pending.delete(o.id)
      const against = this.#retractions
        .get(o.id)
        ?.filter(r => byClock(r, o) > 0 && !this.isRetracted(r.id))
      if (against && against.length > 0) this.#against.set(o.id, against.length)
      if (o.act === 'retract' && !this.isRetracted(o.id)) this.#takeBack(o, pending, whole)
    }
  }

  /** One more standing retraction; follows it down through older ones as long as it turns something. */
  #takeBack(by: Retracted, pending: ReadonlySet<string>, whole: Set<string>): void {
    let at: Observation | undefined = this.#byId.get(by.target)
    let from: Observation = by
    let change = 1
    while (at && !pending.has(at.id) && byClock(from, at) > 0) {
      const before = this.#against.get(at.id) ?? 0
      const after = before + change
      this.#against.set(at.id, after)
      if (before > 0 === after > 0) return
      if (at.act !== 'retract') {
        whole.add(at.subject)
        return
      }
      change = after > 0 ? -1 : 1
      from = at
      at = this.#byId.get(at.target)
    }
  }

  #active<O extends Observation>(list: readonly O[]): O[] {
    return this.#retractions.size === 0 ? (list as O[]) : list.filter(o => !this.isRetracted(o.id))
  }

  #refold(id: string): void {
    const thread = this.#threads.get(id)
    if (!thread) return
    const last = this.#active(thread.existence).at(-1)
    if (!last || last.act === 'drop') {
      this.#subjects.delete(id)
      return
    }
    const facts = unseenFacts(last.kind, id) as Record<string, FactRef>
    for (const [field, list] of thread.fields) {
      if (Object.hasOwn(facts, field)) facts[field] = this.#foldField(list)
    }
    const born = `${last.clock} ${last.id}`
    // A subject that is new and older than the newest, or that came back, would stand out of order in the map.
    if (this.#subjects.get(id)?.born !== born) {
      if (born < this.#lastBorn || this.#subjects.has(id)) this.#isOrdered = false
      else this.#lastBorn = born
    }
    const { kind, parent } = last
    this.#subjects.set(id, thingOf({ id, kind, parent, born }, facts))
  }

  #refoldFields(id: string, fields: ReadonlySet<string>): void {
    const subject = this.#subjects.get(id)
    if (!subject) return
    const facts: Record<string, FactRef> = { ...subject.facts }
    for (const field of fields) {
      if (Object.hasOwn(facts, field))
        facts[field] = this.#foldField(this.#threads.get(id)!.fields.get(field)!)
    }
    this.#subjects.set(id, thingOf(subject, facts))
  }

  #foldField(list: readonly Sighting[]): FactRef {
    // Nearly every field was seen once and never taken back.
    if (list.length === 1 && this.#retractions.size === 0) return alone(list[0]!)
    const active = this.#active(list)
    const newest = active.at(-1)
    const { subject, field } = list[0]!
    if (!newest) return { state: 'unseen', subject, field }
    // A value once seen is not unseen because somebody later could not see it: the last value stands.
    const notes = active.every(o => o.act === 'note')
      ? (active as Noted[])
      : active.filter(o => o.act === 'note')
    if (notes.length === 0) {
      return {
        state: 'blocked',
        subject,
        field,
        reason: (newest as Blocked).reason,
        observation: newest.id,
      }
    }
    if (notes.length === 1) return alone(notes[0]!)
    const heads = this.#headsOf(notes)
    const last = heads.at(-1)!
    const told = new Set([keyOf(last.value)])
    const tell = (o: Noted, into: Opinion[]) => {
      const key = keyOf(o.value)
      if (told.has(key) || into.length >= MAX_EARLIER) return
      told.add(key)
      into.push(opinionOf(o))
    }
    const rivals: Opinion[] = []
    for (let i = heads.length - 2; i >= 0; i--) tell(heads[i]!, rivals)
    const earlier: Opinion[] = []
    for (let i = notes.length - 1; i >= 0 && earlier.length < MAX_EARLIER; i--)
      tell(notes[i]!, earlier)
    return {
      state: 'known',
      value: last.value,
      grade: last.grade,
      subject,
      field,
      observation: last.id,
      earlier: earlier.length > 0 ? earlier : NONE,
      rivals: rivals.length > 0 ? rivals : NONE,
      heads: heads.length > 1 ? heads.map(o => o.id) : undefined,
    }
  }

  /** The notes that no other takes the place of, in order; there is always one. */
  #headsOf(notes: readonly Noted[]): Noted[] {
    const newest = notes.at(-1)!
    if (newest.over === undefined) return [newest]
    const replaced = new Set<string>()
    const follow: Noted[] = []
    let all = 0
    notes.forEach((note, i) => {
      // Without a list, a note takes the place of everything before it.
      if (note.over === undefined) all = i
      else follow.push(note)
    })
    while (follow.length > 0) {
      const note = follow.pop()!
      for (const id of note.over ?? []) {
        const under = this.#byId.get(id)
        const isUnder =
          under?.act === 'note' && under.subject === note.subject && under.field === note.field
        if (!isUnder || replaced.has(id) || byClock(under, note) >= 0) continue
        replaced.add(id)
        // What a note that was taken back had replaced stays replaced by the one above it.
        follow.push(under)
      }
    }
    return notes.filter((o, i) => i >= all && !replaced.has(o.id))
  }
}

const NONE: readonly never[] = []
const alone = (o: Sighting): FactRef =>
  o.act === 'note'
    ? {
        state: 'known',
        value: o.value,
        grade: o.grade,
        subject: o.subject,
        field: o.field,
        observation: o.id,
        earlier: NONE,
        rivals: NONE,
        heads: undefined,
      }
    : { state: 'blocked', subject: o.subject, field: o.field, reason: o.reason, observation: o.id }

const opinionOf = (o: Noted): Opinion => ({
  value: o.value,
  grade: o.grade,
  observation: o.id,
  by: o.by,
  at: o.at,
})
const keyOf = (value: AnyValue): string => `${typeof value} ${JSON.stringify(value)}`

/** Two recorded values are the same. */
export const sameValue = (a: AnyValue, b: AnyValue): boolean => a === b || keyOf(a) === keyOf(b)

/** The subjects that still hang on something that is there. Kinds nest a few levels deep, so this cannot run away. */
function withoutOrphans(subjects: ReadonlyMap<string, Subject>): Map<string, Subject> {
  const hangs = new Map<string, boolean>()
  const isThere = (id: string): boolean => {
    const known = hangs.get(id)
    if (known !== undefined) return known
    hangs.set(id, false)
    const subject = subjects.get(id)
    const is = subject !== undefined && (subject.parent === null || isThere(subject.parent))
    hangs.set(id, is)
    return is
  }
  return new Map([...subjects].filter(([id]) => isThere(id)))
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}

/** A log that is kept or sent in order needs no sorting. */
function isInOrder(list: readonly Observation[]): boolean {
  for (let i = 1; i < list.length; i++) if (byClock(list[i - 1]!, list[i]!) > 0) return false
  return true
}

/** Keeps the list in order; where an observation does not belong at the end, its place is searched by halves. */
function insert<O extends Observation>(list: O[], o: O): void {
  const last = list.at(-1)
  if (!last || byClock(last, o) < 0) {
    list.push(o)
    return
  }
  let low = 0
  let high = list.length
  while (low < high) {
    const middle = (low + high) >>> 1
    if (byClock(list[middle]!, o) < 0) low = middle + 1
    else high = middle
  }
  list.splice(low, 0, o)
}
