import type { AnyValue } from '../model/fields'
import { factsOf, isKind, valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { groundOf } from '../derive/ground'
import { neutralGroupOf } from '../derive/neutrals'
import type { Result } from '../engine/evaluate'
import type { Change } from './change'

/** What is known of a thing, of the fields that are wanted: what a copy of it, put in elsewhere, takes along. */
export const knownOf = (
  thing: Subject,
  isWanted: (field: string) => boolean = () => true,
): Readonly<Record<string, AnyValue>> =>
  Object.fromEntries(
    factsOf(thing).flatMap(f =>
      f.state === 'known' && isWanted(f.field) ? [[f.field, f.value]] : [],
    ),
  )

/** Where the work of one remedy is done, and the words its effects are written in. */
export class Work {
  constructor(
    readonly site: Site,
    readonly result: Result,
  ) {}
  get subject(): Subject {
    return this.result.subject
  }
  /** The year the work is done: that of the visit, else the edition in force. */
  get year(): number {
    const visited = valueOf(this.site.premises, 'visitedOn')
    return visited ? Number(visited.slice(0, 4)) : this.site.edition
  }
  /** What is so of a thing afterwards. */
  so(thing: { readonly id: string }, facts: Readonly<Record<string, AnyValue>>): Change[] {
    return Object.entries(facts).map(([field, value]) => ({
      act: 'note',
      subject: thing.id,
      field,
      value,
    }))
  }
  here(facts: Readonly<Record<string, AnyValue>>): Change[] {
    return this.so(this.subject, facts)
  }
  get outlet(): Subject<'outlet'> | undefined {
    return isKind(this.subject, 'outlet') ? this.subject : undefined
  }
  get circuit(): Subject<'circuit'> | undefined {
    const { subject, site } = this
    if (isKind(subject, 'circuit')) return subject
    if (isKind(subject, 'outlet')) return site.get(valueOf(subject, 'circuit'), 'circuit')
    if (isKind(subject, 'segment')) return site.get(subject.parent ?? undefined, 'circuit')
    if (isKind(subject, 'breaker')) return site.circuitsOf(subject)[0]
    return undefined
  }
  get breaker(): Subject<'breaker'> | undefined {
    const { subject } = this
    if (isKind(subject, 'breaker')) return subject
    return this.circuit && this.site.get(valueOf(this.circuit, 'fedBy'), 'breaker')
  }
  get outlets(): readonly Subject<'outlet'>[] {
    return this.circuit ? this.site.outletsOf(this.circuit) : []
  }
  get segments(): readonly Subject<'segment'>[] {
    return this.circuit ? this.site.children(this.circuit, 'segment') : []
  }
  /** Circuits that share their neutral with this one, this one too. */
  get pair(): readonly Subject<'circuit'>[] {
    return this.circuit ? neutralGroupOf(this.site, this.circuit).circuits : []
  }
  /** The outlet and what is fed through it, by the recorded order. */
  after(first: Subject<'outlet'>): readonly Subject<'outlet'>[] {
    const below = new Set([first.id])
    let grown = true
    while (grown) {
      grown = false
      for (const o of this.outlets)
        if (!below.has(o.id) && below.has(valueOf(o, 'after') ?? '')) {
          below.add(o.id)
          grown = true
        }
    }
    return this.outlets.filter(o => below.has(o.id))
  }
  /** The outlet next to the panel on the way to this one. */
  firstOutlet(): Subject<'outlet'> | undefined {
    let at = this.outlet
    const seen = new Set<string>()
    while (at && !seen.has(at.id)) {
      seen.add(at.id)
      const after: string | undefined = valueOf(at, 'after')
      if (after === 'panel') return at
      at = this.site.get(after, 'outlet')
    }
    return undefined
  }

  /** A device put in new at an outlet: of the kind the place asks for at replacement. */
  device(outlet: Subject<'outlet'>, facts: Readonly<Record<string, AnyValue>> = {}): Change[] {
    const use = valueOf(this.site.get(valueOf(outlet, 'room'), 'room'), 'use')
    return this.so(outlet, {
      work: 'replaced',
      year: this.year,
      condition: 'sound',
      isLooseInBox: false,
      ...(valueOf(outlet, 'type') === 'receptacle' && { isTamperResistant: true }),
      ...(use === 'outdoors' && { isWeatherResistant: true }),
      ...facts,
    })
  }
  /** A grounding conductor that is there and connected, with the readings its acceptance test asks for. */
  grounded(outlet: Subject<'outlet'>): Change[] {
    return this.so(outlet, {
      ground: 'connected',
      lamps: 'correct',
      groundOhms: 0.3,
      groundToReferenceV: 0,
      hasNeutralGroundJumper: false,
    })
  }
  /** What an outlet behind a protective device says on its face, where it is known to have no ground. 406.4(D)(2). */
  marked(outlet: Subject<'outlet'>, isOwn: boolean): Change[] {
    if (groundOf(this.site, outlet).value !== 'none') return []
    return this.so(outlet, { isMarkedNoGround: true, ...(!isOwn && { isMarkedGfci: true }) })
  }
}
