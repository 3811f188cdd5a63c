import { whereSeen } from '../model/house'
import type { Context } from '../engine/context'
import type { Subject } from '../model/house'
import {
  ALSO_250V_SINCE,
  gfciRowsOf,
  HARD_WIRED_MOST_AMPS,
  HVAC_EXEMPT,
  NEAR_FT,
  type Bearing,
  type GfciRow,
} from '../tables/protection-years'

export interface GfciNeed {
  readonly since: number | undefined
  readonly text: string
  readonly isOpen: boolean
  /** The oldest requirement that an unseen fact could make bear. */
  readonly openSince: number | undefined
  /** The year of the oldest requirement is not settled. */ readonly isSinceOpen: boolean
}

/** Rows about outlets other than plain receptacles. */
const OTHER_OUTLETS: ReadonlySet<Bearing> = new Set([
  'hard-wired',
  'lighting',
  'dishwasher',
  'listed appliance',
  'boat hoist',
])
const LISTED_APPLIANCES: ReadonlySet<string> = new Set([
  'range, oven or cooktop',
  'dryer',
  'microwave',
  'sump pump',
])

/**
 * The rows that could bear on a kind of outlet in a place under an edition; for an outlet of
 * unknown kind all of them.
 */
function rowsFor(use: string, type: string | undefined, edition: number): readonly GfciRow[] {
  let kinds = ROWS.get(edition)?.get(use)
  if (!kinds) {
    kinds = new Map()
    if (!ROWS.has(edition)) ROWS.set(edition, new Map())
    ROWS.get(edition)!.set(use, kinds)
  }
  let rows = kinds.get(type)
  if (!rows) {
    const isFor = (bears: Bearing): boolean => {
      if (bears === 'no single receptacle') return false
      switch (type) {
        case undefined:
          return true
        case 'receptacle':
          return bears !== 'hard-wired' && bears !== 'lighting'
        case 'hard-wired outlet':
          return OTHER_OUTLETS.has(bears) && bears !== 'lighting'
        case 'luminaire':
          return bears === 'lighting'
        default:
          return false
      }
    }
    kinds.set(type, (rows = gfciRowsOf(use).filter(r => r.since <= edition && isFor(r.bears))))
  }
  return rows
}
const ROWS = new Map<number, Map<string, Map<string | undefined, readonly GfciRow[]>>>()

/** Whether any row could bear on an outlet of this kind in this place at all. */
export const couldNeedGfci = (use: string, type: string, edition: number): boolean =>
  rowsFor(use, type, edition).length > 0

/**
 * Since which edition ground-fault protection is required at an outlet where it stands. 210.8(A), (D), (F).
 * `since` is the oldest requirement that surely bears on it; `isOpen` says that an unseen fact could make one bear.
 */
export function gfciRequirement(
  outlet: Subject<'outlet'>,
  use: string,
  room: Subject<'room'>,
  c: Context,
): GfciNeed {
  const type = c.ask(outlet.facts.type)
  const isReceptacle = type === undefined ? undefined : type === 'receptacle'
  // The face tells the voltage; hard-wired things have none to read.
  const slots = isReceptacle === false ? undefined : c.ask(outlet.facts.slots)
  const is250 = isReceptacle === false ? false : slots === undefined ? undefined : slots === '240 V'
  const isLate = c.site.edition >= ALSO_250V_SINCE
  const facts = new Bearings(outlet, room, type, c)
  let sure: GfciRow | undefined
  let since: number | undefined
  let isOpen = false
  let openSince: number | undefined
  for (const row of rowsFor(use, type, c.site.edition)) {
    const aboutReceptacles = !OTHER_OUTLETS.has(row.bears)
    if (aboutReceptacles && is250 === true && !isLate) continue
    // Once the oldest requirement surely bears, younger ones change nothing.
    if (since !== undefined && row.since >= since) break
    const holds = both(aboutReceptacles ? isReceptacle : true, facts.bears(row.bears))
    if (holds && !(aboutReceptacles && is250 === undefined && !isLate)) {
      sure = row
      const began = facts.sinceOf(row)
      since = aboutReceptacles && is250 === true ? Math.max(ALSO_250V_SINCE, began) : began
    } else if (holds !== false) {
      isOpen = true
      const began = facts.sinceOf(row)
      openSince = Math.min(openSince ?? began, began)
    }
  }
  return {
    since,
    text: sure?.text ?? '',
    isOpen,
    openSince,
    isSinceOpen: sure?.isOpenBefore ?? false,
  }
}

const not = (value: boolean | undefined): boolean | undefined =>
  value === undefined ? undefined : !value
const both = (a: boolean | undefined, b: boolean | undefined): boolean | undefined =>
  a === false || b === false ? false : a === undefined || b === undefined ? undefined : true

/**
 * What decides whether a row bears on an outlet, each fact asked for once and only if a row wants
 * it. Undefined where it has not been seen.
 */
class Bearings {
  #near: boolean | undefined | null = null
  #appliance: string | undefined | null = null
  constructor(
    private readonly outlet: Subject<'outlet'>,
    private readonly room: Subject<'room'>,
    private readonly type: string | undefined,
    private readonly c: Context,
  ) {}

  bears(bears: Bearing): boolean | undefined {
    const { c, outlet } = this
    switch (bears) {
      case 'all':
        return true
      case 'no single receptacle':
        return false
      case 'reached from grade':
        return c.ask(outlet.facts.hasGradeAccess)
      case 'not dedicated':
        return not(c.ask(outlet.facts.isDedicated))
      case 'within reach, not dedicated':
        return both(not(c.ask(outlet.facts.isOutOfReach)), not(c.ask(outlet.facts.isDedicated)))
      case 'counter':
        return c.ask(outlet.facts.servesCounter)
      case 'near water':
        return this.near()
      case 'near a wet-bar sink':
        return this.nearKind(WET_BAR)
      case 'near a sink':
        return this.nearKind(SINKS)
      case 'counter near water':
        return both(c.ask(outlet.facts.servesCounter), this.near())
      case 'lighting':
        return this.type === undefined ? undefined : this.type === 'luminaire'
      case 'dishwasher':
        return this.feeds(a => a === 'dishwasher')
      case 'listed appliance':
        return this.feeds(a => LISTED_APPLIANCES.has(a))
      case 'boat hoist':
        return this.feeds(a => a === 'boat hoist')
      case 'hard-wired':
        return hardWired(outlet, this.type, c)
    }
  }

  private near(): boolean | undefined {
    if (this.#near !== null) return this.#near
    const ft = this.c.ask(this.outlet.facts.sinkFt)
    if (ft === undefined)
      return (this.#near = this.c.ask(this.room.facts.hasSink) === false ? false : undefined)
    const isNear = ft <= NEAR_FT
    return (this.#near = isNear && this.passesDoorway() ? isDoorwayCounted(this.c) : isNear)
  }

  /** Taken as measured inside the room, unless somebody says that the way passes a doorway. */
  private passesDoorway(): boolean {
    const { isThroughDoorway } = this.outlet.facts
    return whereSeen(isThroughDoorway) !== undefined && this.c.ask(isThroughDoorway) === true
  }

  /** The edition from which a row bears on this outlet: through a doorway not before 2020. 210.8(A). */
  sinceOf(row: GfciRow): number {
    const isOfWater = NEAR_WATER.has(row.bears)
    return isOfWater && this.passesDoorway() ? Math.max(row.since, DOORWAY_SINCE) : row.since
  }

  /** Near water of one of these kinds. */
  private nearKind(kinds: ReadonlySet<string>): boolean | undefined {
    const isNear = this.near()
    if (isNear === false) return false
    const kind = this.c.ask(this.room.facts.sinkKind)
    return both(isNear, kind === undefined ? undefined : kinds.has(kind))
  }

  private feeds(test: (appliance: string) => boolean): boolean | undefined {
    if (this.#appliance === null) this.#appliance = this.c.ask(this.outlet.facts.appliance)
    return this.#appliance === undefined ? undefined : test(this.#appliance)
  }
}
/** The edition from which water behind a doorway counts too. */
const DOORWAY_SINCE = 2020
const isDoorwayCounted = (c: Context): boolean => c.site.edition >= DOORWAY_SINCE
const NEAR_WATER: ReadonlySet<Bearing> = new Set([
  'near water',
  'near a sink',
  'near a wet-bar sink',
  'counter near water',
])
const WET_BAR: ReadonlySet<string> = new Set(['wet-bar sink'])
const SINKS: ReadonlySet<string> = new Set([
  'wet-bar sink',
  'laundry or utility sink',
  'other sink',
])

/**
 * Hard-wired outlets outdoors, up to 50 A and 150 V to ground; lights are left out, and for a time
 * listed heating and cooling. 210.8(F).
 */
function hardWired(
  outlet: Subject<'outlet'>,
  type: string | undefined,
  c: Context,
): boolean | undefined {
  if (type !== undefined && type !== 'hard-wired outlet') return false
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
  const breaker = circuit && c.site.get(c.ask(circuit.facts.fedBy), 'breaker')
  const amps = breaker && c.ask(breaker.facts.ratingAmps)
  if (amps !== undefined && amps > HARD_WIRED_MOST_AMPS) return false
  const isExemptNow = c.site.edition >= HVAC_EXEMPT.edition && c.site.visitedOn < HVAC_EXEMPT.until
  const supplies = isExemptNow ? circuit && c.ask(circuit.facts.supplies) : undefined
  const appliance = isExemptNow ? c.ask(outlet.facts.appliance) : undefined
  if (
    supplies === 'air conditioning' ||
    appliance === 'heating or cooling unit' ||
    appliance === 'room air conditioner'
  )
    return false
  const isNoHvac = !isExemptNow || appliance !== undefined || supplies !== undefined
  return both(
    both(type === undefined ? undefined : true, amps === undefined ? undefined : true),
    isNoHvac ? true : undefined,
  )
}
