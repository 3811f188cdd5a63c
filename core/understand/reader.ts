import { fieldOf, type AnyValue, type Kind } from '../model/fields'
import { convert, valueSchema } from '../model/values'

/** What is being spoken of: the thing whose facts the next words are. */
export type Focus =
  | 'property'
  | 'enclosure'
  | 'main'
  | 'service'
  | 'breaker'
  | 'feeder'
  | 'room'
  | 'outlet'
  | 'electrode'
  | 'bond'

/** One fact that was said: which thing, which field, what. */
export interface Meaning {
  readonly thing: string
  readonly kind: Kind
  readonly field: string
  /** Null where somebody says that it could not be seen; `blocked` then says why. */
  readonly value: AnyValue | null
  readonly unit: string | null
  readonly blocked?: string
  /** The words it was read from. */
  readonly from: string
  /** The thing is not in the job yet. */
  readonly isNew: boolean
  /** What was said first, where it was corrected in the same breath. */
  readonly was?: AnyValue
}
/** Something that has to be asked before it is kept. */
export interface Ask {
  readonly text: string
  readonly from: string
}

/** A field as words name it: `size` is of the conductor in a breaker, of the electrode conductor at a rod. */
export type Slot = string

/** Which field a word means, by what is being spoken of. */
const MEANS: Readonly<Record<Focus, Readonly<Record<Slot, `${Kind}.${string}`>>>> = {
  property: {},
  enclosure: {
    cover: 'enclosure.cover',
    year: 'enclosure.year',
    work: 'enclosure.work',
    amps: 'enclosure.mainAmps',
  },
  main: { amps: 'enclosure.mainAmps' },
  service: {
    size: 'enclosure.serviceSize',
    metal: 'enclosure.serviceMetal',
    insulationC: 'enclosure.serviceInsulationC',
    sets: 'enclosure.serviceSets',
  },
  breaker: {
    amps: 'breaker.ratingAmps',
    protection: 'breaker.protection',
    testButton: 'breaker.testButton',
    temperatureC: 'breaker.temperatureC',
    volts: 'breaker.polesV',
    year: 'breaker.year',
    size: 'segment.size',
    metal: 'segment.metal',
    wiring: 'segment.wiring',
    conductors: 'segment.conductors',
    egc: 'segment.egc',
    insulation: 'segment.insulation',
    insulationC: 'segment.insulationC',
    terminalsC: 'segment.terminalsC',
    workmanship: 'segment.workmanship',
    work: 'circuit.work',
  },
  feeder: {
    size: 'feeder.size',
    metal: 'feeder.metal',
    wiring: 'feeder.wiring',
    egc: 'feeder.egc',
    sets: 'feeder.sets',
    insulationC: 'feeder.insulationC',
    terminalsC: 'feeder.terminalsC',
    year: 'feeder.year',
  },
  room: { isBelowGrade: 'room.isBelowGrade' },
  outlet: {
    cover: 'outlet.cover',
    protection: 'outlet.protection',
    testButton: 'outlet.gfciButton',
    size: 'outlet.size',
    metal: 'outlet.metal',
    amps: 'outlet.deviceAmps',
    year: 'outlet.year',
    work: 'outlet.work',
  },
  electrode: {
    size: 'electrode.size',
    metal: 'electrode.metal',
    connection: 'electrode.connection',
    ohms: 'electrode.ohms',
    year: 'electrode.year',
    landsOn: 'electrode.landsOn',
    loadAmps: 'electrode.currentA',
  },
  bond: {
    size: 'bond.size',
    metal: 'bond.metal',
    connection: 'bond.connection',
    landsOn: 'bond.landsOn',
    year: 'bond.year',
  },
}

/** A thing that is spoken of: its id in the job, or the id it would get. */
export interface Thing {
  readonly id: string
  readonly isNew: boolean
}

/** Finds the things that are spoken of; undefined where it is not clear which. */
export interface Things {
  /** Things of a kind in focus: outlets may be several. */
  of(kind: Kind): readonly Thing[]
  /** What to ask where there is none. */
  ask(kind: Kind): string
}

interface Entry {
  meaning: Meaning
  /** The value can be taken back by a bare number: no, thirty. */
  isNumber: boolean
  /** The words were of fewer things than all: the first, this one. */
  isNarrow: boolean
}

/** Takes what is read word by word, keeps the last word where it is corrected, and guesses nothing. */
export class Reader {
  focus: Focus = 'property'
  readonly #entries: Entry[] = []
  readonly asks: Ask[] = []
  readonly left: string[] = []
  /** The next fact takes the place of one said before. */
  isCorrecting = false
  /** Words speak of some of several things only. */
  isNarrow = false
  /** The words being read. */
  words = ''
  constructor(readonly things: Things) {}

  get meanings(): readonly Meaning[] {
    return this.#entries.map(e => e.meaning)
  }

  /**
   * Notes a fact. A slot is named by what is in focus, or in full as `kind.field`.
   * @returns false where what is in focus has no such field
   */
  put(slot: Slot, value: AnyValue, unit?: string): boolean {
    const name = slot.includes('.') ? slot : MEANS[this.focus][slot]
    if (name === undefined) return false
    const [kind, field] = name.split('.') as [Kind, string]
    const things = this.things.of(kind)
    if (things.length === 0) {
      this.ask(this.things.ask(kind))
      return true
    }
    const declared = fieldOf(kind, field)
    if (!declared) throw new Error(`no field ${name}`)
    const own = 'unit' in declared ? declared.unit : undefined
    const converted = convert(declared, value, unit)
    if (converted === undefined) {
      this.ask(`${declared.label}: ${String(value)} ${unit ?? ''} does not fit`)
      return true
    }
    const parsed = valueSchema(declared).safeParse(converted)
    if (!parsed.success) {
      this.ask(`${declared.label}: ${String(value)} is not possible; what is it?`)
      return true
    }
    for (const thing of things)
      this.#enter({
        thing: thing.id,
        kind,
        field,
        value: parsed.data as AnyValue,
        unit: own || null,
        from: this.words,
        isNew: thing.isNew,
      })
    this.isCorrecting = false
    return true
  }

  /** Something somebody tried to see and could not. */
  block(name: string, reason: string): void {
    const [kind, field] = name.split('.') as [Kind, string]
    const things = this.things.of(kind)
    if (things.length === 0) return this.ask(this.things.ask(kind))
    for (const thing of things)
      this.#enter({
        thing: thing.id,
        kind,
        field,
        value: null,
        unit: null,
        blocked: reason,
        from: this.words,
        isNew: thing.isNew,
      })
  }

  /** The field a word of several meanings has here, or undefined. */
  fieldOf(slot: Slot): string | undefined {
    return slot.includes('.') ? slot : MEANS[this.focus][slot]
  }

  #enter(meaning: Meaning): void {
    const at = this.#entries.findIndex(
      e => e.meaning.thing === meaning.thing && e.meaning.field === meaning.field,
    )
    const entry: Entry = {
      meaning,
      isNumber: typeof meaning.value === 'number' || /^\d/.test(String(meaning.value ?? '')),
      isNarrow: this.isNarrow,
    }
    const before = this.#entries[at]
    if (!before) {
      this.#entries.push(entry)
      return
    }
    const was = before.meaning.value
    if (JSON.stringify(was) === JSON.stringify(meaning.value)) return
    const isException = entry.isNarrow && !before.isNarrow
    if (this.isCorrecting || isException) {
      const kept = isException || was === null ? {} : { was }
      this.#entries.splice(at, 1)
      this.#entries.push({ ...entry, meaning: { ...meaning, ...kept } })
      return
    }
    // Said twice, differently, and not corrected: neither is kept.
    this.#entries.splice(at, 1)
    const label = fieldOf(meaning.kind, meaning.field)?.label ?? meaning.field
    this.ask(`${label}: ${String(was)} or ${String(meaning.value)}?`)
  }

  ask(text: string): void {
    // Which of them was asked already: one question is enough.
    if (text === 'Which outlet?' && this.asks.some(a => a.text.endsWith('which outlets?'))) return
    if (!this.asks.some(a => a.text === text)) this.asks.push({ text, from: this.words })
  }

  /** A bare number after a correction: it takes the place of the last number said, where it can be one. */
  correct(text: string): boolean {
    for (const { meaning, isNumber } of [...this.#entries].reverse()) {
      if (!isNumber) continue
      const field = fieldOf(meaning.kind, meaning.field)
      if (!field) return false
      const value = field.type === 'number' ? Number(text) : text
      const isFit = valueSchema(field).safeParse(value).success && isOrdinary(meaning.field, text)
      if (!isFit) return false
      this.isCorrecting = true
      for (const e of this.#entries.filter(
        x => x.meaning.field === meaning.field && x.meaning.from === meaning.from,
      ))
        this.#enter({ ...e.meaning, value: value as AnyValue, from: this.words })
      this.isCorrecting = false
      return true
    }
    return false
  }

  /** What was read so far, to go back to where what comes next proves to mean nothing. */
  keep(): () => boolean {
    const entries = [...this.#entries]
    const asks = [...this.asks]
    const { focus, isNarrow, words, isCorrecting } = this
    return () => {
      // One that was replaced stands in the list no more.
      if (entries.some(e => !this.#entries.includes(e))) return false
      this.#entries.splice(0, Infinity, ...entries)
      this.asks.splice(0, Infinity, ...asks)
      Object.assign(this, { focus, isNarrow, words, isCorrecting })
      return true
    }
  }

  /** Takes back what was said last: all that came from the same words. */
  takeBack(): boolean {
    const last = this.#entries.at(-1)
    if (!last) return false
    for (let i = this.#entries.length - 1; i >= 0; i--)
      if (this.#entries[i]?.meaning.from === last.meaning.from) this.#entries.splice(i, 1)
    return true
  }
}

/** Ratings that devices are made in; another number is asked about, not kept. */
export const RATINGS: ReadonlySet<number> = new Set([
  15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 320,
  350, 400,
])
const isOrdinary = (field: string, text: string): boolean =>
  field === 'ratingAmps' || field === 'mainAmps' ? RATINGS.has(Number(text)) : true
