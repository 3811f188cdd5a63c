import type { Result } from '../engine/evaluate'
import { isKind, valueOf } from '../model/house'
import type { Site } from '../derive/site'
import type { Judged } from './consequences'
import { findingKey, optionsFor, type NotAnOption, type Option } from './options'
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
  onProgress?.(1)
  const options = [...byWork.values()].map(o => locked(o, locks))
  return { options, byFinding, departures, isStopped: false }
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
