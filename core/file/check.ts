import { readClock, EARLIEST_MS, LATEST_MS } from '../model/clock'
import { fieldOf, FIELDS, PARENTS, type Kind } from '../model/fields'
import type { House, Subject } from '../model/house'
import { factsOf, valueOf } from '../model/house'
import type { Ledger } from '../model/ledger'
import { byClock, type Noted, type Observation } from '../model/observation'
import { expects, valueSchema } from '../model/values'
import { Site } from '../derive/site'
import { BOUNDS } from './bounds'
import { found, type Problem } from './problems'

/** Problems told at once; a file with more of them is not read further. */
export const MAX_PROBLEMS = 20

/** What is there already, as far as a check needs it. */
export interface Known {
  /** The kind of a subject, also of one that was taken out. */
  kindOf(subject: string): Kind | undefined
  find?(id: string): Observation | undefined
  /** Nothing later than this is believed, in milliseconds since 1970. */
  latestMs?: number
}

/** Fields that point at other things, by name. */
export const LINK_FIELDS: ReadonlySet<string> = new Set(
  Object.values(FIELDS).flatMap(fields =>
    Object.entries(fields)
      .filter(([, f]) => f.type === 'ref' || f.type === 'refs')
      .map(([name]) => name),
  ),
)

const NOTHING: Known = { kindOf: () => undefined }

/**
 * Checks observations against the declarations: every field belongs to its kind, every value to its field, every time
 * to this century or so. References are checked in the folded house (`checkLinks`). Stops after `MAX_PROBLEMS`.
 */
export function checkObservations(
  observations: readonly Observation[],
  path: (i: number) => string,
  known: Known = NOTHING,
): Problem[] {
  const problems: Problem[] = []
  const ids = new Map<string, number>()
  const added = addedKinds(observations, known, (i, problem) => problems.push(at(path(i), problem)))
  const kindOf = (subject: string) => added.get(subject) ?? known.kindOf(subject)
  for (let i = 0; i < observations.length && problems.length < MAX_PROBLEMS; i++) {
    const o = observations[i]!
    const other = ids.get(o.id)
    if (other !== undefined) {
      const what = `${found(o.id)}, also at ${path(other)}`
      problems.push({ path: `${path(i)}.id`, expected: 'an id used once', found: what })
    }
    ids.set(o.id, i)
    for (const problem of problemsWith(o, { ...known, kindOf })) problems.push(at(path(i), problem))
  }
  return problems.slice(0, MAX_PROBLEMS)
}

/** An observation that is not taken, and why. */
export interface Refusal {
  observation: Observation
  problems: Problem[]
}

/**
 * Parts observations into those that fit what is there and those that do not, so that one bad one does not hold up
 * the rest. What builds on a refused one is refused with it.
 */
export function sift(
  observations: readonly Observation[],
  ledger: Ledger,
  latestMs: number,
): {
  fit: Observation[]
  refused: Refusal[]
} {
  const known: Known = {
    kindOf: id => ledger.house.subjects.get(id)?.kind ?? ledger.everKind(id),
    find: id => ledger.find(id),
    latestMs,
  }
  const refused: Refusal[] = []
  let fit = [...observations]
  // An addition that is refused takes along what hangs on it. Kinds nest a few levels deep, so this soon rests.
  for (;;) {
    const wrong = new Map<Observation, Problem[]>()
    const refuse = (o: Observation, problem: Problem) => {
      const list = wrong.get(o)
      if (list) list.push(problem)
      else wrong.set(o, [problem])
    }
    const added = addedKinds(fit, known, (i, problem) => refuse(fit[i]!, problem))
    const own = new Map(fit.map(o => [o.id, o]))
    const within: Known = {
      ...known,
      kindOf: id => added.get(id) ?? known.kindOf(id),
      find: id => own.get(id) ?? ledger.find(id),
    }
    for (const o of fit) {
      for (const problem of [...problemsWith(o, within), ...linkProblemsWith(o, within)])
        refuse(o, problem)
    }
    if (wrong.size === 0)
      for (const { note, problem } of closingNotes(fit, ledger, within)) refuse(note, problem)
    if (wrong.size === 0) return { fit, refused }
    for (const [observation, problems] of wrong) refused.push({ observation, problems })
    fit = fit.filter(o => !wrong.has(o))
  }
}

const at = (path: string, problem: Problem): Problem => ({
  ...problem,
  path: `${path}.${problem.path}`,
})

function addedKinds(
  observations: readonly Observation[],
  known: Known,
  tell: (i: number, problem: Problem) => void,
): Map<string, Kind> {
  const added = new Map<string, Kind>()
  observations.forEach((o, i) => {
    if (o.act !== 'add') return
    const before = added.get(o.subject) ?? known.kindOf(o.subject)
    if (before !== undefined && before !== o.kind) {
      tell(i, {
        path: 'kind',
        expected: `${before}, as this subject was added before`,
        found: o.kind,
      })
      return
    }
    added.set(o.subject, o.kind)
  })
  return added
}

/** What is wrong with one observation; paths are within it. */
function problemsWith(o: Observation, { kindOf, find, latestMs = LATEST_MS }: Known): Problem[] {
  const problems = timesOf(o, latestMs)
  if (o.act === 'retract') return problems
  const own = kindOf(o.subject)
  if (own === undefined) {
    return [
      ...problems,
      { path: 'subject', expected: 'a subject that was added', found: found(o.subject) },
    ]
  }
  if (o.act === 'add') {
    const parents = PARENTS[o.kind]
    const parent = o.parent === null ? undefined : kindOf(o.parent)
    const isRight =
      parents.length === 0 ? o.parent === null : parent !== undefined && parents.includes(parent)
    const expected = parents.length > 0 ? `the id of a ${parents.join(' or ')}` : 'null'
    return isRight ? problems : [...problems, { path: 'parent', expected, found: found(o.parent) }]
  }
  if (o.act === 'drop') return problems
  const field = fieldOf(own, o.field)
  if (!field)
    return [...problems, { path: 'field', expected: `a field of a ${own}`, found: found(o.field) }]
  if (o.act === 'block') return problems
  if (!valueSchema(field).safeParse(o.value).success) {
    return [...problems, { path: 'value', expected: expects(field), found: found(o.value) }]
  }
  for (const id of o.over ?? []) {
    const under = find?.(id)
    if (!under || byClock(under, o) < 0) continue
    problems.push({
      path: 'clock',
      expected: `a clock after that of ${id}, whose place it takes`,
      found: found(o.clock),
    })
  }
  return problems
}

/** References of one observation to things that are not there or of the wrong kind. */
function linkProblemsWith(o: Observation, { kindOf }: Known): Problem[] {
  const own = o.act === 'note' ? kindOf(o.subject) : undefined
  const field = o.act === 'note' && own !== undefined ? fieldOf(own, o.field) : undefined
  if (o.act !== 'note' || (field?.type !== 'ref' && field?.type !== 'refs')) return []
  if (!valueSchema(field).safeParse(o.value).success) return []
  const problems: Problem[] = []
  const targets = field.type === 'refs' ? (o.value as readonly string[]) : [o.value as string]
  for (const target of targets) {
    if (field.type === 'ref' && (field.words as readonly string[]).includes(target)) continue
    const kind = kindOf(target)
    if (kind !== undefined && field.kinds.includes(kind)) continue
    const what =
      kind === undefined ? `${found(target)}, which is not there` : `${found(target)} (${kind})`
    problems.push({ path: 'value', expected: expects(field), found: what })
  }
  return problems
}

/** Times nobody can have recorded at: before 1990, and later than the reader believes. */
function timesOf(o: Observation, latestMs: number): Problem[] {
  const told = (ms: number) => ms >= EARLIEST_MS && ms <= latestMs
  const expected = `a time from 1990 to ${new Date(latestMs).toISOString().slice(0, 16)}Z`
  const problems: Problem[] = []
  if (!told(Date.parse(o.at))) problems.push({ path: 'at', expected, found: found(o.at) })
  const clock = readClock(o.clock)
  if (!clock || !told(clock.ms)) problems.push({ path: 'clock', expected, found: found(o.clock) })
  return problems
}

/** The links that chains of supply are walked along. */
const CHAINS = ['after', 'fedFrom', 'from'] as const

/** Notes of a batch that would close a circle in a chain of supply. */
function closingNotes(
  batch: readonly Observation[],
  ledger: Ledger,
  within: Known,
): { note: Noted; problem: Problem }[] {
  const notes = batch.filter(
    (o): o is Noted => o.act === 'note' && (CHAINS as readonly string[]).includes(o.field),
  )
  if (notes.length === 0) return []
  const latest = new Map<string, Noted>()
  for (const note of notes) {
    const key = `${note.subject} ${note.field}`
    const before = latest.get(key)
    if (!before || byClock(before, note) < 0) latest.set(key, note)
  }
  const parents = new Map(
    batch.flatMap(o => (o.act === 'add' ? [[o.subject, o.parent] as const] : [])),
  )
  const { subjects } = ledger.house
  const linkOf = (id: string, field: (typeof CHAINS)[number]): string | undefined => {
    const note = latest.get(`${id} ${field}`)
    if (note) return String(note.value)
    return valueOf(subjects.get(id) as Subject<'outlet'> | undefined, field as 'after') as
      string | undefined
  }
  const supplyOf = (id: string): string | undefined => {
    const feeder = linkOf(id, 'fedFrom')
    const from = feeder === undefined ? undefined : linkOf(feeder, 'from')
    if (from === undefined) return undefined
    if (within.kindOf(from) === 'enclosure') return from
    return parents.get(from) ?? subjects.get(from)?.parent ?? undefined
  }
  const closed: { note: Noted; problem: Problem }[] = []
  const tell = (circle: readonly string[]) => {
    const there = new Set(circle)
    for (const note of notes) {
      if (!there.has(note.subject) && !there.has(String(note.value))) continue
      closed.push({ note, problem: { path: 'value', ...circleText(circle) } })
    }
  }
  const outlets = notes.filter(n => n.field === 'after').map(n => n.subject)
  for (const circle of circlesIn(outlets, id => linkOf(id, 'after'))) tell(circle)
  const far = new Set(tooFar(outlets, id => linkOf(id, 'after')))
  for (const note of notes) {
    if (note.field === 'after' && far.has(note.subject))
      closed.push({ note, problem: { path: 'value', ...FAR } })
  }
  // A feeder's new beginning can close a circle through any enclosure, so all of them are walked.
  if (notes.some(n => n.field !== 'after')) {
    const enclosures = [...subjects.values()].filter(s => s.kind === 'enclosure').map(s => s.id)
    const fresh = [...parents.keys()].filter(id => within.kindOf(id) === 'enclosure')
    for (const circle of circlesIn([...enclosures, ...fresh], supplyOf)) tell(circle)
  }
  return closed
}

const circleText = (circle: readonly string[]) => ({
  expected: 'a chain that leads to the supply',
  found: `a circle through ${circle.slice(0, 6).join(', ')}`,
})

/** Things that stand too far from the supply. Each is walked once; what is behind it is counted from it. */
export function tooFar(
  starts: readonly string[],
  next: (id: string) => string | undefined,
): string[] {
  const depth = new Map<string, number>()
  const far: string[] = []
  for (const start of starts) {
    const path: string[] = []
    let id: string | undefined = start
    while (id !== undefined && !depth.has(id)) {
      depth.set(id, 0)
      path.push(id)
      id = next(id)
    }
    let steps = id === undefined ? 0 : depth.get(id)!
    for (const walked of path.reverse()) {
      depth.set(walked, ++steps)
      if (steps > BOUNDS.chain) far.push(walked)
    }
  }
  return far
}

const FAR: Omit<Problem, 'path'> = {
  expected: `at most ${BOUNDS.chain} things in a row from the supply`,
  found: 'more',
}

/** The circles among things that each lead to at most one other; every thing is walked once. */
export function circlesIn(
  starts: readonly string[],
  next: (id: string) => string | undefined,
): string[][] {
  const walked = new Map<string, string>()
  const circles: string[][] = []
  for (const start of starts) {
    const path: string[] = []
    let id: string | undefined = start
    while (id !== undefined && !walked.has(id)) {
      walked.set(id, start)
      path.push(id)
      id = next(id)
    }
    if (id !== undefined && walked.get(id) === start && path.includes(id))
      circles.push(path.slice(path.indexOf(id)))
  }
  return circles
}

/**
 * Checks that references point at the right things and that neither chains nor supply run in a circle.
 * @param gone ids of things that were there once and were taken out: what points at them points at nothing, and may
 */
export function checkLinks(house: House, gone: ReadonlySet<string> = new Set()): Problem[] {
  const problems: Problem[] = []
  for (const subject of house.subjects.values()) {
    if (problems.length >= MAX_PROBLEMS) return problems
    for (const fact of factsOf(subject)) {
      if (fact.state !== 'known') continue
      const field = fieldOf(subject.kind, fact.field)
      if (field?.type !== 'ref' && field?.type !== 'refs') continue
      const targets =
        field.type === 'refs' ? (fact.value as readonly string[]) : [fact.value as string]
      for (const id of targets) {
        if (field.type === 'ref' && (field.words as readonly string[]).includes(id)) continue
        const target = house.subjects.get(id)
        if (!target && gone.has(id)) continue
        if (target && field.kinds.includes(target.kind)) continue
        const what = target
          ? `${found(id)} (${target.kind})`
          : `${found(id)}, which is not in the file`
        problems.push({
          path: `${subject.id}.${fact.field}`,
          expected: expects(field),
          found: what,
        })
      }
    }
  }
  const site = new Site(house)
  const supplyOf = (id: string): string | undefined => {
    const feeder = site.get(valueOf(site.get(id, 'enclosure'), 'fedFrom'), 'feeder')
    const from = feeder && valueOf(feeder, 'from')
    return (
      site.get(from, 'enclosure') ??
      site.get(site.get(from, 'breaker')?.parent ?? undefined, 'enclosure')
    )?.id
  }
  const afterOf = (id: string) => site.get(valueOf(site.get(id, 'outlet'), 'after'), 'outlet')?.id
  const tell = (circles: string[][], field: string) => {
    for (const circle of circles)
      problems.push({ path: `${circle[0]}.${field}`, ...circleText(circle) })
  }
  for (const [list, field, next] of [
    [site.all.outlet, 'after', afterOf],
    [site.all.enclosure, 'fedFrom', supplyOf],
  ] as const) {
    const ids = list.map(s => s.id)
    tell(circlesIn(ids, next), field)
    for (const id of tooFar(ids, next).slice(0, 3))
      problems.push({ path: `${id}.${field}`, ...FAR })
  }
  return problems.slice(0, MAX_PROBLEMS)
}
