import { fieldOf, type Kind } from '../model/fields'
import { factsOf, PREMISES_ID, type Fact, type House, type Subject } from '../model/house'
import type { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { Site } from '../derive/site'
import { FILE_VERSION, type LogFile } from './schema'

/** The whole log, history and all. */
export const writeLog = (ledger: Ledger): LogFile => ({
  corvit: FILE_VERSION,
  form: 'log',
  observations: ledger.log().map(inOrder),
})

const KEYS = [
  'id',
  'at',
  'by',
  'clock',
  'skewSeconds',
  'act',
  'subject',
  'kind',
  'parent',
  'field',
  'value',
  'grade',
  'instrument',
  'remark',
  'over',
  'reason',
  'target',
]
/** The same observation always writes the same text, whoever made the object. */
function inOrder(o: Observation): LogFile['observations'][number] {
  const source = o as unknown as Record<string, unknown>
  return Object.fromEntries(
    KEYS.filter(k => source[k] !== undefined).map(k => [k, source[k]]),
  ) as LogFile['observations'][number]
}

type Node = Record<string, unknown>
const NESTS: Partial<Record<Kind, readonly [key: string, kind: Kind][]>> = {
  building: [
    ['rooms', 'room'],
    ['enclosures', 'enclosure'],
    ['electrodes', 'electrode'],
  ],
  enclosure: [
    ['bars', 'bar'],
    ['breakers', 'breaker'],
  ],
  bar: [['screwList', 'screw']],
  circuit: [['segments', 'segment']],
  segment: [['exposures', 'exposure']],
  feeder: [['exposures', 'exposure']],
  returnVisit: [['rechecks', 'recheck']],
}
const TOP: readonly [string, Kind][] = [
  ['buildings', 'building'],
  ['rooms', 'room'],
  ['enclosures', 'enclosure'],
  ['electrodes', 'electrode'],
  ['bonds', 'bond'],
  ['photos', 'photo'],
  ['amendments', 'amendment'],
  ['adoptions', 'adoption'],
  ['visits', 'visit'],
  ['overrides', 'override'],
  ['tasks', 'task'],
  ['edits', 'edit'],
  ['signings', 'signing'],
  ['returnVisits', 'returnVisit'],
  ['feeders', 'feeder'],
  ['circuits', 'circuit'],
  ['conductors', 'conductor'],
  ['outlets', 'outlet'],
]

/** The fact, without what it says about things that were taken out; nothing where that was all it said. */
function leadsSomewhere(house: House, kind: Kind, fact: Fact): Fact | undefined {
  const field = fieldOf(kind, fact.field)
  if (fact.state !== 'known' || (field?.type !== 'ref' && field?.type !== 'refs')) return fact
  if (field.type === 'ref')
    return house.subjects.has(fact.value as string) ||
      (field.words as readonly string[]).includes(fact.value as string)
      ? fact
      : undefined
  const there = (fact.value as readonly string[]).filter(id => house.subjects.has(id))
  // Sharing with something that is gone is not the same as sharing with nothing.
  return there.length > 0 || (fact.value as readonly string[]).length === 0
    ? { ...fact, value: there }
    : undefined
}

/**
 * The present state as a plain house. Structure is nested, everything found by tracing is named by id, so that
 * reading it back gives the same house. Values that were corrected live on in the log form only.
 * @param noteOf the observation behind a fact, for its instrument and remark
 */
export function writeHouse(
  house: House,
  noteOf: (id: string) => Observation | undefined = () => undefined,
): Node {
  const site = new Site(house)
  const factOut = (fact: Fact): unknown => {
    if (fact.state === 'blocked') return { blocked: fact.reason }
    const note = noteOf(fact.observation)
    const { instrument, remark } =
      note?.act === 'note' ? note : ({} as { instrument?: string; remark?: string })
    if (fact.grade === 'seen' && instrument === undefined && remark === undefined) return fact.value
    return {
      value: fact.value,
      grade: fact.grade,
      ...(instrument !== undefined && { instrument }),
      ...(remark !== undefined && { remark }),
    }
  }
  const nodeOf = (subject: Subject): Node => {
    const node: Node = subject.id === PREMISES_ID ? {} : { id: subject.id }
    for (const recorded of factsOf(subject).sort((a, b) => (a.field < b.field ? -1 : 1))) {
      const fact = leadsSomewhere(house, subject.kind, recorded)
      if (fact) node[recorded.field] = factOut(fact)
    }
    for (const [key, kind] of NESTS[subject.kind] ?? []) {
      const children = site.children(subject, kind)
      if (children.length > 0) node[key] = children.map(nodeOf)
    }
    return node
  }
  const file: Node = { corvit: FILE_VERSION, form: 'house', premises: nodeOf(site.premises) }
  for (const [key, kind] of TOP) {
    const list = (site.all[kind] as Subject[]).filter(s => s.parent === PREMISES_ID)
    if (list.length > 0) file[key] = list.map(nodeOf)
  }
  return file
}
