import type { Subject } from '../model/house'
import { tableAmpacity, wholeDwellingRating, type Column } from '../tables/ampacity'
import { serviceConductors } from './service-conductors'
import type { Site } from './site'
import type { Trail } from './trail'

/** Enclosures without a main that all current passes: nobody can read one there. */
const WITHOUT_MAIN: ReadonlySet<string | undefined> = new Set(['main lugs', 'split bus'])
export const hasSeveralMains = (kind: string | undefined): boolean => WITHOUT_MAIN.has(kind)

/**
 * Amperes a service disconnect can bring in: its main; where several mains share a bus, what bus and service
 * conductors bear. 230.79, 230.42.
 */
export function serviceRating(
  site: Site,
  enclosure: Subject<'enclosure'>,
  asker: Pick<Trail, 'ask'>,
): number | undefined {
  if (!hasSeveralMains(asker.ask(enclosure.facts.mainKind)))
    return asker.ask(enclosure.facts.mainAmps)
  const bus = asker.ask(enclosure.facts.busAmps)
  const conductors = serviceConductors(site, enclosure, asker)
  const size = conductors.size()
  const metal = conductors.metal()
  const insulation = conductors.insulationC()
  if (bus === undefined || !size || !metal || insulation === undefined) return undefined
  const sets = conductors.sets()
  const column = Math.min(75, insulation) as Column
  const ampacity = tableAmpacity(size, metal, column, site.edition)
  // No table has such a conductor: nothing can be said of it.
  if (ampacity === undefined) return undefined
  const ordinary = sets * ampacity
  // The reduced dwelling sizes are of single conductors. 310.12.
  const isSingle = sets === 1 && insulation !== 60
  const dwelling = isSingle ? wholeDwellingRating(size, metal) : undefined
  return Math.min(bus, Math.max(ordinary, dwelling ?? ordinary))
}
