/**
 * Houses with faults put in, and what somebody with eyes and instruments finds there. A sound house is drawn, faults
 * are put in one by one, each where it can show; then everything electrical is read from the network, not written down.
 */
import { evaluate, type Result } from '../engine/evaluate'
import { readJob } from '../file/read'
import { Ledger } from '../model/ledger'
import { fieldOf, type AnyValue, type Kind } from '../model/fields'
import { factAt, valueOf, type House, type Subject } from '../model/house'
import type { Observation, RawObservation } from '../model/observation'
import { Site } from '../derive/site'
import type { PathChange } from '../paths/changes'
import { RULES } from '../rules'
import { labelOf } from '../texts/labels'
import { accessOf } from '../visit/access'
import { HouseMeters, type Hidden, type Swap } from './meters'
import { pick, seeded, type Random } from './random'
import type { Recipe } from './recipe'
import { RECIPE_ROWS } from './recipes'
import { soundHouse, type SoundOptions } from './sound-house'

export const RECIPES: readonly Recipe[] = RECIPE_ROWS.map(([rule, kind, like, field, value]) => ({
  rule,
  kind,
  like,
  field,
  value,
}))
export const HIDDEN_KINDS = [
  'ground not connected',
  'ground broken in the run',
  'jumper from neutral to ground',
  'hot and neutral reversed',
  'hot and ground reversed',
  'neutral broken',
  'hot broken',
  'bad joint',
  'poor ground',
  'bad contact at a breaker',
  'service neutral failing',
  'main bonding jumper missing',
] as const
export type HiddenKind = (typeof HIDDEN_KINDS)[number]

/** One fault that was put in. */
export interface Injected {
  readonly rule: string
  readonly subject: string
  /** What was done, in plain words. */
  readonly what: string
  readonly kind: HiddenKind | 'to be seen'
}
interface FactChange {
  readonly subject: string
  readonly field: string
  readonly value: AnyValue
}
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
export interface SimulateOptions extends SoundOptions {
  readonly faults: number
  /** Only faults of these rules. */
  readonly rules?: ReadonlySet<string>
  /** Only what instruments find, of these kinds. */
  readonly kinds?: readonly HiddenKind[]
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

/** What a thing has in common with others that the same fault can befall. */
export function likeness(site: Site, thing: Subject): string {
  switch (thing.kind) {
    case 'outlet':
      return [
        valueOf(thing, 'type'),
        valueOf(thing, 'slots'),
        valueOf(site.roomOf(thing), 'use'),
        valueOf(thing, 'appliance'),
        valueOf(thing, 'ground'),
      ].join('|')
    case 'circuit':
      return [valueOf(thing, 'supplies'), valueOf(thing, 'requiredUse')].join('|')
    case 'segment': {
      const circuit = site.get(thing.parent ?? undefined, 'circuit')
      return [
        valueOf(circuit, 'supplies'),
        valueOf(thing, 'size'),
        valueOf(thing, 'wiring'),
        valueOf(thing, 'conductors'),
      ].join('|')
    }
    case 'breaker':
      return [
        valueOf(thing, 'poles'),
        valueOf(thing, 'protection'),
        valueOf(thing, 'role'),
        valueOf(thing, 'handleTie'),
        ...(isOnAluminum(site, thing) ? ['aluminum'] : []),
      ].join('|')
    case 'enclosure':
      return [valueOf(thing, 'type'), valueOf(thing, 'marking')].join('|')
    case 'bar':
      return [valueOf(thing, 'role'), valueOf(thing, 'isTiedToNeutral')].join('|')
    case 'screw':
      return String(valueOf(thing, 'neutrals'))
    case 'room':
      return String(valueOf(thing, 'use'))
    case 'electrode':
      return String(valueOf(thing, 'type'))
    case 'bond':
      return String(valueOf(thing, 'to'))
    default:
      return thing.kind
  }
}

const isOnAluminum = (site: Site, breaker: Subject<'breaker'>): boolean =>
  site
    .circuitsOf(breaker)
    .some(c => site.children(c, 'segment').some(s => valueOf(s, 'metal') === 'aluminum'))

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
const houseOf = (log: readonly RawObservation[]): House => new Ledger(log).house

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

/** What is put in and where, before it is known to show. */
interface Draft {
  readonly rule: string
  readonly what: string
  readonly kind: Injected['kind']
  readonly at: string
  readonly facts: readonly FactChange[]
  readonly changes?: readonly PathChange[]
  readonly swap?: Swap
  readonly contact?: number
}

/**
 * A house with faults put in. Each is kept only where, everything known, it shows, and hides none put in before it.
 * @throws Error where so many cannot be put in
 */
export function simulateHouse(seed: number, options: SimulateOptions): SimulatedHouse {
  const random = seeded(seed)
  const sound = soundLog(random, options)
  const supplyVolts = 118 + Math.round(random() * 60) / 10
  const site = new Site(houseOf(sound))
  let hidden: Hidden = {
    changes: loads(site, random),
    swaps: new Map(),
    contacts: new Map(),
  }
  let log: readonly Observation[] = sound
  const injected: Injected[] = []
  let { site: truth } = wholeSite(log, hidden, supplyVolts)
  let faults = faultsOf(evaluate(truth, RULES))
  const taken = new Set<string>()
  for (let tries = 0; injected.length < options.faults; tries++) {
    if (tries > 60 * (options.faults + 1))
      throw new Error(`could not put ${options.faults} faults into house ${seed}`)
    const draft = draw(site, random, options)
    if (!draft || taken.has(draft.at)) continue
    // A failing service neutral moves every volt of the house: nothing else is measured beside it.
    const kinds = [draft.kind, ...injected.map(i => i.kind)].filter(k => k !== 'to be seen')
    if (kinds.length > 1 && kinds.includes('service neutral failing')) continue
    const nextLog = withFacts(log, draft.facts)
    const nextHidden = withHidden(hidden, draft)
    let next: Site
    try {
      next = wholeSite(nextLog, nextHidden, supplyVolts).site
    } catch {
      continue
    }
    const results = evaluate(next, RULES)
    if (results.some(r => isOpen(next, r))) continue
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
  return { seed, seen: log, hidden, supplyVolts, injected, truth, faults }
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
function loads(site: Site, random: Random): PathChange[] {
  return site.all.circuit.flatMap((circuit): PathChange[] => {
    const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
    const rating = valueOf(breaker, 'ratingAmps') ?? 15
    const share = random()
    const amperes = share < 0.2 ? 0 : Math.round(rating * (0.1 + 0.25 * share) * 10) / 10
    return [{ change: 'load', at: circuit.id, amperes }]
  })
}

function draw(site: Site, random: Random, { rules, kinds }: SimulateOptions): Draft | undefined {
  if (kinds) return drawHidden(site, random, pick(random, kinds))
  const recipes = rules ? RECIPES.filter(r => rules.has(r.rule)) : RECIPES
  const isHidden = random() < 0.35 || recipes.length === 0
  if (isHidden) {
    const draft = drawHidden(site, random, pick(random, HIDDEN_KINDS))
    return draft && (!rules || rules.has(draft.rule)) ? draft : undefined
  }
  // A rule first, then one of its ways, so that rules with many are not met more often.
  const names = [...new Set(recipes.map(r => r.rule))]
  const rule = pick(random, names)
  const recipe = pick(
    random,
    recipes.filter(r => r.rule === rule),
  )
  const things = site.all[recipe.kind] as readonly Subject[]
  const alike = things.filter(t => likeness(site, t) === recipe.like)
  if (alike.length === 0) return undefined
  const thing = pick(random, alike)
  const label = fieldOf(recipe.kind, recipe.field)?.label ?? recipe.field
  const value = typeof recipe.value === 'boolean' ? (recipe.value ? 'yes' : 'no') : recipe.value
  return {
    rule,
    at: thing.id,
    kind: 'to be seen',
    what: `${labelOf(site, thing)}: ${label} ${value}`,
    facts: [{ subject: thing.id, field: recipe.field, value: recipe.value }],
  }
}

function drawHidden(site: Site, random: Random, kind: HiddenKind): Draft | undefined {
  const faces = site.all.outlet.filter(
    o => valueOf(o, 'type') === 'receptacle' && valueOf(o, 'slots') === 'three',
  )
  if (faces.length === 0) return undefined
  const face = pick(random, faces)
  const at = face.id
  const name = labelOf(site, face)
  const fact = (field: string, value: AnyValue): FactChange => ({ subject: at, field, value })
  const draft = (rule: string, more: Partial<Draft>): Draft => ({
    rule,
    at,
    kind,
    what: `${name}: ${kind}`,
    facts: [],
    ...more,
  })
  switch (kind) {
    case 'ground not connected':
      return draft('open-ground-three-slot', { facts: [fact('ground', 'present, not connected')] })
    case 'ground broken in the run':
      return draft('open-ground-three-slot', {
        changes: [{ change: 'open', part: `ground ${at}` }],
      })
    case 'jumper from neutral to ground':
      return draft('bootleg-ground', {
        facts: [fact('ground', 'present, not connected'), fact('hasNeutralGroundJumper', true)],
      })
    case 'hot and neutral reversed':
      return draft('miswire', { swap: 'reversed' })
    case 'hot and ground reversed':
      return draft('miswire', { swap: 'hot and ground' })
    case 'neutral broken':
      return draft('miswire', { changes: [{ change: 'open', part: `neutral ${at}` }] })
    case 'hot broken':
      return draft('miswire', { changes: [{ change: 'open', part: `hot ${at}` }] })
    case 'bad joint': {
      const part = random() < 0.5 ? `hot ${at}` : `neutral ${at}`
      return draft('voltage-drop', {
        changes: [{ change: 'joint', part, ohms: 0.6 + random() * 0.8 }],
      })
    }
    case 'poor ground':
      return draft('open-ground-three-slot', {
        changes: [{ change: 'joint', part: `ground ${at}`, ohms: 8 + random() * 60 }],
      })
    case 'bad contact at a breaker': {
      const circuit = site.get(valueOf(face, 'circuit'), 'circuit')
      const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
      if (!circuit || !breaker) return undefined
      return draft('breaker-hot', {
        at: breaker.id,
        what: `${labelOf(site, breaker)}: ${kind}`,
        contact: 0.15 + random() * 0.2,
        changes: [{ change: 'load', at: circuit.id, amperes: 7 + Math.round(random() * 30) / 10 }],
      })
    }
    case 'main bonding jumper missing': {
      const service = site.all.enclosure.find(e => valueOf(e, 'marking') === 'service disconnect')
      if (!service) return undefined
      const bars = site.children(service, 'bar')
      return draft('main-bond-missing', {
        at: service.id,
        what: `${labelOf(site, service)}: ${kind}`,
        facts: [
          { subject: service.id, field: 'bondMeans', value: 'none' },
          ...bars.map(bar =>
            valueOf(bar, 'role') === 'neutral'
              ? { subject: bar.id, field: 'isBondedToEnclosure', value: false }
              : { subject: bar.id, field: 'isTiedToNeutral', value: false },
          ),
        ],
      })
    }
    case 'service neutral failing': {
      const meter = site.all.enclosure.find(e => valueOf(e, 'fedFrom') === 'utility')
      if (!meter) return undefined
      return draft('service-neutral', {
        at: meter.id,
        what: `${labelOf(site, meter)}: ${kind}`,
        changes: [{ change: 'joint', part: `service ${meter.id} N`, ohms: 0.6 + random() * 3 }],
      })
    }
  }
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
