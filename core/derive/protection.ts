import type { Context } from '../engine/context'
import type { Subject } from '../model/house'
import { GFCI_ROWS, NEAR_FT, type Bearing } from '../tables/protection-years'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/**
 * Since which edition ground-fault protection is required at a receptacle where it stands. 210.8(A).
 * `since` is the oldest requirement that surely bears on it; `isOpen` says that an unseen fact could make one bear.
 */
export function gfciRequirement(point: Subject<'point'>, room: Subject<'room'>, c: Context): { since: number | undefined, text: string, isOpen: boolean } | undefined {
  const use = c.ask(room, 'use')
  if (use === undefined) return undefined
  const rows = GFCI_ROWS.filter(r => r.place === use && r.since <= c.site.edition).map(r => ({ ...r, holds: bearsOn(r.bears, point, room, c) }))
  const sure = rows.filter(r => r.holds === true).sort((a, b) => a.since - b.since)[0]
  return { since: sure?.since, text: sure?.text ?? '', isOpen: rows.some(r => r.holds === undefined) }
}

/** Whether a row bears on this receptacle; undefined where what decides it has not been seen. */
function bearsOn(bears: Bearing, point: Subject<'point'>, room: Subject<'room'>, c: Context): boolean | undefined {
  const not = (value: boolean | undefined) => value === undefined ? undefined : !value
  const both = (a: boolean | undefined, b: boolean | undefined) => a === false || b === false ? false : a === undefined || b === undefined ? undefined : true
  const near = (): boolean | undefined => {
    const ft = c.ask(point, 'sinkFt')
    if (ft !== undefined) return ft <= NEAR_FT
    return c.ask(room, 'hasSink') === false ? false : undefined
  }
  switch (bears) {
    case 'all': return true
    case 'no single receptacle': return false
    case 'reached from grade': return c.ask(point, 'hasGradeAccess')
    case 'not dedicated': return not(c.ask(point, 'isDedicated'))
    case 'within reach, not dedicated': return both(not(c.ask(point, 'isOutOfReach')), not(c.ask(point, 'isDedicated')))
    case 'counter': return c.ask(point, 'servesCounter')
    case 'near water': return near()
    case 'counter near water': return both(c.ask(point, 'servesCounter'), near())
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
