/** Works of which one of several measures does: sizes, ratings, spaces, in the order in which they are tried. */
import { groundOf } from '../derive/ground'
import { legsOf } from '../derive/legs'
import { loadOf } from '../derive/load'
import { Site } from '../derive/site'
import { isKind, valueOf, type Subject } from '../model/house'
import type { AnyValue } from '../model/fields'
import { SIZES, standardRatings } from '../tables/ampacity'
import { equipmentGroundSize } from '../tables/grounding'
import { circuitForEach, ownCircuit, roomFor } from './added'
import { newCable, ratingAhead } from './cable'
import { withChanges, type Change } from './change'
import { electrodesOf, newElectrodes } from './electrodes'
import { freeSpaces, ownCircuitForOthers, swapped, untwinned } from './moves'
import { GFCI_KINDS, protectFrom, protectHere } from './protect'
import { heldOff, toSubPanel } from './relief'
import type { Work } from './work'

type Facts = Readonly<Record<string, AnyValue>>

export const feederFrom = (w: Work): Subject<'feeder'> | undefined => {
  const { subject } = w
  if (isKind(subject, 'feeder')) return subject
  if (!isKind(subject, 'enclosure')) return undefined
  return w.site.get(valueOf(subject, 'fedFrom'), 'feeder')
}
const SIZES_UP = SIZES.slice(0, 13)
/** Ratings to try, the largest that might do first: as little is taken away as can be. */
const smallerThan = (w: Work, rating: number | undefined) =>
  standardRatings(w.site.edition)
    .filter(r => rating === undefined || r < rating)
    .reverse()
const upFrom = (size: string | undefined) => {
  const at = SIZES_UP.indexOf(size as (typeof SIZES_UP)[number])
  return SIZES_UP.slice(at + 1)
}
const deviceOf = (w: Work): Subject<'breaker'> | undefined =>
  isKind(w.subject, 'feeder') ? w.site.get(valueOf(w.subject, 'from'), 'breaker') : w.breaker
const smallerDevice: Search = w => {
  const device = deviceOf(w)
  if (!device) return []
  return smallerThan(w, valueOf(device, 'ratingAmps')).map(ratingAmps =>
    w.so(device, { ratingAmps, year: w.year }),
  )
}
/** Larger or smaller: what the appliance and its conductors ask for. */
const suitingDevice: Search = w => {
  const device = deviceOf(w)
  if (!device) return []
  return standardRatings(w.site.edition).map(ratingAmps =>
    w.so(device, { ratingAmps, year: w.year }),
  )
}
const largerSize =
  (field: string, more: Facts = {}): Search =>
  w =>
    upFrom(w.subject.facts[field as never]?.['value'] as string | undefined).map(size =>
      w.here({ [field]: size, ...more }),
    )
const newPanel = (w: Work, mainAmps: number, busAmps = Math.max(mainAmps, 200)): Change[] => [
  ...w.here({
    work: 'replaced',
    year: w.year,
    bus: 'single phase',
    mainKind: 'main breaker',
    mainAmps,
    busAmps,
    spaces: 40,
    maxCircuits: 40,
    upperMains: 1,
    hasAddedUpper: false,
    tandems: 'none',
    hasTripRecord: false,
    protectiveBreakers: 'available',
    cover: 'in place',
    coverScrews: 'all blunt',
    openings: 0,
    corrosion: 'none',
    interrupting: 'enough for the fault current',
    directory: 'legible and specific',
    contradictions: 0,
    surge: 'present',
  }),
  ...w.site
    .children(w.subject, 'breaker')
    .filter(b => valueOf(b, 'role') !== 'main of the lower section')
    .flatMap(b => w.so(b, { fitsPanel: 'listed', termination: 'sound', section: 'upper' })),
]

const BUSES = [200, 225, 320, 400, 600]
/** Its own main; without one the device that feeds it, or a main put into it; of a meter the service it serves. */
function smallerAhead(w: Work): readonly (readonly Change[])[] {
  const { subject, site } = w
  if (!isKind(subject, 'enclosure')) return []
  const behind = site.all.enclosure.filter(e => valueOf(e, 'fedFrom') === subject.id)
  const mains = valueOf(subject, 'type') === 'meter' ? behind : [subject]
  const own = mains.filter(e => valueOf(e, 'mainAmps') !== undefined)
  const largest = Math.max(0, ...own.map(e => valueOf(e, 'mainAmps') ?? 0))
  const less = own.length === 0 ? [] : smallerThan(w, largest)
  const feeder = feederFrom(w)
  const breaker = feeder && site.get(valueOf(feeder, 'from'), 'breaker')
  return [
    ...less.map(mainAmps => own.flatMap(e => w.so(e, { mainAmps }))),
    ...smallerThan(w, valueOf(breaker, 'ratingAmps')).flatMap(ratingAmps =>
      breaker ? [w.so(breaker, { ratingAmps, year: w.year })] : [],
    ),
    ...(own.length === 0 && mains.length > 0
      ? smallerThan(w, undefined).map(mainAmps => w.here({ mainKind: 'main breaker', mainAmps }))
      : []),
  ]
}
/** A larger load wants a larger device with the larger cable: the rating the load asks for, and the next ones. */
function withItsDevice(
  w: Work,
  pulled: (size: string, amps: number) => readonly Change[],
): readonly (readonly Change[])[] {
  const { circuit, breaker } = w
  const load = circuit && loadOf(w.site, circuit)
  if (!breaker || !load || !isKind(w.subject, 'circuit')) return []
  return standardRatings(w.site.edition)
    .filter(amps => amps >= load.device.to)
    .slice(0, 3)
    .flatMap(amps =>
      SIZES_UP.slice(0, 10).map(size => [
        ...pulled(size, amps),
        ...w.so(breaker, { ratingAmps: amps, year: w.year }),
      ]),
    )
}
/** One hot of a pair to another space; moved, it is measured again, else the place on the bus says which leg. */
const movedApart: Search = w =>
  w.pair.flatMap(c => {
    const breaker = w.site.get(valueOf(c, 'fedBy'), 'breaker')
    if (!breaker) return []
    const leg = valueOf(breaker, 'measuredLeg')
    const measured: Facts = leg === undefined ? {} : { measuredLeg: leg === 'A' ? 'B' : 'A' }
    const moved = freeSpaces(w, breaker).map(space => w.so(breaker, { space, ...measured }))
    return [...moved, ...swapped(w, breaker)]
  })
const onBreakers = (w: Work) => new Set(w.pair.map(c => valueOf(c, 'fedBy'))).size
/** A two-pole breaker that found one leg only, on two spaces that the bus says are of two; measured again there. */
const movedPair: Search = w => {
  const { breaker } = w
  if (!breaker || valueOf(breaker, 'poles') !== 2) return []
  return roomFor(freeSpaces(w, breaker), 2)
    .map(space => w.so(breaker, { space, polesV: 240 }))
    .filter(changes => {
      const after = new Site(withChanges(w.site.house, changes))
      const moved = after.get(breaker.id, 'breaker')
      const legs = moved && legsOf(after, moved).value
      return legs !== undefined && new Set(legs).size === 2
    })
}

/** Works of which one of several measures does; the first that cures is the one. */
type Search = (work: Work) => readonly (readonly Change[])[]
export const SEARCHES: Readonly<Record<string, Search>> = {
  'smaller-breaker': smallerDevice,
  'nameplate-breaker': w =>
    w.result.failure?.id === 'nameplate-fuses-only' && w.circuit
      ? [w.so(w.circuit, { hasFusesAtUnit: true })]
      : smallerDevice(w),
  'appliance-breaker': suitingDevice,
  'smaller-main': smallerAhead,
  'replace-service-conductors': w =>
    SIZES.slice(5).map(serviceSize =>
      w.here({ serviceSize, serviceMetal: 'copper', serviceInsulationC: 75 }),
    ),
  'larger-service': w =>
    [100, 125, 150, 200, 225, 300, 400].map(amps => [
      ...newPanel(w, amps),
      ...w.here({ serviceSize: '4/0', serviceMetal: 'copper', serviceInsulationC: 75 }),
    ]),
  'larger-bonding-jumper': w =>
    SIZES_UP.slice(3).map(size =>
      w.here({
        jumperSize: size,
        jumperMetal: 'copper',
        supplyJumperSize: size,
        supplyJumperMetal: 'copper',
        jumperConnection: 'sound',
        supplyJumperConnection: 'sound',
      }),
    ),
  'larger-ground': largerSize('egcSize', { egc: 'wire', egcMetal: 'copper' }),
  'electrode-conductor': w =>
    w.site.all.electrode.length === 0
      ? [newElectrodes(w)]
      : SIZES_UP.slice(3).map(size =>
          electrodesOf(w).flatMap(e =>
            w.so(e, {
              size,
              metal: 'copper',
              connection: 'sound',
              landsOn: 'neutral bar',
              isProtected: true,
              isSpliced: false,
            }),
          ),
        ),
  'move-to-other-leg': w => (onBreakers(w) < 2 ? movedPair(w) : movedApart(w)),
  'replace-conductor': w => {
    const { subject } = w
    const runs = isKind(subject, 'segment')
      ? [subject]
      : isKind(subject, 'circuit')
        ? w.segments
        : []
    if (isKind(subject, 'feeder'))
      return SIZES.map(size =>
        w.so(subject, {
          size,
          metal: 'copper',
          insulationC: 75,
          terminalsC: 75,
          egc: 'wire',
          egcMetal: 'copper',
          egcSize:
            equipmentGroundSize(
              (deviceOf(w) && valueOf(deviceOf(w), 'ratingAmps')) ?? 100,
              'copper',
            ) ?? '8',
          year: w.year,
        }),
      )
    if (runs.length === 0) return []
    const pulled = (size: string, amps: number) =>
      runs.flatMap(run => [...newCable(w, run, amps), ...w.so(run, { size })])
    return [
      ...SIZES_UP.slice(0, 8).map(size => pulled(size, ratingAhead(w))),
      ...withItsDevice(w, pulled),
    ]
  },
  untwin: untwinned,
  'split-circuit': ownCircuitForOthers,
  'own-circuit': ownCircuit,
  'circuit-per-unit': circuitForEach,
  'fewer-circuits': toSubPanel,
  'fewer-loads': heldOff,
  'gfci-here': w => {
    const { outlet } = w
    return outlet ? GFCI_KINDS.map(kind => protectHere(w, outlet, kind)) : []
  },
  'gfci-first-outlet': w => {
    const first = w.firstOutlet()
    return first ? GFCI_KINDS.map(kind => protectFrom(w, first, kind)) : []
  },
  // In a box without a ground the new device is one such a box may have; a place may ask for protection with it.
  'replace-device': w => {
    const { outlet } = w
    if (!outlet) return []
    const plain = w.device(outlet, { gfciButton: 'trips, goes dead' })
    const guarded = w.device(outlet, { protection: 'dual', gfciButton: 'trips, goes dead' })
    if (valueOf(outlet, 'type') !== 'receptacle') return [plain]
    if (groundOf(w.site, outlet).value !== 'none') return [plain, guarded]
    return [
      w.device(outlet, { slots: 'two' }).filter(c => c.act !== 'note' || c.field !== 'year'),
      [...w.device(outlet, { slots: 'three', protection: 'GFCI' }), ...w.marked(outlet, true)],
      [...guarded, ...w.so(outlet, { slots: 'three' }), ...w.marked(outlet, true)],
      plain,
    ]
  },
  'single-phase-panel': w =>
    isKind(w.subject, 'enclosure') ? [newPanel(w, valueOf(w.subject, 'mainAmps') ?? 200)] : [],
  // Of several enclosures two have to become one: which, and how, is judged when it is done.
  'fewer-mains': w =>
    isKind(w.subject, 'enclosure') && valueOf(w.subject, 'mainKind') !== 'main breaker'
      ? [newPanel(w, valueOf(w.subject, 'mainAmps') ?? 200)]
      : [],
  'replace-panel': w => {
    const { subject } = w
    if (!isKind(subject, 'enclosure')) return []
    if (valueOf(subject, 'type') === 'meter')
      return BUSES.map(busAmps => w.here({ busAmps, year: w.year }))
    const main = valueOf(subject, 'mainAmps') ?? 200
    return BUSES.filter(bus => bus >= main).map(bus => newPanel(w, main, bus))
  },
}
