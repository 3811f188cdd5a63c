/**
 * Houses with faults put in, and what somebody with eyes and instruments finds there. A sound house is drawn, faults
 * are put in one by one, each where it can show; then everything electrical is read from the network, not written down.
 */
import { evaluate, type Result } from '../engine/evaluate'
import { readJob } from '../file/read'
import { Ledger } from '../model/ledger'
import { fieldOf, type AnyValue, type Kind } from '../model/fields'
import { factAt, valueOf, type House } from '../model/house'
import type { Observation, RawObservation } from '../model/observation'
import { Site } from '../derive/site'
import type { PathChange } from '../paths/changes'
import { RULES } from '../rules'
import { accessOf } from '../visit/access'
import { draw, type Draft, type DrawOptions, type FactChange, type Injected } from './drafts'
import { HouseMeters, type Hidden } from './meters'
import { seeded, type Random } from './random'
import { soundHouse, type SoundOptions } from './sound-house'

export interface SimulatedHouse {
  readonly seed: number
  /** What is there to be seen, read or asked, and nothing that an instrument reads. */
  readonly seen: readonly Observation[]
  readonly hidden: Hidden
  readonly supplyVolts: number
  readonly injected: readonly Injected[]
  /** Everything known, by meters without error. */
  readonly truth: Site
  /** Faults of the truth, as `rule subject`: those put in, and what follows from them. */
  readonly faults: ReadonlySet<string>
}
export interface SimulateOptions extends SoundOptions, DrawOptions {
  readonly faults: number
}

const BY = 'simulated house'
const AT = '2026-06-09T08:00:00.000Z'
const keyOf = (r: Result): string => `${r.rule.id} ${r.subject.id}`
const isFaulty = (r: Result): boolean => r.outcome === 'fault' || r.outcome === 'allowed'
const faultsOf = (results: readonly Result[]): Set<string> =>
  new Set(results.filter(isFaulty).map(keyOf))
/** Open on something nobody has recorded: what was put in asks for more than the house tells. */
const isOpen = (site: Site, r: Result): boolean =>
  r.outcome === 'undecided' &&
  !(r.missing.length > 0 && r.missing.every(m => answerOf(site, m.subject, m.field) !== undefined))

/** The observations of a sound house. */
export function soundLog(random: Random, options: SoundOptions): Observation[] {
  let n = 0
  const { observations } = readJob(JSON.parse(JSON.stringify(soundHouse(random, options))), {
    at: AT,
    by: BY,
    nextId: () => `s${String(n++).padStart(6, '0')}`,
  })
  return observations
}

/** The same log with facts as they now are: what was recorded of them before is gone. */
export function withFacts(
  log: readonly Observation[],
  changes: readonly FactChange[],
): Observation[] {
  const left = new Map(changes.map(c => [`${c.subject} ${c.field}`, c]))
  const changed = log.map(o => {
    if (o.act !== 'note') return o
    const key = `${o.subject} ${o.field}`
    const change = left.get(key)
    left.delete(key)
    return change ? { ...o, value: change.value } : o
  })
  const last = log.at(-1)
  const more = [...left.values()].map((c, i): Observation => ({
    id: `x${String(i).padStart(6, '0')}-${c.subject}-${c.field}`,
    at: AT,
    by: BY,
    clock: last?.clock ?? '',
    act: 'note',
    subject: c.subject,
    field: c.field,
    value: c.value,
    grade: 'seen',
  }))
  return [...changed, ...more]
}
export const houseOf = (log: readonly RawObservation[]): House => new Ledger(log).house

/** What the instruments of a visit read everywhere, as facts. */
export function readingsOfHouse(meters: HouseMeters): FactChange[] {
  const { all } = meters.site
  const facts = (subject: string, values: Readonly<Record<string, AnyValue>>): FactChange[] =>
    Object.entries(values).map(([field, value]) => ({ subject, field, value }))
  return [
    ...all.enclosure.flatMap(e => facts(e.id, meters.enclosure(e))),
    ...all.breaker.flatMap(b => facts(b.id, meters.breaker(b))),
    ...all.circuit.flatMap(c => facts(c.id, meters.circuit(c))),
    ...all.electrode.flatMap(e => facts(e.id, meters.electrode(e))),
    ...all.outlet.flatMap(o => facts(o.id, meters.outlet(o))),
  ]
}

/** The site of everything there is to know, read by meters with or without error. */
export function wholeSite(
  log: readonly Observation[],
  hidden: Hidden,
  supplyVolts: number,
  random?: Random,
): { readonly site: Site; readonly log: readonly Observation[] } {
  const seen = new Site(houseOf(log))
  const meters = new HouseMeters(seen, hidden, random, supplyVolts)
  const whole = withReadings(log, readingsOfHouse(meters))
  return { site: new Site(houseOf(whole)), log: whole }
}
function withReadings(log: readonly Observation[], readings: readonly FactChange[]): Observation[] {
  const kinds = new Map(log.flatMap(o => (o.act === 'add' ? [[o.subject, o.kind] as const] : [])))
  return withFacts(log, readings).map(o => {
    if (o.act !== 'note' || !o.id.startsWith('x')) return o
    const instrument = instrumentOf(kinds.get(o.subject), o.field)
    return instrument ? { ...o, grade: 'measured' as const, instrument } : o
  })
}
/** The instrument the look of a field asks for. */
export function instrumentOf(kind: Kind | undefined, field: string): string | undefined {
  if (kind === undefined) return undefined
  return accessOf(kind, field).instrument ?? fieldOf(kind, field)?.with
}

/** How a house is looked at while faults are put in. */
interface Ground {
  /** As it is before the first. */
  readonly log: readonly Observation[]
  readonly hidden: Hidden
  /** Everything there is to know with what was put in. */
  readonly read: (log: readonly Observation[], hidden: Hidden) => Site
  /** What was open before stays open: nobody knows everything of a recorded house. */
  readonly mayBeOpen: boolean
}
interface PutIn {
  readonly log: readonly Observation[]
  readonly hidden: Hidden
  readonly injected: readonly Injected[]
  readonly truth: Site
  readonly faults: ReadonlySet<string>
}

/** Each fault is kept only where, everything known, it shows, and hides none put in before it. */
function putIn(ground: Ground, random: Random, options: SimulateOptions): PutIn {
  const site = new Site(houseOf(ground.log))
  let { log, hidden } = ground
  const injected: Injected[] = []
  let truth = ground.read(log, hidden)
  const before = evaluate(truth, RULES)
  const wasOpen = new Set(
    ground.mayBeOpen ? before.filter(r => r.outcome === 'undecided').map(keyOf) : [],
  )
  let faults = faultsOf(before)
  const taken = new Set<string>()
  for (let tries = 0; injected.length < options.faults; tries++) {
    if (tries > 60 * (options.faults + 1))
      throw new Error(
        `only ${injected.length} of ${options.faults} faults show in this house; ask for fewer`,
      )
    const draft = draw(site, random, options, ground.mayBeOpen)
    if (!draft || taken.has(draft.at)) continue
    // A failing service neutral moves every volt of the house: nothing else is measured beside it.
    const kinds = [draft.kind, ...injected.map(i => i.kind)].filter(k => k !== 'to be seen')
    if (kinds.length > 1 && kinds.includes('service neutral failing')) continue
    const nextLog = withFacts(log, draft.facts)
    const nextHidden = withHidden(hidden, draft)
    let next: Site
    try {
      next = ground.read(nextLog, nextHidden)
    } catch {
      continue
    }
    const results = evaluate(next, RULES)
    if (results.some(r => isOpen(next, r) && !wasOpen.has(keyOf(r)))) continue
    const after = faultsOf(results)
    const fresh = [...after].filter(k => !faults.has(k))
    const shows = fresh.map(k => k.split(' ') as [string, string]).filter(([r]) => r === draft.rule)
    // What only instruments find has to show where it is; what is seen may count against what it belongs to.
    const subject =
      shows.find(([, id]) => id === draft.at)?.[1] ??
      (draft.kind === 'to be seen' ? shows[0]?.[1] : undefined)
    // What was put in before has to stay visible.
    if (subject === undefined || injected.some(i => !after.has(`${i.rule} ${i.subject}`))) continue
    taken.add(draft.at)
    injected.push({ rule: draft.rule, subject, what: draft.what, kind: draft.kind })
    log = nextLog
    hidden = nextHidden
    truth = next
    faults = after
  }
  return { log, hidden, injected, truth, faults }
}

/**
 * A sound house with faults put in.
 * @throws Error where so many cannot be put in
 */
export function simulateHouse(seed: number, options: SimulateOptions): SimulatedHouse {
  const random = seeded(seed)
  const log = soundLog(random, options)
  const supplyVolts = 118 + Math.round(random() * 60) / 10
  const hidden: Hidden = {
    changes: loads(new Site(houseOf(log)), random),
    swaps: new Map(),
    contacts: new Map(),
  }
  const read = (seen: readonly Observation[], into: Hidden) =>
    wholeSite(seen, into, supplyVolts).site
  const { log: seen, ...made } = putIn({ log, hidden, read, mayBeOpen: false }, random, options)
  return { seed, seen, supplyVolts, ...made }
}

/**
 * A recorded house with faults put in, as a supervisor makes one of a job: what was recorded stays, and instruments
 * read otherwise only where a fault put in changes what they read.
 * @param seed the same number puts in the same faults
 * @throws Error where so many cannot be put in, or its supply is none the network knows
 */
export function authorHouse(
  log: readonly Observation[],
  seed: number,
  options: { readonly faults: number; readonly rules?: ReadonlySet<string> | undefined },
): { readonly log: readonly Observation[]; readonly injected: readonly Injected[] } {
  if (options.faults === 0) return { log, injected: [] }
  const random = seeded(seed)
  const site = new Site(houseOf(log))
  const supplyVolts = 120
  const hidden: Hidden = {
    changes: loads(site, random),
    swaps: new Map(),
    contacts: new Map(),
  }
  const readings = (seen: Site, into: Hidden) =>
    readingsOfHouse(new HouseMeters(seen, into, undefined, supplyVolts))
  const usual = new Map(readings(site, hidden).map(f => [`${f.subject} ${f.field}`, f.value]))
  const whole = (seen: readonly Observation[], into: Hidden) => {
    const all = readings(new Site(houseOf(seen)), into)
    const changed = all.filter(f => usual.get(`${f.subject} ${f.field}`) !== f.value)
    return withReadings(seen, changed)
  }
  const ground: Ground = {
    log,
    hidden,
    read: (seen, into) => new Site(houseOf(whole(seen, into))),
    mayBeOpen: true,
  }
  const made = putIn(ground, random, options)
  return { log: whole(made.log, made.hidden), injected: made.injected }
}

function withHidden(hidden: Hidden, draft: Draft): Hidden {
  return {
    changes: [...hidden.changes, ...(draft.changes ?? [])],
    swaps: draft.swap ? new Map([...hidden.swaps, [draft.at, draft.swap]]) : hidden.swaps,
    contacts:
      draft.contact === undefined
        ? hidden.contacts
        : new Map([...hidden.contacts, [draft.at, draft.contact]]),
  }
}

/** What is switched on during the visit: something on most circuits, nothing near its limit. */
export function loads(site: Site, random: Random): PathChange[] {
  return site.all.circuit.flatMap((circuit): PathChange[] => {
    const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
    const rating = valueOf(breaker, 'ratingAmps') ?? 15
    const share = random()
    const amperes = share < 0.2 ? 0 : Math.round(rating * (0.1 + 0.25 * share) * 10) / 10
    return [{ change: 'load', at: circuit.id, amperes }]
  })
}

/** Everything recorded as somebody with these instruments would, with their errors. */
export const recorded = (
  house: SimulatedHouse,
  random: Random,
): { readonly site: Site; readonly log: readonly Observation[] } =>
  wholeSite(house.seen, house.hidden, house.supplyVolts, random)

/** The value of a fact in a site, for whoever is asked for it. */
export function answerOf(site: Site, subject: string, field: string): AnyValue | undefined {
  const fact = factAt(site.house.subjects.get(subject), field)
  return fact?.state === 'known' ? fact.value : undefined
}
