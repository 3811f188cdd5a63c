/** Circuits put in beside an old one: for an appliance that shares it, or for each of several units. */
import { neutralGroupOf } from '../derive/neutrals'
import { loadOf } from '../derive/load'
import { valueOf, type Subject } from '../model/house'
import type { AnyValue } from '../model/fields'
import { standardRatings } from '../tables/ampacity'
import { cableFacts, cableFor } from './cable'
import type { Change } from './change'
import { freeSpaces, NEW_BREAKER } from './moves'
import { knownOf, type Work } from './work'

type Facts = Readonly<Record<string, AnyValue>>
interface NewBreaker {
  readonly id: string
  readonly panel: string
  readonly space: number
  readonly poles: number
  readonly amps: number
}

/** Free spaces a breaker of so many poles can start in, those first that were counted first. */
export function roomFor(spaces: readonly number[], poles: number): readonly number[] {
  return spaces.filter(n => poles === 1 || spaces.includes(n + 2))
}
export const breakerIn = (w: Work, { id, panel, space, poles, amps }: NewBreaker): Change[] => [
  { act: 'add', subject: id, kind: 'breaker', parent: panel },
  ...w.so(
    { id },
    {
      ...NEW_BREAKER,
      ...(poles > 1 && { handleTie: 'common trip' }),
      device: 'breaker',
      protection: 'standard',
      role: 'branch',
      space,
      poles,
      ratingAmps: amps,
      year: w.year,
    },
  ),
]
const circuitIn = (w: Work, id: string, facts: Facts): Change[] => [
  { act: 'add', subject: id, kind: 'circuit', parent: w.site.premises.id },
  ...w.so({ id }, facts),
]
const runIn = (w: Work, circuit: string, id: string, facts: Facts): Change[] => [
  { act: 'add', subject: id, kind: 'segment', parent: circuit },
  ...w.so({ id }, facts),
]
/** What is said of the appliance goes with it; the rest of a circuit stays what it was. */
const OF_THE_APPLIANCE =
  /^(supplies|appliance|nameplate|heaterKind|loadAmps|hasFusesAtUnit|unitFuseAmps)/
const isUnit = (outlet: Subject<'outlet'>) => valueOf(outlet, 'type') === 'hard-wired outlet'

/** What outlets are fed, by what they are; nothing where nobody said of one. */
function suppliesOf(outlets: readonly Subject<'outlet'>[]): string | undefined {
  const types = new Set(outlets.map(o => valueOf(o, 'type')))
  if (types.size === 0 || types.has(undefined)) return undefined
  const receptacles = types.has('receptacle')
  const lighting = types.has('luminaire') || types.has('switch')
  if (receptacles && lighting) return 'receptacles and lighting'
  return receptacles ? 'receptacles' : lighting ? 'lighting' : undefined
}

/**
 * The appliance keeps the circuit, on a breaker and a cable of its own; everything else stays on the old breaker and
 * the old cable. Nothing where the panel has no space, or which outlet is the appliance nobody can tell.
 */
export function ownCircuit(w: Work): readonly Change[][] {
  const { circuit, breaker } = w
  const panel = breaker && w.site.get(breaker.parent ?? undefined, 'enclosure')
  const load = circuit && loadOf(w.site, circuit)
  if (!circuit || !panel || !load || neutralGroupOf(w.site, circuit).circuits.length > 1) return []
  // Between 240 and 208 V the larger current is the one to build for; a load nobody has read is none.
  const open = [...load.device.missing, ...load.conductor.missing]
  if (open.some(f => f.field !== 'supply')) return []
  const poles = valueOf(breaker, 'poles')
  const isTold = poles === 2 || w.outlets.length === 0 || w.outlets.filter(isUnit).length === 1
  if (!poles || !isTold) return []
  const others = poles === 2 && !w.outlets.some(isUnit) ? [] : w.outlets.filter(o => !isUnit(o))
  // A motor may stand behind a device larger than its conductors: at least they agree.
  const most = Math.max(load.device.to, load.conductor.to)
  const amps = standardRatings(w.site.edition).find(r => r >= most)
  const size = amps && cableFor(w, load.conductor.to, amps)
  if (!amps || !size) return []
  return roomFor(freeSpaces(w, breaker), poles)
    .slice(0, 4)
    .map(space => [
      ...breakerIn(w, { id: `${circuit.id}/own-breaker`, panel: panel.id, space, poles, amps }),
      ...leftBehind(w, circuit, others),
      ...w.segments.map((s): Change => ({ act: 'drop', subject: s.id })),
      ...runIn(w, circuit.id, `${circuit.id}/own-run`, cableFacts(w, amps, size)),
      ...w.so(circuit, {
        fedBy: `${circuit.id}/own-breaker`,
        requiredUse: 'none',
        work: 'new',
        ...measuredAnew(circuit),
      }),
    ])
}
/** Where somebody clamped the circuit, the appliance alone draws what it is marked with. */
function measuredAnew(circuit: Subject<'circuit'>): Facts {
  const marked = valueOf(circuit, 'applianceAmps')
  return valueOf(circuit, 'loadAmps') === undefined || marked === undefined
    ? {}
    : { loadAmps: marked }
}
/** The old breaker and the old cable, with what hangs on them besides the appliance: what that draws nobody knows. */
function leftBehind(
  w: Work,
  circuit: Subject<'circuit'>,
  outlets: readonly Subject<'outlet'>[],
): Change[] {
  const id = `${circuit.id}/others`
  const supplies = suppliesOf(outlets)
  return [
    ...circuitIn(w, id, {
      ...knownOf(circuit, field => !OF_THE_APPLIANCE.test(field)),
      ...(supplies !== undefined && { supplies }),
    }),
    ...w.segments.flatMap(s => runIn(w, id, `${s.id}/others`, knownOf(s))),
    ...outlets.flatMap(o => w.so(o, { circuit: id })),
  ]
}

/** The first unit keeps the circuit; each of the others gets a breaker, a cable and a circuit of its own. */
export function circuitForEach(w: Work): readonly Change[][] {
  const { circuit, breaker } = w
  const panel = breaker && w.site.get(breaker.parent ?? undefined, 'enclosure')
  const poles = breaker && valueOf(breaker, 'poles')
  if (!circuit || !panel || !poles) return []
  const [first, ...more] = w.outlets.filter(isUnit).map(o => unitOf(w, o))
  if (!first || more.length === 0) return []
  const free = new Set(freeSpaces(w, breaker))
  const changes: Change[] = [
    ...w.so(circuit, { nameplateMca: first.mca ?? 0, nameplateMocp: first.mocp ?? 0 }),
    ...w.so(breaker, { ratingAmps: first.amps ?? 0, year: w.year }),
  ]
  for (const unit of more) {
    const [space] = roomFor([...free], poles)
    if (unit.amps === undefined || unit.size === undefined || space === undefined) return []
    for (let k = 0; k < poles; k++) free.delete(space + 2 * k)
    const id = `${unit.outlet.id}/own`
    changes.push(
      ...breakerIn(w, { id: `${id}-breaker`, panel: panel.id, space, poles, amps: unit.amps }),
      ...circuitIn(w, id, {
        // What was clamped was the current of all of them.
        ...knownOf(circuit, field => field !== 'label' && field !== 'loadAmps'),
        fedBy: `${id}-breaker`,
        nameplateMca: unit.mca,
        nameplateMocp: unit.mocp,
        work: 'new',
      }),
      ...runIn(w, id, `${id}-run`, cableFacts(w, unit.amps, unit.size)),
      ...w.so(unit.outlet, { circuit: id, after: 'panel' }),
    )
  }
  return first.amps === undefined ? [] : [changes]
}
/** A unit with the device and the conductors its nameplate takes; nothing where the nameplate was not read. */
function unitOf(w: Work, outlet: Subject<'outlet'>) {
  const [mca, mocp] = [valueOf(outlet, 'nameplateMca'), valueOf(outlet, 'nameplateMocp')]
  if (mca === undefined || mocp === undefined)
    return { outlet, mca: 0, mocp: 0, amps: undefined, size: undefined }
  const amps = standardRatings(w.site.edition).findLast(r => r <= mocp)
  // The conductors go by the minimum of the nameplate, whatever device starts the unit. 440.32.
  const size = cableFor(w, mca, Math.min(amps ?? 0, mca))
  return { outlet, mca, mocp, amps, size }
}
