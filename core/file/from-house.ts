import { fieldOf, type AnyValue, type Field, type Kind } from '../model/fields'
import { convert, expects, valueSchema } from '../model/values'
import { PREMISES_ID } from '../model/house'
import type { Grade, Noted, RawObservation } from '../model/observation'
import type { HouseFile } from './schema'
import { found, pathText, type Problem } from './problems'

/** Who stamps the observations a file turns into; ids must be unique within the job. */
export interface Stamper {
  at: string
  by: string
  nextId(): string
}

type Node = Record<string, unknown>
interface Draft {
  id: string
  kind: Kind
  parent: string | null
  path: (string | number)[]
  node: Node
}

/** Children a node may hold, by its kind and the key that holds them. */
const NESTED: Partial<Record<Kind, Record<string, Kind>>> = {
  premises: {
    buildings: 'building',
    rooms: 'room',
    enclosures: 'enclosure',
    electrodes: 'electrode',
    bonds: 'bond',
    photos: 'photo',
    amendments: 'amendment',
    adoptions: 'adoption',
    visits: 'visit',
    overrides: 'override',
    tasks: 'task',
    edits: 'edit',
    signings: 'signing',
    returnVisits: 'returnVisit',
    feeders: 'feeder',
    circuits: 'circuit',
    conductors: 'conductor',
    outlets: 'outlet',
    points: 'outlet',
  },
  building: { rooms: 'room', enclosures: 'enclosure', electrodes: 'electrode' },
  enclosure: { bars: 'bar', breakers: 'breaker', feeder: 'feeder' },
  bar: { screws: 'screw', screwList: 'screw' },
  breaker: { circuit: 'circuit', circuits: 'circuit' },
  circuit: { segments: 'segment', outlets: 'outlet', points: 'outlet' },
  segment: { exposures: 'exposure' },
  feeder: { exposures: 'exposure' },
  returnVisit: { rechecks: 'recheck' },
}

/** Turns a hand-written house into observations, or lists what is wrong with it. */
export function observationsFromHouse(
  file: HouseFile,
  stamp: Stamper,
): { observations: RawObservation[] } | { problems: Problem[] } {
  const problems: Problem[] = []
  const drafts: Draft[] = []
  const ids = new Map<string, Draft>()

  const add = (
    kind: Kind,
    node: Node,
    parent: string | null,
    path: Draft['path'],
    fallback: string,
  ): Draft => {
    const id = typeof node.id === 'string' ? node.id : fallback
    const draft = { id, kind, parent, path, node: { ...node } }
    const other = ids.get(id)
    if (other)
      problems.push({
        path: pathText([...path, 'id']),
        expected: 'an id used once',
        found: `${JSON.stringify(id)}, also at ${pathText(other.path)}`,
      })
    else ids.set(id, draft)
    drafts.push(draft)
    return draft
  }
  const walk = (draft: Draft): void => {
    for (const [key, value] of Object.entries(draft.node)) {
      const kind = NESTED[draft.kind]?.[key]
      if (!kind || (key === 'screws' && !Array.isArray(value))) continue
      const many = Array.isArray(value)
      const list = (many ? value : [value]) as Node[]
      delete draft.node[key]
      list.forEach((node, i) => {
        const path = many ? [...draft.path, key, i] : [...draft.path, key]
        const isFree = kind === 'circuit' || kind === 'outlet' || kind === 'feeder'
        const child = add(
          kind,
          node,
          isFree || draft.kind === 'premises' ? PREMISES_ID : draft.id,
          path,
          autoId(draft, kind, node, key, many ? i : undefined),
        )
        if (kind === 'circuit' && draft.kind === 'breaker') child.node.fedBy ??= draft.id
        if (kind === 'outlet' && draft.kind === 'circuit') child.node.circuit ??= draft.id
        if (kind === 'feeder' && draft.kind === 'enclosure') draft.node.fedFrom ??= child.id
        walk(child)
      })
    }
  }
  const {
    premises,
    corvit: _version,
    form: _form,
    $schema: _schema,
    simulated: _simulated,
    ...rest
  } = file as HouseFile & Node
  walk(add('premises', { ...premises, ...rest, id: PREMISES_ID }, null, [], PREMISES_ID))

  const circuitsOn = circuitsByBreaker(drafts)
  const observations: RawObservation[] = []
  for (const draft of drafts) {
    observations.push({
      id: stamp.nextId(),
      at: stamp.at,
      by: stamp.by,
      act: 'add',
      subject: draft.id,
      kind: draft.kind,
      parent: draft.parent,
    })
  }
  for (const draft of drafts) {
    for (const [key, raw] of Object.entries(draft.node)) {
      if (key === 'id' || raw === undefined) continue
      const field = fieldOf(draft.kind, key)!
      const path = draft.kind === 'premises' ? ['premises', key] : [...draft.path, key]
      const fact = readFact(field, raw, path, problems)
      if (!fact) continue
      const { at, by } = stamp
      const id = stamp.nextId()
      if ('reason' in fact) {
        observations.push({
          id,
          at,
          by,
          act: 'block',
          subject: draft.id,
          field: key,
          reason: fact.reason,
        })
        continue
      }
      // Built key by key, not by spreading, so that all notes share a shape: folding reads each of them several times.
      const note: Omit<Noted, 'clock'> = {
        id,
        at,
        by,
        act: 'note',
        subject: draft.id,
        field: key,
        value: resolve(field, fact.value, ids, circuitsOn),
        grade: fact.grade,
      }
      if (fact.instrument !== undefined) note.instrument = fact.instrument
      if (fact.remark !== undefined) note.remark = fact.remark
      observations.push(note)
    }
  }
  return problems.length > 0 ? { problems } : { observations }
}

/** What generated ids call a thing; a kind that is not here by its own name. */
const AUTO_WORDS: Partial<Record<Kind, string>> = {
  segment: 'conductors',
  photo: 'photograph',
  amendment: 'local-amendment',
  adoption: 'adopted-edition',
  visit: 'scope',
  override: 'weighed-by-hand',
  task: 'planned-work',
  edit: 'edited-finding',
  signing: 'signature',
  returnVisit: 'return-visit',
  exposure: 'hot-or-crowded-stretch',
}

/** The id of a thing that has none of its own. It never changes for a file, whatever things are called on screens. */
function autoId(
  parent: Draft,
  kind: Kind,
  node: Node,
  key: string,
  index: number | undefined,
): string {
  const word = key === 'points' ? 'point' : (AUTO_WORDS[kind] ?? kind)
  const own = (key: string) =>
    typeof node[key] === 'number' || typeof node[key] === 'string' ? node[key] : undefined
  const name =
    kind === 'breaker' && own('space') !== undefined
      ? `${own('space')}${own('half') ?? ''}`
      : index === undefined
        ? word
        : `${word}-${index + 1}`
  return parent.kind === 'premises' ? name : `${parent.id}/${name}`
}

function readFact(
  field: Field,
  raw: unknown,
  path: readonly PropertyKey[],
  problems: Problem[],
):
  | { value: AnyValue; grade: Grade; instrument?: string; remark?: string }
  | { reason: string }
  | undefined {
  const isObject = typeof raw === 'object' && raw !== null && !Array.isArray(raw)
  if (isObject && 'blocked' in raw) return { reason: String(raw.blocked) }
  const { value, unit, grade, instrument, remark } = (isObject ? raw : { value: raw }) as {
    value: unknown
    unit?: string
    grade?: Grade
    instrument?: string
    remark?: string
  }
  const converted = convert(field, value, unit)
  if (converted === undefined) {
    problems.push({
      path: pathText([...path, 'unit']),
      expected: 'unit' in field && field.unit ? `the unit ${field.unit}` : 'no unit',
      found: found(unit),
    })
    return undefined
  }
  const parsed = valueSchema(field).safeParse(converted)
  if (!parsed.success) {
    problems.push({ path: pathText(path), expected: expects(field), found: found(converted) })
    return undefined
  }
  return {
    value: parsed.data as AnyValue,
    grade: grade ?? 'seen',
    ...(instrument !== undefined && { instrument }),
    ...(remark !== undefined && { remark }),
  }
}

function circuitsByBreaker(drafts: readonly Draft[]): Map<unknown, string[]> {
  const on = new Map<unknown, string[]>()
  for (const { id, kind, node } of drafts) {
    if (kind !== 'circuit') continue
    const list = on.get(node.fedBy)
    if (list) list.push(id)
    else on.set(node.fedBy, [id])
  }
  return on
}

/** A breaker may be named where its one circuit is meant. */
function resolve(
  field: Field,
  value: AnyValue,
  ids: ReadonlyMap<string, Draft>,
  circuitsOn: ReadonlyMap<unknown, string[]>,
): AnyValue {
  if (field.type !== 'refs') return value
  return (value as readonly string[]).map(id => {
    if (ids.get(id)?.kind !== 'breaker') return id
    const circuits = circuitsOn.get(id) ?? []
    return circuits.length === 1 ? circuits[0]! : id
  })
}
