/**
 * What instruments read in a simulated house. The house is a network (core/paths), each instrument the resistance it
 * is, laid on by its own share of the open-circuit volts and of what lies behind them; errors as instruments have them.
 */
import { lampsFor } from '../diagnosis/wiring'
import type { PathChange } from '../paths/changes'
import { PropertyTracer } from '../paths/changes'
import { EARTH } from '../paths/paths'
import { LINES, UTILITY_NEUTRAL, type PropertyNetwork } from '../paths/property'
import { StarMesh } from '../paths/star-mesh'
import type { Site } from '../derive/site'
import { valueOf, type Subject } from '../model/house'
import { bell, type Random } from './random'

/** Ways the three terminals of a face may be connected wrongly. */
export type Swap = 'reversed' | 'hot and ground' | 'neutral and ground'
/** What no look shows and only instruments find. */
export interface Hidden {
  /** Done to the network. */
  readonly changes: readonly PathChange[]
  /** Faces whose conductors are on the wrong screws, by outlet. */
  readonly swaps: ReadonlyMap<string, Swap>
  /** Breakers that heat at a bad contact: Ω, by breaker. */
  readonly contacts: ReadonlyMap<string, number>
}
export const NOTHING_HIDDEN: Hidden = {
  changes: [],
  swaps: new Map(),
  contacts: new Map(),
}

/** Coupling between the conductors of one cable at 60 Hz, 1/Ω per foot. */
const COUPLING_FT = 1.1e-8
const FEET = 15
const METER_OHMS = { high: 1e7, low: 3000 } as const
const LAMP_OHMS = 33_000
const LIT_VOLTS = 75
const TEST_AMPS = 13
/** Warming of a breaker at its rating, and by each watt in a bad contact, °C. */
const RATED_RISE_C = 24
const CONTACT_C_PER_WATT = 4
const ELECTRONICS_C = 4
const AIR_C = 21

interface Terminals {
  readonly narrow: number
  readonly wide: number
  readonly ground: number
}

/** The meters of one visit to one house. */
export class HouseMeters {
  readonly #network: PropertyNetwork
  readonly #numbers = new Map<string, number>()
  readonly #mesh: StarMesh
  readonly #conductances: Float64Array
  readonly #volts: Float64Array
  readonly #supply: number
  readonly #units = new Map<string, Float64Array>()

  /** @param random undefined for meters without error */
  constructor(
    readonly site: Site,
    readonly hidden: Hidden = NOTHING_HIDDEN,
    readonly random?: Random,
    supply = 121,
  ) {
    this.#supply = supply
    this.#network = new PropertyTracer(site, hidden.changes).network
    const { nodes, parts } = this.#network
    nodes.forEach((node, i) => this.#numbers.set(node.id, i))
    const links: { from: number; to: number }[] = []
    const conductances: number[] = []
    const put = (from: string, to: string, g: number) => {
      const [a, b] = [this.#numbers.get(from), this.#numbers.get(to)]
      if (a === undefined || b === undefined) return
      links.push({ from: a, to: b })
      conductances.push(g)
    }
    for (const p of parts) put(p.from, p.to, 1 / p.ohms)
    // What lies side by side in a cable couples a little: so a broken conductor reads ghost volts.
    for (const place of this.#network.places) {
      put(place.from, place.ground, COUPLING_FT * FEET)
      put(place.from, place.neutral, COUPLING_FT * FEET)
      put(place.neutral, place.ground, COUPLING_FT * FEET)
    }
    this.#conductances = Float64Array.from(conductances)
    const held = [UTILITY_NEUTRAL, LINES.A, LINES.B].map(id => this.#numbers.get(id) as number)
    this.#mesh = new StarMesh(nodes.length, links, held)
    this.#volts = new Float64Array(nodes.length)
    this.#volts[held[1] as number] = supply
    this.#volts[held[2] as number] = -supply
    this.#mesh.solve(this.#conductances, this.#volts)
  }

  #node(id: string): number {
    return this.#numbers.get(id) as number
  }
  /** Volts everywhere for one ampere from one node to another, sources at rest. */
  #unit(from: number, to: number): Float64Array {
    const key = `${from} ${to}`
    let volts = this.#units.get(key)
    if (!volts) {
      const injected = new Float64Array(this.#volts.length)
      injected[from] = 1
      injected[to] = (injected[to] ?? 0) - 1
      volts = this.#mesh.solve(this.#conductances, new Float64Array(this.#volts.length), injected)
      this.#units.set(key, volts)
    }
    return volts
  }
  #behind(from: number, to: number): number {
    const unit = this.#unit(from, to)
    return Math.max(0, (unit[from] ?? 0) - (unit[to] ?? 0))
  }
  #across(from: number, to: number): number {
    return (this.#volts[from] ?? 0) - (this.#volts[to] ?? 0)
  }
  /** Volts a meter of so many ohms shows between two nodes. */
  #metered(from: number, to: number, ohms: number): number {
    if (from === to) return 0
    return (this.#across(from, to) * ohms) / (ohms + this.#behind(from, to))
  }

  #err(value: number, share: number, floor: number, digits: number): number {
    const off = this.random ? value * share * bell(this.random) + floor * bell(this.random) : 0
    const unit = 10 ** digits
    return Math.max(0, Math.round((value + off) * unit) / unit)
  }
  #voltage = (x: number): number => this.#err(Math.abs(x), 0.004, 0.15, 1)
  #fine = (x: number): number => this.#err(Math.abs(x), 0.01, 0.02, 2)

  #terminals(outlet: Subject<'outlet'>): Terminals | undefined {
    const place = this.#network.places.find(p => p.subject === outlet.id)
    if (!place) return undefined
    const [hot, neutral, ground] = [place.from, place.to, place.ground].map(n => this.#node(n)) as [
      number,
      number,
      number,
    ]
    switch (this.hidden.swaps.get(outlet.id)) {
      case 'reversed':
        return { narrow: neutral, wide: hot, ground }
      case 'hot and ground':
        return { narrow: ground, wide: neutral, ground: hot }
      case 'neutral and ground':
        return { narrow: hot, wide: ground, ground: neutral }
      default:
        return { narrow: hot, wide: neutral, ground }
    }
  }

  /** Whether any load is on at or behind an outlet. */
  #hasLoad(outlet: Subject<'outlet'>): boolean {
    const circuit = valueOf(outlet, 'circuit')
    return this.#network.parts.some(
      p =>
        p.kind === 'load' &&
        p.ohms < Infinity &&
        (p.subject === circuit ||
          this.#network.places.some(at => at.subject === p.subject && at.circuit === circuit)),
    )
  }

  /** Everything instruments read at an outlet, as facts; nothing where no power is drawn to it. */
  outlet(outlet: Subject<'outlet'>): Readonly<Record<string, number | string | boolean>> {
    const at = this.#terminals(outlet)
    const type = valueOf(outlet, 'type')
    if (!at || type !== 'receptacle') return {}
    const earth = this.#node(EARTH)
    const ohms = METER_OHMS.low
    const is240 = valueOf(outlet, 'slots') === '240 V'
    const drop = this.#dropAt(at)
    const loop = this.#groundOhms(at.ground)
    const groundOhms = loop > 1000 ? 100_000 : this.#fine(loop)
    const ground = this.#metered(at.ground, earth, ohms)
    if (is240)
      return {
        groundOhms,
        dropPercent: drop.percent,
        groundToReferenceV: this.#voltage(ground),
        groundClampA: this.#clamp(outlet),
      }
    const lamps = this.#lamps(at)
    return {
      hotNeutralV: this.#voltage(this.#metered(at.narrow, at.wide, ohms)),
      hotGroundV: this.#voltage(this.#metered(at.narrow, at.ground, ohms)),
      neutralGroundV: this.#fine(this.#metered(at.wide, at.ground, ohms)),
      groundToReferenceV: this.#voltage(ground),
      narrowToReferenceV: this.#voltage(this.#metered(at.narrow, earth, ohms)),
      dropPercent: drop.percent,
      testLoadA: TEST_AMPS,
      neutralGroundRiseV: drop.rise,
      groundOhms,
      isGroundDetected: Math.abs(this.#metered(at.ground, earth, METER_OHMS.high)) > 60,
      groundClampA: this.#clamp(outlet),
      hasLoadsOn: this.#hasLoad(outlet),
      ...(lamps && { lamps }),
    }
  }

  #dropAt(at: Terminals): { percent: number; rise: number } {
    const idle = this.#across(at.narrow, at.wide)
    const unit = this.#unit(at.narrow, at.wide)
    // Where next to nothing stands across the load nothing flows: what floats stays where it was.
    const isDead = Math.abs(idle) < 5
    const amps = isDead ? 0 : idle / (this.#supply / TEST_AMPS + this.#behind(at.narrow, at.wide))
    const left = (node: number) => (this.#volts[node] ?? 0) - amps * (unit[node] ?? 0)
    const loaded = left(at.narrow) - left(at.wide)
    return {
      percent: isDead
        ? 100
        : Math.min(100, this.#err(100 * (1 - Math.abs(loaded / idle)), 0.01, 0.03, 2)),
      rise: this.#fine(left(at.wide) - left(at.ground)),
    }
  }
  /** Volts from the hot to the ground terminal by a meter of high or low impedance: ghosts show on the one only. */
  hotToGround(outlet: Subject<'outlet'>, impedance: keyof typeof METER_OHMS): number | undefined {
    const at = this.#terminals(outlet)
    return at && this.#voltage(this.#metered(at.narrow, at.ground, METER_OHMS[impedance]))
  }
  #lamps(at: Terminals): string | undefined {
    const isLit = (a: number, b: number) => Math.abs(this.#metered(a, b, LAMP_OHMS)) > LIT_VOLTS
    return lampsFor(
      isLit(at.narrow, at.wide),
      isLit(at.narrow, at.ground),
      isLit(at.wide, at.ground),
    )
  }
  /** A branch analyzer: the path from the ground terminal home to the neutral of the supply. */
  #groundOhms(ground: number): number {
    return this.#behind(ground, this.#node(UTILITY_NEUTRAL)) - this.#serviceOhms()
  }
  #service: number | undefined
  /** What lies between the service and the transformer, which the analyzer takes off. */
  #serviceOhms(): number {
    if (this.#service !== undefined) return this.#service
    const panel = this.site.all.enclosure.find(
      e => valueOf(e, 'type') !== 'meter' && this.#numbers.has(`${e.id} N`),
    )
    const home = this.#node(UTILITY_NEUTRAL)
    this.#service = panel ? this.#behind(this.#node(`${panel.id} G`), home) : 0
    return this.#service
  }
  #clamp(outlet: Subject<'outlet'>): number {
    return this.part(`ground ${outlet.id}`)
  }

  /** A clamp round one part of the network, amperes. */
  part(id: string): number {
    const found = this.#network.parts.find(p => p.id === id)
    if (!found || found.ohms === Infinity) return 0
    return this.#fine(this.#across(this.#node(found.from), this.#node(found.to)) / found.ohms)
  }

  enclosure(e: Subject<'enclosure'>): Readonly<Record<string, number | boolean>> {
    const [a, b, n] = ['A', 'B', 'N'].map(x => this.#numbers.get(`${e.id} ${x}`))
    if (a === undefined || b === undefined || n === undefined) return {}
    return {
      legAToNeutralV: this.#voltage(this.#metered(a, n, METER_OHMS.low)),
      legBToNeutralV: this.#voltage(this.#metered(b, n, METER_OHMS.low)),
      wereLoadsOn: this.#network.parts.some(p => p.kind === 'load'),
      ambientC: this.#err(AIR_C, 0, 0.3, 1),
    }
  }
  electrode(x: Subject<'electrode'>): Readonly<Record<string, number>> {
    return { currentA: this.part(`gec ${x.id}`) }
  }
  /** Amperes on one pole of a breaker. */
  #amps(breaker: string, leg: 'A' | 'B'): number {
    const found = this.#network.parts.find(p => p.id === `breaker ${breaker} ${leg}`)
    if (!found || found.ohms === Infinity) return 0
    return Math.abs(this.#across(this.#node(found.from), this.#node(found.to)) / found.ohms)
  }
  breaker(b: Subject<'breaker'>): Readonly<Record<string, number>> {
    const amps = Math.max(this.#amps(b.id, 'A'), this.#amps(b.id, 'B'))
    const rating = valueOf(b, 'ratingAmps') ?? 20
    const ohms = this.hidden.contacts.get(b.id) ?? 0
    const isElectronic = (valueOf(b, 'protection') ?? 'standard') !== 'standard'
    const warm =
      AIR_C +
      RATED_RISE_C * (amps / rating) ** 1.8 +
      CONTACT_C_PER_WATT * amps * amps * ohms +
      (isElectronic ? ELECTRONICS_C : 0)
    const legs = ['A', 'B'].map(leg => this.#numbers.get(`${b.id} ${leg}`))
    const [first, second] = legs
    return {
      temperatureC: this.#err(warm, 0, 0.4, 1),
      ...(valueOf(b, 'role') !== 'branch' && { loadAmps: this.#fine(amps) }),
      ...(valueOf(b, 'poles') === 2 &&
        first !== undefined &&
        second !== undefined && {
          polesV: this.#voltage(this.#metered(first, second, METER_OHMS.low)),
        }),
    }
  }
  circuit(c: Subject<'circuit'>): Readonly<Record<string, number>> {
    const breaker = valueOf(c, 'fedBy')
    if (breaker === undefined) return {}
    return { loadAmps: this.#fine(Math.max(this.#amps(breaker, 'A'), this.#amps(breaker, 'B'))) }
  }
}
