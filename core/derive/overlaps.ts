import { valueOf, type Subject } from '../model/house'
import type { Site } from './site'

/**
 * Pairs of breakers recorded in the same space of a panel: one of the two was mistyped, or is not there.
 * Halves a and b of one space do not overlap. Breakers without a space are left out.
 */
export function overlapsIn(
  site: Site,
  panel: Subject<'enclosure'>,
): [Subject<'breaker'>, Subject<'breaker'>][] {
  const step = valueOf(panel, 'numbering') === 'down each side' ? 1 : 2
  const taken = new Map<string, Subject<'breaker'>>()
  const pairs: [Subject<'breaker'>, Subject<'breaker'>][] = []
  for (const breaker of site.children(panel, 'breaker')) {
    const space = valueOf(breaker, 'space')
    if (space === undefined) continue
    const half = valueOf(breaker, 'half')
    let other: Subject<'breaker'> | undefined
    for (let pole = 0; pole < (valueOf(breaker, 'poles') ?? 1); pole++) {
      for (const part of half ? [half] : ['a', 'b']) {
        const place = `${space + pole * step}${part}`
        other ??= taken.get(place)
        if (!taken.has(place)) taken.set(place, breaker)
      }
    }
    if (other) pairs.push([other, breaker])
  }
  return pairs
}
