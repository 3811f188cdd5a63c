import type { Kind } from '../model/fields'
import { isKind, type Fact, type FactRef, type Subject, type Unseen } from '../model/house'
import type { Site } from '../derive/site'
import { Trail } from '../derive/trail'
import { say, type Step } from '../engine/say'
import type { Result } from '../engine/evaluate'
import type { Failure } from '../engine/verdict'

export type RemedyVerdict = 'offered' | 'conditional' | 'refused'
export interface Advice {
  readonly verdict: RemedyVerdict
  readonly why: Step
  readonly missing: readonly FactRef[]
}

/** What can be done about a fault: conditions judged in the house, and what it brings along. */
export interface Remedy {
  readonly id: string
  readonly title: string
  /** What it gives, and what it does not. */
  readonly gives: string
  readonly lacks?: string
  readonly duties: readonly string[]
  readonly markings: readonly string[]
  readonly steps: readonly string[]
  readonly cautions: readonly string[]
  readonly needsPermit: boolean
  readonly tests: readonly string[]
  /** Nothing where the remedy has no bearing on this finding at all: it is then not shown, not even as refused. */
  judge(desk: RemedyDesk): Advice | undefined
}

/** What a remedy sees: the finding, the site, and a reader that notes missing facts. */
export class RemedyDesk {
  readonly #trail = new Trail()
  constructor(
    readonly site: Site,
    readonly result: Result,
  ) {}

  /** Every fact the remedy looked at. */
  get asked(): readonly FactRef[] {
    return this.#trail.rests
  }
  get subject(): Subject {
    return this.result.subject
  }
  /** The subject as a thing of the kind the remedy is made for. */
  on<K extends Kind>(kind: K): Extract<Subject, { readonly kind: K }> {
    const { subject } = this
    if (!isKind(subject, kind)) throw new Error(`made for ${kind}, offered on ${subject.kind}`)
    return subject
  }
  ask<V>(fact: Fact<V> | Unseen): V | undefined {
    return this.#trail.ask(fact)
  }
  /** The failure of a check, as found or as leaned to; undefined where that check did not fail. */
  failure(...ids: readonly string[]): Failure | undefined {
    const { failures, failure } = this.result
    return [...failures, ...(failure ? [failure] : [])].find(f => ids.includes(f.id))
  }
  rest(refs: readonly FactRef[]): void {
    this.#trail.rests.push(...refs)
  }
  offered(why: string, slots?: Record<string, string | number>): Advice {
    return { verdict: 'offered', why: say(why, slots), missing: [] }
  }
  refused(why: string, slots?: Record<string, string | number>): Advice {
    return { verdict: 'refused', why: say(why, slots), missing: [] }
  }
  /** Conditional on the facts asked for and not known. */
  conditional(why: string, slots?: Record<string, string | number>): Advice {
    const missing = this.#trail.rests.filter(
      (f, i, all) =>
        f.state !== 'known' &&
        all.findIndex(o => o.subject === f.subject && o.field === f.field) === i,
    )
    return { verdict: 'conditional', why: say(why, slots), missing }
  }
}

const PROVE =
  'Switch off, lock and tag, prove absence of voltage with a tester proved before and after'
const DEFAULTS = {
  duties: [],
  markings: [],
  cautions: [PROVE, 'The line side of a main stays live with the main off'],
  needsPermit: false,
  tests: [],
} as const

type Draft = Pick<Remedy, 'id' | 'title' | 'gives' | 'steps' | 'judge'> & Partial<Remedy>
export const defineRemedy = (draft: Draft): Remedy => ({ ...DEFAULTS, ...draft })
/** A remedy whose only condition is the fault itself. */
export const always =
  (why: string) =>
  (desk: RemedyDesk): Advice =>
    desk.offered(why)
