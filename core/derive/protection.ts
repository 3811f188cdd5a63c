import type { Context } from '../engine/context'
import type { Subject } from '../model/house'
import { gfciRowsOf, NEAR_FT, type Bearing, type GfciRow } from '../tables/protection-years'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/**
 * Since which edition ground-fault protection is required at a receptacle where it stands. 210.8(A).
 * `since` is the oldest requirement that surely bears on it; `isOpen` says that an unseen fact could make one bear.
 */
export function gfciRequirement(point: Subject<'point'>, room: Subject<'room'>, c: Context): { since: number | undefined, text: string, isOpen: boolean } | undefined {
  const use = c.ask(room.facts.use)
  if (use === undefined) return undefined
  let sure: GfciRow | undefined
  let isOpen = false
  for (const row of gfciRowsOf(use)) {
    if (row.since > c.site.edition) break
    const holds = bearsOn(row.bears, point, room, c)
    if (holds) sure ??= row
    else if (holds === undefined) isOpen = true
  }
  return { since: sure?.since, text: sure?.text ?? '', isOpen }
}

/** Whether a row bears on this receptacle; undefined where what decides it has not been seen. */
function bearsOn(bears: Bearing, point: Subject<'point'>, room: Subject<'room'>, c: Context): boolean | undefined {
  const not = (value: boolean | undefined) => value === undefined ? undefined : !value
  const both = (a: boolean | undefined, b: boolean | undefined) => a === false || b === false ? false : a === undefined || b === undefined ? undefined : true
  const near = (): boolean | undefined => {
    const ft = c.ask(point.facts.sinkFt)
    if (ft !== undefined) return ft <= NEAR_FT
    return c.ask(room.facts.hasSink) === false ? false : undefined
  }
  switch (bears) {
    case 'all': return true
    case 'no single receptacle': return false
    case 'reached from grade': return c.ask(point.facts.hasGradeAccess)
    case 'not dedicated': return not(c.ask(point.facts.isDedicated))
    case 'within reach, not dedicated': return both(not(c.ask(point.facts.isOutOfReach)), not(c.ask(point.facts.isDedicated)))
    case 'counter': return c.ask(point.facts.servesCounter)
    case 'near water': return near()
    case 'counter near water': return both(c.ask(point.facts.servesCounter), near())
  }
}

const isAfci = (protection: string | undefined) => protection === 'AFCI' || protection === 'dual'

/** Where arc-fault protection of a point sits: in the breaker, in this device, in a device ahead, or nowhere. */
export function afciOf(site: Site, point: Subject<'point'>): Walked<'breaker' | 'own' | 'ahead' | 'none'> {
  const trail = new Trail()
  const circuit = site.get(trail.ask(point.facts.circuit), 'circuit')
  const breaker = circuit && site.get(trail.ask(circuit.facts.fedBy), 'breaker')
  const atBreaker = breaker && trail.ask(breaker.facts.protection)
  if (isAfci(atBreaker)) return { value: 'breaker', rests: trail.rests }
  const own = protectionOf(point, trail)
  if (isAfci(own)) return { value: 'own', rests: trail.rests }
  let isOpen = atBreaker === undefined || own === undefined
  for (let at = point, steps = 0; ; steps++) {
    const after: string | undefined = trail.ask(at.facts.after)
    if (after === 'panel') return { value: isOpen ? undefined : 'none', rests: trail.rests }
    const ahead = site.get(after, 'point')
    if (!ahead || steps > site.all.point.length) return { value: undefined, rests: trail.rests }
    const protection = protectionOf(ahead, trail)
    if (protection === undefined) isOpen = true
    else if (isAfci(protection)) {
      // What is not fed through the load terminals of a device is not protected by it.
      const fromLoad = trail.ask(at.facts.isFedFromLoadSide)
      if (fromLoad === true) return { value: 'ahead', rests: trail.rests }
      if (fromLoad === undefined) isOpen = true
    }
    at = ahead
  }
}

const CARRIES_NONE = new Set(['luminaire', 'junction box', 'hard-wired outlet', 'alarm'])
function protectionOf(point: Subject<'point'>, trail: Trail) {
  const type = trail.ask(point.facts.type)
  return type !== undefined && CARRIES_NONE.has(type) ? 'none' : trail.ask(point.facts.protection)
}
