import type { Subject } from '../model/house'
import { startsAheadOfMain } from './ahead'
import { Question, type Kept, type Site } from './site'
import { Trail, type Walked } from './trail'

/** service: the service disconnect · supply: between utility and it · load: anywhere after it. */
export type ServiceRole = 'service' | 'supply' | 'load'
const ROLES = new Question<Walked<ServiceRole>>()

/**
 * Which enclosure is the service disconnect. Every bond verdict hangs on this, so it is undecided
 * wherever a marking could change it: since 2020 an outdoor disconnect may be marked as not being
 * service equipment, and the service is then what comes after it. 230.70, 230.85, 250.24.
 */
export function roleOf(site: Site, enclosure: Subject<'enclosure'>): Walked<ServiceRole> {
  const roles = site.kept(ROLES)
  return roles.get(enclosure.id) ?? walk(site, enclosure, roles, new Set())
}

function walk(
  site: Site,
  enclosure: Subject<'enclosure'>,
  roles: Kept<Walked<ServiceRole>>,
  walking: Set<string>,
): Walked<ServiceRole> {
  const done = roles.get(enclosure.id)
  if (done) return done
  walking.add(enclosure.id)
  const trail = new Trail()
  const value = decide(site, enclosure, trail, roles, walking)
  const walked = trail.found(value)
  roles.set(enclosure.id, walked)
  return walked
}

function decide(
  site: Site,
  enclosure: Subject<'enclosure'>,
  trail: Trail,
  roles: Kept<Walked<ServiceRole>>,
  walking: Set<string>,
): ServiceRole | undefined {
  const from = trail.ask(enclosure.facts.fedFrom)
  if (from === undefined) {
    // Nothing else could be ahead of an enclosure that says it is the service disconnect.
    return trail.ask(enclosure.facts.marking) === 'service disconnect' ? 'service' : undefined
  }
  if (from !== 'utility') {
    const feeder = site.get(from, 'feeder')
    const start = feeder && trail.ask(feeder.facts.from)
    const source = site.get(start, 'enclosure') ?? parentEnclosure(site, start)
    if (!source || walking.has(source.id)) return undefined
    // Ahead of a main, the conductors are on whichever side the main itself is fed from.
    if (feeder && startsAheadOfMain(feeder, trail)) {
      const before = trail.ask(source.facts.fedFrom)
      if (before === undefined) return undefined
      if (before === 'utility') return firstAfterSupply(site, enclosure, trail)
    }
    const ahead = walk(site, source, roles, walking)
    trail.rests.push(...ahead.rests)
    if (ahead.value === undefined) return undefined
    if (ahead.value !== 'supply') return 'load'
  }
  return firstAfterSupply(site, enclosure, trail)
}

/** The first enclosure after the supply: the service disconnect, unless it is a meter or marked otherwise. */
function firstAfterSupply(
  site: Site,
  enclosure: Subject<'enclosure'>,
  trail: Trail,
): ServiceRole | undefined {
  const type = trail.ask(enclosure.facts.type)
  if (type === undefined) return undefined
  if (type === 'meter') return 'supply'
  const marking = trail.ask(enclosure.facts.marking)
  if (marking === 'not service equipment') return 'supply'
  if (marking !== undefined) return 'service'
  const place = trail.ask(enclosure.facts.place)
  return place === 'indoors' ? 'service' : undefined
}

function parentEnclosure(
  site: Site,
  breakerId: string | undefined,
): Subject<'enclosure'> | undefined {
  const breaker = site.get(breakerId, 'breaker')
  return breaker ? site.get(breaker.parent ?? undefined, 'enclosure') : undefined
}
