/**
 * The diagnosis tried on whole houses: one fault ahead of several circuits, or one in each of two, read at every
 * 120 V receptacle of the house. Counted is whether the true state is ever ruled out, whether one answer is ever
 * wrong, and whether what the circuits have in common, or where each begins, is found.
 */
import { commonCausesOf, originsOf, type ChainOutlet } from '../diagnosis/chain'
import type { Ranking } from '../diagnosis/outlet'
import { WHOLE_STATES, type OutletState } from '../diagnosis/states'
import { neutralGroupOf } from '../derive/neutrals'
import { readingsOf, readStateOf } from '../derive/readings'
import { Site } from '../derive/site'
import { valueOf, type Subject } from '../model/house'
import type { PathChange } from '../paths/changes'
import { pick, seeded, type Random } from './random'
import { houseOf, loads, soundLog, wholeSite } from './simulated'

export const HOUSE_FAULTS = [
  'nothing',
  'open service neutral',
  'lost shared neutral',
  'open hot',
  'open neutral',
  'high-resistance joint',
] as const
export type HouseFault = (typeof HOUSE_FAULTS)[number]

export interface HouseTrial {
  readonly houses: number
  /** Outlets at which what was put in shows. */
  readonly outlets: number
  readonly ruledOut: number
  readonly single: number
  readonly wrongSingle: number
  /** Faults of the whole house or of a pair: how many were put in, named, and named where there was none. */
  readonly causes: { readonly put: number; readonly named: number; readonly wrong: number }
  /** Joints put in, and those whose first outlet was named. */
  readonly origins: { readonly put: number; readonly named: number }
  /** What went wrong, in words. */
  readonly amiss: readonly string[]
}

interface Put {
  readonly state: OutletState
  /** First outlet behind it; nothing where it is ahead of whole circuits. */
  readonly at: string | undefined
  /** Outlets it bears on. */
  readonly on: ReadonlySet<string>
  readonly change: PathChange
}
/** By so many volts a half has to be off before anybody could tell. */
const SHOWS_V = 10
/** Ohms of a joint that a loaded test shows. */
const joint = (random: Random): number => 0.6 + random() * 2.5

const faces = (site: Site, circuit: Subject<'circuit'>): readonly Subject<'outlet'>[] =>
  site.outletsOf(circuit).filter(
    o =>
      valueOf(o, 'type') === 'receptacle' &&
      valueOf(o, 'slots') === 'three' &&
      // Without a ground, and protected: that is how it is, and nothing put in.
      valueOf(o, 'ground') !== 'none',
  )

/** A fault of a kind in a house; nothing where the house has no place for it. */
function put(site: Site, random: Random, kind: HouseFault): readonly Put[] | undefined {
  if (kind === 'nothing') return []
  const circuits = site.all.circuit.filter(c => faces(site, c).length > 1)
  const all = site.all.circuit.flatMap(c => faces(site, c))
  if (kind === 'open service neutral') {
    const meter = site.all.enclosure.find(e => valueOf(e, 'fedFrom') === 'utility')
    if (!meter) return undefined
    const change: PathChange = { change: 'open', part: `service ${meter.id} N` }
    return [{ state: kind, at: undefined, on: new Set(all.map(o => o.id)), change }]
  }
  if (kind === 'lost shared neutral') {
    const group = site.all.circuit
      .map(c => neutralGroupOf(site, c).circuits)
      .find(list => list.length > 1)
    const [head] = group ?? []
    if (!group || !head) return undefined
    const on = new Set(group.flatMap(c => faces(site, c).map(o => o.id)))
    const change: PathChange = { change: 'open', part: `neutral ${head.id} shared neutral` }
    return [{ state: kind, at: undefined, on, change }]
  }
  // In two circuits at once: neither may be taken for something they have in common.
  const apart = circuits.filter(c => neutralGroupOf(site, c).circuits.length < 2)
  const chosen = new Set([pick(random, apart), pick(random, apart)])
  return [...chosen].map((circuit): Put => {
    const list = faces(site, circuit)
    // The first outlet of two circuits at once would be a leg or a bar, and is called that.
    const behind = list.filter(o => valueOf(o, 'after') !== 'panel')
    const at = pick(random, behind)
    const side =
      kind === 'open hot' ? 'hot' : kind === 'open neutral' || random() < 0.5 ? 'neutral' : 'hot'
    const part = `${side} ${at.id}`
    const change: PathChange =
      kind === 'high-resistance joint'
        ? { change: 'joint', part, ohms: joint(random) }
        : { change: 'open', part }
    return { state: kind, at: at.id, on: behindOf(list, at), change }
  })
}
function behindOf(list: readonly Subject<'outlet'>[], first: Subject<'outlet'>): Set<string> {
  const behind = new Set([first.id])
  for (let grown = true; grown;) {
    grown = false
    for (const o of list)
      if (!behind.has(o.id) && behind.has(valueOf(o, 'after') ?? '')) grown = !!behind.add(o.id)
  }
  return behind
}

/** Whether anybody could tell it at this outlet: halves that happen to balance show nothing. */
function isShown(outlet: Subject<'outlet'>, state: OutletState, supply: number): boolean {
  if (!WHOLE_STATES.has(state)) return true
  return Math.abs((valueOf(outlet, 'hotNeutralV') ?? supply) - supply) > SHOWS_V
}

/**
 * What a state is at one outlet. A half of a lost shared neutral with nothing on is an open neutral there, and the
 * other half stands at all of the supply; only both together tell it.
 */
function seenHere(outlet: Subject<'outlet'>, state: OutletState): OutletState {
  const across = valueOf(outlet, 'hotNeutralV')
  if (state !== 'lost shared neutral' || across === undefined) return state
  return across < DEAD_V ? 'open neutral' : across > DOUBLED_V ? '240 V across the slots' : state
}
const DEAD_V = 5
const DOUBLED_V = 232

interface Met {
  readonly outlet: Subject<'outlet'>
  readonly said: Ranking
}
interface Read {
  readonly kind: HouseFault
  readonly faults: readonly Put[]
  readonly supply: number
  readonly met: readonly Met[]
  readonly chain: readonly ChainOutlet[]
}
/** A house with its fault, read at every receptacle; nothing where it has no place for that fault. */
function readHouse(random: Random, kind: HouseFault): Read | undefined {
  const log = soundLog(random, {})
  const bare = new Site(houseOf(log))
  const faults = put(bare, random, kind)
  if (!faults) return undefined
  const supply = 118 + random() * 6
  const hidden = {
    changes: [...loads(bare, random), ...faults.map(f => f.change)],
    swaps: new Map(),
    contacts: new Map(),
  }
  const { site } = wholeSite(log, hidden, supply, random)
  const met = site.all.circuit
    .flatMap(c => faces(site, c))
    .flatMap((outlet): readonly Met[] => {
      const said = readStateOf(site, outlet)?.ranking
      return said ? [{ outlet, said }] : []
    })
  const chain = met.map(({ outlet, said }): ChainOutlet => {
    const leading = said.answer ?? said.states.find(r => said.fitting.includes(r.state))?.state
    const circuit = valueOf(outlet, 'circuit')
    return {
      id: outlet.id,
      after: valueOf(outlet, 'after'),
      ...(circuit !== undefined && { circuit }),
      ...(leading !== undefined && { state: leading, fitting: said.fitting }),
      ...readingsOf(outlet),
    }
  })
  return { kind, faults, supply, met, chain }
}

/** So many houses, each with the fault its number says. */
export function houseTrial(houses: number, seed: number): HouseTrial {
  const sums = { outlets: 0, ruledOut: 0, single: 0, wrongSingle: 0 }
  const causes = { put: 0, named: 0, wrong: 0 }
  const origins = { put: 0, named: 0 }
  const amiss: string[] = []
  for (let i = 0; i < houses; i++) {
    const kind = HOUSE_FAULTS[i % HOUSE_FAULTS.length] as HouseFault
    const read = readHouse(seeded(seed * 1_000_003 + i), kind)
    if (!read) continue
    const wrong = (what: string) => amiss.push(`house ${i}, ${kind}: ${what}`)
    /** Outlets at which the fault itself can be told. */
    const telling = new Set<Put>()
    for (const { outlet, said } of read.met) {
      const fault = read.faults.find(f => f.on.has(outlet.id))
      if (fault && !isShown(outlet, fault.state, read.supply)) continue
      const state = fault?.state ?? 'good'
      const here = seenHere(outlet, state)
      if (fault) {
        sums.outlets++
        if (here === state) telling.add(fault)
        if (said.ruledOut.includes(here) && said.ruledOut.includes(state)) {
          sums.ruledOut++
          wrong(`ruled out at ${outlet.id}`)
        }
      }
      if (said.answer === undefined) continue
      sums.single++
      if (said.answer === here || said.answer === state) continue
      sums.wrongSingle++
      wrong(`${outlet.id} is ${here}, answered ${said.answer}`)
    }
    const named = commonCausesOf(read.chain)
    const begun = originsOf(read.chain)
    for (const fault of read.faults) {
      if (fault.at !== undefined) {
        origins.put++
        if (begun.some(o => o.state === fault.state && o.first === fault.at)) origins.named++
        else wrong(`not found at ${fault.at}`)
      } else if (telling.has(fault)) {
        causes.put++
        if (named.some(c => c.state === fault.state)) causes.named++
        else wrong('not named')
      }
    }
    // That halves stand alike for the moment leaves a joint ahead of all of them: it says so.
    for (const { state, circuits } of named)
      if (WHOLE_STATES.has(state as OutletState) && !read.faults.some(f => f.state === state)) {
        causes.wrong++
        wrong(`${state} named on ${circuits.join(', ')}`)
      }
  }
  return { houses, ...sums, causes, origins, amiss }
}
