import type { AnyValue, Kind } from './fields'
import { byTime, type Added, type Blocked, type Dropped, type Noted, type Observation, type Retracted } from './observation'
import { unseenFacts, type FactRef, type House, type Known, type Subject } from './house'

interface Thread { existence: (Added | Dropped)[], fields: Map<string, (Noted | Blocked)[]> }

/**
 * The observation log and the house it folds to. Order of arrival does not matter: the same set of
 * observations always folds to the same house. Appending an id twice is harmless.
 */
export class Ledger {
  #byId = new Map<string, Observation>()
  #retractions = new Map<string, Retracted[]>()
  #threads = new Map<string, Thread>()
  #subjects = new Map<string, Subject>()
  #isOrdered = true
  #lastBorn = ''
  /** Something was taken out once: what hung under it went with it. */
  #hasDrops = false
  #alive: Map<string, Subject> | undefined

  constructor(observations: readonly Observation[] = []) { this.append(observations) }

  get house(): House {
    if (!this.#isOrdered) {
      this.#subjects = new Map([...this.#subjects.values()].sort((a, b) => a.born < b.born ? -1 : 1).map(s => [s.id, s]))
      this.#isOrdered = true
    }
    return { subjects: this.#hasDrops ? this.#alive ??= withoutOrphans(this.#subjects) : this.#subjects }
  }

  get size(): number { return this.#byId.size }
  has(id: string): boolean { return this.#byId.has(id) }
  /** Every observation, in the order they count. */
  log(): Observation[] { return [...this.#byId.values()].sort(byTime) }
  /** The observation of an id. */
  find(id: string): Observation | undefined { return this.#byId.get(id) }
  /** The kind a subject was last added as, even if it was dropped since. */
  everKind(subject: string): Kind | undefined {
    const last = this.#threads.get(subject)?.existence.findLast(o => o.act === 'add')
    return last?.act === 'add' ? last.kind : undefined
  }

  isRetracted(id: string): boolean { return this.#isRetracted(id, new Set()) }

  /** Adds observations; returns the ids of the subjects that may have changed. */
  append(observations: readonly Observation[]): Set<string> {
    const whole = new Set<string>()
    this.#alive = undefined
    const single = new Map<string, Set<string>>()
    for (const o of observations) {
      if (this.#byId.has(o.id)) continue
      this.#byId.set(o.id, o)
      if (o.act === 'retract') {
        push(this.#retractions, o.target, o)
        const subject = this.#subjectBehind(o)
        if (subject) whole.add(subject)
        continue
      }
      const thread = this.#thread(o.subject)
      if (o.act === 'add' || o.act === 'drop') {
        insert(thread.existence, o)
        if (o.act === 'drop') this.#hasDrops = true
        whole.add(o.subject)
      } else {
        const list = thread.fields.get(o.field)
        if (list) insert(list, o)
        else thread.fields.set(o.field, [o])
        if (whole.has(o.subject)) continue
        let fields = single.get(o.subject)
        if (!fields) single.set(o.subject, fields = new Set())
        fields.add(o.field)
      }
    }
    for (const id of whole) this.#refold(id)
    for (const [id, fields] of single) if (!whole.has(id)) this.#refoldFields(id, fields)
    return new Set([...whole, ...single.keys()])
  }

  #thread(subject: string): Thread {
    let thread = this.#threads.get(subject)
    if (!thread) this.#threads.set(subject, thread = { existence: [], fields: new Map() })
    return thread
  }

  #isRetracted(id: string, asking: Set<string>): boolean {
    const against = this.#retractions.get(id)
    if (!against) return false
    // Two retractions of each other would ask for ever; such a pair counts as not retracted.
    if (asking.has(id)) return false
    asking.add(id)
    const retracted = against.some(r => !this.#isRetracted(r.id, asking))
    asking.delete(id)
    return retracted
  }

  #subjectBehind(retraction: Retracted): string | undefined {
    const seen = new Set<string>()
    let target = this.#byId.get(retraction.target)
    while (target?.act === 'retract' && !seen.has(target.id)) {
      seen.add(target.id)
      target = this.#byId.get(target.target)
    }
    return target && target.act !== 'retract' ? target.subject : undefined
  }

  #active<O extends Observation>(list: readonly O[]): O[] {
    return this.#retractions.size === 0 ? list as O[] : list.filter(o => !this.isRetracted(o.id))
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
    const born = `${last.at} ${last.id}`
    // A subject that is new and older than the newest, or that came back, would stand out of order in the map.
    if (this.#subjects.get(id)?.born !== born) {
      if (born < this.#lastBorn || this.#subjects.has(id)) this.#isOrdered = false
      else this.#lastBorn = born
    }
    this.#subjects.set(id, { id, kind: last.kind, parent: last.parent, born, facts } as Subject)
  }

  #refoldFields(id: string, fields: ReadonlySet<string>): void {
    const subject = this.#subjects.get(id)
    if (!subject) return
    const facts: Record<string, FactRef> = { ...subject.facts }
    for (const field of fields) {
      if (Object.hasOwn(facts, field)) facts[field] = this.#foldField(this.#threads.get(id)!.fields.get(field)!)
    }
    this.#subjects.set(id, { ...subject, facts } as Subject)
  }

  #foldField(list: readonly (Noted | Blocked)[]): FactRef {
    // Nearly every field was seen once and never taken back.
    if (list.length === 1 && this.#retractions.size === 0) return first(list[0]!)
    const active = this.#active(list)
    const newest = active.at(-1)
    const { subject, field } = list[0]!
    if (!newest) return { state: 'unseen', subject, field }
    // A value once seen is not unseen because somebody later could not see it: the last value stands.
    const noted = active.filter(o => o.act === 'note')
    const last = noted.at(-1)
    if (!last) return { state: 'blocked', subject, field, reason: (newest as Blocked).reason, observation: newest.id }
    const earlier: Known['earlier'][number][] = []
    for (let i = noted.length - 2; i >= 0; i--) {
      const o = noted[i]!
      if (!sameValue(o.value, last.value) && !earlier.some(e => sameValue(e.value, o.value))) {
        earlier.push({ value: o.value, grade: o.grade, observation: o.id, by: o.by, at: o.at })
      }
    }
    return { state: 'known', subject, field, value: last.value, grade: last.grade, observation: last.id, earlier }
  }
}

const NONE: readonly never[] = []
const first = (o: Noted | Blocked): FactRef => o.act === 'note'
  ? { state: 'known', subject: o.subject, field: o.field, value: o.value, grade: o.grade, observation: o.id, earlier: NONE }
  : { state: 'blocked', subject: o.subject, field: o.field, reason: o.reason, observation: o.id }

/** Two recorded values are the same. */
export const sameValue = (a: AnyValue, b: AnyValue): boolean =>
  a === b || (Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((x, i) => x === b[i]))

/** The subjects that still hang on something that is there. */
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

/** Keeps the list in time order; new observations nearly always belong at the end. */
function insert<O extends Observation>(list: O[], o: O): void {
  let i = list.length
  while (i > 0 && byTime(list[i - 1]!, o) > 0) i--
  list.splice(i, 0, o)
}
