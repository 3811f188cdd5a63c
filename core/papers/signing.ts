import { assess, type Assessment, type SpokenResult } from '../assess/assess'
import { Site } from '../derive/site'
import { fieldOf, type VOICES } from '../model/fields'
import { factsOf, isKind, PREMISES_ID, valueOf, type House, type Subject } from '../model/house'
import { Ledger } from '../model/ledger'
import type { Noted, Observation } from '../model/observation'
import { labelOf, valueText } from '../texts/labels'
import { openLoopsOf, type OpenLoop } from '../views/walk'
import { recordedScope } from '../visit/recorded'
import { visitOf } from '../visit/visit'
import type { Block, Paper } from './paper'
import { openQuestions, reportPaper } from './report-papers'
import { tellFindings } from './edits'

export type SignedVoice = (typeof VOICES)[number]

/** What has to be closed, or disclosed with a reason, before a report is signed. */
export interface Unsettled {
  /** Loose ends that nobody has closed or disclosed, each with its thing and field. */
  readonly loops: readonly OpenLoop[]
  /** Questions within the scope that nobody has answered, and places that nobody has attested. */
  readonly questions: number
  /** Facts that two people recorded differently, and nobody has settled. */
  readonly rivals: number
  readonly total: number
}

/** What is still unsettled about a report. Nothing is signed over it in silence. */
export function unsettledOf(
  house: House,
  { results }: Pick<Assessment, 'results'> = assess(house),
): Unsettled {
  const site = new Site(house)
  const loops = openLoopsOf(site).filter(l => l.disclosed === undefined)
  const visit = visitOf(site, results, recordedScope(site))
  const questions = openQuestions(visit)
  const rivals = [...house.subjects.values()]
    .flatMap(factsOf)
    .filter(f => f.state === 'known' && f.rivals.length > 0).length
  return { loops, questions, rivals, total: loops.length + questions + rivals }
}

/** The text a seal is made from: the same paper gives the same text, key by key. */
export const sealText = (paper: Paper): string => JSON.stringify(paper)

/** The signatures on record, first to last. */
export const signingsOf = (house: House): readonly Subject<'signing'>[] =>
  [...house.subjects.values()]
    .filter((s): s is Subject<'signing'> => isKind(s, 'signing'))
    .sort((a, b) => (valueOf(a, 'number') ?? 0) - (valueOf(b, 'number') ?? 0))

/** What is recorded about the papers themselves is no change of the house. */
const BESIDE: ReadonlySet<string> = new Set(['signing', 'edit', 'returnVisit'])
/** Of a line that is looked at again, only what was found tells something. */
const FOUND_AGAIN: ReadonlySet<string> = new Set(['outcome', 'reading', 'note'])
function isBeside(o: Observation, ledger: Ledger): boolean {
  if (!('subject' in o)) return false
  const kind = ledger.everKind(o.subject) ?? ''
  if (kind === 'recheck') return o.act !== 'note' || !FOUND_AGAIN.has(o.field)
  if (BESIDE.has(kind)) return true
  return o.act === 'note' && o.subject === PREMISES_ID && o.field === 'stage'
}

/** The observations made after a signature, oldest first, without those of the signature itself. */
export function logSince(ledger: Ledger, signing: Subject): readonly Observation[] {
  return ledger.log().filter(o => `${o.clock} ${o.id}` > signing.born && !isBeside(o, ledger))
}

/** The house as it was when a report was signed. */
export const houseAt = (ledger: Ledger, signing: Subject): House =>
  new Ledger(ledger.log().filter(o => `${o.clock} ${o.id}` <= signing.born)).house

export interface Turn {
  readonly rule: string
  readonly subject: string
  readonly text: string
}
/** What is different between two states of a house, finding by finding. */
export interface Difference {
  readonly gone: readonly Turn[]
  readonly added: readonly Turn[]
  readonly reworded: readonly Turn[]
  /** Left out of the report by hand since, and told again. */
  readonly leftOut: readonly Turn[]
  readonly toldAgain: readonly Turn[]
}

const isFinding = (r: SpokenResult) => r.outcome === 'fault' || r.leans !== undefined
const keyOf = (r: SpokenResult) => `${r.rule} ${r.subject.id}`
const textOf = (r: SpokenResult) => `${r.title}: ${r.subject.label}`

/** Compares the findings of two states: what is gone, what came, and what is now said otherwise. */
export function differenceOf(before: House, after: House): Difference {
  const of = (house: House) => {
    const { told, leftOut } = tellFindings(house, assess(house).results.filter(isFinding))
    const hidden = leftOut.map(l => l.finding)
    return {
      all: new Map([...told, ...hidden].map(r => [keyOf(r), r])),
      hidden: new Map(hidden.map(r => [keyOf(r), r])),
    }
  }
  const [{ all: was, hidden: hiddenThen }, { all: is, hidden: hiddenNow }] = [of(before), of(after)]
  const turn = (r: SpokenResult, text = textOf(r)): Turn => ({
    rule: r.rule,
    subject: r.subject.id,
    text,
  })
  return {
    gone: [...was].flatMap(([key, r]) => (is.has(key) ? [] : turn(r))),
    added: [...is].flatMap(([key, r]) => (was.has(key) ? [] : turn(r))),
    reworded: [...is].flatMap(([key, r]) => {
      const old = was.get(key)
      const isSame = old === undefined || (old.why === r.why && old.severity === r.severity)
      return isSame ? [] : turn(r, `${textOf(r)}: was “${old.why}”, is “${r.why}”`)
    }),
    leftOut: [...hiddenNow].flatMap(([key, r]) => (hiddenThen.has(key) ? [] : turn(r))),
    toldAgain: [...hiddenThen].flatMap(([key, r]) =>
      hiddenNow.has(key) || !is.has(key) ? [] : turn(r),
    ),
  }
}

/** What changed, in the sentences of an amendment. */
export function differenceWords(difference: Difference): readonly string[] {
  const { gone, added, reworded, leftOut, toldAgain } = difference
  const lines = [
    ...gone.map(t => `No longer found: ${t.text}.`),
    ...added.map(t => `New: ${t.text}.`),
    ...reworded.map(t => `Said otherwise: ${t.text}.`),
    ...leftOut.map(t => `Left out since, by hand: ${t.text}.`),
    ...toldAgain.map(t => `Told again: ${t.text}.`),
  ]
  return lines.length > 0 ? lines : ['No finding changed.']
}

/** An observation as a line of the log: what, value, who, when. */
export function logLine(house: House, o: Observation): string {
  const site = new Site(house)
  const nameOf = (id: string) => {
    const thing = house.subjects.get(id)
    return thing ? labelOf(site, thing) : id
  }
  if (o.act === 'retract') return 'taken back'
  const thing = house.subjects.get(o.subject)
  if (o.act === 'add') return `${nameOf(o.subject)}: added`
  if (o.act === 'drop') return `${o.subject}: taken out`
  const field = thing && fieldOf(thing.kind, o.field)
  const label = field?.label ?? o.field
  if (o.act === 'block') return `${nameOf(o.subject)}: ${label}: could not be seen (${o.reason})`
  return `${nameOf(o.subject)}: ${label}: ${valueWords(o, thing, nameOf, site)}`
}
function valueWords(
  o: Noted,
  thing: Subject | undefined,
  nameOf: (id: string) => string,
  site: Site,
): string {
  const field = thing && fieldOf(thing.kind, o.field)
  if (!field || field.type === 'ref' || field.type === 'refs')
    return [o.value]
      .flat()
      .map(v => nameOf(String(v)))
      .join(', ')
  return valueText(field, o.value, site.units)
}

/** What the person who signs says. */
export interface ToSign {
  readonly voice: SignedVoice
  readonly by: string
  /** Year-month-day. */
  readonly on: string
  /** Why questions stay open; empty where none does. */
  readonly discloses: string
  /** Said of an amendment, besides what the findings themselves show. */
  readonly changes: string
}

/**
 * The paper that is signed: the report, what it leaves open and why, and of an amendment what changed since the
 * revision before. It is frozen as it is.
 * @returns the paper with its number, or why it cannot be signed
 */
export function paperToSign(
  ledger: Ledger,
  { voice, by, on, discloses, changes }: ToSign,
):
  | { readonly paper: Paper; readonly number: number; readonly open: number }
  | { readonly refused: string } {
  const { house } = ledger
  const open = unsettledOf(house).total
  if (by.trim() === '') return { refused: 'A report is signed by somebody: give the name' }
  if (open > 0 && discloses.trim() === '')
    return { refused: `${open} questions are open: close them, or say why they stay open` }
  const before = signingsOf(house).filter(s => valueOf(s, 'voice') === voice)
  const last = before.at(-1)
  const number = (valueOf(last, 'number') ?? 0) + 1
  if (last !== undefined && changes.trim() === '' && logSince(ledger, last).length === 0)
    return {
      refused: 'Nothing was recorded since the last revision: say what the amendment is for',
    }
  const paper = reportPaper(house, voice)
  const blocks: Block[] = []
  if (last !== undefined) {
    const differs = differenceWords(differenceOf(houseAt(ledger, last), house))
    const items = [...(changes.trim() ? [changes.trim()] : []), ...differs]
    blocks.push(
      { kind: 'heading', level: 1, text: `What changed since revision ${number - 1}` },
      { kind: 'list', items },
    )
  }
  blocks.push(...paper.blocks)
  if (open > 0)
    blocks.push(
      { kind: 'heading', level: 1, text: 'Left open when it was signed' },
      {
        kind: 'text',
        text: `${open} ${open === 1 ? 'question' : 'questions'}. ${discloses.trim()}`,
      },
    )
  blocks.push(
    { kind: 'heading', level: 1, text: 'Signed' },
    { kind: 'text', text: `Revision ${number}, signed by ${by.trim()} on ${on}.`, tone: 'strong' },
  )
  return {
    paper: { ...paper, subtitle: `${paper.subtitle} · revision ${number}`, blocks },
    number,
    open,
  }
}
