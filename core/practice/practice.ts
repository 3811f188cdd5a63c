/**
 * A round of practice: a house with faults, looks that cost time, covers that cost care, faults called, and what came
 * of it. Everything here is plain: the same house and the same moves give the same debrief.
 */
import { speak, type SpokenResult } from '../assess/assess'
import { evaluate } from '../engine/evaluate'
import { FIELDS, fieldOf, type Kind } from '../model/fields'
import { PREMISES_ID, valueOf, type Subject } from '../model/house'
import type { Severity } from '../engine/severity'
import { Question, Site } from '../derive/site'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { RULES } from '../rules'
import { labelOf } from '../texts/labels'
import { placeOf } from '../views/walk'
import { ACCESS, accessAt, INSTRUMENTS, OPENING_SECONDS, type Access } from '../visit/access'
import { scopeOf } from '../visit/scope'
import { visitOf } from '../visit/visit'
import { bareLog } from '../simulate/inspect'
import { RECIPES, type Injected } from '../simulate/drafts'
import { answerOf } from '../simulate/simulated'

export const DIFFICULTIES = ['first steps', 'ordinary', 'hard'] as const
export type Difficulty = (typeof DIFFICULTIES)[number]
export const THEMES = [
  'anything',
  'grounds and polarity',
  'panels and service',
  'circuits and cable',
] as const
export type Theme = (typeof THEMES)[number]

interface Budget {
  readonly faults: number
  readonly minutes: number
  /** Covers and boxes that may be opened. */
  readonly covers: number
  readonly isSmall: boolean
}
export const BUDGETS: Readonly<Record<Difficulty, Budget>> = {
  'first steps': { faults: 2, minutes: 60, covers: 6, isSmall: true },
  ordinary: { faults: 3, minutes: 90, covers: 6, isSmall: false },
  hard: { faults: 4, minutes: 75, covers: 4, isSmall: false },
}
/** The rules of a theme; undefined for all. */
export function rulesOf(theme: Theme): ReadonlySet<string> | undefined {
  if (theme === 'anything') return undefined
  const families: Readonly<Record<Exclude<Theme, 'anything'>, readonly string[]>> = {
    'grounds and polarity': ['outlets', 'rooms'],
    'panels and service': ['panels', 'service'],
    'circuits and cable': ['circuits', 'conductors'],
  }
  const wanted = new Set(families[theme])
  return new Set(RULES.filter(r => wanted.has(r.family)).map(r => r.id))
}

/** Seconds a hint costs. */
export const HINT_SECONDS = 180
/** What has to be done before something is opened; each counts. */
export const SAFETY: Readonly<Partial<Record<Access, readonly string[]>>> = {
  'cover off': ['Test the cover for voltage', 'Stand to the side, one hand'],
  'device pulled': ['Switch off, lock and tag', 'Prove dead, tester proved before and after'],
  'box opened': ['Switch off, lock and tag', 'Prove dead, tester proved before and after'],
  'attic or crawl space': ['Look for live bare parts before crawling in'],
  'utility side': ['The utility’s: not without them'],
}
const LOOK = 'look'
const PAPERS = 'papers'
const LOOK_SECONDS = 15

/** One thing somebody can do at a thing. */
export interface PracticeAction {
  /** `look`, `papers`, a class of access, or an instrument. */
  readonly id: string
  readonly label: string
  readonly seconds: number
  /** What it opens, where it opens something: once for all that lies behind it. */
  readonly opens: Access | undefined
  readonly opening: { readonly key: string; readonly seconds: number } | undefined
  readonly safety: readonly string[]
  /** Facts it tells. */
  readonly facts: readonly { readonly thing: string; readonly field: string }[]
}
const FURTHEST: readonly Access[] = [
  'utility side',
  'attic or crawl space',
  'box opened',
  'device pulled',
  'cover off',
]
const OPEN_WORDS: Readonly<Partial<Record<Access, string>>> = {
  'cover off': 'Take the cover off',
  'device pulled': 'Pull the device',
  'box opened': 'Open the box',
  'attic or crawl space': 'Crawl in',
  'utility side': 'Have the utility open it',
}

/** What a look at one fact belongs to. */
function actionOf(
  site: Site,
  thing: Subject,
  field: string,
): { id: string; opens: Access | undefined } {
  const access = accessAt(site, thing, field)
  const opens = FURTHEST.find(a => access.classes.includes(a))
  if (access.instrument) return { id: access.instrument, opens: undefined }
  if (opens) return { id: opens, opens }
  return { id: access.classes.includes('record') ? PAPERS : LOOK, opens: undefined }
}
/** Facts that say what hangs on what: known from the start. */
const isPlain = (kind: Kind, name: string): boolean => {
  const type = fieldOf(kind, name)?.type
  return type === 'ref' || type === 'refs' || type === 'text'
}

/** What is looked at together: a breaker with its circuit and conductors, a bar with its screws, else one thing. */
export interface PracticeThing {
  readonly id: string
  readonly label: string
  readonly members: readonly Subject[]
}

/** Everything that can be done at a thing of a house; only what tells something there. */
export function actionsAt(answers: Site, thing: PracticeThing): readonly PracticeAction[] {
  const actions = new Map<
    string,
    { opens: Access | undefined; seconds: number; facts: { thing: string; field: string }[] }
  >()
  for (const member of thing.members)
    for (const field of Object.keys(FIELDS[member.kind])) {
      const isTold = answerOf(answers, member.id, field) !== undefined
      if (!isTold || isPlain(member.kind, field)) continue
      const { id, opens } = actionOf(answers, member, field)
      const { seconds } = accessAt(answers, member, field)
      const action = actions.get(id) ?? { opens, seconds: 0, facts: [] }
      action.facts.push({ thing: member.id, field })
      action.seconds = Math.max(action.seconds, seconds)
      actions.set(id, action)
    }
  const order = [LOOK, PAPERS]
  return [...actions]
    .sort(([a], [b]) => order.indexOf(b) - order.indexOf(a) || (a < b ? -1 : 1))
    .map(([id, { opens, seconds, facts }]) => ({
      id,
      opens,
      facts,
      label: wordsOf(id, opens),
      seconds: id === LOOK ? LOOK_SECONDS : seconds,
      opening: opens && {
        key: `${opens} ${behindOf(answers, thing, opens)}`,
        seconds: OPENING_SECONDS[opens] ?? 0,
      },
      safety: (opens && SAFETY[opens]) ?? [],
    }))
}
/** What one cover, one hatch or one device opens: a panel, a room, the thing itself. */
function behindOf(answers: Site, thing: PracticeThing, opens: Access): string {
  const [head] = thing.members
  if (!head || opens === 'device pulled' || opens === 'box opened') return thing.id
  return placeOf(answers, head).id
}
function wordsOf(id: string, opens: Access | undefined): string {
  if (id === LOOK) return 'Look'
  if (id === PAPERS) return 'Ask, read papers'
  return opens ? (OPEN_WORDS[opens] ?? id) : `Use the ${id}`
}

/** A place to go to, with what stands there. */
export interface PracticePlace {
  readonly id: string
  readonly label: string
  readonly things: readonly PracticeThing[]
}
const LOOKED_AT: readonly Kind[] = [
  'premises',
  'building',
  'enclosure',
  'bar',
  'screw',
  'breaker',
  'feeder',
  'electrode',
  'bond',
  'room',
  'circuit',
  'segment',
  'outlet',
]
/** What a thing is looked at with: the breaker of a circuit, the circuit of conductors, the bar of a screw. */
function headOf(site: Site, thing: Subject): Subject {
  if (thing.kind === 'segment') {
    const circuit = site.get(thing.parent ?? undefined, 'circuit')
    return circuit ? headOf(site, circuit) : thing
  }
  if (thing.kind === 'circuit') return site.get(valueOf(thing, 'fedBy'), 'breaker') ?? thing
  if (thing.kind === 'screw') return site.get(thing.parent ?? undefined, 'bar') ?? thing
  return thing
}
/** The places of a house, in the order somebody walks. */
export function placesOf(answers: Site): readonly PracticePlace[] {
  const members = new Map<Subject, Subject[]>()
  for (const kind of LOOKED_AT)
    for (const thing of answers.all[kind] as readonly Subject[]) {
      const head = headOf(answers, thing)
      members.set(head, [...(members.get(head) ?? []), thing])
    }
  const places = new Map<string, { label: string; things: PracticeThing[] }>()
  for (const [head, all] of members) {
    const thing = { id: head.id, label: labelOf(answers, head), members: all }
    if (actionsAt(answers, thing).length === 0) continue
    const at = placeOf(answers, head)
    const place = places.get(at.id) ?? { label: labelOf(answers, at), things: [] }
    place.things.push(thing)
    places.set(at.id, place)
  }
  return [...places].map(([id, place]) => ({ id, ...place }))
}
const THINGS = new Question<ReadonlyMap<string, PracticeThing>>()
const thingsOf = (answers: Site): ReadonlyMap<string, PracticeThing> => {
  const kept = answers.kept(THINGS)
  let things = kept.get('all')
  if (!things) {
    things = new Map(placesOf(answers).flatMap(p => p.things.map(t => [t.id, t] as const)))
    kept.set('all', things)
  }
  return things
}

/** A fault somebody says is there. */
export interface Call {
  readonly rule: string
  readonly subject: string
  readonly severity: Severity
  readonly remedy: string | undefined
}
/** What was done in a round. */
export interface Round {
  readonly done: readonly {
    readonly thing: string
    readonly action: string
    readonly skipped: number
  }[]
  readonly seconds: number
  /** What has been opened, and stays open. */
  readonly opened: readonly string[]
  readonly hints: number
  readonly calls: readonly Call[]
}
export const NEW_ROUND: Round = { done: [], seconds: 0, opened: [], hints: 0, calls: [] }

/** The round after one more action; the same action twice is taken once. */
export function act(
  round: Round,
  thing: string,
  action: PracticeAction,
  safetyDone: number,
): Round {
  if (round.done.some(d => d.thing === thing && d.action === action.id)) return round
  const opens = isShut(round, action) ? action.opening : undefined
  const skipped = opens ? Math.max(0, action.safety.length - safetyDone) : 0
  return {
    ...round,
    done: [...round.done, { thing, action: action.id, skipped }],
    seconds: round.seconds + costOf(round, action),
    opened: opens ? [...round.opened, opens.key] : round.opened,
  }
}
/** Whether an action has to open something that is shut yet. */
export const isShut = (round: Round, { opening }: PracticeAction): boolean =>
  opening !== undefined && !round.opened.includes(opening.key)
/** Seconds an action takes now: opening included, where it is shut yet. */
export const costOf = (round: Round, action: PracticeAction): number =>
  action.seconds + (isShut(round, action) ? (action.opening?.seconds ?? 0) : 0)
/** Facts told so far, as `thing field`. */
export function known(answers: Site, round: Round): ReadonlySet<string> {
  const facts = new Set<string>()
  for (const { thing, action } of round.done) {
    const there = thingsOf(answers).get(thing)
    if (!there) continue
    for (const fact of actionsAt(answers, there).find(a => a.id === action)?.facts ?? [])
      facts.add(`${fact.thing} ${fact.field}`)
  }
  return facts
}
/** The house as far as somebody has looked. */
export function knownSite(log: readonly Observation[], answers: Site, round: Round): Site {
  const facts = known(answers, round)
  const bare = new Set(bareLog(log))
  const told = log.filter(
    o => bare.has(o) || (o.act === 'note' && facts.has(`${o.subject} ${o.field}`)),
  )
  return new Site(new Ledger(told).house)
}
/** The look worth most now, for whoever asks: where, and what to look at. */
export function hintFor(
  log: readonly Observation[],
  answers: Site,
  round: Round,
): { readonly thing: string; readonly label: string; readonly look: string } | undefined {
  const site = knownSite(log, answers, round)
  const results = evaluate(site, RULES)
    .filter(r => r.outcome === 'undecided' || r.outcome === 'fault')
    .map(r => speak(r, site))
  const scope = scopeOf({
    access: [...ACCESS],
    instruments: [...INSTRUMENTS],
    sample: 'every outlet',
    purpose: 'remodel',
  })
  const facts = known(answers, round)
  const { stops } = visitOf(site, results, scope)
  const [best] = stops
    .flatMap(s => s.questions)
    .filter(q => !q.isThing)
    .sort((a, b) => b.worth - a.worth)
    .flatMap(q =>
      q.things
        .filter(
          t => !facts.has(`${t.id} ${q.field}`) && answerOf(answers, t.id, q.field) !== undefined,
        )
        .map(t => ({ thing: t.id, label: t.label, look: q.look })),
    )
  return best
}

/** What somebody can call at a thing: the rules for its kinds, by the words of their fault. */
export const callsFor = (
  answers: Site,
  thing: PracticeThing,
): readonly { readonly rule: string; readonly subject: string; readonly fault: string }[] =>
  thing.members
    .flatMap(member => {
      const alike = thing.members.filter(m => m.kind === member.kind).length
      const which = alike > 1 ? ` (${labelOf(answers, member)})` : ''
      return RULES.filter(r => r.subject === member.kind).map(r => ({
        rule: r.id,
        subject: member.id,
        fault: `${r.fault}${which}`,
      }))
    })
    .sort((a, b) => (a.fault < b.fault ? -1 : 1))

/** What is wrong in a house, and what follows from it. */
export interface Key {
  /** What has to be found. */
  readonly wanted: readonly Injected[]
  readonly results: readonly SpokenResult[]
}
/** The key of a house with faults put in, or of any recorded one: there all its faults are wanted. */
export function keyOf(answers: Site, injected: readonly Injected[] | undefined): Key {
  const results = evaluate(answers, RULES)
    .filter(r => r.outcome === 'fault' || r.outcome === 'allowed')
    .map(r => speak(r, answers))
  return {
    results,
    wanted:
      injected ??
      results
        .filter(r => r.outcome === 'fault')
        .map(r => ({
          rule: r.rule,
          subject: r.subject.id,
          what: `${r.subject.label}: ${r.why}`,
          kind: 'to be seen' as const,
        })),
  }
}

export interface DebriefLine {
  readonly rule: string
  readonly subject: string
  readonly label: string
  readonly what: string
  /** Why it is one, by the facts. */
  readonly why: string
  readonly working: readonly string[]
  readonly severity: { readonly called: Severity | undefined; readonly is: Severity | null }
  readonly remedy: {
    readonly called: string | undefined
    readonly isGood: boolean
    readonly good: readonly string[]
  }
}
export interface Step {
  readonly thing: string
  readonly label: string
  readonly action: string
  readonly words: string
  readonly seconds: number
  /** Whether it was done in the round too. */
  readonly isDone: boolean
}
export interface Debrief {
  readonly found: readonly DebriefLine[]
  readonly missed: readonly DebriefLine[]
  /** True, though nobody put it in: it follows from something that was. */
  readonly besides: readonly DebriefLine[]
  readonly invented: readonly {
    readonly rule: string
    readonly label: string
    readonly fault: string
  }[]
  readonly skipped: number
  /** The fewest looks that tell all of it, in the order of the walk. */
  readonly shortest: readonly Step[]
  readonly shortestSeconds: number
  /** What was done in the round, in its order. */
  readonly yours: readonly Step[]
  readonly seconds: number
  /** 0 to 100. */
  readonly score: number
}

const PER_INVENTED = 15
const PER_SKIPPED = 5
const PER_HINT = 5
const PER_SEVERITY = 3
const PER_REMEDY = 3

/** What came of a round. */
export function debrief(answers: Site, key: Key, round: Round): Debrief {
  const byKey = new Map(key.results.map(r => [`${r.rule} ${r.subject.id}`, r]))
  const callOf = (rule: string, subject: string) =>
    round.calls.find(c => c.rule === rule && c.subject === subject)
  const line = (r: SpokenResult, what: string, call: Call | undefined): DebriefLine => {
    const good = r.remedies.filter(x => x.verdict !== 'refused')
    return {
      rule: r.rule,
      subject: r.subject.id,
      label: r.subject.label,
      what,
      why: r.why,
      working: r.working,
      severity: { called: call?.severity, is: r.severity },
      remedy: {
        called: call?.remedy,
        isGood: call?.remedy !== undefined && good.some(x => x.id === call.remedy),
        good: good.map(x => x.title),
      },
    }
  }
  const lines = key.wanted.flatMap(w => {
    const result = byKey.get(`${w.rule} ${w.subject}`)
    return result ? [{ w, result, call: callOf(w.rule, w.subject) }] : []
  })
  const found = lines.filter(l => l.call).map(l => line(l.result, l.w.what, l.call))
  const missed = lines.filter(l => !l.call).map(l => line(l.result, l.w.what, undefined))
  const wanted = new Set(lines.map(l => `${l.w.rule} ${l.w.subject}`))
  const others = round.calls.filter(c => !wanted.has(`${c.rule} ${c.subject}`))
  const besides = others.flatMap(c => {
    const result = byKey.get(`${c.rule} ${c.subject}`)
    return result ? [line(result, result.why, c)] : []
  })
  const invented = others
    .filter(c => !byKey.has(`${c.rule} ${c.subject}`))
    .map(c => {
      const thing = answers.house.subjects.get(c.subject)
      const rule = RULES.find(r => r.id === c.rule)
      return {
        rule: c.rule,
        label: thing ? labelOf(answers, thing) : c.subject,
        fault: rule?.fault ?? c.rule,
      }
    })
  const skipped = round.done.reduce((n, d) => n + d.skipped, 0)
  const shortest = shortestLooks(
    answers,
    lines.map(l => l.result),
    round,
  )
  const misjudged = found.filter(l => l.severity.called !== l.severity.is).length
  const wrongRemedies = found.filter(l => l.remedy.good.length > 0 && !l.remedy.isGood).length
  const share = lines.length === 0 ? 1 : found.length / lines.length
  const score =
    100 * share -
    PER_INVENTED * invented.length -
    PER_SKIPPED * skipped -
    PER_HINT * round.hints -
    PER_SEVERITY * misjudged -
    PER_REMEDY * wrongRemedies
  return {
    found,
    missed,
    besides,
    invented,
    skipped,
    shortest,
    shortestSeconds: shortest.reduce((n, s) => n + s.seconds, 0),
    yours: yoursOf(answers, round, shortest),
    seconds: round.seconds,
    score: Math.max(0, Math.min(100, Math.round(score))),
  }
}

/** What was done, look by look; `isDone` says whether the shortest inspection takes it too. */
function yoursOf(answers: Site, round: Round, shortest: readonly Step[]): readonly Step[] {
  let replayed = NEW_ROUND
  return round.done.flatMap(d => {
    const thing = thingsOf(answers).get(d.thing)
    const action = thing && actionsAt(answers, thing).find(a => a.id === d.action)
    if (!thing || !action) return []
    const seconds = costOf(replayed, action)
    replayed = act(replayed, d.thing, action, action.safety.length)
    return {
      thing: d.thing,
      label: thing.label,
      action: d.action,
      words: action.label,
      seconds,
      isDone: shortest.some(s => s.thing === d.thing && s.action === d.action),
    }
  })
}

/** The looks by whose facts all of these are judged, in the order of the walk. */
function shortestLooks(
  answers: Site,
  results: readonly SpokenResult[],
  round: Round,
): readonly Step[] {
  const wanted = new Map<string, Set<string>>()
  for (const r of results)
    for (const e of r.evidence) {
      const thing = answers.house.subjects.get(e.subject)
      if (!thing || isPlain(thing.kind, e.field)) continue
      const { id } = actionOf(answers, thing, e.field)
      const actions = wanted.get(thing.id) ?? new Set()
      actions.add(id)
      wanted.set(thing.id, actions)
    }
  let shortest = NEW_ROUND
  return [...thingsOf(answers).values()].flatMap(thing => {
    const ids = new Set(thing.members.flatMap(m => [...(wanted.get(m.id) ?? [])]))
    return actionsAt(answers, thing)
      .filter(a => ids.has(a.id))
      .map(a => {
        const seconds = costOf(shortest, a)
        shortest = act(shortest, thing.id, a, a.safety.length)
        return {
          thing: thing.id,
          label: thing.label,
          action: a.id,
          words: a.label,
          seconds,
          isDone: round.done.some(d => d.thing === thing.id && d.action === a.id),
        }
      })
  })
}

/** How many different faults practice knows, for the first screen. */
export const practiceFaults = (): number => new Set(RECIPES.map(r => r.rule)).size
/** What stands for the property as a whole. */
export const WHOLE = PREMISES_ID
