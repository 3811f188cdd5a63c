/** What takes load or circuits off a panel or a service that has too many. */
import { neutralGroupOf } from '../derive/neutrals'
import { isKind, valueOf, type Subject } from '../model/house'
import type { AnyValue } from '../model/fields'
import { equipmentGroundSize } from '../tables/grounding'
import { CAN_WAIT } from '../remedies/service'
import { breakerIn, roomFor } from './added'
import { cableFacts } from './cable'
import type { Change } from './change'
import { freeSpacesOf, NEW_BREAKER, OF_THE_HALF } from './moves'
import { knownOf, type Work } from './work'

const FEEDER_AMPS = 60
/** Ranges and heaters stay where they are: the feeder is for small circuits. */
const SMALL_AMPS = 30
const FEEDER_SIZE = '6'
/** A panel as it leaves the hands of who puts it in; it stands where the old one stands. */
const SUB_PANEL: Readonly<Record<string, AnyValue>> = {
  type: 'panel',
  marking: 'not service equipment',
  mainKind: 'main lugs',
  bus: 'single phase',
  busAmps: 125,
  numbering: 'odd left, even right',
  spaces: 24,
  maxCircuits: 40,
  upperMains: 1,
  bondMeans: 'none',
  landings: 'on separate bars',
  hasSecondSource: false,
  cover: 'in place',
  coverScrews: 'all blunt',
  openings: 0,
  entryConnectors: 'one each, or as listed',
  strayWiring: 'none',
  corrosion: 'none',
  gutter: 'room left',
  interrupting: 'enough for the fault current',
  torque: 'torque tool used',
  directory: 'legible and specific',
  contradictions: 0,
  fedFromLabel: 'there',
  protectiveBreakers: 'available',
  hasTripRecord: false,
  tandems: 'none',
}
/** Where a panel stands, which a panel beside it shares. */
const OF_THE_PLACE = new Set([
  'place',
  'room',
  'building',
  'location',
  'ambientC',
  'workingDepthIn',
  'workingHeightIn',
  'isKeptClear',
  'escape',
  'topHandleIn',
])
const polesOf = (b: Subject<'breaker'>) => valueOf(b, 'poles') ?? 1

/** A sub-panel beside the old one, fed by a breaker in it, with as many of its circuits as the label wants away. */
export function toSubPanel(w: Work): readonly Change[][] {
  const { subject, site } = w
  const most = isKind(subject, 'enclosure') ? valueOf(subject, 'maxCircuits') : undefined
  if (!isKind(subject, 'enclosure') || most === undefined) return []
  const breakers = site.children(subject, 'breaker').filter(b => valueOf(b, 'role') !== 'main')
  const poles = breakers.reduce((sum, b) => sum + polesOf(b), 0)
  const movable = breakers
    .filter(b => isMovable(w, b))
    .sort((a, b) => (valueOf(b, 'space') ?? 0) - (valueOf(a, 'space') ?? 0))
  const taken: Subject<'breaker'>[] = []
  let left = poles
  // The breaker of the feeder stands in the panel too, with two poles in spaces one below the other.
  for (const breaker of movable) {
    taken.push(breaker)
    left -= polesOf(breaker)
    if (left + 2 > most) continue
    const [space] = roomFor(freeSpacesOf(site, subject, new Set(taken.map(b => b.id))), 2)
    if (space !== undefined) return [subPanelWith(w, subject, taken, space)]
  }
  return []
}
/** A breaker of one circuit that shares its neutral with none, read well enough to stand elsewhere. */
function isMovable(w: Work, breaker: Subject<'breaker'>): boolean {
  const role = valueOf(breaker, 'role')
  return (
    (role === 'branch' || role === undefined) &&
    valueOf(breaker, 'space') !== undefined &&
    (valueOf(breaker, 'ratingAmps') ?? Infinity) <= SMALL_AMPS &&
    w.site.feedersFrom(breaker).length === 0 &&
    w.site.circuitsOf(breaker).every(c => neutralGroupOf(w.site, c).circuits.length === 1)
  )
}

function subPanelWith(
  w: Work,
  panel: Subject<'enclosure'>,
  moved: readonly Subject<'breaker'>[],
  space: number,
): Change[] {
  const id = `${panel.id}/sub-panel`
  const place = knownOf(panel, field => OF_THE_PLACE.has(field))
  return [
    ...moved.map((b): Change => ({ act: 'drop', subject: b.id })),
    ...breakerIn(w, {
      id: `${id}-breaker`,
      panel: panel.id,
      space,
      poles: 2,
      amps: FEEDER_AMPS,
    }),
    ...w.so({ id: `${id}-breaker` }, { role: 'feeder' }),
    { act: 'add', subject: `${id}-feeder`, kind: 'feeder', parent: w.site.premises.id },
    ...w.so({ id: `${id}-feeder` }, { ...feederFacts(w), from: `${id}-breaker` }),
    { act: 'add', subject: id, kind: 'enclosure', parent: w.site.premises.id },
    ...w.so(
      { id },
      {
        ...SUB_PANEL,
        ...place,
        fedFrom: `${id}-feeder`,
        year: w.year,
        work: 'new',
      },
    ),
    ...barsOf(w, id),
    ...moved.flatMap((breaker, i) => inSubPanel(w, id, breaker, spaceAt(moved, i))),
  ]
}
/** Filled from the top: each breaker below the one before it on the same side, the odd side first. */
function spaceAt(moved: readonly Subject<'breaker'>[], index: number): number {
  const before = moved.slice(0, index).reduce((sum, b) => sum + polesOf(b), 0)
  const rows = 12
  return before < rows ? 1 + 2 * before : 2 + 2 * (before - rows)
}
function inSubPanel(w: Work, panel: string, breaker: Subject<'breaker'>, space: number): Change[] {
  const id = `${breaker.id}/moved`
  return [
    { act: 'add', subject: id, kind: 'breaker', parent: panel },
    ...w.so(
      { id },
      {
        ...knownOf(breaker, field => !OF_THE_HALF.has(field)),
        ...NEW_BREAKER,
        ...(polesOf(breaker) > 1 && { handleTie: 'common trip' }),
        space,
        year: w.year,
      },
    ),
    ...w.site.circuitsOf(breaker).flatMap(c => w.so(c, { fedBy: id })),
  ]
}
function feederFacts(w: Work): Readonly<Record<string, AnyValue>> {
  const cable = cableFacts(w, FEEDER_AMPS, FEEDER_SIZE)
  const { size, metal, wiring, egc, egcMetal, insulationC, year } = cable
  return {
    size,
    metal,
    wiring,
    egc,
    egcMetal,
    insulationC,
    year,
    egcSize: equipmentGroundSize(FEEDER_AMPS, 'copper') ?? FEEDER_SIZE,
    terminalsC: 75,
    hasOtherMetallicPath: false,
    isTap: false,
    carriesWholeDwelling: false,
    isInInsulation: false,
  } as Readonly<Record<string, AnyValue>>
}
const barsOf = (w: Work, panel: string): Change[] => [
  { act: 'add', subject: `${panel}-neutral`, kind: 'bar', parent: panel },
  ...w.so({ id: `${panel}-neutral` }, { role: 'neutral', isBondedToEnclosure: false }),
  { act: 'add', subject: `${panel}-ground`, kind: 'bar', parent: panel },
  ...w.so(
    { id: `${panel}-ground` },
    { role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false },
  ),
]

/** A listed controller holds off one large load while the rest runs, else two; the smallest that does comes first. */
export function heldOff(w: Work): readonly Change[][] {
  const loads = w.site.all.circuit.filter(c => CAN_WAIT.has(valueOf(c, 'supplies') ?? ''))
  const off = (circuits: readonly Subject<'circuit'>[]) =>
    circuits.flatMap(c => w.so(c, { isHeldOff: true }))
  const two = loads.flatMap((a, i) => loads.slice(i + 1).map(b => off([a, b])))
  const rank = (c: Subject<'circuit'>) =>
    valueOf(c, 'applianceKw') ?? (valueOf(c, 'applianceAmps') ?? 0) * 0.24
  return [...[...loads].sort((a, b) => rank(a) - rank(b)).map(c => off([c])), ...two]
}
