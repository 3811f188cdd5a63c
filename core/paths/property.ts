/**
 * A property as a network of resistances: utility transformer, service conductors, enclosures with their legs,
 * neutrals and metal, feeders, breakers, the wires of every circuit from outlet to outlet, bonds, electrodes and the
 * soil. What is recorded is taken; what is not is drawn as it usually is, marked as assumed, and listed. Ω of
 * conductors from chapter 9 table 8; those of soil, contacts and lengths nobody measured are for seeing, not for
 * judging.
 */
import { neutralBondOf, sharesBar } from '../derive/bond'
import { canGround, feederGroundOf } from '../derive/feeder-ground'
import { groundOf } from '../derive/ground'
import { legsOf } from '../derive/legs'
import { applianceAmpsOf } from '../derive/load'
import { neutralGroupOf } from '../derive/neutrals'
import { roleOf } from '../derive/service-role'
import { tableMetals } from '../derive/allowed'
import type { Site } from '../derive/site'
import { PREMISES_ID, valueOf, type Subject } from '../model/house'
import { sizeIndex, SIZES, type Size, type TableMetal } from '../tables/ampacity'
import { resistance } from '../tables/resistance'
import { labelOf } from '../texts/labels'
import { EARTH } from './paths'

export type PartKind =
  'hot' | 'neutral' | 'ground' | 'bond' | 'electrode' | 'soil' | 'pipe' | 'device' | 'load'

/** One resistance of the property. */
export interface PropertyPart {
  readonly id: string
  readonly kind: PartKind
  readonly from: string
  readonly to: string
  /** Infinity of what is open or not there; it can be closed. */
  readonly ohms: number
  /** The thing it belongs to. */
  readonly subject: string
  /** In plain words, as it stands in a sentence. */
  readonly text: string
  /** Not recorded: drawn as it usually is. */
  readonly isAssumed: boolean
  /** The line of the bond map it is part of. */
  readonly tie?: string
}
/** A breaker, fuse or ground-fault device on a part. */
export interface PropertyDevice {
  readonly on: string
  readonly ratingAmps: number
  readonly subject: string
}
/** What sees a difference between the conductors it watches. */
export interface DifferenceDevice {
  readonly subject: string
  /** The parts it watches: what flows in all of them together should be nothing. */
  readonly conductors: readonly string[]
  /** Parts of what goes on past it, from its line side, and is none of its business. */
  readonly past: readonly string[]
  readonly text: string
}
export interface PropertyNode {
  readonly id: string
  readonly text: string
  readonly subject: string | undefined
  /** Metal that somebody may touch. */
  readonly isFrame: boolean
}
/** Where a load can be put on: an outlet, or a circuit of which no outlet is recorded. */
export interface LoadPlace {
  readonly subject: string
  readonly circuit: string
  readonly from: string
  readonly to: string
  readonly neutral: string
  readonly ground: string
  readonly volts: number
  readonly text: string
}
export interface PropertyNetwork {
  readonly nodes: readonly PropertyNode[]
  readonly parts: readonly PropertyPart[]
  readonly devices: readonly PropertyDevice[]
  readonly differences: readonly DifferenceDevice[]
  readonly places: readonly LoadPlace[]
  /** What was not recorded and how it is drawn, in plain words. */
  readonly assumed: readonly string[]
  /** What could not be drawn, and why. */
  readonly leftOut: readonly string[]
}
/** A property that a network of this kind cannot tell. */
export class UndrawableProperty extends Error {
  constructor(
    readonly subject: string,
    readonly field: string,
    message: string,
  ) {
    super(message)
  }
}

export const UTILITY_NEUTRAL = 'utility neutral'
export const LINES = { A: 'utility line A', B: 'utility line B' } as const
export const HALF_VOLTS = 120

/** Ω from the tie of the transformer to the soil. */
const UTILITY_EARTH_OHMS = 5
/** Ω of electrodes to the soil where nobody measured. */
const ELECTRODE_OHMS: Readonly<Record<string, number>> = {
  rod: 25,
  plate: 25,
  'water pipe': 3,
  'concrete-encased': 5,
  ring: 5,
  'building steel': 5,
  'gas pipe': 10,
  'pool shell': 10,
}
const BOND_OHMS = 0.0005
const DEVICE_OHMS = 0.002
const TIGHT_OHMS = 0.001
const SERVICE_FEET = 75
const FEEDER_FEET = 50
const FIRST_FEET = 40
const NEXT_FEET = 12
/** Metal raceway and armor carry a fault like copper of this size. */
const RACEWAY_AS: Size = '8'
const METALLIC_PATH_OHMS = 0.05
/** A meter that shows this much found no path at all. */
const NO_PATH_OHMS = 1000
/** Legends of a lamp tester by which conductors are on the wrong screws. */
const SWAPPED: ReadonlySet<string> = new Set(['reversed', 'hot and ground reversed'])
/** Sizes that usually hang on a breaker of so many amperes. */
const BY_RATING: readonly (readonly [number, Size])[] = [
  [15, '14'],
  [20, '12'],
  [30, '10'],
  [40, '8'],
  [60, '6'],
  [70, '4'],
  [100, '3'],
  [125, '1'],
  [150, '1/0'],
  [200, '3/0'],
  [Infinity, '4/0'],
]
const usualSize = (amps: number | undefined): Size =>
  (BY_RATING.find(([most]) => (amps ?? 20) <= most) ?? ['', '12' as Size])[1]

interface Run {
  readonly size: Size
  readonly metal: TableMetal
  readonly isAssumed: boolean
}
/** Ω of so many feet; of a size the table has not, those of the nearest it has. */
export function wireOhms(size: Size, metal: TableMetal, feet: number, sets = 1): number {
  for (let i = sizeIndex(size); i < SIZES.length; i++) {
    const ohms = resistance(SIZES[i] as Size, metal, feet)
    if (ohms !== undefined) return Math.max(1e-5, ohms / sets)
  }
  return Math.max(1e-5, (resistance('14', 'copper', feet) ?? 0) / sets)
}
const metalOf = (metal: string | undefined): TableMetal => tableMetals(metal)[0]?.metal ?? 'copper'

/**
 * The network of a property.
 * @throws UndrawableProperty where the legs of the supply are not half a turn apart
 */
export const networkOf = (site: Site): PropertyNetwork => new Drawer(site).draw()

class Drawer {
  readonly #nodes = new Map<string, PropertyNode>()
  readonly #parts: PropertyPart[] = []
  readonly #devices: PropertyDevice[] = []
  readonly #differences: DifferenceDevice[] = []
  readonly #places: LoadPlace[] = []
  readonly #assumed: string[] = []
  readonly #leftOut: string[] = []
  /** Enclosures that power reaches. */
  readonly #fed = new Set<string>()
  readonly #said = new Set<string>()

  constructor(readonly site: Site) {}

  draw(): PropertyNetwork {
    const { site } = this
    if (valueOf(site.premises, 'supply') === '208Y/120 V')
      throw new UndrawableProperty(
        PREMISES_ID,
        'supply',
        'the legs of a 208Y/120 V supply are a third of a turn apart: this network knows only halves of 120/240 V',
      )
    if (valueOf(site.premises, 'supply') === undefined)
      this.#assumed.push('supply from the utility not recorded; drawn as 120/240 V, single phase')
    this.#node(EARTH, 'the earth', undefined)
    this.#node(UTILITY_NEUTRAL, 'neutral of the utility transformer', undefined)
    this.#node(LINES.A, 'line A of the utility', undefined)
    this.#node(LINES.B, 'line B of the utility', undefined)
    this.#put({
      id: 'soil utility',
      kind: 'soil',
      from: UTILITY_NEUTRAL,
      to: EARTH,
      ohms: UTILITY_EARTH_OHMS,
      subject: PREMISES_ID,
      text: 'earth at the utility transformer',
      isAssumed: true,
    })
    this.#enclosures()
    for (const enclosure of site.all.enclosure)
      if (this.#fed.has(enclosure.id)) this.#metalOf(enclosure)
    this.#electrodes()
    this.#pipes()
    for (const circuit of site.all.circuit) this.#circuit(circuit)
    this.#watchBreakers()
    return {
      nodes: [...this.#nodes.values()],
      parts: this.#parts,
      devices: this.#devices,
      differences: this.#differences,
      places: this.#places,
      assumed: this.#assumed,
      leftOut: this.#leftOut,
    }
  }

  #node(id: string, text: string, subject: string | undefined, isFrame = false): string {
    if (!this.#nodes.has(id)) this.#nodes.set(id, { id, text, subject, isFrame })
    return id
  }
  #put(part: PropertyPart): string {
    this.#parts.push(part)
    return part.id
  }

  /** From the utility inwards, so that an enclosure is drawn once what feeds it is. */
  #enclosures(): void {
    const { site } = this
    const waiting = new Set(site.all.enclosure)
    const drawn = (e: Subject<'enclosure'>) => {
      waiting.delete(e)
      this.#fed.add(e.id)
    }
    for (let more = true; more;) {
      more = false
      for (const e of waiting) {
        const from = valueOf(e, 'fedFrom')
        if (from === 'utility') this.#service(e)
        else {
          const feeder = site.get(from, 'feeder')
          const source = feeder && this.#sourceOf(feeder)
          if (!feeder || !source || !this.#fed.has(source.id)) continue
          this.#feeder(feeder, source, e)
        }
        drawn(e)
        more = true
      }
      // Nobody has said what the first one hangs on: it is taken for the service.
      if (!more && this.#fed.size === 0) {
        const [first] = [...waiting].filter(e => valueOf(e, 'fedFrom') === undefined)
        if (first) {
          this.#assumed.push(
            `${labelOf(site, first)}: what feeds it is not recorded; fed by the utility`,
          )
          this.#service(first)
          drawn(first)
          more = true
        }
      }
    }
    for (const e of waiting)
      this.#leftOut.push(`${labelOf(site, e)}: what feeds it is not recorded`)
  }

  #sourceOf(feeder: Subject<'feeder'>): Subject<'enclosure'> | undefined {
    const from = valueOf(feeder, 'from')
    const { site } = this
    return (
      site.get(from, 'enclosure') ??
      site.get(site.get(from, 'breaker')?.parent ?? undefined, 'enclosure')
    )
  }

  #enclosureNodes(e: Subject<'enclosure'>): void {
    const name = labelOf(this.site, e)
    this.#node(`${e.id} A`, `leg A in ${name}`, e.id)
    this.#node(`${e.id} B`, `leg B in ${name}`, e.id)
    this.#node(`${e.id} N`, `neutrals in ${name}`, e.id)
    this.#node(`${e.id} G`, `metal and grounding conductors of ${name}`, e.id, true)
  }
  /** Where the bus of an enclosure hangs: behind its main, or straight on what comes in. */
  #intoBus(e: Subject<'enclosure'>, leg: 'A' | 'B'): string {
    const amps = valueOf(e, 'mainAmps')
    const kind = valueOf(e, 'mainKind')
    if (amps === undefined || kind === 'main lugs' || kind === 'split bus') return `${e.id} ${leg}`
    const lugs = this.#node(
      `${e.id} line ${leg}`,
      `line lug ${leg} of ${labelOf(this.site, e)}`,
      e.id,
    )
    const id = this.#put({
      id: `main ${e.id} ${leg}`,
      kind: 'device',
      from: lugs,
      to: `${e.id} ${leg}`,
      ohms: DEVICE_OHMS,
      subject: e.id,
      text: `main of ${labelOf(this.site, e)}, leg ${leg}`,
      isAssumed: false,
    })
    this.#devices.push({ on: id, ratingAmps: amps, subject: e.id })
    return lugs
  }

  #service(e: Subject<'enclosure'>): void {
    const { site } = this
    this.#enclosureNodes(e)
    const name = labelOf(site, e)
    const size = valueOf(e, 'serviceSize')
    const sets = valueOf(e, 'serviceSets') ?? 1
    const metal = metalOf(valueOf(e, 'serviceMetal'))
    const used = size ?? usualSize(valueOf(e, 'mainAmps') ?? valueOf(e, 'busAmps') ?? 100)
    const ohms = wireOhms(used, metal, SERVICE_FEET, sets)
    this.#assumed.push(
      `service conductors to ${name}: ${SERVICE_FEET} ft` +
        (size === undefined ? ` of ${used}, not recorded` : ', length not recorded'),
    )
    const wire = (suffix: string, from: string, to: string, what: string, kind: PartKind) =>
      this.#put({
        id: `service ${e.id} ${suffix}`,
        kind,
        from,
        to,
        ohms,
        subject: e.id,
        text: `${what} of the service to ${name}`,
        isAssumed: true,
        tie: `supply ${e.id}`,
      })
    for (const leg of ['A', 'B'] as const)
      wire(leg, LINES[leg], this.#intoBus(e, leg), `hot ${leg}`, 'hot')
    wire('N', UTILITY_NEUTRAL, `${e.id} N`, 'neutral', 'neutral')
  }

  #feeder(feeder: Subject<'feeder'>, source: Subject<'enclosure'>, e: Subject<'enclosure'>): void {
    const { site } = this
    this.#enclosureNodes(e)
    const name = labelOf(site, e)
    const breaker = site.get(valueOf(feeder, 'from'), 'breaker')
    const amps = valueOf(breaker, 'ratingAmps')
    const size = valueOf(feeder, 'size') ?? usualSize(amps ?? 60)
    const metal = metalOf(valueOf(feeder, 'metal'))
    const feet = valueOf(feeder, 'tapFt') ?? FEEDER_FEET
    const ohms = wireOhms(size, metal, feet, valueOf(feeder, 'sets') ?? 1)
    if (valueOf(feeder, 'tapFt') === undefined)
      this.#assumed.push(`feeder to ${name}: ${feet} ft, length not recorded`)
    const wire = (
      suffix: string,
      from: string,
      to: string,
      what: string,
      kind: PartKind,
      r: number,
      isAssumed = false,
    ) =>
      this.#put({
        id: `feeder ${feeder.id} ${suffix}`,
        kind,
        from,
        to,
        ohms: r,
        subject: feeder.id,
        text: `${what} of the feeder to ${name}`,
        isAssumed,
        tie: `${suffix === 'G' ? 'egc' : 'feed'} ${feeder.id}`,
      })
    for (const leg of ['A', 'B'] as const) {
      const start = breaker ? this.#breakerPole(breaker, source, leg) : `${source.id} ${leg}`
      wire(leg, start, this.#intoBus(e, leg), `hot ${leg}`, 'hot', ohms)
    }
    wire('N', `${source.id} N`, `${e.id} N`, 'neutral', 'neutral', ohms)
    const ground = feederGroundOf(site, feeder)
    const path = ground.state === 'settled' ? ground.value : undefined
    // On the supply side of the service disconnect the neutral does this.
    const isService = roleOf(site, source).value === 'supply'
    const egcSize = valueOf(feeder, 'egcSize')
    const sized = SIZES.find(s => s === egcSize) ?? smaller(size)
    const r =
      path === 'none' || (path === undefined && isService)
        ? Infinity
        : path === 'raceway'
          ? wireOhms(RACEWAY_AS, 'copper', feet)
          : wireOhms(sized, metalOf(valueOf(feeder, 'egcMetal')), feet)
    if (path === undefined && !isService)
      this.#assumed.push(`feeder to ${name}: its ground is not recorded; drawn with one`)
    if (r < Infinity || !isService)
      wire(
        'G',
        `${source.id} G`,
        `${e.id} G`,
        'grounding conductor',
        'ground',
        r,
        path === undefined,
      )
    if (valueOf(feeder, 'hasOtherMetallicPath') === true)
      this.#put({
        id: `steel ${feeder.id}`,
        kind: 'pipe',
        from: `${source.id} G`,
        to: `${e.id} G`,
        ohms: METALLIC_PATH_OHMS,
        subject: feeder.id,
        text: `other metal beside the feeder to ${name}`,
        isAssumed: true,
        tie: `egc ${feeder.id}`,
      })
  }

  /** The metal of an enclosure and its neutral: joined, apart, or nobody has looked. */
  #metalOf(e: Subject<'enclosure'>): void {
    const { site } = this
    const bond = neutralBondOf(site, e).value
    const shared = sharesBar(site, e).value
    const role = roleOf(site, e).value
    const isMeter = valueOf(e, 'type') === 'meter'
    const seen = bond === true || shared === true ? true : bond
    const usual = isMeter || role !== 'load'
    const isJoined = seen ?? usual
    if (seen === undefined && !isMeter)
      this.#assumed.push(
        `${labelOf(site, e)}: bond of neutral and metal not seen; ` +
          `drawn ${isJoined ? 'joined' : 'apart'}, as it should be`,
      )
    this.#put({
      id: `bond ${e.id}`,
      kind: 'bond',
      from: `${e.id} N`,
      to: `${e.id} G`,
      ohms: isJoined ? BOND_OHMS : Infinity,
      subject: e.id,
      text: `bond of neutral and metal in ${labelOf(site, e)}`,
      isAssumed: seen === undefined,
      tie: `bond ${e.id}`,
    })
  }

  /** Where the grounding conductors of a panel land: its metal, or a bar that stands apart from it. */
  #groundsOf(e: Subject<'enclosure'>): string {
    const { site } = this
    const apart = site
      .children(e, 'bar')
      .find(
        bar => valueOf(bar, 'role') === 'ground' && valueOf(bar, 'isBondedToEnclosure') === false,
      )
    if (!apart) return `${e.id} G`
    const name = labelOf(site, apart)
    const bar = this.#node(`${e.id} bar`, `grounding conductors on ${name}`, apart.id)
    if (!this.#said.has(bar)) {
      this.#said.add(bar)
      const isTied = valueOf(apart, 'isTiedToNeutral')
      this.#put({
        id: `bar ${apart.id}`,
        kind: 'bond',
        from: isTied === true ? `${e.id} N` : `${e.id} G`,
        to: bar,
        ohms: isTied === true ? BOND_OHMS : Infinity,
        subject: apart.id,
        text: `${name} to ${isTied === true ? 'the neutral' : 'the metal'}`,
        isAssumed: isTied === undefined,
      })
    }
    return bar
  }

  /** Where an electrode or a bond lands in an enclosure; undefined where on nothing. */
  #landing(e: Subject<'enclosure'>, landsOn: string | undefined): string | undefined {
    if (landsOn === 'neutral bar') return `${e.id} N`
    if (landsOn === 'ground bar' || landsOn === 'enclosure') return `${e.id} G`
    if (landsOn === undefined)
      return roleOf(this.site, e).value === 'load' ? `${e.id} G` : `${e.id} N`
    return undefined
  }

  #electrodes(): void {
    const { site } = this
    for (const electrode of site.all.electrode) {
      const host = site.get(valueOf(electrode, 'landsIn'), 'enclosure')
      const type = valueOf(electrode, 'type')
      const isWater = type === 'water pipe'
      const name = labelOf(site, electrode)
      const own = isWater
        ? this.#node('water piping', 'metal water piping', electrode.id, true)
        : this.#node(electrode.id, name, electrode.id)
      const measured = valueOf(electrode, 'ohms')
      this.#put({
        id: `soil ${electrode.id}`,
        kind: 'soil',
        from: own,
        to: EARTH,
        ohms: Math.max(0.1, measured ?? ELECTRODE_OHMS[type ?? 'rod'] ?? 25),
        subject: electrode.id,
        text: `soil round ${name}`,
        isAssumed: measured === undefined,
        tie: `gec ${electrode.id}`,
      })
      if (!host || !this.#fed.has(host.id)) {
        this.#leftOut.push(`${name}: where it lands is not recorded`)
        continue
      }
      const landsOn = valueOf(electrode, 'landsOn')
      const at = this.#landing(host, landsOn)
      const size = valueOf(electrode, 'size') ?? '6'
      this.#put({
        id: `gec ${electrode.id}`,
        kind: 'electrode',
        from: at ?? `${host.id} N`,
        to: own,
        ohms:
          at === undefined
            ? Infinity
            : wireOhms(size, metalOf(valueOf(electrode, 'metal')), 20) + TIGHT_OHMS,
        subject: electrode.id,
        text: `grounding electrode conductor to ${name}`,
        isAssumed: landsOn === undefined,
        tie: `gec ${electrode.id}`,
      })
    }
    const service = site.all.enclosure.find(
      e =>
        this.#fed.has(e.id) && valueOf(e, 'type') !== 'meter' && roleOf(site, e).value !== 'load',
    )
    const seen = service && valueOf(service, 'electrodes')
    if (!service || site.all.electrode.length > 0 || seen === 'none found') return
    this.#assumed.push(`${labelOf(site, service)}: electrodes not recorded; drawn with one of 25 Ω`)
    const own = this.#node('electrode', 'grounding electrode', service.id)
    this.#put({
      id: 'gec electrode',
      kind: 'electrode',
      from: `${service.id} N`,
      to: own,
      ohms: wireOhms('6', 'copper', 20),
      subject: service.id,
      text: 'grounding electrode conductor',
      isAssumed: true,
      tie: `gec no electrode ${service.id}`,
    })
    this.#put({
      id: 'soil electrode',
      kind: 'soil',
      from: own,
      to: EARTH,
      ohms: 25,
      subject: service.id,
      text: 'soil round the electrode',
      isAssumed: true,
      tie: `gec no electrode ${service.id}`,
    })
  }

  #pipes(): void {
    const { site } = this
    for (const bond of site.all.bond) {
      const to = valueOf(bond, 'to')
      if (to === undefined || to === 'communications') continue
      const host = site.get(valueOf(bond, 'landsIn'), 'enclosure')
      if (!host || !this.#fed.has(host.id)) {
        this.#leftOut.push(`${labelOf(site, bond)}: where it lands is not recorded`)
        continue
      }
      const pipe = this.#node(
        to,
        to === 'building steel' ? 'building steel' : `metal ${to}`,
        bond.id,
        true,
      )
      const landsOn = valueOf(bond, 'landsOn')
      const at =
        landsOn === 'grounding electrode conductor' || landsOn === 'electrode of the service'
          ? `${host.id} N`
          : this.#landing(host, landsOn)
      const size = valueOf(bond, 'size') ?? '6'
      this.#put({
        id: `pipe ${bond.id}`,
        kind: 'pipe',
        from: at ?? `${host.id} N`,
        to: pipe,
        ohms: at ? wireOhms(size, metalOf(valueOf(bond, 'metal')), 30) + TIGHT_OHMS : Infinity,
        subject: bond.id,
        text: `bond to the ${to}`,
        isAssumed: landsOn === undefined,
        tie: `tie ${to}`,
      })
    }
  }

  /** Behind one pole of a breaker. */
  #breakerPole(breaker: Subject<'breaker'>, panel: Subject<'enclosure'>, leg: 'A' | 'B'): string {
    const id = `breaker ${breaker.id} ${leg}`
    const behind = `${breaker.id} ${leg}`
    if (this.#nodes.has(behind)) return behind
    const name = labelOf(this.site, breaker)
    this.#node(behind, `terminal ${leg} of ${name}`, breaker.id)
    this.#put({
      id,
      kind: 'device',
      from: `${panel.id} ${leg}`,
      to: behind,
      ohms: DEVICE_OHMS,
      subject: breaker.id,
      text: `${name}, leg ${leg}`,
      isAssumed: false,
    })
    const rating = valueOf(breaker, 'ratingAmps')
    if (rating !== undefined)
      this.#devices.push({ on: id, ratingAmps: rating, subject: breaker.id })
    return behind
  }

  #circuit(circuit: Subject<'circuit'>): void {
    const { site } = this
    const name = labelOf(site, circuit)
    const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
    const panel = site.get(breaker?.parent ?? undefined, 'enclosure')
    if (!breaker || !panel || !this.#fed.has(panel.id)) {
      this.#leftOut.push(`${name}: its breaker is not recorded`)
      return
    }
    const poles = valueOf(breaker, 'poles') ?? 1
    if (poles > 2) {
      this.#leftOut.push(`${name}: three poles`)
      return
    }
    const legs = legsOf(site, breaker).value
    if (legs?.includes('C')) {
      this.#leftOut.push(`${name}: on a third leg`)
      return
    }
    const [leg, other] = (legs ?? (poles === 2 ? ['A', 'B'] : ['A'])) as ('A' | 'B')[]
    if (!leg) return
    if (!legs) this.#assumed.push(`${name}: its leg is not recorded; drawn on A`)
    if (other === leg)
      this.#leftOut.push(`${name}: both its poles stand on one leg, 0 V between them`)
    const run = this.#runOf(circuit, valueOf(breaker, 'ratingAmps'))
    if (run.isAssumed)
      this.#assumed.push(`${name}: conductors not recorded; ${run.size} ${run.metal}`)
    new Branch(
      {
        site,
        node: (id, text, subject, isFrame) => this.#node(id, text, subject, isFrame),
        put: part => this.#put(part),
        place: place => this.#places.push(place),
        difference: device => this.#differences.push(device),
        returns: neutral => this.#returns(breaker, neutral),
        assume: text => this.#assumed.push(text),
        once: key => !this.#said.has(key) && Boolean(this.#said.add(key)),
      },
      circuit,
      {
        hot: this.#breakerPole(breaker, panel, leg),
        second: other && this.#breakerPole(breaker, panel, other),
        neutral: `${panel.id} N`,
        ground: this.#groundsOf(panel),
        breaker: breaker.id,
        group: neutralGroupOf(site, circuit).circuits,
      },
      run,
    ).draw()
    const amps =
      valueOf(circuit, 'loadAmps') ??
      (valueOf(circuit, 'applianceAmps') !== undefined ||
      valueOf(circuit, 'applianceKw') !== undefined
        ? applianceAmpsOf(site, circuit).from
        : 0)
    const place = this.#places.filter(p => p.circuit === circuit.id).at(-1)
    if (amps > 0 && place)
      this.#put({
        id: `load ${circuit.id}`,
        kind: 'load',
        from: place.from,
        to: place.to,
        ohms: place.volts / amps,
        subject: circuit.id,
        text: `load on ${name}`,
        isAssumed: false,
      })
  }

  /** Neutrals that come home to each breaker, whatever circuit and branch they are of. */
  readonly #home = new Map<Subject<'breaker'>, string[]>()
  #returns(breaker: Subject<'breaker'>, neutral: string): void {
    this.#home.set(breaker, [...(this.#home.get(breaker) ?? []), neutral])
  }
  /** A ground-fault breaker watches what leaves by its poles and comes back in the neutrals of its circuits. */
  #watchBreakers(): void {
    for (const [breaker, neutrals] of this.#home) {
      const protection = valueOf(breaker, 'protection')
      if (protection !== 'GFCI' && protection !== 'dual') continue
      const poles = ['A', 'B'].map(leg => `breaker ${breaker.id} ${leg}`)
      this.#differences.push({
        subject: breaker.id,
        conductors: [...this.#parts.map(p => p.id).filter(p => poles.includes(p)), ...neutrals],
        past: [],
        text: labelOf(this.site, breaker),
      })
    }
  }

  #runOf(circuit: Subject<'circuit'>, amps: number | undefined): Run {
    for (const segment of this.site.children(circuit, 'segment')) {
      const size = valueOf(segment, 'size')
      if (size !== undefined)
        return { size, metal: metalOf(valueOf(segment, 'metal')), isAssumed: false }
    }
    return { size: usualSize(amps), metal: 'copper', isAssumed: true }
  }
}

const smaller = (size: Size): Size => SIZES[Math.max(0, sizeIndex(size) - 3)] ?? '14'

interface Pen {
  readonly site: Site
  readonly node: (
    id: string,
    text: string,
    subject: string | undefined,
    isFrame?: boolean,
  ) => string
  readonly put: (part: PropertyPart) => string
  readonly place: (place: LoadPlace) => void
  readonly difference: (device: DifferenceDevice) => void
  readonly assume: (text: string) => void
  /** A neutral that comes home to the breaker. */
  readonly returns: (neutral: string) => void
  /** True the first time it is asked for a key. */
  readonly once: (key: string) => boolean
}
interface Start {
  readonly hot: string
  readonly second: string | undefined
  readonly neutral: string
  readonly ground: string
  readonly breaker: string
  /** The circuits that share its neutral, itself included. */
  readonly group: readonly Subject<'circuit'>[]
}
interface Box {
  readonly hot: string
  readonly neutral: string
  /** The grounding conductor that arrives; undefined where none does. */
  readonly ground: string | undefined
  readonly feet: number
  /** Ω of the grounding conductor home from here. */
  readonly groundOhms: number
}

/** The wires of one circuit, from outlet to outlet. */
class Branch {
  readonly #boxes = new Map<string, Box>()

  constructor(
    readonly pen: Pen,
    readonly circuit: Subject<'circuit'>,
    readonly start: Start,
    readonly run: Run,
  ) {}

  draw(): void {
    const { pen, circuit } = this
    const outlets = pen.site.outletsOf(circuit).filter(o => valueOf(o, 'after') !== undefined)
    const loose = pen.site.outletsOf(circuit).filter(o => valueOf(o, 'after') === undefined)
    if (loose.length > 0 && pen.site.outletsOf(circuit).length > 0)
      pen.assume(
        `${labelOf(pen.site, circuit)}: order of ${loose.length === 1 ? 'an outlet' : `${loose.length} outlets`} ` +
          'not recorded; drawn straight from the panel',
      )
    if (outlets.length + loose.length === 0) this.#end()
    const waiting = new Set([...outlets, ...loose])
    for (let more = true; more;) {
      more = false
      for (const o of waiting) {
        const after = valueOf(o, 'after') ?? 'panel'
        const before = after === 'panel' ? undefined : this.#boxes.get(after)
        if (after !== 'panel' && !before) continue
        this.#outlet(o, before)
        waiting.delete(o)
        more = true
      }
    }
    // What hangs on an outlet of another circuit, or in a ring, starts at the panel.
    for (const o of waiting) this.#outlet(o, undefined)
  }

  #feet(o: Subject<'outlet'> | undefined, before: Box | undefined): number {
    const run = valueOf(o, 'runFt')
    const here = before?.feet ?? 0
    if (run !== undefined && run > here) return run - here
    const [segment] = this.pen.site.children(this.circuit, 'segment')
    const whole = valueOf(segment, 'lengthFt')
    const count = Math.max(1, this.pen.site.outletsOf(this.circuit).length)
    if (whole !== undefined) return Math.max(1, whole / count)
    return before ? NEXT_FEET : FIRST_FEET
  }
  #wire(
    id: string,
    kind: PartKind,
    from: string,
    to: string,
    ohms: number,
    subject: string,
    what: string,
    isAssumed = false,
  ): string {
    const text = `${what} to ${this.#name(subject)}`
    return this.pen.put({ id, kind, from, to, ohms, subject, text, isAssumed })
  }
  #name(subject: string): string {
    const thing = this.pen.site.house.subjects.get(subject)
    return thing ? labelOf(this.pen.site, thing) : subject
  }

  /** The neutral at the panel end; circuits that share one meet behind one wire. */
  #neutralStart(feet: number): string {
    const { pen, start, run } = this
    const [first] = start.group
    if (start.group.length < 2 || !first) return start.neutral
    const text = `shared neutral of ${this.#name(first.id)}`
    const joint = pen.node(`${first.id} shared neutral`, text, first.id)
    if (pen.once(joint))
      pen.put({
        id: `neutral ${joint}`,
        kind: 'neutral',
        from: start.neutral,
        to: joint,
        ohms: wireOhms(run.size, run.metal, feet),
        subject: first.id,
        text,
        isAssumed: false,
      })
    return joint
  }

  #end(): void {
    const { pen, circuit, start } = this
    const feet = this.#feet(undefined, undefined)
    const name = labelOf(pen.site, circuit)
    const hot = pen.node(`${circuit.id} h`, `hot of ${name}`, circuit.id)
    const neutral = pen.node(`${circuit.id} n`, `neutral of ${name}`, circuit.id)
    const ground = pen.node(`${circuit.id} g`, `metal at the end of ${name}`, circuit.id, true)
    const ohms = wireOhms(this.run.size, this.run.metal, feet)
    this.#wire(`hot ${circuit.id}`, 'hot', start.hot, hot, ohms, circuit.id, 'hot')
    this.#backWires(circuit.id, neutral, ohms, feet)
    this.#groundWire(circuit.id, start.ground, ground, ohms, this.#circuitGround())
    this.#frame(circuit.id, neutral, ground)
    pen.returns(`neutral ${circuit.id}`)
    this.#addPlace(circuit.id, hot, neutral, ground)
  }

  /** What the load returns in: the neutral, or the second hot. */
  #backWires(at: string, neutral: string, ohms: number, feet: number): void {
    const { second } = this.start
    const from = second === undefined ? this.#neutralStart(feet) : this.start.neutral
    const isShared = from !== this.start.neutral
    const r = isShared && ohms < Infinity ? TIGHT_OHMS : ohms
    this.#wire(`neutral ${at}`, 'neutral', from, neutral, r, at, 'neutral')
    if (second === undefined) return
    const end = this.pen.node(`${at} h2`, `second hot at ${this.#name(at)}`, at)
    const hot = wireOhms(this.run.size, this.run.metal, feet)
    this.#wire(`second ${at}`, 'hot', second, end, hot, at, 'second hot')
  }

  #addPlace(at: string, hot: string, neutral: string, ground: string): void {
    const { start, circuit, pen } = this
    const second = start.second === undefined ? undefined : `${at} h2`
    const common = { subject: at, circuit: circuit.id, ground, neutral, text: this.#name(at) }
    if (second === undefined) pen.place({ ...common, from: hot, to: neutral, volts: HALF_VOLTS })
    else if (this.#isHalf(at)) {
      // On both poles of one breaker, loads of 120 V alternate between the legs unless somebody has traced them.
      const from = this.#boxes.size % 2 === 0 ? hot : second
      pen.place({ ...common, from, to: neutral, volts: HALF_VOLTS })
    } else pen.place({ ...common, from: hot, to: second, volts: 2 * HALF_VOLTS })
  }
  /** Whether what hangs there takes 120 V, though its breaker has two poles. */
  #isHalf(at: string): boolean {
    const outlet = this.pen.site.get(at, 'outlet')
    const lineToLine = valueOf(this.circuit, 'feedsLineToLine')
    if (!outlet || lineToLine === true) return false
    const type = valueOf(outlet, 'type')
    const slots = valueOf(outlet, 'slots')
    if (slots === '240 V' || type === 'hard-wired outlet') return false
    return lineToLine === false || slots !== undefined || type === 'luminaire'
  }

  /** Whether a ground goes along the circuit: by its conductors. */
  #circuitGround(): boolean | undefined {
    for (const segment of this.pen.site.children(this.circuit, 'segment')) {
      const egc = valueOf(segment, 'egc')
      const wiring = valueOf(segment, 'wiring')
      if (egc === 'metal raceway or armor' && wiring !== undefined) {
        const breaker = this.pen.site.get(this.start.breaker, 'breaker')
        const amps = valueOf(breaker, 'ratingAmps')
        return canGround(wiring, amps, valueOf(segment, 'lengthFt'))
      }
      if (egc !== undefined) return egc !== 'none'
    }
    return undefined
  }
  #groundWire(
    at: string,
    from: string,
    to: string,
    ohms: number,
    isThere: boolean | undefined,
  ): void {
    if (isThere === undefined)
      this.pen.assume(`${this.#name(at)}: its ground is not recorded; drawn with one`)
    this.#wire(
      `ground ${at}`,
      'ground',
      from,
      to,
      isThere === false ? Infinity : ohms,
      at,
      'grounding conductor',
      isThere === undefined,
    )
  }
  /** A frame that the circuit grounds by its neutral, as ranges and dryers once were. */
  #frame(at: string, neutral: string, ground: string): void {
    const by = valueOf(this.circuit, 'frameGround')
    if (by !== 'neutral' && by !== 'neutral and grounding conductor') return
    this.pen.put({
      id: `frame ${at}`,
      kind: 'bond',
      from: neutral,
      to: ground,
      ohms: BOND_OHMS,
      subject: this.circuit.id,
      text: `frame joined to the neutral at ${this.#name(at)}`,
      isAssumed: false,
    })
  }

  #outlet(o: Subject<'outlet'>, before: Box | undefined): void {
    const { pen, start } = this
    const name = labelOf(pen.site, o)
    const feet = this.#feet(o, before)
    const ohms = wireOhms(this.run.size, this.run.metal, feet)
    const hot = pen.node(`${o.id} h`, `hot at ${name}`, o.id)
    const neutral = pen.node(`${o.id} n`, `neutral at ${name}`, o.id)
    const ground = pen.node(`${o.id} g`, `ground terminal and metal at ${name}`, o.id, true)
    const lamps = valueOf(o, 'lamps')
    this.#wire(
      `hot ${o.id}`,
      'hot',
      before?.hot ?? start.hot,
      hot,
      lamps === 'open hot' ? Infinity : ohms,
      o.id,
      'hot',
    )
    const isOpen = lamps === 'open neutral'
    if (before)
      this.#wire(
        `neutral ${o.id}`,
        'neutral',
        before.neutral,
        neutral,
        isOpen ? Infinity : ohms,
        o.id,
        'neutral',
      )
    if (!before) this.#backWires(o.id, neutral, isOpen ? Infinity : ohms, feet)
    else if (start.second !== undefined) {
      const end = pen.node(`${o.id} h2`, `second hot at ${name}`, o.id)
      this.#wire(
        `second ${o.id}`,
        'hot',
        before.hot.replace(/ h$/, ' h2'),
        end,
        ohms,
        o.id,
        'second hot',
      )
    }
    // A box without a ground of its own is passed by: what comes after hangs on the last one that has it.
    const from = before?.ground ?? start.ground
    const isThere = this.#hasGround(o)
    const home = before?.ground === undefined ? 0 : before.groundOhms
    // What was measured is the whole way home: what lies before is not counted again.
    const own = Math.max(ohms, (this.#measuredGround(o) ?? 0) - home)
    this.#groundWire(o.id, from, ground, own, isThere)
    if (lamps !== undefined && SWAPPED.has(lamps))
      pen.assume(
        `${name}: the tester says ${lamps}; drawn as if its conductors were on the right screws`,
      )
    if (valueOf(o, 'hasNeutralGroundJumper') === true)
      pen.put({
        id: `jumper ${o.id}`,
        kind: 'bond',
        from: neutral,
        to: ground,
        ohms: BOND_OHMS,
        subject: o.id,
        text: `jumper from neutral to ground at ${name}`,
        isAssumed: false,
      })
    const isLast = !pen.site.outletsOf(this.circuit).some(x => valueOf(x, 'after') === o.id)
    if (isLast) this.#frame(o.id, neutral, ground)
    if (!before) pen.returns(`neutral ${o.id}`)
    const protection = valueOf(o, 'protection')
    if ((protection === 'GFCI' || protection === 'dual') && start.second === undefined)
      pen.difference({
        subject: o.id,
        conductors: [`hot ${o.id}`, `neutral ${o.id}`],
        past: this.#past(o),
        text: name,
      })
    this.#boxes.set(o.id, {
      hot,
      neutral,
      ground: isThere === false ? before?.ground : ground,
      feet: (before?.feet ?? 0) + feet,
      groundOhms: isThere === false ? home : home + own,
    })
    this.#addPlace(o.id, hot, neutral, ground)
  }
  /** What goes on from an outlet and was not seen to hang on the load side of its device: it is not protected by it. */
  #past(o: Subject<'outlet'>): string[] {
    return this.pen.site
      .outletsOf(this.circuit)
      .filter(x => valueOf(x, 'after') === o.id && valueOf(x, 'isFedFromLoadSide') !== true)
      .flatMap(x => [`hot ${x.id}`, `neutral ${x.id}`])
  }
  /** Whether a grounding conductor arrives: as the judgment has it, else by what was seen in the box or of the run. */
  #hasGround(o: Subject<'outlet'>): boolean | undefined {
    if (valueOf(o, 'lamps') === 'open ground') return false
    if (this.#measuredGround(o) !== undefined) return true
    const { value } = groundOf(this.pen.site, o)
    if (value !== undefined) return value === 'good'
    const ground = valueOf(o, 'ground')
    return ground === 'connected' ? true : this.#circuitGround()
  }
  /** Ω of the path home as measured; through a jumper it is the neutral that was measured. */
  #measuredGround(o: Subject<'outlet'>): number | undefined {
    const ohms = valueOf(o, 'groundOhms')
    const isJumper = valueOf(o, 'hasNeutralGroundJumper') === true
    return ohms === undefined || ohms >= NO_PATH_OHMS || isJumper ? undefined : ohms
  }
}
