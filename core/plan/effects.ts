import { isKind, triedAt, valueOf, type Subject } from '../model/house'
import type { AnyValue } from '../model/fields'
import { readStateOf } from '../derive/readings'
import { ruleById } from '../rules'
import { newCable, ratingAhead } from './cable'
import type { Change } from './change'
import { bonded, electrodesOf, newElectrodes, remadeBond } from './electrodes'
import { besidePanel, inReach, isMade, protectAtBreaker, protectFrom, twoPole } from './protect'
import { feederFrom, SEARCHES } from './searches'
import type { Work } from './work'

/** What the work of a remedy makes so; nothing where that cannot be said of this house. */
type Effect = (work: Work) => readonly Change[] | undefined
type Facts = Readonly<Record<string, AnyValue>>

const here =
  (facts: Facts): Effect =>
  w =>
    w.here(facts)
/** Of several things one work can mend, those that were found: what nobody looked at stays unknown. */
const mend =
  (facts: Facts): Effect =>
  w =>
    w.here(
      Object.fromEntries(
        Object.entries(facts).filter(([field]) => triedAt(w.subject, field) !== undefined),
      ),
    )
const atOutlet =
  (run: (w: Work, outlet: Subject<'outlet'>) => readonly Change[] | undefined): Effect =>
  w =>
    w.outlet && run(w, w.outlet)
const atBreaker =
  (run: (w: Work, breaker: Subject<'breaker'>) => readonly Change[] | undefined): Effect =>
  w =>
    w.breaker && run(w, w.breaker)
const atCircuit =
  (run: (w: Work, circuit: Subject<'circuit'>) => readonly Change[] | undefined): Effect =>
  w =>
    w.circuit && run(w, w.circuit)

/** What the looks at a bare end say the metal is; nothing where the surface or the core was not seen. */
function metalSeen(run: Subject<'segment'>): string | undefined {
  const [core, surface] = [valueOf(run, 'core'), valueOf(run, 'surface')]
  if (core === undefined || surface === undefined) return undefined
  if (core === 'silver color')
    return surface === 'copper color' ? 'copper-clad aluminum' : 'aluminum'
  return surface === 'silver color' ? 'tinned copper' : 'copper'
}
const PIGTAIL: Facts = { splice: 'aluminum to copper', connectorListing: 'aluminum to copper' }
const pigtail = (connector: string): Effect =>
  atOutlet((w, o) => w.so(o, { ...PIGTAIL, connector, metal: 'copper', spliceState: 'sound' }))
/** Scanned again after the work, at the same load: a sound terminal is little warmer than the air. */
function cooled(w: Work, breaker: Subject<'breaker'>, more: Facts): readonly Change[] {
  const panel = w.site.get(breaker.parent ?? undefined, 'enclosure')
  const air = (panel && valueOf(panel, 'ambientC')) ?? 24
  return w.so(breaker, {
    termination: 'sound',
    rescan: 'no warmer than similar breakers',
    ...(triedAt(breaker, 'temperatureC') !== undefined && { temperatureC: air + 4 }),
    ...more,
  })
}
/** Read again after the work: what was read before is read as it should be. */
function readRight(w: Work, outlet: Subject<'outlet'>): Change[] {
  const read = Object.entries(RIGHT).filter(([field]) => triedAt(outlet, field) !== undefined)
  return w.so(outlet, Object.fromEntries(read))
}
const RIGHT: Facts = {
  dropPercent: 2,
  shell: 'on the neutral',
  switched: 'hot',
  hotNeutralV: 120,
  hotGroundV: 120,
  neutralGroundV: 0,
  neutralGroundRiseV: 1,
  isGroundDetected: false,
  otherHalfV: 120,
}
/** Lamps alone prove nothing: the ground is read against a proved one, and clamped under load. */
const MEASURED_RIGHT: Facts = {
  lamps: 'correct',
  groundToReferenceV: 0,
  narrowToReferenceV: 120,
  groundClampA: 0,
}
/** Volts by which the halves of a supply that holds may differ. */
const ALIKE_V = 6
/**
 * With the neutral of the service mended both halves are alike everywhere, and nothing goes home through the soil.
 * Where some enclosure reads alike already it is the neutral of a feeder, and nobody knows what the utility would
 * mend; outlets that may merely have a joint are not cured by it.
 */
function utilityMended(w: Work): readonly Change[] | undefined {
  const { all } = w.site
  const { outlet } = w
  if (w.result.rule.id !== 'service-neutral' && !outlet) return undefined
  const read = all.enclosure.flatMap(e => {
    const [a, b] = [valueOf(e, 'legAToNeutralV'), valueOf(e, 'legBToNeutralV')]
    return a === undefined || b === undefined ? [] : [{ e, apart: Math.abs(a - b) }]
  })
  const isElsewhere = read.some(r => r.apart <= ALIKE_V && r.e.id !== w.subject.id)
  if (isElsewhere) return undefined
  const showing = all.outlet.filter(o =>
    readStateOf(w.site, o)?.ranking.proven.includes('open service neutral'),
  )
  return [
    ...read.flatMap(({ e }) =>
      w.so(e, { legAToNeutralV: 120, legBToNeutralV: 120, wereLoadsOn: true }),
    ),
    ...all.electrode
      .filter(e => triedAt(e, 'currentA') !== undefined)
      .flatMap(e => w.so(e, { currentA: 0 })),
    ...showing.flatMap(o => [...readRight(w, o), ...w.so(o, MEASURED_RIGHT)]),
  ]
}

const EFFECTS: Readonly<Record<string, Effect>> = {
  'knob-and-tube-stages': w =>
    isKind(w.subject, 'segment') ? newCable(w, w.subject, ratingAhead(w)) : undefined,
  'restore-20a': atBreaker((w, b) => [
    ...w.so(b, { ratingAmps: 20, year: w.year }),
    ...w.segments.flatMap(run => newCable(w, run, 20)),
  ]),
  'separate-bundles': w =>
    w.site.all.exposure
      .filter(e => e.parent === w.subject.id)
      .map(e => ({ act: 'drop' as const, subject: e.id })),
  'cooler-route': w =>
    w.site.all.exposure
      .filter(e => e.parent === w.subject.id)
      .map(e => ({ act: 'drop' as const, subject: e.id })),
  'co-alr-device': atOutlet((w, o) =>
    w.device(o, { aluminumMarking: 'CO/ALR', termination: 'binding screw' }),
  ),
  'crimped-pigtail': w =>
    w.outlet
      ? pigtail('crimped cold-weld')(w)
      : w.here({ isAluminumMarked: true, conductorsOnTerminal: 1 }),
  'lug-pigtail': w =>
    w.outlet
      ? pigtail('set-screw lug')(w)
      : w.here({ isAluminumMarked: true, conductorsOnTerminal: 1 }),
  'gel-connector-pigtail': pigtail('twist-on'),
  'twist-on-pigtail': pigtail('twist-on'),
  'cold-weld-splice': pigtail('crimped cold-weld'),
  'lug-splice': pigtail('set-screw lug'),
  'listed-twist-on': pigtail('twist-on'),
  'copper-rewire': atOutlet((w, o) => [
    ...w.segments.flatMap(run => newCable(w, run, ratingAhead(w))),
    ...w.so(o, { metal: 'copper', splice: 'copper to copper' }),
    ...w.grounded(o),
  ]),
  'marked-breaker': atBreaker((w, b) => w.so(b, { isAluminumMarked: true, year: w.year })),
  'mark-white': here({ isWhiteMarked: true }),
  'entry-fitting': here({ entry: 'clamp or bushing' }),
  'identify-metal': w => {
    const metal = isKind(w.subject, 'segment') && metalSeen(w.subject)
    return metal ? w.here({ metal }) : undefined
  },
  'call-utility': utilityMended,
  'one-per-terminal': w => splitScrews(w),
  'extra-bar': w => splitScrews(w),
  'splice-and-pigtail': w => {
    const { subject } = w
    if (isKind(subject, 'breaker')) return w.here({ conductorsOnTerminal: 1 })
    return mend({ multiwireNeutral: 'pigtailed', hasFreeLength: true })(w)
  },
  'own-breaker': here({ conductorsOnTerminal: 1 }),
  'main-bond': here({ bondMeans: 'screw' }),
  'jumper-isolated-bar': w =>
    w.site.children(w.subject, 'bar').flatMap(b => w.so(b, { isTiedToNeutral: true })),
  'separate-neutral': w => separated(w, w.subject),
  'land-feeder-ground': here({ egcEnds: 'at both ends' }),
  'new-four-wire-feeder': w => {
    const feeder = feederFrom(w)
    if (!feeder) return undefined
    const panel = w.site.all.enclosure.find(e => valueOf(e, 'fedFrom') === feeder.id)
    return [...w.so(feeder, { egc: 'wire', year: w.year }), ...(panel ? separated(w, panel) : [])]
  },
  'nonmetallic-section': here({ hasOtherMetallicPath: false }),
  're-terminate': w => {
    const { subject } = w
    if (isKind(subject, 'breaker')) return cooled(w, subject, {})
    return mend({ strayWiring: 'none', torque: 'torque tool used' })(w)
  },
  'move-to-sound-space': atBreaker((w, b) => cooled(w, b, {})),
  'listed-breaker': w =>
    isKind(w.subject, 'breaker')
      ? cooled(w, w.subject, {
          fitsPanel: 'listed',
          testButton: 'trips',
          handleTie: (valueOf(w.subject, 'poles') ?? 1) > 1 ? 'common trip' : 'not tied',
          year: w.year,
        })
      : undefined,
  'two-pole-breaker': twoPole,
  'listed-handle-tie': w =>
    w.pair
      .flatMap(c => w.site.get(valueOf(c, 'fedBy'), 'breaker') ?? [])
      .flatMap(b => w.so(b, { handleTie: 'listed tie' })),
  'group-multiwire': w => w.pair.flatMap(c => w.so(c, { isGroupedInPanel: true })),
  'own-neutral': w =>
    w.pair.length > 1 ? w.pair.flatMap(c => w.so(c, { sharesNeutralWith: [] })) : undefined,
  // Freed of insulation first: leaving it buried is no remedy.
  'knob-and-tube-care': mend({ isBuried: false }),
  'close-openings': mend({ openings: 0, entryConnectors: 'one each, or as listed' }),
  // Written after tracing, so that it is compared with what was traced.
  relabel: w => [
    ...(mend({ directory: 'legible and specific', fedFromLabel: 'there' })(w) ?? []),
    ...(isKind(w.subject, 'enclosure') ? w.here({ contradictions: 0 }) : []),
  ],
  'clear-space': mend({ isKeptClear: true, door: '90° or more' }),
  'raise-floor': here({ topHandleIn: 72 }),
  'relocate-panel': here({
    widthIn: 15,
    workingDepthIn: 36,
    workingWidthIn: 30,
    workingHeightIn: 80,
    topHandleIn: 72,
    isKeptClear: true,
    door: '90° or more',
    escape: 'upright, with a step back',
    location: 'ordinary',
  }),
  'reconnect-ground': atOutlet((w, o) => w.grounded(o)),
  // The age of the circuit is what lets two slots stay, so the recorded year is kept.
  'two-slot-device': atOutlet((w, o) =>
    w.device(o, { slots: 'two' }).filter(c => c.act !== 'note' || c.field !== 'year'),
  ),
  'gfci-breaker': atBreaker((w, b) => (isMade(w, b) ? protectAtBreaker(w, b, 'dual') : undefined)),
  'protect-beside-panel': w => besidePanel(w),
  'afci-breaker': atBreaker((w, b) => (isMade(w, b) ? protectAtBreaker(w, b, 'dual') : undefined)),
  'afci-first-outlet': w => {
    const first = w.firstOutlet()
    // A blank-face device in the box of what is hard-wired has no place in the record yet.
    const isHardWired = first && valueOf(first, 'type') === 'hard-wired outlet'
    return first && !isHardWired ? protectFrom(w, first, 'dual') : undefined
  },
  'afci-receptacle-here': atOutlet((w, o) => [
    ...w.device(o, { protection: 'dual', gfciButton: 'trips, goes dead' }),
    ...inReach(w, o),
  ]),
  'run-grounding-conductor': atOutlet((w, o) => [
    ...w.device(o, { slots: 'three' }),
    ...w.grounded(o),
  ]),
  'use-raceway': atOutlet((w, o) => w.so(o, { groundOhms: 0.3, lamps: 'correct' })),
  'new-cable': atOutlet((w, o) => [
    ...w.segments.flatMap(run => newCable(w, run, ratingAhead(w))),
    ...w.device(o, { slots: 'three' }),
    ...w.outlets.flatMap(p => w.grounded(p)),
  ]),
  'mark-receptacle': atOutlet((w, o) => w.so(o, { isMarkedNoGround: true, isMarkedGfci: true })),
  'remove-jumper': atOutlet((w, o) =>
    w.so(o, {
      hasNeutralGroundJumper: false,
      ground: 'none',
      lamps: 'open ground',
      groundToReferenceV: 0,
      isGroundDetected: false,
    }),
  ),
  'swap-line-load': here({ gfciButton: 'trips, goes dead' }),
  'move-protection': mend({ resetAccess: 'readily accessible', tubZone: 'clear of it' }),
  'cut-ground-on': here({ carriesGroundOn: false }),
  'rewire-device': atOutlet((w, o) => [
    ...readRight(w, o),
    ...w.so(o, { ...MEASURED_RIGHT, isBoxOpened: true }),
  ]),
  'bond-water': w => [...w.here({ waterBond: 'found' }), ...bonded(w, 'water piping', '4')],
  'remake-bond': remadeBond,
  'bond-piping': w => [...w.here({ gasBond: 'found' }), ...bonded(w, 'gas piping', '6')],
  'gec-to-neutral': w => electrodesOf(w).flatMap(e => w.so(e, { landsOn: 'neutral bar' })),
  'electrode-clamp': w =>
    electrodesOf(w).flatMap(e =>
      w.so(e, {
        connection: 'sound',
        clampPlace: 'in reach',
        isJumpered: true,
        clampFt: 3,
      }),
    ),
  'second-rod': w =>
    electrodesOf(w)
      .filter(e => valueOf(e, 'type') === 'rod')
      .flatMap(e => w.so(e, { rods: 2, spacingFt: 8 })),
  'tr-receptacle': atOutlet((w, o) => w.device(o, {})),
  'wr-receptacle': atOutlet((w, o) => w.device(o, { isWeatherResistant: true })),
  'larger-box': mend({ boxVolumeIn3: 42, fanBox: 'rated for a fan' }),
  'box-extender': here({ hasExtender: true }),
  'fit-cover': mend({ cover: 'in place', wetCover: 'covers the plug in use' }),
  'box-for-splice': here({ splicePlace: 'in a box' }),
  'remake-splice': here({ spliceState: 'sound' }),
  're-land': w =>
    w.outlet ? w.here({ termination: 'binding screw' }) : w.here({ workmanship: 'sound' }),
  'fasten-cable': mend({
    support: 'within 12 in and every 4½ ft',
    boring: 'plated',
    firestop: 'sealed',
    exposure: 'protected or out of harm’s way',
  }),
  'cooler-luminaire': mend({
    supplyMarkC: 60,
    isOverlamped: false,
    recessed: 'rated for insulation contact',
  }),
  'closet-light': here({ lampKind: 'recessed, enclosed', clearanceIn: 12 }),
  'install-electrodes': newElectrodes,
  'building-electrode': here({ electrode: 'found' }),
  'bonding-bushing': here({
    racewayBond: 'bonding bushing or jumper',
    supplyJumperLandsOn: 'neutral bar',
  }),
  'fit-surge': here({ surge: 'present' }),
  'pull-white-neutral': here({ isColorMadeWhite: false }),
  'add-required-circuit': w =>
    isKind(w.subject, 'room')
      ? w.here({ ownCircuit: 'there' })
      : w.here({ centralHeating: 'own circuit' }),
  'add-outlet': here({ outlets: 'all there' }),
  'four-wire-circuit': atCircuit((w, c) => [
    ...w.so(c, { frameGround: 'grounding conductor', neutral: 'insulated' }),
    ...w.segments.flatMap(run => newCable(w, run, ratingAhead(w))),
  ]),
  'fit-disconnect': w => {
    const { kind } = w.subject
    if (kind === 'premises') return w.here({ emergencyDisconnect: 'there' })
    if (kind === 'building') return w.here({ disconnect: 'at the building' })
    return mend({
      disconnect: 'within sight',
      applianceDisconnect: 'within sight or lockable',
    })(w)
  },
}

/** Neutrals apart from the enclosure, and grounds on a bar of their own. */
const separated = (w: Work, panel: Subject): readonly Change[] => [
  ...w.so(panel, { bondMeans: 'none', landings: 'on separate bars' }),
  ...w.site.children(panel, 'bar').flatMap(b => {
    const role = valueOf(b, 'role')
    if (role === 'ground') return w.so(b, { isTiedToNeutral: false })
    return w.so(b, { isBondedToEnclosure: false, ...(role === 'common' && { role: 'neutral' }) })
  }),
]

/** Each conductor of a doubled screw gets a screw of its own. */
function splitScrews(w: Work): readonly Change[] {
  const screws = w.site.children(w.subject, 'screw')
  let next = Math.max(0, ...screws.map(s => valueOf(s, 'position') ?? 0))
  return screws.flatMap(screw => {
    const neutrals = valueOf(screw, 'neutrals') ?? 0
    const grounds = valueOf(screw, 'grounds') ?? 0
    if (neutrals < 2 && !(neutrals === 1 && grounds > 0)) return []
    const changes: Change[] = [...w.so(screw, { neutrals: 1, grounds: 0 })]
    const put = (facts: Facts) => {
      next++
      const id = `${w.subject.id}/screw-${next}`
      changes.push({ act: 'add', subject: id, kind: 'screw', parent: w.subject.id })
      changes.push(...w.so({ id }, { position: next, neutrals: 0, grounds: 0, ...facts }))
    }
    for (let i = 1; i < neutrals; i++) put({ neutrals: 1 })
    if (grounds > 0) put({ grounds })
    return changes
  })
}

/** Remedies that leave things as they are, and those somebody else does first. */
const CHANGES_NOTHING = new Set([
  'leave-and-label',
  'leave-three-wire-feeder',
  'appliance-ground-for-gas',
  'ground-rod-only',
  'own-ground-rod',
])
/** Works around a fault of the thing, which stays as it is: its look is not fine afterwards. */
const WORKS_AROUND = new Set(['protect-beside-panel'])
/** The value of a look that is fine: what the work of its remedy makes so. */
function fineValue(ruleId: string): readonly [field: string, value: AnyValue] | undefined {
  const look = ruleById(ruleId)?.look
  const fine = look && Object.entries(look.values).find(([, says]) => 'fine' in says)
  if (!look || !fine) return undefined
  const [value] = fine
  return [look.field, value === 'true' ? true : value === 'false' ? false : value]
}

/**
 * What the work of a remedy makes so in the house; several where one of several measures does, the one tried first
 * standing first. Where one look settles the rule, that look is then fine.
 * @returns an empty list where Corvit cannot say it: the work then has to be judged when it is done
 */
export function effectsOf(remedy: string, work: Work): readonly (readonly Change[])[] {
  if (CHANGES_NOTHING.has(remedy)) return [[]]
  const fine = WORKS_AROUND.has(remedy) ? undefined : fineValue(work.result.rule.id)
  const also = fine ? work.here({ [fine[0]]: fine[1] }) : []
  const searched = SEARCHES[remedy]?.(work)
  if (searched && searched.length > 0) return searched.map(changes => [...changes, ...also])
  const own = EFFECTS[remedy]?.(work)
  if (own === undefined && !fine) return []
  return [[...(own ?? []), ...also]]
}
