import { isKind, triedAt, valueOf, type Subject } from '../model/house'
import type { AnyValue } from '../model/fields'
import { SIZES, standardRatings } from '../tables/ampacity'
import { groundOf } from '../derive/ground'
import { readStateOf } from '../derive/readings'
import { equipmentGroundSize } from '../tables/grounding'
import { ruleById } from '../rules'
import type { Change } from './change'
import { freeSpaces, ownCircuitForOthers, swapped, untwinned } from './moves'
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

/** Protection from a device at one outlet onward; each outlet without a ground is marked. */
function protectFrom(w: Work, first: Subject<'outlet'>, protection: string): Change[] {
  return [
    ...w.device(first, {
      slots: 'three',
      protection,
      gfciButton: 'trips, goes dead',
      carriesGroundOn: false,
    }),
    ...inReach(w, first),
    ...w.marked(first, true),
    ...w
      .after(first)
      .filter(o => o.id !== first.id && valueOf(o, 'type') === 'receptacle')
      .flatMap(o => [...w.marked(o, false), ...w.so(o, { isFedFromLoadSide: true })]),
  ]
}
/** A device of its own at one outlet, on the line side only: what comes after it is not protected by it. */
const protectHere = (w: Work, o: Subject<'outlet'>, protection: string): Change[] => [
  ...w.device(o, {
    slots: 'three',
    protection,
    gfciButton: 'trips, goes dead',
    carriesGroundOn: false,
  }),
  ...inReach(w, o),
  ...w.marked(o, true),
  ...w.outlets
    .filter(p => valueOf(p, 'after') === o.id)
    .flatMap(p => w.so(p, { isFedFromLoadSide: false })),
]
/** Where the place asks for arc-fault protection of new devices too, a combined one goes in at once. */
const GFCI_KINDS = ['GFCI', 'dual'] as const
/** A reset is in reach unless somebody saw that the place is not: a device put in does not move the appliance. */
const inReach = (w: Work, outlet: Subject<'outlet'>): Change[] =>
  triedAt(outlet, 'resetAccess') === undefined
    ? w.so(outlet, { resetAccess: 'readily accessible' })
    : []
/** What the looks at a bare end say the metal is; nothing where the surface or the core was not seen. */
function metalSeen(run: Subject<'segment'>): string | undefined {
  const [core, surface] = [valueOf(run, 'core'), valueOf(run, 'surface')]
  if (core === undefined || surface === undefined) return undefined
  if (core === 'silver color')
    return surface === 'copper color' ? 'copper-clad aluminum' : 'aluminum'
  return surface === 'silver color' ? 'tinned copper' : 'copper'
}
function protectAtBreaker(
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
/** A breaker is a way to protect only where one is known to be made for the panel. */
const isMade = (w: Work, breaker: Subject<'breaker'>): boolean =>
  valueOf(w.site.get(breaker.parent ?? undefined, 'enclosure'), 'protectiveBreakers') ===
  'available'

/** New conductors of today's cable, of the size the device ahead asks for. */
function newCable(w: Work, run: Subject<'segment'>, amps: number): Change[] {
  const size = amps <= 15 ? '14' : amps <= 20 ? '12' : amps <= 30 ? '10' : amps <= 40 ? '8' : '6'
  return w.so(run, {
    size,
    metal: 'copper',
    core: 'copper color',
    surface: 'copper color',
    wiring: 'NM-B',
    insulationC: 90,
    insulation: 'sound',
    entry: 'clamp or bushing',
    workmanship: 'sound',
    tape: 'none',
    egc: 'wire',
    egcSize: equipmentGroundSize(amps, 'copper') ?? size,
    egcMetal: 'copper',
    isWhiteHot: false,
    year: w.year,
  })
}
const ratingOf = (w: Work): number => (w.breaker && valueOf(w.breaker, 'ratingAmps')) ?? 20
const PIGTAIL: Facts = { splice: 'aluminum to copper', connectorListing: 'aluminum to copper' }
const pigtail = (connector: string): Effect =>
  atOutlet((w, o) => w.so(o, { ...PIGTAIL, connector, metal: 'copper', spliceState: 'sound' }))
const feederFrom = (w: Work): Subject<'feeder'> | undefined => {
  const { subject } = w
  if (isKind(subject, 'feeder')) return subject
  if (!isKind(subject, 'enclosure')) return undefined
  return w.site.get(valueOf(subject, 'fedFrom'), 'feeder')
}
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
/** The other leg, on a panel whose legs alternate down each side. */
function twoPole(w: Work): readonly Change[] | undefined {
  const [first, ...rest] = w.pair
  if (!first || rest.length === 0) return undefined
  const breakers = w.pair.flatMap(c => w.site.get(valueOf(c, 'fedBy'), 'breaker') ?? [])
  return breakers.flatMap(b => w.so(b, { handleTie: 'common trip', year: w.year }))
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
    ...showing.flatMap(o => [
      ...readRight(w, o),
      ...(triedAt(o, 'otherHalfV') !== undefined ? w.so(o, { otherHalfV: 120 }) : []),
      ...w.so(o, MEASURED_RIGHT),
    ]),
  ]
}

const EFFECTS: Readonly<Record<string, Effect>> = {
  'knob-and-tube-stages': w =>
    isKind(w.subject, 'segment') ? newCable(w, w.subject, ratingOf(w)) : undefined,
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
    ...w.segments.flatMap(run => newCable(w, run, ratingOf(w))),
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
    return first && protectFrom(w, first, 'dual')
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
    ...w.segments.flatMap(run => newCable(w, run, ratingOf(w))),
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
  'bond-piping': w => [...w.here({ gasBond: 'found' }), ...bonded(w, 'gas piping', '6')],
  'gec-to-neutral': w => electrodesOf(w).flatMap(e => w.so(e, { landsOn: 'neutral bar' })),
  'electrode-clamp': w =>
    electrodesOf(w).flatMap(e => w.so(e, { connection: 'sound', isJumpered: true, clampFt: 3 })),
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
  'install-electrodes': w => [
    ...w.here({ electrodes: 'found' }),
    {
      act: 'add',
      subject: `${w.subject.id}/new-rods`,
      kind: 'electrode',
      parent: w.site.premises.id,
    },
    ...w.so(
      { id: `${w.subject.id}/new-rods` },
      {
        type: 'rod',
        rods: 2,
        spacingFt: 8,
        landsIn: w.subject.id,
        landsOn: 'neutral bar',
        size: '6',
        metal: 'copper',
        connection: 'sound',
        isProtected: true,
        isSpliced: false,
      },
    ),
  ],
  'building-electrode': here({ electrode: 'found' }),
  'bonding-bushing': here({ racewayBond: 'bonding bushing or jumper' }),
  'fit-surge': here({ surge: 'present' }),
  'pull-white-neutral': here({ isColorMadeWhite: false }),
  'add-required-circuit': w =>
    isKind(w.subject, 'room')
      ? w.here({ ownCircuit: 'there' })
      : w.here({ centralHeating: 'own circuit' }),
  'add-outlet': here({ outlets: 'all there' }),
  'four-wire-circuit': atCircuit((w, c) => [
    ...w.so(c, { frameGround: 'grounding conductor', neutral: 'insulated' }),
    ...w.segments.flatMap(run => newCable(w, run, ratingOf(w))),
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

/**
 * A device in a box of its own beside the panel, that the whole circuit goes through. It stands where the panel stands,
 * so that the place asks of it what it asks of any outlet.
 */
function besidePanel(w: Work): readonly Change[] | undefined {
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
const electrodesOf = (w: Work): readonly Subject<'electrode'>[] =>
  w.site.all.electrode.filter(e => valueOf(e, 'landsIn') === w.subject.id)
/** A bond that is there, or is put in: sound, and landed on the neutral bar of the service. */
function bonded(w: Work, to: string, size: string): Change[] {
  const service = w.site.all.enclosure.find(e => valueOf(e, 'marking') === 'service disconnect')
  const facts: Facts = {
    to,
    size,
    metal: 'copper',
    landsOn: 'neutral bar',
    connection: 'sound',
    ...(service && { landsIn: service.id }),
  }
  const known = w.site.all.bond.find(b => valueOf(b, 'to') === to)
  if (known) return w.so(known, facts)
  const id = `new-bond-${to.replace(/ /g, '-')}`
  return [
    { act: 'add', subject: id, kind: 'bond', parent: w.site.premises.id },
    ...w.so({ id }, facts),
  ]
}
const newPanel = (w: Work, mainAmps: number): Change[] => [
  ...w.here({
    work: 'replaced',
    year: w.year,
    bus: 'single phase',
    mainKind: 'main breaker',
    mainAmps,
    busAmps: Math.max(mainAmps, 200),
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

/** Works of which one of several measures does; the first that cures is the one. */
type Search = (work: Work) => readonly (readonly Change[])[]
const SEARCHES: Readonly<Record<string, Search>> = {
  'smaller-breaker': smallerDevice,
  'nameplate-breaker': w =>
    w.result.failure?.id === 'nameplate-fuses-only' && w.circuit
      ? [w.so(w.circuit, { hasFusesAtUnit: true })]
      : smallerDevice(w),
  'appliance-breaker': suitingDevice,
  'smaller-main': w =>
    isKind(w.subject, 'enclosure')
      ? smallerThan(w, valueOf(w.subject, 'mainAmps')).map(mainAmps => w.here({ mainAmps }))
      : [],
  'replace-service-conductors': w =>
    SIZES_UP.slice(5).map(serviceSize =>
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
      }),
    ),
  'larger-ground': largerSize('egcSize', { egc: 'wire', egcMetal: 'copper' }),
  'electrode-conductor': w =>
    SIZES_UP.slice(3).map(size =>
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
  'move-to-other-leg': w =>
    w.pair.flatMap(c => {
      const breaker = w.site.get(valueOf(c, 'fedBy'), 'breaker')
      if (!breaker) return []
      const leg = valueOf(breaker, 'measuredLeg')
      // Moved, it is measured again; where nobody measured, the place on the bus says which leg.
      const measured: Facts = leg === undefined ? {} : { measuredLeg: leg === 'A' ? 'B' : 'A' }
      const moved = freeSpaces(w, breaker).map(space => w.so(breaker, { space, ...measured }))
      return [...moved, ...swapped(w, breaker)]
    }),
  'replace-conductor': w => {
    const { subject } = w
    const runs = isKind(subject, 'segment')
      ? [subject]
      : isKind(subject, 'circuit')
        ? w.segments
        : []
    if (isKind(subject, 'feeder'))
      return SIZES_UP.map(size =>
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
    return runs.length === 0
      ? []
      : SIZES_UP.slice(0, 8).map(size =>
          runs.flatMap(run => [...newCable(w, run, ratingOf(w)), ...w.so(run, { size })]),
        )
  },
  untwin: untwinned,
  'split-circuit': ownCircuitForOthers,
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
  'fewer-mains': w =>
    isKind(w.subject, 'enclosure') ? [newPanel(w, valueOf(w.subject, 'mainAmps') ?? 200)] : [],
  'replace-panel': w =>
    isKind(w.subject, 'enclosure') ? [newPanel(w, valueOf(w.subject, 'mainAmps') ?? 200)] : [],
}

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
