import { z } from 'zod'
import { tripBand } from '../tables/protective-devices'
import { Contradiction, PathSolver, type Ideal, type Resistor } from './solve'

const MAX_PARTS = 5000
const name = z.string().min(1, 'give it a name').max(80)
const finite = z.number().refine(Number.isFinite, 'a finite number is expected')
const ohms = finite.min(0, 'no less than 0 Ω')
const link = { from: name, to: name }

/** A network as the command line takes it. The earth is the node `earth`; grounded nodes are tied to it. */
export const PathsInput = z.strictObject({
  nodes: z.array(name).max(MAX_PARTS).optional(),
  /** `to` stands so many volts over `from`, whatever flows. */
  sources: z
    .array(z.strictObject({ id: name.optional(), ...link, volts: finite }))
    .min(1, 'a source is expected')
    .max(MAX_PARTS),
  conductors: z
    .array(z.strictObject({ id: name, ...link, ohms }))
    .max(MAX_PARTS)
    .default([]),
  loads: z
    .array(
      z.strictObject({
        id: name,
        ...link,
        ohms: ohms.optional(),
        watts: finite.min(0, 'no less than 0 W').optional(),
        volts: finite.optional(),
      }),
    )
    .max(MAX_PARTS)
    .default([]),
  grounded: z.array(name).max(MAX_PARTS).default([]),
  /** Where insulation has failed; without ohms it is bolted. */
  faults: z
    .array(z.strictObject({ id: name, ...link, ohms: ohms.optional() }))
    .max(200)
    .default([]),
  /** Breakers and fuses: on which conductor, load or fault, with what on the handle. */
  devices: z
    .array(z.strictObject({ on: name, ratingAmps: finite.min(1).max(4000) }))
    .max(500)
    .default([]),
  /** Metal that somebody may touch. */
  frames: z.array(name).max(500).default([]),
  /** A body from one node to another (the earth where nothing is said); 1000 Ω where nothing is said. */
  body: z
    .strictObject({ from: name, to: name.default('earth'), ohms: finite.min(1).optional() })
    .optional(),
})
export type PathsInput = z.infer<typeof PathsInput>

export type BranchKind = 'conductor' | 'load' | 'fault' | 'body' | 'source' | 'ground'
export interface PathBranch {
  readonly id: string
  readonly kind: BranchKind
  readonly from: string
  readonly to: string
  /** 0 of what is ideal. */
  readonly ohms: number
  /** Volts of `from` over `to`. */
  readonly volts: number
  /** From `from` to `to`; null where parts without resistance lie side by side and any share is possible. */
  readonly amperes: number | null
  readonly watts: number | null
}
export interface Trip {
  readonly on: string
  readonly ratingAmps: number
  readonly amperes: number
  readonly multiple: number
  /** Opens within so many seconds; null where it may never. */
  readonly withinSeconds: number | null
  readonly says: string
}
export interface Touch {
  readonly node: string
  readonly volts: number
  /** Through a body of 1000 Ω from there to the earth, milliamperes, while the volts stay. */
  readonly milliamperes: number
  readonly effect: string
}
export interface PathsAnswer {
  readonly corvit: 1
  readonly nodes: Readonly<Record<string, number>>
  readonly branches: readonly PathBranch[]
  readonly trips: readonly Trip[]
  readonly touch: readonly Touch[]
  readonly body: {
    readonly milliamperes: number
    readonly effect: string
    readonly gfci: string
  } | null
  readonly floating: readonly { readonly nodes: readonly string[]; readonly says: string }[]
  readonly notes: readonly string[]
  /** Largest current that does not add up at a node, as a share of the largest there is. */
  readonly residual: number
}
/** What cannot be solved, and where. */
export class UnsolvablePaths extends Error {
  constructor(
    readonly path: string,
    message: string,
  ) {
    super(message)
  }
}

export const EARTH = 'earth'
const BODY_OHMS = 1000
/** Bands of effect as they are commonly taught, for a hand-to-foot path; people differ, and being dry is no help. */
const EFFECTS: readonly (readonly [above: number, words: string])[] = [
  [4000, 'burns, and the heart may stop'],
  [100, 'the heart may lose its beat within a second'],
  [30, 'breathing becomes hard; the heart is in danger the longer it lasts'],
  [10, 'muscles may clench: letting go may not be possible'],
  [5, 'painful; a start may do harm'],
  [0.5, 'felt'],
]
export const effectOf = (milliamperes: number): string =>
  EFFECTS.find(([above]) => milliamperes >= above)?.[1] ?? 'not felt by most'

type Named<T> = T & { readonly id: string; readonly kind: BranchKind }

/** A network whose ohms may change from one answer to the next: names and topology are worked out once. */
export class PathTracer {
  readonly #names: string[] = []
  readonly #numbers = new Map<string, number>()
  readonly #resistors: Named<Resistor>[] = []
  readonly #ideals: Named<Ideal>[] = []
  readonly #solver: PathSolver

  /** @throws UnsolvablePaths naming the part that cannot be */
  constructor(readonly input: PathsInput) {
    const earth = this.#nodeOf(EARTH)
    input.nodes?.forEach(node => this.#nodeOf(node))
    this.#gather()
    try {
      this.#solver = new PathSolver(this.#names.length, earth, this.#resistors, this.#ideals)
    } catch (error) {
      if (!(error instanceof Contradiction)) throw error
      const { id } = this.#ideals[error.ideal] ?? { id: '' }
      throw new UnsolvablePaths(
        id,
        `${JSON.stringify(id)} contradicts the others: sources and parts without resistance ` +
          'between the same nodes say different volts',
      )
    }
  }

  #nodeOf(node: string): number {
    const known = this.#numbers.get(node)
    if (known !== undefined) return known
    this.#numbers.set(node, this.#names.length)
    this.#names.push(node)
    return this.#names.length - 1
  }

  #gather(): void {
    const { input } = this
    const given = new Set(input.nodes)
    const ends = (path: string, from: string, to: string) => {
      for (const node of [from, to])
        if (given.size > 0 && node !== EARTH && !given.has(node))
          throw new UnsolvablePaths(path, `${JSON.stringify(node)} is none of the nodes`)
      return { from: this.#nodeOf(from), to: this.#nodeOf(to) }
    }
    const ids = new Set<string>()
    const once = (path: string, id: string) => {
      if (ids.has(id)) throw new UnsolvablePaths(path, `${JSON.stringify(id)} is there twice`)
      ids.add(id)
    }
    const put = (
      path: string,
      id: string,
      kind: BranchKind,
      from: string,
      to: string,
      r: number,
    ) => {
      once(path, id)
      const at = ends(path, from, to)
      if (r === 0) this.#ideals.push({ ...at, volts: 0, id, kind })
      else this.#resistors.push({ ...at, ohms: r, id, kind })
    }
    input.sources.forEach((s, i) => {
      const id = s.id ?? `source ${i + 1}`
      once(`sources[${i}].id`, id)
      const at = ends(`sources[${i}]`, s.from, s.to)
      this.#ideals.push({ ...at, volts: s.volts, id, kind: 'source' })
    })
    input.conductors.forEach((c, i) =>
      put(`conductors[${i}]`, c.id, 'conductor', c.from, c.to, c.ohms),
    )
    input.loads.forEach((l, i) =>
      put(`loads[${i}]`, l.id, 'load', l.from, l.to, loadOhms(l, `loads[${i}]`)),
    )
    input.faults.forEach((f, i) => put(`faults[${i}]`, f.id, 'fault', f.from, f.to, f.ohms ?? 0))
    if (input.body)
      put('body', 'body', 'body', input.body.from, input.body.to, input.body.ohms ?? BODY_OHMS)
    input.grounded.forEach((node, i) => {
      const at = ends(`grounded[${i}]`, node, EARTH)
      if (at.from !== at.to)
        this.#ideals.push({ ...at, volts: 0, id: `${node} to earth`, kind: 'ground' })
    })
  }

  /**
   * Volts of every node, amperes and watts of every part, what the devices do, what a hand on a frame feels.
   * @param changed ohms of parts that are no longer as they were given, by id; Infinity opens one. Parts given as
   *   0 Ω stay so
   * @throws UnsolvablePaths where a device or a frame names what is not there
   */
  trace(changed?: ReadonlyMap<string, number>): PathsAnswer {
    const { input } = this
    const names = this.#names
    const ohms = this.#resistors.map(r => changed?.get(r.id) ?? r.ohms)
    const { volts, resistorAmps, idealAmps, undetermined, floating, residual } =
      this.#solver.solve(ohms)
    const at = (node: number) => volts[node] as number
    const branches: PathBranch[] = this.#resistors.map((r, i) => {
      const amperes = resistorAmps[i] as number
      const own = ohms[i] as number
      return {
        id: r.id,
        kind: r.kind,
        from: names[r.from] as string,
        to: names[r.to] as string,
        ohms: own,
        volts: at(r.from) - at(r.to),
        amperes,
        watts: own < Infinity ? amperes * amperes * own : 0,
      }
    })
    this.#ideals.forEach((d, i) => {
      const amperes = undetermined.has(i) ? null : (idealAmps[i] as number)
      branches.push({
        id: d.id,
        kind: d.kind,
        from: names[d.from] as string,
        to: names[d.to] as string,
        ohms: 0,
        volts: at(d.from) - at(d.to),
        amperes,
        // What a source gives is negative: it takes nothing.
        watts: amperes === null ? null : amperes * (at(d.from) - at(d.to)),
      })
    })
    const branch = new Map(branches.map(b => [b.id, b]))
    const bodyMa = Math.abs(branch.get('body')?.amperes ?? 0) * 1000
    return {
      corvit: 1,
      nodes: Object.fromEntries(names.map((node, i) => [node, at(i)])),
      branches,
      trips: input.devices.map((d, i) => tripOf(d, branch.get(d.on), `devices[${i}].on`)),
      touch: input.frames.map((node, i) => {
        const number = this.#numbers.get(node)
        if (number === undefined)
          throw new UnsolvablePaths(`frames[${i}]`, `${JSON.stringify(node)} is none of the nodes`)
        const milliamperes = (Math.abs(at(number)) / BODY_OHMS) * 1000
        return { node, volts: at(number), milliamperes, effect: effectOf(milliamperes) }
      }),
      body: input.body
        ? { milliamperes: bodyMa, effect: effectOf(bodyMa), gfci: gfciWords(bodyMa) }
        : null,
      floating: floating.map(part => ({
        nodes: part.map(node => names[node] as string),
        says:
          'Nothing ties this part to the earth: its volts are told against one of its own nodes, ' +
          'and against the earth they may be anything.',
      })),
      notes: branches
        .filter(b => b.amperes === null)
        .map(
          b =>
            `${b.id}: parts without resistance lie side by side, so any share of the current is possible.`,
        ),
      residual,
    }
  }
}

/**
 * Where the current goes in a network, once.
 * @throws UnsolvablePaths naming the part that cannot be
 */
export const tracePaths = (input: PathsInput): PathsAnswer => new PathTracer(input).trace()

function loadOhms({ ohms: r, watts, volts }: PathsInput['loads'][number], path: string): number {
  if (r !== undefined) {
    if (watts !== undefined) throw new UnsolvablePaths(path, 'ohms, or watts at volts, not both')
    return r
  }
  if (watts === undefined || volts === undefined)
    throw new UnsolvablePaths(path, 'a load is told by ohms, or by watts at volts')
  if (volts === 0) throw new UnsolvablePaths(`${path}.volts`, 'the volts of a load are not 0')
  return watts === 0 ? Infinity : (volts * volts) / watts
}

function tripOf(
  { on, ratingAmps }: PathsInput['devices'][number],
  branch: PathBranch | undefined,
  path: string,
): Trip {
  if (!branch) throw new UnsolvablePaths(path, `${JSON.stringify(on)} is no part of the network`)
  if (branch.amperes === null)
    throw new UnsolvablePaths(path, `what flows in ${JSON.stringify(on)} cannot be told`)
  const amperes = Math.abs(branch.amperes)
  const { multiple, withinSeconds, note } = tripBand(ratingAmps, amperes)
  return { on, ratingAmps, amperes, multiple, withinSeconds: withinSeconds ?? null, says: note }
}

/** It sees only what leaves its circuit: a hand between hot and neutral is a load like another to it. */
const gfciWords = (milliamperes: number): string =>
  milliamperes >= 6
    ? 'a ground-fault device opens where this leaves its circuit, not where it returns by its own neutral; ' +
      'the shock until then is felt'
    : milliamperes >= 4
      ? 'a ground-fault device may open'
      : 'a ground-fault device holds'
