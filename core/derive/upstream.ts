import { valueOf, type Subject } from '../model/house'
import { startsAheadOfMain } from './ahead'
import { Question, type Site } from './site'
import { lowerMainOf } from './throws'
import { Trail, type Walked } from './trail'

/** Protection ahead of a breaker's own: the smallest device upstream, and whether the walk reached the supply. */
export interface Upstream {
  /** Smallest rating ahead in amperes, or undefined where none was read. */
  readonly smallestAmps: number | undefined
  readonly smallest: Subject | undefined
  /** A device ahead that nobody has read could be as small as this, in amperes; undefined where all were read. */
  readonly unreadFrom: number | undefined
  /** True only where every enclosure on the way was seen to have no second source. */
  readonly hasOneSource: boolean | undefined
}
const UPSTREAM = new Question<Walked<Upstream>>()

/** No main is smaller than 30 A (the domain of the field says the same); a feeder may start at a 15 A breaker. */
const LEAST_MAIN = 30
const LEAST_BREAKER = 15

/** The devices ahead of a breaker. Worked out once per enclosure chain. */
export function upstreamOf(site: Site, breaker: Subject<'breaker'>): Walked<Upstream> {
  const answers = site.kept(UPSTREAM)
  // Above and below the gap of a split bus other devices stand ahead.
  const key = `${breaker.parent ?? breaker.id} ${valueOf(breaker, 'section') ?? ''}`
  let walked = answers.get(key)
  if (!walked) answers.set(key, (walked = walkUp(site, breaker)))
  return walked
}

/**
 * Walks from a breaker toward the supply. The effective protection of a conductor is the smallest device
 * upstream of it, provided there is one source only. 240.4, 240.21.
 */
function walkUp(site: Site, breaker: Subject<'breaker'>): Walked<Upstream> {
  const trail = new Trail()
  let smallestAmps: number | undefined
  let smallest: Subject | undefined
  let unreadFrom: number | undefined
  let hasOneSource: boolean | undefined = true
  const unread = (amps: number) => {
    unreadFrom = Math.min(amps, unreadFrom ?? amps)
  }
  const take = (subject: Subject, amps: number | undefined, least: number) => {
    if (amps === undefined) unread(least)
    else if (smallestAmps === undefined || amps < smallestAmps) {
      smallestAmps = amps
      smallest = subject
    }
  }
  const walked = new Set<string>()
  // What starts at the line lugs of a main is not protected by it.
  let isBehindMain = true
  let enclosure = site.get(breaker.parent ?? undefined, 'enclosure')
  // Seen from below the gap of a split bus, the main of the lower section stands ahead.
  let at = breaker
  while (enclosure && !walked.has(enclosure.id)) {
    walked.add(enclosure.id)
    const backfed = site
      .children(enclosure, 'breaker')
      .find(b => valueOf(b, 'role') === 'backfed source')
    const second = backfed
      ? trail.ask(backfed.facts.role) !== undefined
      : trail.ask(enclosure.facts.hasSecondSource)
    if (second === true) hasOneSource = false
    else if (second === undefined && hasOneSource) hasOneSource = undefined
    const main = isBehindMain ? trail.ask(enclosure.facts.mainKind) : 'main lugs'
    if (main === 'main breaker' || main === 'fused main')
      take(enclosure, trail.ask(enclosure.facts.mainAmps), LEAST_MAIN)
    else if (main === 'split bus') {
      const section = trail.ask(at.facts.section)
      const lower = section === 'upper' ? undefined : lowerMainOf(site, enclosure)
      if (section === 'lower' && lower) take(lower, trail.ask(lower.facts.ratingAmps), LEAST_MAIN)
      else if (section !== 'upper' && lower !== at) unread(LEAST_MAIN)
    }
    // A plain meter has no device of its own; what has one is recorded as a disconnect.
    else if (main === undefined && trail.ask(enclosure.facts.type) !== 'meter') unread(LEAST_MAIN)
    const from = trail.ask(enclosure.facts.fedFrom)
    if (from === 'utility') break
    const feeder = site.get(from, 'feeder')
    if (!feeder) {
      // A lone enclosure has nothing it could be fed from; with others about, what feeds it may be smaller.
      if (site.all.enclosure.length > 1) unread(LEAST_BREAKER)
      break
    }
    const start = trail.ask(feeder.facts.from)
    const device = site.get(start, 'breaker')
    if (device) take(device, trail.ask(device.facts.ratingAmps), LEAST_BREAKER)
    else if (!site.get(start, 'enclosure')) unread(LEAST_BREAKER)
    enclosure = site.get(device?.parent ?? start, 'enclosure')
    if (device) at = device
    isBehindMain = device !== undefined || !startsAheadOfMain(feeder, trail)
  }
  return trail.found({ smallestAmps, smallest, unreadFrom, hasOneSource })
}

/** The breaker a feeder starts at, where it starts at one. */
export const breakerOf = (site: Site, feeder: Subject<'feeder'>): Subject<'breaker'> | undefined =>
  site.get(valueOf(feeder, 'from'), 'breaker')
