/** Protective devices put in: at an outlet, in the breaker, beside the panel. */
import { valueOf, triedAt, type Subject } from '../model/house'
import type { Change } from './change'
import type { Work } from './work'

/** A protective device at an outlet, within reach, and marked where there is no ground. */
const guarded = (w: Work, o: Subject<'outlet'>, protection: string): Change[] => [
  ...w.device(o, {
    slots: 'three',
    protection,
    gfciButton: 'trips, goes dead',
    carriesGroundOn: false,
  }),
  ...inReach(w, o),
  ...w.marked(o, true),
]
/** Protection from a device at one outlet onward; each outlet without a ground is marked. */
export function protectFrom(w: Work, first: Subject<'outlet'>, protection: string): Change[] {
  return [
    ...guarded(w, first, protection),
    ...w
      .after(first)
      .filter(o => o.id !== first.id && valueOf(o, 'type') === 'receptacle')
      .flatMap(o => [...w.marked(o, false), ...w.so(o, { isFedFromLoadSide: true })]),
  ]
}
/** A device of its own at one outlet, on the line side only: what comes after it is not protected by it. */
export const protectHere = (w: Work, o: Subject<'outlet'>, protection: string): Change[] => [
  ...guarded(w, o, protection),
  ...w.outlets
    .filter(p => valueOf(p, 'after') === o.id)
    .flatMap(p => w.so(p, { isFedFromLoadSide: false })),
]
/** Where the place asks for arc-fault protection of new devices too, a combined one goes in at once. */
export const GFCI_KINDS = ['GFCI', 'dual'] as const
/** A reset is in reach unless somebody saw that the place is not: a device put in does not move the appliance. */
export const inReach = (w: Work, outlet: Subject<'outlet'>): Change[] =>
  triedAt(outlet, 'resetAccess') === undefined
    ? w.so(outlet, { resetAccess: 'readily accessible' })
    : []
export function protectAtBreaker(
  w: Work,
  breaker: Subject<'breaker'>,
  protection: string,
): Change[] | undefined {
  const circuits = w.pair.length > 1 ? w.pair : w.circuit ? [w.circuit] : []
  const breakers = circuits.flatMap(c => w.site.get(valueOf(c, 'fedBy'), 'breaker') ?? [])
  const facts = { protection, testButton: 'trips', year: w.year, fitsPanel: 'listed' }
  const marks = circuits
    .flatMap(c => w.site.outletsOf(c))
    .filter(o => valueOf(o, 'type') === 'receptacle')
    .flatMap(o => w.marked(o, false))
  if (new Set(breakers.map(b => b.id)).size < 2) return [...w.so(breaker, facts), ...marks]
  // A shared neutral goes through one device with both hots: the two-pole type, on the two spaces side by side.
  const [first, second, ...more] = [...breakers].sort(
    (a, b) => (valueOf(a, 'space') ?? 0) - (valueOf(b, 'space') ?? 0),
  )
  if (!first || !second || more.length > 0 || first.parent !== second.parent) return undefined
  if ((valueOf(second, 'space') ?? 0) - (valueOf(first, 'space') ?? 0) !== 2) return undefined
  return [
    ...w.so(first, { ...facts, poles: 2, handleTie: 'common trip' }),
    ...circuits.flatMap(c => w.so(c, { fedBy: first.id })),
    { act: 'drop', subject: second.id },
    ...marks,
  ]
}
const PROTECTIVE: ReadonlySet<string> = new Set(['GFCI', 'AFCI', 'dual'])
/** A breaker is a way to protect only where one is known to be made for the panel. */
export const isMade = (w: Work, breaker: Subject<'breaker'>): boolean =>
  valueOf(w.site.get(breaker.parent ?? undefined, 'enclosure'), 'protectiveBreakers') ===
  'available'

/** One handle for both hots; where they were protected each by itself, the protective kind with two poles. */
export function twoPole(w: Work): readonly Change[] | undefined {
  const [first, ...rest] = w.pair
  if (!first || rest.length === 0) return undefined
  const breakers = w.pair.flatMap(c => w.site.get(valueOf(c, 'fedBy'), 'breaker') ?? [])
  const guarded = breakers.find(b => PROTECTIVE.has(valueOf(b, 'protection') ?? ''))
  if (guarded) return protectAtBreaker(w, guarded, valueOf(guarded, 'protection') ?? 'dual')
  return breakers.flatMap(b => w.so(b, { handleTie: 'common trip', year: w.year }))
}

/**
 * A device in a box of its own beside the panel, that the whole circuit goes through. It stands where the panel stands,
 * so that the place asks of it what it asks of any outlet.
 */
export function besidePanel(w: Work): readonly Change[] | undefined {
  const { circuit, breaker } = w
  const panel = w.site.get(breaker?.parent ?? undefined, 'enclosure')
  // A shared neutral does not go through a device of one circuit.
  if (!circuit || !panel || w.pair.length > 1) return undefined
  const id = `${circuit.id}/beside-the-panel`
  const room = valueOf(panel, 'room')
  return [
    { act: 'add', subject: id, kind: 'outlet', parent: w.site.premises.id },
    ...w.so(
      { id },
      {
        name: 'Device beside the panel',
        type: 'receptacle',
        slots: 'three',
        isTamperResistant: true,
        ground: 'connected',
        lamps: 'correct',
        groundOhms: 0.3,
        groundToReferenceV: 0,
        hasNeutralGroundJumper: false,
        circuit: circuit.id,
        after: 'panel',
        ...(room !== undefined && { room }),
        protection: 'dual',
        gfciButton: 'trips, goes dead',
        resetAccess: 'readily accessible',
        condition: 'sound',
        cover: 'in place',
        metal: 'copper',
        year: w.year,
        work: 'new',
        boxVolumeIn3: 30,
        conductorsInBox: 4,
        groundsInBox: 2,
        throughInBox: 0,
        fittingsInBox: 0,
        yokesInBox: 1,
        largestInBox: '12',
        hasInternalClamps: false,
      },
    ),
    ...w.outlets.flatMap(o => [
      ...(valueOf(o, 'after') === 'panel' ? w.so(o, { after: id, isFedFromLoadSide: true }) : []),
      ...(valueOf(o, 'type') === 'receptacle' ? w.marked(o, false) : []),
    ]),
  ]
}
