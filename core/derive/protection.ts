import type { Context } from '../engine/context'
import type { Subject } from '../model/house'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

const NEAR_FT = 6

/** A requirement of a place as it bears on one receptacle: met by its situation, not met, or open. */
interface Row { readonly since: number, readonly holds: boolean | undefined, readonly text: string }

/**
 * Since which edition ground-fault protection is required at a receptacle where it stands. 210.8(A).
 * `since` is the oldest requirement that surely bears on it; `isOpen` says that an unseen fact could make it bear.
 */
export function gfciRequirement(point: Subject<'point'>, room: Subject<'room'>, c: Context): { since: number | undefined, text: string, isOpen: boolean } | undefined {
  const use = c.ask(room, 'use')
  if (use === undefined) return undefined
  const rows = rowsFor(use, point, room, c).filter(r => r.since <= c.site.edition)
  const sure = rows.filter(r => r.holds === true).sort((a, b) => a.since - b.since)[0]
  return { since: sure?.since, text: sure?.text ?? '', isOpen: rows.some(r => r.holds === undefined) }
}

function rowsFor(use: string, point: Subject<'point'>, room: Subject<'room'>, c: Context): Row[] {
  const not = (value: boolean | undefined) => value === undefined ? undefined : !value
  const both = (a: boolean | undefined, b: boolean | undefined) => a === false || b === false ? false : a === undefined || b === undefined ? undefined : true
  const near = (): boolean | undefined => {
    const ft = c.ask(point, 'sinkFt')
    if (ft !== undefined) return ft <= NEAR_FT
    return c.ask(room, 'hasSink') === false ? false : undefined
  }
  switch (use) {
    case 'outdoors': return [{ since: 1973, holds: c.ask(point, 'hasGradeAccess'), text: 'outdoors, reached from the ground' }, { since: 1996, holds: true, text: 'outdoors' }]
    case 'bathroom': return [{ since: 1975, holds: true, text: 'bathroom' }]
    case 'garage': return [{ since: 1978, holds: both(not(c.ask(point, 'isOutOfReach')), not(c.ask(point, 'isDedicated'))), text: 'garage' }, { since: 2008, holds: true, text: 'garage, no exemptions any more' }]
    case 'basement, unfinished': return [{ since: 1990, holds: not(c.ask(point, 'isDedicated')), text: 'unfinished basement' }, { since: 2008, holds: true, text: 'unfinished basement, no exemptions any more' }]
    case 'basement, finished': return [{ since: 2014, holds: near(), text: 'within 6 ft of a sink' }, { since: 2020, holds: true, text: 'basement, finished too' }]
    case 'crawl space': return [{ since: 1990, holds: true, text: 'crawl space' }]
    case 'kitchen': {
      const counter = c.ask(point, 'servesCounter')
      const atSink = near()
      return [{ since: 1987, holds: both(counter, atSink), text: 'kitchen counter near the sink' }, { since: 1996, holds: counter, text: 'kitchen counter' }, { since: 2014, holds: atSink, text: 'within 6 ft of a sink' }, { since: 2023, holds: true, text: 'kitchen' }]
    }
    case 'laundry': return [{ since: 2005, holds: near(), text: 'within 6 ft of the laundry sink' }, { since: 2014, holds: true, text: 'laundry area' }]
    case 'utility': return [{ since: 2005, holds: near(), text: 'within 6 ft of the utility sink' }]
    default: return [{ since: 2011, holds: near(), text: 'within 6 ft of a sink' }]
  }
}

/** Since which edition arc-fault protection is required for an outlet or device where it is. 210.12(A). */
export function afciSince(use: string, type: string): number | undefined {
  const isDevice = type === 'switch'
  switch (use) {
    case 'bedroom': return isDevice ? 2014 : type === 'receptacle' ? 1999 : 2002
    case 'living': case 'hallway': case 'closet': case 'office': case 'stairs': case 'basement, finished': return isDevice ? 2014 : 2008
    case 'kitchen': case 'laundry': return 2014
    default: return undefined
  }
}

const isAfci = (protection: string | undefined) => protection === 'AFCI' || protection === 'dual'

/** Where arc-fault protection of a point sits: in the breaker, in this device, in a device ahead, or nowhere. */
export function afciOf(site: Site, point: Subject<'point'>): Walked<'breaker' | 'own' | 'ahead' | 'none'> {
  const trail = new Trail()
  const circuit = site.get(trail.ask(point, 'circuit'), 'circuit')
  const breaker = circuit && site.get(trail.ask(circuit, 'fedBy'), 'breaker')
  const atBreaker = breaker && trail.ask(breaker, 'protection')
  if (isAfci(atBreaker)) return { value: 'breaker', rests: trail.rests }
  const own = protectionOf(point, trail)
  if (isAfci(own)) return { value: 'own', rests: trail.rests }
  let isOpen = atBreaker === undefined || own === undefined
  const walked = new Set([point.id])
  for (let at = point; ;) {
    const after: string | undefined = trail.ask(at, 'after')
    if (after === 'panel') return { value: isOpen ? undefined : 'none', rests: trail.rests }
    const ahead = site.get(after, 'point')
    if (!ahead || walked.has(ahead.id)) return { value: undefined, rests: trail.rests }
    walked.add(ahead.id)
    const protection = protectionOf(ahead, trail)
    if (protection === undefined) isOpen = true
    else if (isAfci(protection)) {
      // What is not fed through the load terminals of a device is not protected by it.
      const fromLoad = trail.ask(at, 'isFedFromLoadSide')
      if (fromLoad === true) return { value: 'ahead', rests: trail.rests }
      if (fromLoad === undefined) isOpen = true
    }
    at = ahead
  }
}

const CARRIES_NONE = new Set(['luminaire', 'junction box', 'hard-wired outlet', 'alarm'])
function protectionOf(point: Subject<'point'>, trail: Trail) {
  const type = trail.ask(point, 'type')
  return type !== undefined && CARRIES_NONE.has(type) ? 'none' : trail.ask(point, 'protection')
}
