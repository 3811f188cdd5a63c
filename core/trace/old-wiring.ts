/**
 * Single conductors, as knob-and-tube and other old wiring runs them: a map of taps, splices and transitions, and what
 * dies where one is cut. A conductor is what a meter says it is; color and place prove nothing.
 */
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { labelOf } from '../texts/labels'

type Conductor = Subject<'conductor'>
export type Identity = 'hot' | 'neutral' | 'switched hot' | 'dead, not used'

export interface TracedConductor {
  readonly id: string
  readonly label: string
  /** What a meter said it is; undefined where nobody measured, whatever was taken for granted. */
  readonly identity: Identity | undefined
  /** What somebody took it for without a meter. */
  readonly takenFor: Identity | undefined
  readonly joint: string | undefined
  /** The conductor it is tapped from. */
  readonly from: string | undefined
  /** Where it starts, where that is no conductor: a breaker, an outlet. */
  readonly start: string | undefined
  /** Taps between it and its start. */
  readonly depth: number
  readonly feeds: readonly string[]
  /** Joints no box covers, and what is loose or buried: what old wiring fails by. */
  readonly weak: readonly string[]
}
export interface OldWiring {
  /** Each after the one it is tapped from. */
  readonly conductors: readonly TracedConductor[]
  /** Conductors that nobody has followed back to where they start. */
  readonly loose: readonly string[]
  /** Conductors that are tapped from each other in a ring, which a tree cannot be. */
  readonly rings: readonly string[]
}

/** The single conductors of a house, followed from where they start. */
export function oldWiringOf(site: Site): OldWiring {
  const all = site.all.conductor
  const conductors: TracedConductor[] = []
  const placed = new Set<string>()
  const loose: string[] = []
  const follow = (c: Conductor, depth: number): void => {
    if (placed.has(c.id)) return
    placed.add(c.id)
    conductors.push(traced(site, c, depth))
    for (const tap of all) if (valueOf(tap, 'from') === c.id) follow(tap, depth + 1)
  }
  for (const c of all) {
    const from = valueOf(c, 'from')
    if (site.get(from, 'conductor')) continue
    if (from === undefined) loose.push(c.id)
    follow(c, 0)
  }
  const rings = all.filter(c => !placed.has(c.id)).map(c => c.id)
  for (const id of rings) {
    const c = site.get(id, 'conductor')
    if (c) follow(c, 0)
  }
  return { conductors, loose, rings }
}

function traced(site: Site, c: Conductor, depth: number): TracedConductor {
  const { identity } = c.facts
  const known = identity.state === 'known' ? identity : undefined
  const from = valueOf(c, 'from')
  const parent = site.get(from, 'conductor')
  const joint = valueOf(c, 'joint')
  const insulation = valueOf(c, 'insulation')
  const support = valueOf(c, 'support')
  return {
    id: c.id,
    label: labelOf(site, c),
    identity: known?.grade === 'measured' ? known.value : undefined,
    takenFor: known?.grade === 'measured' ? undefined : known?.value,
    joint,
    from: parent?.id,
    start: parent ? undefined : from,
    depth,
    feeds: valueOf(c, 'feeds') ?? [],
    weak: [
      ...(joint === 'splice outside a box' || joint === 'transition to cable outside a box'
        ? [joint]
        : []),
      ...(insulation !== undefined && insulation !== 'sound' ? [`insulation ${insulation}`] : []),
      ...(support !== undefined && support !== 'on knobs and in tubes' ? [support] : []),
    ],
  }
}

/** What becomes of an outlet when a conductor is cut. */
export type Fate =
  | 'dead'
  | 'live without a return'
  | 'still live, by another conductor'
  | 'one of the two, nobody measured which'
export interface Cut {
  /** The conductor and all that is tapped from it. */
  readonly conductors: readonly string[]
  readonly outlets: readonly { readonly id: string; readonly label: string; readonly fate: Fate }[]
  /** Said before anybody cuts. */
  readonly cautions: readonly string[]
}

/** What is left of an outlet: dead only where every conductor that may be hot is among those cut. */
function fateOf(cut: readonly TracedConductor[], left: readonly TracedConductor[]): Fate {
  const isHot = (c: TracedConductor) => c.identity === 'hot' || c.identity === 'switched hot'
  const isOpen = (c: TracedConductor) => c.identity === undefined
  if (cut.some(isHot) && !left.some(isHot))
    return left.some(isOpen) ? 'one of the two, nobody measured which' : 'dead'
  if (cut.some(isOpen)) return 'one of the two, nobody measured which'
  const hasReturn = left.some(c => c.identity === 'neutral')
  if (cut.some(c => c.identity === 'neutral') && !hasReturn)
    return left.some(isOpen) ? 'one of the two, nobody measured which' : 'live without a return'
  return 'still live, by another conductor'
}

/**
 * What dies if one conductor is cut. An outlet that loses every hot is dead; one that loses its neutral stays live, and
 * so does whatever is switched on behind it, up to the break.
 */
export function cutOf(site: Site, id: string): Cut {
  const { conductors } = oldWiringOf(site)
  const gone = new Set([id])
  // In a ring one may stand before what it is tapped from: again until no more are found.
  for (let before = 0; before < gone.size;) {
    before = gone.size
    for (const c of conductors) if (c.from !== undefined && gone.has(c.from)) gone.add(c.id)
  }
  const inUse = conductors.filter(c => c.identity !== 'dead, not used')
  const touched = new Set(inUse.filter(c => gone.has(c.id)).flatMap(c => c.feeds))
  const outlets = [...touched].map(outlet => {
    const thing = site.house.subjects.get(outlet)
    const feeding = inUse.filter(c => c.feeds.includes(outlet))
    const fate = fateOf(
      feeding.filter(c => gone.has(c.id)),
      feeding.filter(c => !gone.has(c.id)),
    )
    return { id: outlet, label: thing ? labelOf(site, thing) : outlet, fate }
  })
  return {
    conductors: conductors.filter(c => gone.has(c.id)).map(c => c.id),
    outlets,
    cautions: [
      'Prove it dead at the cut itself, tester proved before and after: the breaker you think of may not be its own',
      ...(outlets.some(o => o.fate !== 'dead')
        ? [
            'Cut the hot first: behind an open neutral everything that is switched on stays live up to the break',
          ]
        : []),
      ...(outlets.some(o => o.fate === 'one of the two, nobody measured which')
        ? [
            'Measure what it is before it is cut: to a proved reference, with its circuit on and then off',
          ]
        : []),
    ],
  }
}
