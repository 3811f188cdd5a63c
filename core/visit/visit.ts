import type { SpokenResult } from '../assess/assess'
import { worstOf } from '../engine/rule'
import { STAGES, type Kind, type Stage } from '../model/fields'
import { factAt, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { ruleById } from '../rules'
import { labelOf, type Look } from '../texts/labels'
import { placeOf, STAGE_CAUTIONS } from '../views/walk'
import { accessAt, OPENING_SECONDS, type Access, type LookAccess } from './access'
import { classOf, limitationText, type Limitation } from './limitations'
import { attestSays, ONCE, ordinaryAt } from './ordinary'
import { presumedAt, type Presumption } from './presumed'
import { Covering, type Outside, type Scope } from './scope'

/** A question at a stop: one look, at one thing or at many alike. */
export interface Question {
  readonly kind: Kind
  readonly field: string
  /** What is asked for, in a few words. */
  readonly fact: string
  readonly look: string
  readonly with: string | undefined
  readonly access: readonly Access[]
  readonly things: readonly { readonly id: string; readonly label: string }[]
  /** Checks it answers, by rule id. */
  readonly answers: readonly string[]
  /** Judgments it bears on. */
  readonly judgments: number
  readonly danger: number
  /** Where a judgment leans on it: what is found unless it says otherwise. */
  readonly leans: boolean
  /** The fact is known, and what is missing is the thing itself: it is recorded, not answered. */
  readonly isThing: boolean
  /** Seconds for all its things. */
  readonly seconds: number
  /** Danger times likelihood times judgments, by second: what is asked first. */
  readonly worth: number
}
/** What one person attests for a whole place: nothing out of the ordinary but what was recorded. */
export interface Attestation {
  /** What is attested, read before it is said: one clause for each kind of fact that is written. */
  readonly says: readonly string[]
  /** What is written, for each thing and field. */
  readonly writes: readonly {
    readonly thing: string
    readonly field: string
    readonly value: string | number | boolean
  }[]
  readonly answers: readonly string[]
  readonly judgments: number
  readonly seconds: number
}
export interface VisitStop {
  readonly stage: Stage
  readonly place: { readonly id: string; readonly label: string }
  readonly cautions: readonly string[]
  readonly instruments: readonly string[]
  readonly attestation: Attestation | undefined
  readonly questions: readonly Question[]
  /** Answers to give here: one for the attestation, one for each question. */
  readonly answers: number
  readonly seconds: number
}
export interface VisitCounts {
  /** Judgments that are not "not applicable". */
  readonly total: number
  readonly settled: number
  /** Undecided, and a look of this visit could settle them. */
  readonly inScope: number
  /** Undecided, and left so by this visit: said in the limitations. */
  readonly outside: number
}
export interface Visit {
  readonly scope: Scope
  readonly counts: VisitCounts
  readonly stops: readonly VisitStop[]
  readonly limitations: readonly Limitation[]
  /** Facts somebody tried to see and could not. */
  readonly notSeen: readonly {
    readonly thing: string
    readonly label: string
    readonly fact: string
    readonly reason: string
  }[]
  readonly answers: number
  readonly seconds: number
  /** Whether a judgment is open within the scope, by `rule subject`. */
  readonly open: ReadonlySet<string>
  /** Why each judgment left open lies outside, by `rule subject`: the class of its limitation. */
  readonly outside: ReadonlyMap<string, string>
}

interface Item {
  readonly look: Look
  readonly rules: Set<string>
  readonly judged: Set<string>
  danger: number
  worth: number
  leans: boolean
}
interface Left {
  readonly name: string
  readonly presumption: Presumption | undefined
  readonly things: Set<string>
  judgments: number
  readonly topics: Map<string, number>
}

/** Old houses have more of what the looks are for. */
const OLD_BEFORE = 1980
const LIKELY = { leans: 3, sibling: 2, old: 1.5 } as const

/**
 * The visit: what is asked within its scope, stop by stop, the most worth first; what lies outside, said once for each
 * class; and the judgments counted as settled, open in scope, or outside.
 */
export function visitOf(site: Site, results: readonly SpokenResult[], scope: Scope): Visit {
  const covering = new Covering(site, scope)
  const items = new Map<string, Item>()
  const left = new Map<string, Left>()
  const open = new Set<string>()
  const outside = new Map<string, string>()
  const notSeen: Visit['notSeen'][number][] = []
  const reasons = new Set<string>()
  const faulty = new Set(results.filter(r => r.outcome === 'fault').map(r => r.rule))
  const isOld = site.yearsOf(site.premises).from < OLD_BEFORE
  let settled = 0
  let total = 0

  for (const result of results) {
    if (result.outcome === 'n/a') continue
    total++
    if (result.outcome !== 'undecided') {
      settled++
      continue
    }
    const key = `${result.rule} ${result.subject.id}`
    let why: Outside | Presumption | { by: 'not seen' } | undefined
    let isOpen = false
    for (const look of looksFor(result)) {
      const thing = site.house.subjects.get(look.subject)
      if (!thing) continue
      if (look.state === 'blocked') {
        why ??= { by: 'not seen' }
        tell(look)
        continue
      }
      const excuse =
        presumedAt(site, thing, look.field, scope) ?? covering.outside(thing, look.field)
      if (excuse) {
        why ??= excuse
        continue
      }
      isOpen = true
      add(look, result)
    }
    if (isOpen) {
      open.add(key)
      continue
    }
    const own = site.house.subjects.get(result.subject.id)
    // A judgment that names no look is open on something nobody can be sent for.
    const name = classOf(why ?? { by: 'not seen' })
    outside.set(key, name)
    leave(name, why && 'id' in why ? why : undefined, own?.id ?? '', result)
  }

  const stops = stopsOf()
  return {
    scope,
    counts: { total, settled, inScope: open.size, outside: outside.size },
    stops,
    limitations: [...left.values()]
      .sort((a, b) => b.judgments - a.judgments)
      .map(l => {
        const topics = [...l.topics].sort((a, b) => b[1] - a[1]).map(([t]) => t)
        return {
          class: l.name,
          text: limitationText(l.name, l.presumption, l.things.size, topics),
          things: l.things.size,
          judgments: l.judgments,
          topics,
        }
      }),
    notSeen,
    answers: stops.reduce((n, s) => n + s.answers, 0),
    seconds: stops.reduce((n, s) => n + s.seconds, 0),
    open,
    outside,
  }

  /** The looks of a judgment: the one it leans on first, and no other while that one is open. */
  function looksFor(result: SpokenResult): readonly Look[] {
    const { leans, missing } = result
    return leans && !missing.some(m => same(m, leans.ask)) ? [leans.ask, ...missing] : missing
  }

  function tell(look: Look): void {
    const key = `${look.subject} ${look.field}`
    if (reasons.has(key)) return
    reasons.add(key)
    notSeen.push({
      thing: look.subject,
      label: look.label,
      fact: look.fact,
      reason: look.reason ?? '',
    })
  }

  function leave(
    name: string,
    presumption: Presumption | undefined,
    thing: string,
    result: SpokenResult,
  ): void {
    let entry = left.get(name)
    if (!entry)
      left.set(
        name,
        (entry = { name, presumption, things: new Set(), judgments: 0, topics: new Map() }),
      )
    entry.things.add(thing)
    entry.judgments++
    const topic = topicOf(result.rule)
    entry.topics.set(topic, (entry.topics.get(topic) ?? 0) + 1)
  }

  function add(look: Look, result: SpokenResult): void {
    const key = `${look.subject} ${look.field}`
    let item = items.get(key)
    if (!item)
      items.set(
        key,
        (item = { look, rules: new Set(), judged: new Set(), danger: 0, worth: 0, leans: false }),
      )
    const rule = ruleById(result.rule)
    const danger = rule ? worstOf(rule) : 1
    const leans = result.leans !== undefined && same(look, result.leans.ask)
    item.rules.add(result.rule)
    item.judged.add(`${result.rule} ${result.subject.id}`)
    item.danger = Math.max(item.danger, danger)
    if (leans) item.leans = true
    item.worth +=
      danger *
      (leans ? LIKELY.leans : 1) *
      (faulty.has(result.rule) ? LIKELY.sibling : 1) *
      (isOld ? LIKELY.old : 1)
  }

  function stopsOf(): VisitStop[] {
    const order = new Map([...site.house.subjects.keys()].map((id, i) => [id, i]))
    const places = new Map<string, { stage: Stage; place: string; items: Item[] }>()
    for (const item of items.values()) {
      const subject = thingOf(item)
      const isOnce = ONCE.has(`${item.look.kind}.${item.look.field}`)
      const place = isOnce ? site.premises : placeOf(site, subject, item.look.stage)
      const key = `${item.look.stage} ${place.id}`
      const stop = places.get(key)
      if (stop) stop.items.push(item)
      else places.set(key, { stage: item.look.stage, place: place.id, items: [item] })
    }
    return [...places.values()]
      .sort(
        (a, b) =>
          STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage) ||
          (order.get(a.place) ?? 0) - (order.get(b.place) ?? 0),
      )
      .map(({ stage, place, items: here }) => {
        const subject = site.house.subjects.get(place) ?? site.premises
        const attested = here.filter(i => ordinaryAt(site, thingOf(i), i.look.field) !== undefined)
        // The faces are told apart first: what is ordinary of a plain one is not of a dryer's.
        const areFacesOpen = here.some(i => i.look.kind === 'outlet' && i.look.field === 'slots')
        const attestation = attested.length > 0 && !areFacesOpen ? attest(attested) : undefined
        const questions = questionsOf(here.filter(i => !attested.includes(i)))
        const opened = new Set(here.flatMap(i => accessOf(i).classes))
        return {
          stage,
          place: {
            id: place,
            label: place === site.premises.id ? 'The property' : labelOf(site, subject),
          },
          cautions: STAGE_CAUTIONS[stage],
          instruments: [...new Set(here.flatMap(i => i.look.with ?? []))],
          attestation,
          questions,
          answers: questions.length + (attestation ? 1 : 0),
          seconds:
            [...opened].reduce((n, c) => n + (OPENING_SECONDS[c] ?? 0), 0) +
            questions.reduce((n, q) => n + q.seconds, 0) +
            (attestation?.seconds ?? 0),
        }
      })
  }

  function thingOf(item: Item): Subject {
    return site.house.subjects.get(item.look.subject) ?? site.premises
  }

  function accessOf(item: Item): LookAccess {
    return accessAt(site, thingOf(item), item.look.field)
  }

  function attest(here: readonly Item[]): Attestation {
    return {
      says: [...new Set(here.map(i => attestSays(i.look.kind, i.look.field)))],
      writes: here.map(i => ({
        thing: i.look.subject,
        field: i.look.field,
        value: ordinaryAt(site, thingOf(i), i.look.field) ?? '',
      })),
      answers: [...new Set(here.flatMap(i => [...i.rules]))],
      judgments: new Set(here.flatMap(i => [...i.judged])).size,
      // One glance takes in all that is ordinary about a thing.
      seconds: GLANCE_SECONDS * new Set(here.map(i => i.look.subject)).size,
    }
  }

  function questionsOf(here: readonly Item[]): Question[] {
    const groups = new Map<string, Item[]>()
    for (const item of here) {
      const key = `${item.look.kind} ${item.look.field}`
      const group = groups.get(key)
      if (group) group.push(item)
      else groups.set(key, [item])
    }
    return [...groups.values()]
      .map((group): Question => {
        const [{ look }] = group as [Item, ...Item[]]
        const seconds = group.reduce((n, i) => n + accessOf(i).seconds, 0)
        const worth = group.reduce((n, i) => n + i.worth, 0)
        return {
          kind: look.kind,
          field: look.field,
          fact: look.fact,
          look: look.look,
          with: look.with,
          access: [...new Set(group.flatMap(i => accessOf(i).classes))],
          things: group.map(i => ({ id: i.look.subject, label: i.look.label })),
          answers: [...new Set(group.flatMap(i => [...i.rules]))],
          judgments: new Set(group.flatMap(i => [...i.judged])).size,
          danger: Math.max(...group.map(i => i.danger)),
          leans: group.some(i => i.leans),
          isThing: group.every(i => factAt(thingOf(i), i.look.field)?.state === 'known'),
          seconds,
          worth: Math.round((100 * worth) / seconds) / 100,
        }
      })
      .sort((a, b) => b.worth - a.worth || b.danger - a.danger)
  }
}

/** Seconds to take in one thing by eye. */
const GLANCE_SECONDS = 3

const same = (a: Look, b: Look): boolean => a.subject === b.subject && a.field === b.field

/** What a check is about, for a list of what was not judged. */
function topicOf(rule: string): string {
  const title = ruleById(rule)?.fault ?? rule
  return title.charAt(0).toLowerCase() + title.slice(1)
}
