/** What somebody tries on a property: loads, faults, bonds made and undone, a lost neutral, a hand on a frame. */
import { z } from 'zod'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'
import {
  EARTH,
  PathTracer,
  UnsolvablePaths,
  type PathBranch,
  type PathsAnswer,
  type PathsInput,
} from './paths'
import {
  HALF_VOLTS,
  LINES,
  networkOf,
  UTILITY_NEUTRAL,
  type LoadPlace,
  type PropertyNetwork,
  type PropertyPart,
} from './property'
import { TRIP_MA, HOLD_MA, longestTripSeconds } from '../tables/protective-devices'

const id = z.string().min(1).max(120)
const ohms = z
  .number()
  .refine(Number.isFinite, 'a finite number is expected')
  .min(0, 'no less than 0 Ω')
const amount = z.number().refine(Number.isFinite, 'a finite number is expected').min(0).max(1e6)

/** One change; places are ids of outlets, circuits or enclosures, parts those an answer lists. */
export const PathChange = z.discriminatedUnion('change', [
  /** What is switched on at a place, in place of what is recorded there; 0 is off. */
  z
    .strictObject({
      change: z.literal('load'),
      at: id,
      watts: amount.optional(),
      amperes: amount.optional(),
    })
    .refine(
      c => (c.watts === undefined) !== (c.amperes === undefined),
      'watts or amperes, one of them',
    ),
  /** Neutral and metal joined in an enclosure, or kept apart. */
  z.strictObject({ change: z.literal('bond'), at: id, isClosed: z.boolean() }),
  /** A part broken, or made whole again with so many ohms. */
  z.strictObject({ change: z.literal('open'), part: id }),
  z.strictObject({ change: z.literal('close'), part: id, ohms: ohms.optional() }),
  /** A bad joint in a part: ohms added to its own. */
  z.strictObject({ change: z.literal('joint'), part: id, ohms }),
  /** Ohms of a part, in place of its own. */
  z.strictObject({ change: z.literal('resistance'), part: id, ohms }),
  /** Insulation that has failed at a place; bolted where no ohms are said. */
  z.strictObject({
    change: z.literal('fault'),
    at: id,
    from: z.enum(['hot', 'neutral']).default('hot'),
    to: z.enum(['ground', 'neutral', 'earth']).default('ground'),
    ohms: ohms.optional(),
  }),
  /** Another conducting path between two nodes: steel, a pipe to the neighbors, a rod of one’s own. */
  z.strictObject({ change: z.literal('path'), id: id.optional(), from: id, to: id, ohms }),
  /** Somebody between two nodes; the earth, and 1000 Ω, where nothing is said. */
  z.strictObject({
    change: z.literal('body'),
    from: id,
    to: id.default(EARTH),
    ohms: ohms.min(1).optional(),
  }),
])
export type PathChange = z.infer<typeof PathChange>
export type PathChangeInput = z.input<typeof PathChange>

/** What `corvit paths` takes for a property: a job file or where it lies, what is tried, clamps laid round parts. */
export const PropertyInput = z.strictObject({
  job: z.union([z.string().min(1), z.looseObject({})]),
  changes: z.array(PathChange).max(200).default([]),
  /** Each a clamp: the parts that lie in its jaws. */
  clamps: z.array(z.array(id).min(1).max(50)).max(100).default([]),
})
export type PropertyInput = z.infer<typeof PropertyInput>

export interface DifferenceSeen {
  readonly subject: string
  readonly milliamperes: number
  readonly opens: 'opens' | 'may open' | 'holds'
  /** The longest time it may take; null where it need not open. */
  readonly withinSeconds: number | null
  readonly says: string
}
export interface PropertyAnswer extends PathsAnswer {
  /** What each part is: in words, the thing it belongs to, whether it is recorded. */
  readonly parts: Readonly<
    Record<string, { readonly text: string; readonly subject: string; readonly isAssumed: boolean }>
  >
  readonly places: Readonly<Record<string, string>>
  /** Ground-fault devices: what they see, and what they do. */
  readonly differences: readonly DifferenceSeen[]
  readonly assumed: readonly string[]
  readonly leftOut: readonly string[]
}

const BOLTED_OHMS = 1e-4

/** A property with changes, ready to be solved again and again while a slider moves. */
export class PropertyTracer {
  readonly network: PropertyNetwork
  readonly #tracer: PathTracer

  /**
   * @throws UndrawableProperty where the supply is none this network knows
   * @throws UnsolvablePaths naming the change that cannot be made, as `changes[2].part`
   */
  constructor(site: Site, changes: readonly PathChange[] = [], network = networkOf(site)) {
    this.network = new Changer(site, network, changes).apply()
    this.#tracer = new PathTracer(inputOf(this.network, changes))
  }

  /** @param changed ohms of parts by id, in place of their own; Infinity opens one */
  trace(changed?: ReadonlyMap<string, number>): PropertyAnswer {
    const { network } = this
    const answer = this.#tracer.trace(changed)
    const branch = new Map(answer.branches.map(b => [b.id, b]))
    return {
      ...answer,
      parts: Object.fromEntries(
        network.parts.map(({ id: part, text, subject, isAssumed }) => [
          part,
          { text, subject, isAssumed },
        ]),
      ),
      places: Object.fromEntries(network.nodes.map(n => [n.id, n.text])),
      differences: network.differences.map(d => seen(d, branch)),
      assumed: network.assumed,
      leftOut: network.leftOut,
    }
  }
}

/** Where the current goes in a property with changes, once. */
export const traceProperty = (site: Site, changes: readonly PathChange[] = []): PropertyAnswer =>
  new PropertyTracer(site, changes).trace()

/**
 * What a clamp reads round parts: what flows in them together, each from its panel outwards, amperes.
 * @throws UnsolvablePaths where a part is not there
 */
export function clampRead(answer: PathsAnswer, around: readonly string[], path = 'clamp'): number {
  const branch = new Map(answer.branches.map(b => [b.id, b]))
  return Math.abs(
    around.reduce((sum, part, i) => {
      const found = branch.get(part)
      if (!found)
        throw new UnsolvablePaths(
          `${path}[${i}]`,
          `${JSON.stringify(part)} is no part of this property`,
        )
      return sum + (found.amperes ?? 0)
    }, 0),
  )
}

function seen(
  device: PropertyNetwork['differences'][number],
  branch: ReadonlyMap<string, PathBranch>,
): DifferenceSeen {
  const total = (parts: readonly string[]) =>
    parts.reduce((all, part) => all + (branch.get(part)?.amperes ?? 0), 0)
  const sum = total(device.conductors) - total(device.past)
  const milliamperes = Math.abs(sum) * 1000
  const opens = milliamperes >= TRIP_MA ? 'opens' : milliamperes >= HOLD_MA ? 'may open' : 'holds'
  return {
    subject: device.subject,
    milliamperes,
    opens,
    withinSeconds: longestTripSeconds(milliamperes) ?? null,
    says:
      `${device.text} sees ${milliamperes < 10 ? milliamperes.toFixed(1) : Math.round(milliamperes)} mA ` +
      `that does not come back in its own conductors: it ${opens}`,
  }
}

function inputOf(network: PropertyNetwork, changes: readonly PathChange[]): PathsInput {
  const body = changes.find(c => c.change === 'body')
  return {
    sources: [
      { id: 'utility half A', from: UTILITY_NEUTRAL, to: LINES.A, volts: HALF_VOLTS },
      { id: 'utility half B', from: UTILITY_NEUTRAL, to: LINES.B, volts: -HALF_VOLTS },
    ],
    conductors: network.parts
      .filter(p => p.kind !== 'load')
      .map(({ id: part, from, to, ohms: r }) => ({ id: part, from, to, ohms: r })),
    loads: network.parts
      .filter(p => p.kind === 'load')
      .map(({ id: part, from, to, ohms: r }) => ({ id: part, from, to, ohms: r })),
    grounded: [],
    faults: [],
    devices: network.devices.map(({ on, ratingAmps }) => ({ on, ratingAmps })),
    frames: network.nodes.filter(n => n.isFrame).map(n => n.id),
    ...(body && { body: { from: body.from, to: body.to, ohms: body.ohms } }),
  }
}

class Changer {
  readonly #parts: Map<string, PropertyPart>
  readonly #places: ReadonlyMap<string, LoadPlace>
  readonly #nodes: ReadonlySet<string>

  constructor(
    readonly site: Site,
    readonly network: PropertyNetwork,
    readonly changes: readonly PathChange[],
  ) {
    this.#parts = new Map(network.parts.map(p => [p.id, p]))
    this.#places = new Map(network.places.map(p => [p.subject, p]))
    this.#nodes = new Set(network.nodes.map(n => n.id))
  }

  apply(): PropertyNetwork {
    let bodies = 0
    this.changes.forEach((change, i) => {
      const path = `changes[${i}]`
      switch (change.change) {
        case 'load':
          return this.#load(path, change)
        case 'bond':
          return this.#set(`${path}.at`, `bond ${change.at}`, change.isClosed ? 0.0005 : Infinity)
        case 'open':
          return this.#set(`${path}.part`, change.part, Infinity)
        case 'close':
          return this.#set(`${path}.part`, change.part, Math.max(BOLTED_OHMS, change.ohms ?? 0.001))
        case 'joint':
          return this.#set(
            `${path}.part`,
            change.part,
            this.#part(`${path}.part`, change.part).ohms + change.ohms,
          )
        case 'resistance':
          return this.#set(`${path}.part`, change.part, Math.max(BOLTED_OHMS, change.ohms))
        case 'fault':
          return this.#fault(path, change, i)
        case 'path':
          this.#known(`${path}.from`, change.from)
          this.#known(`${path}.to`, change.to)
          return this.#add(path, {
            id: change.id ?? `path ${i + 1}`,
            kind: 'pipe',
            from: change.from,
            to: change.to,
            ohms: Math.max(BOLTED_OHMS, change.ohms),
            subject: '',
            text: change.id ?? 'added path',
            isAssumed: false,
          })
        case 'body':
          if (++bodies > 1) throw new UnsolvablePaths(path, 'one body at a time')
          this.#known(`${path}.from`, change.from)
          return this.#known(`${path}.to`, change.to)
      }
    })
    return { ...this.network, parts: [...this.#parts.values()] }
  }

  #part(path: string, part: string): PropertyPart {
    const found = this.#parts.get(part)
    if (!found)
      throw new UnsolvablePaths(path, `${JSON.stringify(part)} is no part of this property`)
    return found
  }
  #known(path: string, node: string): void {
    if (!this.#nodes.has(node))
      throw new UnsolvablePaths(path, `${JSON.stringify(node)} is no node of this property`)
  }
  #set(path: string, part: string, r: number): void {
    this.#parts.set(part, { ...this.#part(path, part), ohms: r, isAssumed: false })
  }
  #add(path: string, part: PropertyPart): void {
    if (this.#parts.has(part.id))
      throw new UnsolvablePaths(path, `${JSON.stringify(part.id)} is there already`)
    this.#parts.set(part.id, part)
  }

  /** Where a thing is plugged in: an outlet, or the last of a circuit. */
  #place(path: string, at: string): LoadPlace {
    const own = this.#places.get(at)
    const found = own ?? this.network.places.filter(p => p.circuit === at).at(-1)
    if (found) return found
    const thing = this.site.house.subjects.get(at)
    throw new UnsolvablePaths(
      path,
      thing
        ? `nothing can be put on at ${labelOf(this.site, thing)}: no power is drawn to it`
        : `${JSON.stringify(at)} is no outlet or circuit of this property`,
    )
  }

  #load(path: string, { at, watts, amperes }: Extract<PathChange, { change: 'load' }>): void {
    const place = this.#place(`${path}.at`, at)
    const amps = amperes ?? (watts ?? 0) / place.volts
    // What is recorded of the circuit gives way to what is tried at its places.
    this.#parts.delete(`load ${place.circuit}`)
    if (at === place.circuit)
      for (const p of this.network.places)
        if (p.circuit === at) this.#parts.delete(`load at ${p.subject}`)
    this.#parts.delete(`load at ${place.subject}`)
    if (amps === 0) return
    this.#add(path, {
      id: `load at ${place.subject}`,
      kind: 'load',
      from: place.from,
      to: place.to,
      ohms: place.volts / amps,
      subject: place.subject,
      text: `load at ${place.text}`,
      isAssumed: false,
    })
  }

  #fault(path: string, change: Extract<PathChange, { change: 'fault' }>, i: number): void {
    const enclosure = this.site.get(change.at, 'enclosure')
    const place = enclosure ? undefined : this.#place(`${path}.at`, change.at)
    const node = (end: 'hot' | 'neutral' | 'ground' | 'earth'): string => {
      if (end === 'earth') return EARTH
      if (enclosure) return `${enclosure.id} ${{ hot: 'A', neutral: 'N', ground: 'G' }[end]}`
      if (end === 'hot') return place?.from ?? ''
      return (end === 'ground' ? place?.ground : place?.neutral) ?? ''
    }
    const [from, to] = [node(change.from), node(change.to)]
    this.#known(`${path}.at`, from)
    if (from === to) throw new UnsolvablePaths(path, 'a fault is between two different things')
    const name = place?.text ?? (enclosure ? labelOf(this.site, enclosure) : change.at)
    this.#add(path, {
      id: `fault ${i + 1}`,
      kind: 'load',
      from,
      to,
      ohms: Math.max(BOLTED_OHMS, change.ohms ?? 0),
      subject: change.at,
      text: `fault from ${change.from} to ${change.to} at ${name}`,
      isAssumed: false,
    })
  }
}
