import { absent, valueOf, type FactRef } from '../model/house'
import { ADOPTION_LAG, isEditionYear } from '../tables/years'
import type { Site } from './site'

/** When what an edition brought became law in the place of the house. */
export interface Adopted {
  /** First year in which it can have been law, and the first in which it surely was. */
  readonly from: number
  readonly to: number
  readonly rests: readonly FactRef[]
  /** What to look up where the two differ. */
  readonly ask: FactRef | undefined
}

/**
 * The year from which a rule of an edition was law here: as recorded for the place, by the edition itself or by the
 * next one that was adopted; else an interval, since places adopt late. What did not begin with an edition of the code
 * began when it began. 90.4.
 * @param year the edition that brought the rule
 */
export function adoptedFrom(site: Site, year: number): Adopted {
  if (!isEditionYear(year)) return { from: year, to: year, rests: [], ask: undefined }
  const rests: FactRef[] = []
  let isCovered = false
  let law: number | undefined
  for (const adoption of site.all.adoption) {
    const edition = valueOf(adoption, 'edition')
    const since = valueOf(adoption, 'year')
    rests.push(adoption.facts.edition, adoption.facts.year)
    if (edition === undefined || since === undefined) continue
    // A table that begins with an older edition says of every later one when it came, or that it was left out.
    if (edition <= year) isCovered = true
    if (edition >= year) law = Math.min(law ?? since, since)
  }
  if (isCovered && law !== undefined) return { from: law, to: law, rests, ask: undefined }
  const { areAdoptionsRecorded } = site.premises.facts
  rests.push(areAdoptionsRecorded)
  if (valueOf(site.premises, 'areAdoptionsRecorded') === true)
    return { from: year, to: year, rests, ask: undefined }
  return {
    from: year,
    to: Math.max(year, Math.min(year + ADOPTION_LAG, law ?? Infinity)),
    rests,
    ask: absent(site.premises, 'areAdoptionsRecorded'),
  }
}
