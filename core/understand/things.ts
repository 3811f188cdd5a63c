import type { Kind } from '../model/fields'
import { PREMISES_ID, valueOf, type Subject } from '../model/house'
import { roleOf } from '../derive/service-role'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'
import type { Focus, Thing, Things } from './reader'

/** Where one stands and what is selected. */
export interface Where {
  /** Id of an enclosure or room, or a word for a place: panel, outlets, service. */
  readonly place?: string | undefined
  readonly selected?: string | undefined
}

const NEW = (id: string): Thing => ({ id, isNew: true })
const OLD = (id: string): Thing => ({ id, isNew: false })

/**
 * The things of a job that are spoken of, and the ids of those that are not there yet, as a house file would give them:
 * `main/7`, `main/7/circuit`, `main/7/circuit/conductors-1`.
 */
export class JobThings implements Things {
  #enclosure: Thing | undefined
  #breaker: Thing | undefined
  #space: { number: number; half: 'a' | 'b' | undefined } | undefined
  #room: Thing | undefined
  #outlets: readonly Thing[] = []
  /** Outlets that were added in this sentence, by number. */
  #group: readonly Thing[] = []
  #electrode: Thing | undefined
  #bond: Thing | undefined
  #feeder: Thing | undefined
  #screw: Thing | undefined

  constructor(
    private readonly site: Site | undefined,
    where: Where,
  ) {
    this.#stand(where)
  }

  #stand({ place, selected }: Where): void {
    const at = place === undefined ? undefined : this.site?.house.subjects.get(place)
    if (at?.kind === 'enclosure') this.#enclosure = OLD(at.id)
    else if (at?.kind === 'room') this.#room = OLD(at.id)
    else if (at === undefined && place !== undefined && !this.site) {
      // Without a job a place is named, and that is its id.
      if (/^(outlets?|rooms?)$/.test(place)) this.#room = undefined
      else if (/(panel|main|sub|disconnect|meter|enclosure|service)/.test(place))
        this.#enclosure = NEW(place)
      else if (!/^(outside|property|premises|walk)$/.test(place)) this.#room = NEW(place)
    }
    const thing = selected === undefined ? undefined : this.site?.house.subjects.get(selected)
    if (thing) this.select(thing)
    else if (selected !== undefined && !this.site) this.#selectNamed(selected)
    this.#enclosure ??= this.#onlyPanel()
  }

  #onlyPanel(): Thing | undefined {
    const panels = this.site?.all.enclosure.filter(e => valueOf(e, 'type') !== 'meter') ?? []
    const { site } = this
    const [only] = panels.length === 1 || !site ? panels : panels.filter(p => isService(site, p))
    return only ? OLD(only.id) : undefined
  }

  /** What is selected on the screen. */
  select(thing: Subject): void {
    switch (thing.kind) {
      case 'enclosure':
        this.#enclosure = OLD(thing.id)
        break
      case 'breaker':
        this.#breaker = OLD(thing.id)
        if (thing.parent !== null) this.#enclosure = OLD(thing.parent)
        break
      case 'circuit':
      case 'segment': {
        const circuit =
          thing.kind === 'circuit' ? thing : this.site?.get(thing.parent ?? undefined, 'circuit')
        const breaker = this.site?.get(valueOf(circuit, 'fedBy'), 'breaker')
        if (breaker) this.select(breaker)
        break
      }
      case 'outlet':
        this.#outlets = [OLD(thing.id)]
        if (this.site) this.#room = roomThing(this.site, thing)
        break
      case 'room':
        this.#room = OLD(thing.id)
        break
      case 'electrode':
        this.#electrode = OLD(thing.id)
        break
      case 'bond':
        this.#bond = OLD(thing.id)
        break
      case 'feeder':
        this.#feeder = OLD(thing.id)
        break
      default:
        break
    }
  }

  #selectNamed(id: string): void {
    const space = /\/(\d+)([ab])?$/.exec(id)
    if (space) {
      this.#breaker = OLD(id)
      this.#enclosure = OLD(id.slice(0, id.length - space[0].length))
    } else if (this.#room) this.#outlets = [OLD(id)]
    else this.#breaker = OLD(id)
  }

  /** What is spoken of before anything is named. */
  get firstFocus(): Focus {
    if (this.#breaker) return 'breaker'
    if (this.#outlets.length > 0) return 'outlet'
    if (this.#electrode) return 'electrode'
    if (this.#bond) return 'bond'
    if (this.#feeder) return 'feeder'
    if (this.#room) return 'room'
    return this.#enclosure ? 'enclosure' : 'property'
  }

  get hasEnclosure(): boolean {
    return this.#enclosure !== undefined
  }
  get room(): Thing | undefined {
    return this.#room
  }
  get outlets(): readonly Thing[] {
    return this.#outlets
  }

  /** A breaker by its space. */
  breakerAt(space: number, half: 'a' | 'b' | undefined): boolean {
    const panel = this.#enclosure
    if (!panel) return false
    this.#space = { number: space, half }
    const known = this.site?.all.breaker.find(
      b =>
        b.parent === panel.id &&
        valueOf(b, 'space') === space &&
        (half === undefined || valueOf(b, 'half') === half),
    )
    this.#breaker = known ? OLD(known.id) : NEW(`${panel.id}/${space}${half ?? ''}`)
    return true
  }
  get space() {
    return this.#space
  }

  /** An enclosure by its name; undefined where none or several have it. */
  enclosureCalled(name: string): boolean {
    const found = this.#called('enclosure', name)
    if (found) this.#enclosure = found
    return found !== undefined
  }

  /** A room by its name or use. */
  roomCalled(name: string): boolean {
    const found = this.#called('room', name)
    if (found) {
      this.#room = found
      this.#outlets = []
      this.#group = []
      return true
    }
    if (this.site) return false
    this.#room = NEW(name)
    return true
  }

  #called(kind: 'enclosure' | 'room', name: string): Thing | undefined {
    const { site } = this
    if (!site) return undefined
    const all = site.all[kind] as readonly Subject<'enclosure' | 'room'>[]
    const exact = all.filter(s => labelOf(site, s).toLowerCase() === name)
    const [only] = exact.length === 1 ? exact : all.filter(s => fits(site, s, name))
    return only && (exact.length === 1 || all.filter(s => fits(site, s, name)).length === 1)
      ? OLD(only.id)
      : undefined
  }

  /** New outlets of the room, or the ones that are there where exactly so many are. */
  group(count: number): readonly Thing[] {
    const room = this.#room
    const there =
      this.site && room
        ? this.site.all.outlet.filter(o => this.site?.roomOf(o)?.id === room.id)
        : []
    const taken = there.length
    this.#group = Array.from({ length: count }, (_, i) =>
      NEW(`${room?.id ?? 'room'}/outlet-${taken + i + 1}`),
    )
    this.#outlets = this.#group
    return this.#group
  }

  /** One of those just named, or of the room: the first, the last. */
  nth(n: number | 'last'): boolean {
    const list = this.#listed()
    const thing = n === 'last' ? list.at(-1) : list[n - 1]
    if (thing) this.#outlets = [thing]
    return thing !== undefined
  }

  /** The first so many of them, or the last. */
  several(count: number, fromEnd: boolean): boolean {
    const list = this.#listed()
    if (count < 1 || count > list.length) return false
    this.#outlets = fromEnd ? list.slice(-count) : list.slice(0, count)
    return true
  }
  /** Nobody has said which: what follows is kept at none of them. */
  none(): void {
    this.#outlets = []
  }
  /** The outlets just named, or all of the room. */
  #listed(): readonly Thing[] {
    const { site } = this
    if (this.#group.length > 0) return this.#group
    return site && this.#room
      ? site.all.outlet.filter(o => site.roomOf(o)?.id === this.#room?.id).map(o => OLD(o.id))
      : []
  }

  /** All of those just named, or of the room; `rest` leaves out what is in focus now. */
  all(rest: boolean): boolean {
    const list = this.#listed()
    const now = new Set(this.#outlets.map(o => o.id))
    const chosen = rest && now.size < list.length ? list.filter(o => !now.has(o.id)) : list
    if (chosen.length > 0) this.#outlets = chosen
    return chosen.length > 0
  }

  /** An outlet by its name in the room. */
  outletCalled(name: string): boolean {
    const { site } = this
    const found = site?.all.outlet.filter(
      o =>
        (valueOf(o, 'name') ?? '').toLowerCase() === name &&
        (!this.#room || site.roomOf(o)?.id === this.#room.id),
    )
    const [only] = found ?? []
    if (found?.length !== 1 || !only) return false
    this.#outlets = [OLD(only.id)]
    return true
  }

  electrodeOf(type: string): void {
    const known = this.site?.all.electrode.filter(e => valueOf(e, 'type') === type) ?? []
    const [only] = known
    this.#electrode =
      known.length === 1 && only ? OLD(only.id) : NEW(`electrode-${type.replace(/ /g, '-')}`)
  }
  bondTo(to: string): void {
    const known = this.site?.all.bond.filter(b => valueOf(b, 'to') === to) ?? []
    const [only] = known
    this.#bond = known.length === 1 && only ? OLD(only.id) : NEW(`bond-${to.replace(/ /g, '-')}`)
  }
  feederHere(): boolean {
    const panel = this.#enclosure
    if (!panel) return false
    const fed = this.site?.get(valueOf(this.site.get(panel.id, 'enclosure'), 'fedFrom'), 'feeder')
    this.#feeder = fed ? OLD(fed.id) : NEW(`${panel.id}/feeder`)
    return true
  }

  of(kind: Kind): readonly Thing[] {
    switch (kind) {
      case 'premises':
        return [OLD(PREMISES_ID)]
      case 'enclosure':
        return one(this.#enclosure)
      case 'breaker':
        return one(this.#breaker)
      case 'circuit':
        return one(this.#breaker && this.#circuit(this.#breaker))
      case 'segment': {
        const circuit = this.#breaker && this.#circuit(this.#breaker)
        return one(circuit && this.#segment(circuit))
      }
      case 'room':
        return one(this.#room)
      case 'outlet':
        return this.#outlets
      case 'electrode':
        return one(this.#electrode)
      case 'bond':
        return one(this.#bond)
      case 'feeder':
        return one(this.#feeder)
      case 'screw':
        return one(this.#screw)
      default:
        return []
    }
  }

  /** A screw of the neutral bar, by its number where it was said. */
  screwAt(position: number | undefined): void {
    const panel = this.#enclosure
    if (!panel) return
    const subject = this.site?.get(panel.id, 'enclosure')
    const bars = subject ? (this.site?.children(subject, 'bar') ?? []) : []
    const bar = bars.find(b => valueOf(b, 'role') === 'neutral' || valueOf(b, 'role') === 'common')
    const home = bar?.id ?? `${panel.id}/neutral-bar`
    const screws = bar && this.site ? this.site.children(bar, 'screw') : []
    const known = screws.find(s => position !== undefined && valueOf(s, 'position') === position)
    this.#screw = known ? OLD(known.id) : NEW(`${home}/screw-${position ?? screws.length + 1}`)
  }

  #circuit(breaker: Thing): Thing {
    const subject = this.site?.get(breaker.id, 'breaker')
    const known = subject && this.site?.circuitsOf(subject)[0]
    return known ? OLD(known.id) : NEW(`${breaker.id}/circuit`)
  }
  #segment(circuit: Thing): Thing {
    const subject = this.site?.get(circuit.id, 'circuit')
    const known = subject && this.site?.children(subject, 'segment')[0]
    return known ? OLD(known.id) : NEW(`${circuit.id}/conductors-1`)
  }
  /** The circuit on a space of the panel, for a neutral that is shared. */
  circuitAt(space: number): string | undefined {
    const panel = this.#enclosure
    if (!panel) return undefined
    const known = this.site?.all.breaker.find(
      b => b.parent === panel.id && valueOf(b, 'space') === space,
    )
    return this.#circuit(known ? OLD(known.id) : NEW(`${panel.id}/${space}`)).id
  }

  ask(kind: Kind): string {
    switch (kind) {
      case 'enclosure':
        return 'Which panel?'
      case 'breaker':
      case 'circuit':
      case 'segment':
        return 'Which breaker?'
      case 'outlet':
        return 'Which outlet?'
      case 'room':
        return 'Which room?'
      case 'feeder':
        return 'The feeder of which panel?'
      default:
        return 'Which one?'
    }
  }
}

const isService = (site: Site, panel: Subject<'enclosure'>): boolean =>
  roleOf(site, panel).value === 'service'
const one = (thing: Thing | undefined): readonly Thing[] => (thing ? [thing] : [])
const roomThing = (site: Site, outlet: Subject<'outlet'>): Thing | undefined => {
  const room = site.roomOf(outlet)
  return room && OLD(room.id)
}
/** A thing goes by its name, by its id, and a room by its use. */
function fits(site: Site, thing: Subject<'enclosure' | 'room'>, name: string): boolean {
  const label = labelOf(site, thing).toLowerCase()
  const use = thing.kind === 'room' ? (valueOf(thing, 'use') ?? '') : ''
  return (
    label === name || thing.id.toLowerCase() === name || use === name || use.split(',')[0] === name
  )
}
