import type { Context } from '../engine/context'
import type { Subject } from '../model/house'
import { ALSO_250V_SINCE, gfciRowsOf, HARD_WIRED_MOST_AMPS, HVAC_EXEMPT, NEAR_FT, type Bearing, type GfciRow } from '../tables/protection-years'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

export interface GfciNeed { readonly since: number | undefined, readonly text: string, readonly isOpen: boolean, /** The year of the oldest requirement is not settled. */ readonly isSinceOpen: boolean }

/**
 * Since which edition ground-fault protection is required at an outlet where it stands. 210.8(A), (D), (F).
 * `since` is the oldest requirement that surely bears on it; `isOpen` says that an unseen fact could make one bear.
 */
export function gfciRequirement(point: Subject<'point'>, room: Subject<'room'>, c: Context): GfciNeed | undefined {
  const use = c.ask(room.facts.use)
  const type = c.ask(point.facts.type)
  if (use === undefined) return undefined
  const isReceptacle = type === undefined ? undefined : type === 'receptacle'
  // The face tells the voltage; hard-wired things have none to read.
  const slots = isReceptacle === false ? undefined : c.ask(point.facts.slots)
  const is250 = isReceptacle === false ? false : slots === undefined ? undefined : slots === '240 V'
  let sure: { row: GfciRow, since: number } | undefined
  let isOpen = false
  for (const row of gfciRowsOf(use)) {
    if (row.since > c.site.edition) break
    const aboutReceptacles = !OTHER_OUTLETS.has(row.bears)
    if (aboutReceptacles && isReceptacle === false) continue
    if (aboutReceptacles && is250 === true && c.site.edition < ALSO_250V_SINCE) continue
    const holds = both(aboutReceptacles ? isReceptacle : true, bearsOn(row.bears, point, room, type, c))
    const isEarly = aboutReceptacles && row.since < ALSO_250V_SINCE
    if (holds) {
      const since = isEarly && is250 === true ? ALSO_250V_SINCE : row.since
      if (!sure || since < sure.since) sure = { row, since }
      if (isEarly && is250 === undefined && c.site.edition < ALSO_250V_SINCE) isOpen = true
    } else if (holds === undefined) isOpen = true
  }
  if (isOpen && sure && c.site.edition < ALSO_250V_SINCE && is250 === undefined && isReceptacle !== false) sure = undefined
  return { since: sure?.since, text: sure?.row.text ?? '', isOpen, isSinceOpen: sure?.row.isOpenBefore ?? false }
}

/** Rows about outlets other than plain receptacles. */
const OTHER_OUTLETS: ReadonlySet<Bearing> = new Set(['hard-wired', 'lighting', 'dishwasher', 'listed appliance', 'boat hoist'])
const LISTED_APPLIANCES: ReadonlySet<string> = new Set(['range, oven or cooktop', 'dryer', 'microwave'])

const not = (value: boolean | undefined): boolean | undefined => value === undefined ? undefined : !value
const both = (a: boolean | undefined, b: boolean | undefined): boolean | undefined => a === false || b === false ? false : a === undefined || b === undefined ? undefined : true

/** Whether a row bears on this outlet; undefined where what decides it has not been seen. */
function bearsOn(bears: Bearing, point: Subject<'point'>, room: Subject<'room'>, type: string | undefined, c: Context): boolean | undefined {
  const near = (): boolean | undefined => {
    const ft = c.ask(point.facts.sinkFt)
    if (ft !== undefined) return ft <= NEAR_FT
    return c.ask(room.facts.hasSink) === false ? false : undefined
  }
  /** Near water of one of these kinds. */
  const nearKind = (...kinds: readonly string[]): boolean | undefined => {
    const isNear = near()
    if (isNear === false) return false
    const kind = c.ask(room.facts.sinkKind)
    return both(isNear, kind === undefined ? undefined : kinds.includes(kind))
  }
  const isAppliance = (test: (appliance: string) => boolean): boolean | undefined => {
    const appliance = c.ask(point.facts.appliance)
    return appliance === undefined ? undefined : test(appliance)
  }
  switch (bears) {
    case 'all': return true
    case 'no single receptacle': return false
    case 'reached from grade': return c.ask(point.facts.hasGradeAccess)
    case 'not dedicated': return not(c.ask(point.facts.isDedicated))
    case 'within reach, not dedicated': return both(not(c.ask(point.facts.isOutOfReach)), not(c.ask(point.facts.isDedicated)))
    case 'counter': return c.ask(point.facts.servesCounter)
    case 'near water': return near()
    case 'near a wet-bar sink': return nearKind('wet-bar sink')
    case 'near a sink': return nearKind('wet-bar sink', 'laundry or utility sink', 'other sink')
    case 'counter near water': return both(c.ask(point.facts.servesCounter), near())
    case 'lighting': return type === undefined ? undefined : type === 'luminaire'
    // A switch, a light, a junction box feeds no such thing of its own.
    case 'dishwasher': return type === 'receptacle' || type === 'hard-wired outlet' || type === undefined ? isAppliance(a => a === 'dishwasher') : false
    case 'listed appliance': return type === 'receptacle' || type === 'hard-wired outlet' || type === undefined ? isAppliance(a => LISTED_APPLIANCES.has(a)) : false
    case 'boat hoist': return type === 'receptacle' || type === 'hard-wired outlet' || type === undefined ? isAppliance(a => a === 'boat hoist') : false
    case 'hard-wired': return hardWired(point, type, c)
  }
}

/** Hard-wired outlets outdoors, up to 50 A and 150 V to ground; lights are left out, and for a time listed heating and cooling. 210.8(F). */
function hardWired(point: Subject<'point'>, type: string | undefined, c: Context): boolean | undefined {
  if (type !== undefined && type !== 'hard-wired outlet') return false
  const circuit = c.site.get(c.ask(point.facts.circuit), 'circuit')
  const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
  const amps = breaker && c.ask(breaker.facts.ratingAmps)
  if (amps !== undefined && amps > HARD_WIRED_MOST_AMPS) return false
  const isExemptNow = c.site.edition >= HVAC_EXEMPT.edition && c.site.visitedOn < HVAC_EXEMPT.until
  const supplies = isExemptNow ? circuit && c.ask(circuit.facts.supplies) : undefined
  const appliance = isExemptNow ? c.ask(point.facts.appliance) : undefined
  if (supplies === 'air conditioning' || appliance === 'heating or cooling unit' || appliance === 'room air conditioner') return false
  const isNoHvac = !isExemptNow || appliance !== undefined || supplies !== undefined
  return both(both(type === undefined ? undefined : true, amps === undefined ? undefined : true), isNoHvac ? true : undefined)
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
