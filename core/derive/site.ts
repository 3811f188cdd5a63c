/**
 * One pass over a house: lists by kind, walks along the supply, circuits with their chains.
 * Rules read this instead of searching. Every walk keeps the facts it rested on.
 */
import type { Kind, Year } from '../model/fields'
import {
  factAt,
  PREMISES_ID,
  readsBeingListed,
  thingOf,
  unseenFacts,
  valueOf,
  type FactRef,
  type House,
  type Subject,
} from '../model/house'
import type { Units } from '../model/units'
import { EDITIONS, type Edition } from '../tables/editions'

type ByKind = { [K in Kind]: Subject<K>[] }
const NONE: readonly never[] = []

/**
 * Answers worked out once. While somebody lists what is read, an answer remembers what was read for it, and adds that
 * to the list each time it is given again.
 */
export class Kept<V> {
  readonly #answers = new Map<string, V>()
  /** Only where somebody lists what is read. */
  #reads: Map<string, readonly string[]> | undefined
  #begun: Map<string, number> | undefined
  #opened: number | undefined

  /** @param reads how many reads were listed when it was asked for */
  open(reads: number): void {
    this.#opened = reads
  }
  get size(): number {
    return this.#answers.size
  }
  get(key: string): V | undefined {
    const answer = this.#answers.get(key)
    const list = readsBeingListed()
    if (list === undefined) return answer
    if (answer === undefined) (this.#begun ??= new Map()).set(key, list.length)
    else for (const read of this.#reads?.get(key) ?? []) list.push(read)
    return answer
  }
  set(key: string, value: V): void {
    const list = readsBeingListed()
    this.#answers.set(key, value)
    if (!list) return
    const reads = new Set(list.slice(this.#begun?.get(key) ?? this.#opened))
    ;(this.#reads ??= new Map()).set(key, [...reads])
  }
}

/** From the first to the last year in which a part may have been put in, and what that rests on. */
export interface Years {
  readonly from: number
  readonly to: number
  readonly rests: readonly FactRef[]
}

let questions = 0
/** A question about things of a house whose answers, all of one type, are worked out once. */
export class Question<V> {
  /** Where a site keeps its answers. */
  readonly index = questions++
  /** The type of its answers, for the compiler alone. */
  declare readonly answer: V
}

const YEARS = new Question<Years>()
/** The property of a record that says nothing of it. */
const NO_PREMISES = thingOf(
  { id: PREMISES_ID, kind: 'premises', parent: null, born: '' },
  unseenFacts('premises', PREMISES_ID),
) as Subject<'premises'>

export class Site {
  readonly all: ByKind
  readonly premises: Subject<'premises'>
  /** The edition in force; while nobody has said which, the newest, and `isEditionOpen`. */
  readonly edition: Edition
  readonly isEditionOpen: boolean
  readonly visitYear: number
  /** How quantities are shown here. */
  readonly units: Units
  /** Day of the visit, year-month-day; the last day of the visit year where nobody said. */
  readonly visitedOn: string
  readonly #children = new Map<string, Subject[]>()
  readonly #circuitsOf = new Map<string, Subject<'circuit'>[]>()
  readonly #outletsOf = new Map<string, Subject<'outlet'>[]>()
  readonly #feedersFrom = new Map<string, Subject<'feeder'>[]>()
  readonly #enclosuresOn = new Map<string, Subject<'enclosure'>[]>()
  readonly #kept: (Kept<unknown> | undefined)[] = []
  /**
   * Labels already made, by subject, and how many outlets of a room share a name. A house in which
   * only other facts changed may take them over.
   */
  names: {
    readonly labels: Map<Subject, string>
    namesakes: ReadonlyMap<string, number> | undefined
  } = { labels: new Map(), namesakes: undefined }

  readonly #under = new Map<Edition, Site>()
  /** Severities a person set, by rule and thing. A word without a reason does not count. */
  readonly overrides: ReadonlyMap<string, Subject<'override'>>
  /** What local law changes, by rule. The last one recorded for a rule stands. 90.4. */
  readonly amendments: ReadonlyMap<string, Subject<'amendment'>>
  readonly hasAmendments: boolean

  constructor(
    readonly house: House,
    underEdition?: Edition,
  ) {
    const all = (this.all = {
      premises: [],
      building: [],
      room: [],
      enclosure: [],
      bar: [],
      screw: [],
      breaker: [],
      feeder: [],
      electrode: [],
      bond: [],
      photo: [],
      amendment: [],
      adoption: [],
      visit: [],
      override: [],
      task: [],
      edit: [],
      signing: [],
      returnVisit: [],
      recheck: [],
      circuit: [],
      segment: [],
      conductor: [],
      exposure: [],
      outlet: [],
    } as ByKind)
    for (const subject of house.subjects.values()) {
      ;(all[subject.kind] as Subject[]).push(subject)
      if (subject.parent !== null) add(this.#children, subject.parent, subject)
    }
    this.premises = all.premises[0] ?? NO_PREMISES
    const edition = underEdition ?? valueOf(this.premises, 'edition')
    this.isEditionOpen = edition === undefined
    this.edition = edition ?? EDITIONS.at(-1)!
    this.overrides = new Map(
      all.override
        .filter(o => valueOf(o, 'severity') !== undefined && valueOf(o, 'reason'))
        .map(o => [`${valueOf(o, 'rule')} ${valueOf(o, 'of')}`, o]),
    )
    this.amendments =
      underEdition !== undefined
        ? new Map()
        : new Map(all.amendment.map(a => [valueOf(a, 'rule') ?? '', a]))
    this.hasAmendments = this.amendments.size > 0
    this.units = { celsius: valueOf(this.premises, 'temperatures') === '°C' }
    const visited = valueOf(this.premises, 'visitedOn')
    this.visitYear =
      Number((valueOf(this.premises, 'visitedOn') ?? '').slice(0, 4)) || EDITIONS.at(-1)! + 3
    this.visitedOn = /^\d{4}-\d\d-\d\d$/.test(visited ?? '') ? visited! : `${this.visitYear}-12-31`
    for (const circuit of all.circuit) keyed(this.#circuitsOf, valueOf(circuit, 'fedBy'), circuit)
    for (const outlet of all.outlet) keyed(this.#outletsOf, valueOf(outlet, 'circuit'), outlet)
    for (const feeder of all.feeder) keyed(this.#feedersFrom, valueOf(feeder, 'from'), feeder)
    for (const enclosure of all.enclosure)
      keyed(this.#enclosuresOn, valueOf(enclosure, 'fedFrom'), enclosure)
  }

  /** The same house judged by another edition, for a rule that local law keeps at one. */
  under(edition: Edition): Site {
    // A house without amendments judges itself; one with them would meet its amendment again, for ever.
    const isThis = edition === this.edition && !this.isEditionOpen
    if (isThis && this.amendments.size === 0) return this
    let site = this.#under.get(edition)
    if (!site) this.#under.set(edition, (site = new Site(this.house, edition)))
    return site
  }

  get<K extends Kind>(id: string | undefined, kind: K): Subject<K> | undefined {
    const subject = id === undefined ? undefined : this.house.subjects.get(id)
    return subject?.kind === kind ? (subject as Subject<K>) : undefined
  }

  /** Subjects of a kind hanging under another, in the order recorded. */
  children<K extends Kind>(of: Subject, kind: K): readonly Subject<K>[] {
    const children = this.#children.get(of.id)
    if (!children) return NONE
    for (const child of children)
      if (child.kind !== kind)
        return children.filter(c => c.kind === kind) as unknown as Subject<K>[]
    return children as unknown as Subject<K>[]
  }

  circuitsOf(breaker: Subject): readonly Subject<'circuit'>[] {
    return this.#circuitsOf.get(breaker.id) ?? NONE
  }
  outletsOf(circuit: Subject): readonly Subject<'outlet'>[] {
    return this.#outletsOf.get(circuit.id) ?? NONE
  }
  feedersFrom(subject: Subject): readonly Subject<'feeder'>[] {
    return this.#feedersFrom.get(subject.id) ?? NONE
  }
  enclosuresOn(feeder: Subject): readonly Subject<'enclosure'>[] {
    return this.#enclosuresOn.get(feeder.id) ?? NONE
  }

  /**
   * What was worked out about things of this house, by whoever works it out, so that one question is answered once.
   * @param question made once, beside the function that answers it
   */
  kept<V>(question: Question<V>): Kept<V> {
    let answers = this.#kept[question.index]
    if (answers === undefined) this.#kept[question.index] = answers = new Kept()
    const list = readsBeingListed()
    if (list) answers.open(list.length)
    return answers as Kept<V>
  }

  /** The building a thing stands in, or undefined where it hangs under the premises. */
  buildingOf(subject: Subject): Subject<'building'> | undefined {
    let at: Subject | undefined = subject
    while (at && at.kind !== 'building')
      at = at.parent === null ? undefined : this.house.subjects.get(at.parent)
    return at as Subject<'building'> | undefined
  }

  roomOf(outlet: Subject<'outlet'>): Subject<'room'> | undefined {
    return this.get(valueOf(outlet, 'room'), 'room')
  }

  /**
   * Years in which a part may have been put in: its own year, else from the year its building was built
   * to the day of the visit, since nobody has said it was never altered.
   */
  yearsOf(subject: Subject): Years {
    const answers = this.kept(YEARS)
    let years = answers.get(subject.id)
    if (!years) answers.set(subject.id, (years = this.#yearsOf(subject)))
    return years
  }

  #yearsOf(subject: Subject): Years {
    const rests: FactRef[] = []
    for (let at: Subject | undefined = subject; at; at = this.#older(at)) {
      if (at.kind === 'building' || at.kind === 'premises') break
      const own = this.#year(at, rests)
      if (own) return { from: own.from, to: own.to, rests }
    }
    for (const at of [this.buildingOf(subject), this.premises]) {
      if (!at) continue
      const built = this.#year(at, rests)
      if (built) return { from: built.from, to: this.visitYear, rests }
    }
    return { from: 0, to: this.visitYear, rests }
  }

  #older(subject: Subject): Subject | undefined {
    if (subject.kind === 'outlet')
      return this.get(valueOf(subject as Subject<'outlet'>, 'circuit'), 'circuit')
    return subject.parent === null ? undefined : this.house.subjects.get(subject.parent)
  }

  #year(subject: Subject, rests: FactRef[]): { from: number; to: number } | undefined {
    const field = subject.kind === 'building' || subject.kind === 'premises' ? 'yearBuilt' : 'year'
    const fact = factAt(subject, field)
    // Some things have no year of their own: what they belong to answers for them.
    if (!fact) return undefined
    rests.push(fact)
    if (fact.state !== 'known') return undefined
    const year = fact.value as Year
    return typeof year === 'number' ? { from: year, to: year } : { from: year[0], to: year[1] }
  }
}

function add<V>(map: Map<string, V[]>, key: string, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
function keyed<V>(map: Map<string, V[]>, key: string | undefined, value: V): void {
  if (key !== undefined) add(map, key, value)
}
