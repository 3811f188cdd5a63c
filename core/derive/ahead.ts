import { whereSeen } from '../model/house'
import type { Subject } from '../model/house'
import { Question, type Site } from './site'
import { Trail, type Walked } from './trail'

/** What stands ahead of a feeder: a device, or nothing but the utility's own. */
export type Ahead =
  | { readonly amps: number; readonly device: Subject<'breaker'> | Subject<'enclosure'> }
  /** Nothing: the conductors hang on the utility. `isTapped` where they start at the line side of a main. */
  | { readonly amps: undefined; readonly isTapped: boolean }
const AHEAD = new Question<Walked<Ahead>>()

/**
 * The device that protects a feeder: the breaker it starts at, the main it starts behind, or, where it starts at lugs
 * without a device, whatever protects those. A feeder from the line lugs of a main is not protected by that main.
 * 215.3, 230.90, 240.21.
 */
export function aheadOf(site: Site, feeder: Subject<'feeder'>): Walked<Ahead> {
  const answers = site.kept(AHEAD)
  let walked = answers.get(feeder.id)
  if (!walked) {
    const trail = new Trail()
    const value = walk(site, feeder, trail, new Set())
    answers.set(feeder.id, (walked = trail.found(value)))
  }
  return walked
}

function walk(
  site: Site,
  feeder: Subject<'feeder'>,
  trail: Trail,
  walked: Set<string>,
): Ahead | undefined {
  // Feeders recorded in a ring protect nothing that anybody could name.
  if (walked.has(feeder.id)) return undefined
  walked.add(feeder.id)
  const start = trail.ask(feeder.facts.from)
  const breaker = site.get(start, 'breaker')
  if (breaker) {
    const amps = trail.ask(breaker.facts.ratingAmps)
    return amps === undefined ? undefined : { amps, device: breaker }
  }
  const enclosure = site.get(start, 'enclosure')
  if (!enclosure) return undefined
  const isTapped = startsAheadOfMain(feeder, trail)
  if (!isTapped) {
    const main = trail.ask(enclosure.facts.mainKind)
    if (main === 'main breaker' || main === 'fused main') {
      const amps = trail.ask(enclosure.facts.mainAmps)
      return amps === undefined ? undefined : { amps, device: enclosure }
    }
    // A plain meter has no device of its own; what has one is recorded as a disconnect.
    if (main === 'split bus') return undefined
    if (main === undefined && trail.ask(enclosure.facts.type) !== 'meter') return undefined
  }
  const from = trail.ask(enclosure.facts.fedFrom)
  if (from === 'utility') return { amps: undefined, isTapped }
  const before = site.get(from, 'feeder')
  if (!before) return trail.ask(enclosure.facts.type) === 'meter' ? none(isTapped) : undefined
  return walk(site, before, trail, walked)
}

/**
 * Whether a feeder starts at the line side of the main it is recorded to start in. Behind the main is where feeders
 * start; the other thing is said by whoever sees it, and not asked of everybody.
 */
export function startsAheadOfMain(feeder: Subject<'feeder'>, trail: Trail): boolean {
  const { fromTerminals } = feeder.facts
  return whereSeen(fromTerminals) !== undefined && trail.ask(fromTerminals) === 'line lugs'
}

const none = (isTapped: boolean): Ahead => ({ amps: undefined, isTapped })
