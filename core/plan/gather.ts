import type { Result } from '../engine/evaluate'
import { isKind, valueOf } from '../model/house'
import type { Site } from '../derive/site'
import type { Judged } from './consequences'
import { remediesFor, remedyById } from '../remedies'
import {
  findingKey,
  optionOf,
  optionsFor,
  toOption,
  type Choosing,
  type NotAnOption,
  type Option,
} from './options'
import type { PriceBook } from './prices'
import { bySchool, type SchoolChoice } from './schools'

export interface Lock {
  readonly subject: string
  readonly remedy: string
}
export interface Forbid {
  readonly remedy: string
  readonly subject?: string
}
export interface Gathering {
  readonly book: PriceBook
  /** Remedies that must be chosen where they are an option. */
  readonly locks?: readonly Lock[]
  readonly forbids?: readonly Forbid[]
  /** Which way the desk goes where several are lawful; a circuit may go another. */
  readonly schools?: readonly SchoolChoice[]
  /** Called while options are worked out, from 0 to 1; answers false to stop. */
  readonly onProgress?: (share: number) => boolean | undefined
}
/** A finding the chosen school has no way for in this house: another way was let in. */
export interface Departure {
  readonly rule: string
  readonly subject: string
  readonly school: string
}
export interface Gathered {
  readonly options: readonly Option[]
  /** By `rule thing`: why each other remedy is none here. */
  readonly byFinding: ReadonlyMap<string, readonly NotAnOption[]>
  readonly departures: readonly Departure[]
  readonly isStopped: boolean
}

/** All options of all findings, each once: the same work for several findings is one option. */
export function gather(
  before: Judged,
  findings: readonly Result[],
  { book, locks = [], forbids = [], schools = [], onProgress }: Gathering,
): Gathered {
  const byWork = new Map<string, Option>()
  const byFinding = new Map<string, readonly NotAnOption[]>()
  const departures: Departure[] = []
  const isForbidden = (remedy: string, subject: string): boolean =>
    forbids.some(f => f.remedy === remedy && (f.subject === undefined || f.subject === subject))
  const isLockedOut = (remedy: string, subject: string): boolean =>
    locks.some(l => l.subject === subject && l.remedy !== remedy)
  for (const [i, finding] of findings.entries()) {
    if (onProgress?.(i / findings.length) === false)
      return { options: [], byFinding, departures, isStopped: true }
    const school = bySchool(schools, finding.rule.id, circuitIdOf(before.site, finding.subject.id))
    const isAnother = (remedy: string) => school !== undefined && !school.remedies.includes(remedy)
    const choosing = { book, isForbidden, isLockedOut }
    let found = optionsFor(before, finding, { ...choosing, isAnotherWay: isAnother })
    if (found.options.length === 0 && school) {
      const wider = optionsFor(before, finding, choosing)
      if (wider.options.length > 0) {
        found = wider
        const { rule, subject } = finding
        departures.push({ rule: rule.id, subject: subject.id, school: school.id })
      }
    }
    byFinding.set(findingKey(finding), found.others)
    for (const option of found.options) {
      const work = option.changes
        .map(c => JSON.stringify(c))
        .sort()
        .join()
      const known = byWork.get(work)
      if (!known || known.cents > option.cents) byWork.set(work, option)
    }
  }
  const plain = [...byWork.values()]
  const enabled = enabledByPanels(before, findings, plain, { book, isForbidden, isLockedOut })
  onProgress?.(1)
  const options = [...plain, ...enabled].map(o => locked(o, locks))
  return { options, byFinding, departures, isStopped: false }
}

/** Works that give a panel one can get breakers for, the first that is offered there. */
const NEW_PANELS = ['replace-panel', 'single-phase-panel'] as const
/** Works in a panel that no breaker is made for, and that a new panel makes possible. */
const IN_PANEL = new Set(['gfci-breaker', 'afci-breaker', 'two-pole-breaker', 'listed-breaker'])

/**
 * What a new panel makes possible at the circuits it feeds: each such option needs the panel, which is paid once.
 * @param plain options of the house as it is; the panel may be among them, for a fault of its own
 */
function enabledByPanels(
  before: Judged,
  findings: readonly Result[],
  plain: readonly Option[],
  choosing: Choosing,
): readonly Option[] {
  const added: Option[] = []
  for (const panel of before.site.all.enclosure) {
    if (valueOf(panel, 'protectiveBreakers') !== 'none made') continue
    const mine = findings.filter(f => panelOf(before.site, f.subject.id) === panel.id)
    const refused = mine.flatMap(finding =>
      remediesFor(finding, before.site)
        .filter(({ remedy, advice }) => IN_PANEL.has(remedy.id) && advice.verdict === 'refused')
        .filter(({ remedy }) => !choosing.isForbidden(remedy.id, finding.subject.id))
        .map(({ remedy }) => ({ finding, remedy })),
    )
    if (refused.length === 0) continue
    const known = plain.findIndex(o =>
      o.steps.some(s => s.subject === panel.id && NEW_PANELS.includes(s.remedy.id as never)),
    )
    const made = known < 0 ? newPanel(before, panel.id, choosing) : plain[known]
    if (!made) continue
    const needs = known < 0 ? plain.length + added.length : known
    if (known < 0) added.push(made)
    const now = before.after(made.changes)
    for (const { finding, remedy } of refused) {
      const there = now.resultOf(finding.rule.id, finding.subject.id)
      if (there?.outcome !== 'fault') continue
      const isOffered = remediesFor(there, now.site).some(
        r => r.remedy.id === remedy.id && r.advice.verdict === 'offered',
      )
      const option = isOffered && optionOf(now, there, remedy, choosing)
      if (!option) continue
      const whole = toOption(before, option.steps, made)
      if (whole.fixes.has(findingKey(finding))) added.push({ ...whole, needs })
    }
  }
  return added
}
/** A new panel where nothing is wrong with the old one but that no breaker is made for it. */
function newPanel(before: Judged, panel: string, choosing: Choosing): Option | undefined {
  const remedy = remedyById(NEW_PANELS[0])
  const any = [...before.results.values()].find(r => r.subject.id === panel)
  if (!remedy || !any || choosing.isForbidden(remedy.id, panel)) return undefined
  return optionOf(before, any, remedy, choosing)
}
function panelOf(site: Site, id: string): string | undefined {
  const circuit = site.get(circuitIdOf(site, id), 'circuit')
  const breaker = site.get(circuit && valueOf(circuit, 'fedBy'), 'breaker')
  const thing = breaker ?? site.house.subjects.get(id)
  return thing?.kind === 'breaker' ? (thing.parent ?? undefined) : undefined
}

/** A locked remedy is something more to be taken care of, that only the options with that work do. */
export const LOCK = 'lock '
function locked(option: Option, locks: readonly Lock[]): Option {
  const mine = locks.filter(l =>
    option.steps.some(s => s.subject === l.subject && s.remedy.id === l.remedy),
  )
  if (mine.length === 0) return option
  return { ...option, fixes: new Set([...option.fixes, ...mine.map(l => LOCK + l.subject)]) }
}

function circuitIdOf(site: Site, id: string): string | undefined {
  const thing = site.house.subjects.get(id)
  if (isKind(thing, 'circuit')) return id
  if (isKind(thing, 'outlet')) return valueOf(thing, 'circuit')
  return thing?.kind === 'segment' ? (thing.parent ?? undefined) : undefined
}
