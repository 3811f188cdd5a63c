import { whereSeen, type Subject } from '../model/house'
import type { Site } from './site'
import type { Trail } from './trail'

/** Whether a breaker feeds nothing: as recorded, or because a circuit or feeder is known to hang on it. */
export function isSpare(
  site: Site,
  breaker: Subject<'breaker'>,
  trail: Pick<Trail, 'ask'>,
): boolean | undefined {
  const { role } = breaker.facts
  if (
    whereSeen(role) === undefined &&
    site.circuitsOf(breaker).length + site.feedersFrom(breaker).length > 0
  )
    return false
  const said = trail.ask(role)
  return said === undefined ? undefined : said === 'spare'
}
