/**
 * Random houses that are sound and recorded whole, in the form of a house file: somewhere to put faults into. The same
 * seed gives the same house. Nothing here reads what the checks want; that a house is clear is tested, not arranged.
 */
import { gauge, measured, read, type Node } from '../examples/grades'
import type { Random } from './random'

const OUTLET: Node = {
  isBoxOpened: true,
  hasMetalParts: false,
  isMarkedNoGround: false,
  isMarkedGfci: false,
  resetAccess: 'readily accessible',
  carriesGroundOn: false,
  isDedicated: false,
  isOutOfReach: false,
  isHigh: false,
  hasGradeAccess: false,
  isSingle: false,
  isOneSize: true,
  setbackIn: 0,
  finish: 'combustible',
  hasExtender: false,
  cover: 'in place',
  splicePlace: 'in a box',
  isAccessible: true,
  metal: 'copper',
  stranding: 'solid',
  termination: 'binding screw',
  work: 'none',
  largestInBox: '12',
  hasInternalClamps: false,
  throughInBox: 0,
  fittingsInBox: 0,
  groundSizeInBox: '12',
  splice: 'copper to copper',
  connector: 'twist-on',
  spliceState: 'sound',
  isLooseInBox: false,
  isOverlamped: false,
  recessed: 'not recessed',
  fanBox: 'no fan',
  multiwireNeutral: 'not a multiwire circuit',
  hasFreeLength: true,
  tubZone: 'clear of it',
  condition: 'sound',
  wetCover: 'not in a wet place',
  neutralGroundRiseV: undefined,
}
const RECEPTACLE: Node = {
  ...OUTLET,
  type: 'receptacle',
  slots: 'three',
  deviceAmps: 15,
  ground: 'connected',
  hasNeutralGroundJumper: false,
  protection: 'none',
  isFedFromLoadSide: false,
  isTamperResistant: true,
  isWeatherResistant: false,
  servesCounter: false,
  isThroughDoorway: false,
  sinkFt: measured(30, 'tape'),
  heightFt: measured(1.3, 'tape'),
  appliance: 'none that needs a ground',
  boxVolumeIn3: read(22),
  conductorsInBox: 4,
  groundsInBox: 2,
  yokesInBox: 1,
  size: gauge('12'),
}
const LUMINAIRE: Node = {
  ...OUTLET,
  type: 'luminaire',
  boxVolumeIn3: read(22.5),
  conductorsInBox: 2,
  groundsInBox: 1,
  yokesInBox: 0,
  fittingsInBox: 1,
  ground: 'connected',
  protection: 'none',
  supplyMarkC: read(90),
  shell: 'on the neutral',
  switched: 'hot',
  hasMetalParts: false,
  lampKind: 'surface incandescent or LED, enclosed',
  clearanceIn: measured(24, 'tape'),
}
const SWITCH: Node = {
  ...OUTLET,
  type: 'switch',
  boxVolumeIn3: read(22),
  conductorsInBox: 4,
  groundsInBox: 2,
  yokesInBox: 1,
  ground: 'connected',
  protection: 'none',
  switchNeutral: 'in the box',
  switched: 'hot',
}
const HARD_WIRED: Node = {
  ...OUTLET,
  type: 'hard-wired outlet',
  ground: 'connected',
  hasMetalParts: true,
  protection: 'none',
  boxVolumeIn3: read(42),
  conductorsInBox: 3,
  groundsInBox: 1,
  yokesInBox: 0,
}
const SEGMENT: Node = {
  metal: 'copper',
  wiring: read('NM-B'),
  insulationC: read(90),
  terminalsC: read(75),
  isInInsulation: false,
  egc: 'wire',
  egcMetal: 'copper',
  conductors: 2,
  exposure: 'protected or out of harm’s way',
  burial: 'not buried',
  isTap: false,
  isBuried: false,
  isExtended: false,
  isNeutralFused: false,
  isWhiteHot: false,
  isSwitchLoop: false,
  isColorMadeWhite: false,
  isWhiteMarked: false,
  insulation: 'sound',
  entry: 'clamp or bushing',
  fastenedAtBoxIn: measured(8, 'tape'),
  surface: 'copper color',
  core: 'copper color',
  legend: read('CU'),
  isSoft: false,
  workmanship: 'sound',
  tape: 'none',
  support: 'within 12 in and every 4½ ft',
  isFished: false,
  boring: '1¼ in or more from the edge',
  firestop: 'sealed',
}
/** A run of aluminum cable to an appliance, landed where it may. */
const ALUMINUM: Node = {
  size: gauge('4'),
  metal: 'aluminum',
  wiring: read('SE'),
  insulationC: read(75),
  surface: 'silver color',
  core: 'silver color',
  legend: read('AL'),
  egcSize: gauge('8'),
  egcMetal: 'aluminum',
}
/** Single conductors in pipe. */
const PIPE: Node = {
  wiring: read('steel conduit'),
  surface: 'copper color',
}
/** Where a run of aluminum is spliced to the leads of its device. */
const TO_COPPER: Node = {
  splice: 'aluminum to copper',
  connector: 'set-screw lug',
  connectorListing: 'aluminum to copper',
}
const CIRCUIT: Node = {
  requiredUse: 'none',
  sharesNeutralWith: [],
  feedsLineToLine: false,
  isOnOneYoke: false,
  neutralReturn: 'with its own hot',
  neutral: 'insulated',
  frameGround: 'grounding conductor',
  isSharedOutside: false,
  homeRun: 'other wiring',
  extensionFt: 0,
  addsOutlets: false,
  work: 'none',
  isGroupedInPanel: true,
  hasFusesAtUnit: false,
}
const BREAKER: Node = {
  device: 'breaker',
  role: 'branch',
  poles: 1,
  protection: 'standard',
  conductorsOnTerminal: 1,
  isMarkedForTwo: false,
  termination: 'sound',
  rescan: 'no warmer than similar breakers',
  isTwinSpace: false,
  fitsPanel: 'listed',
  isAluminumMarked: true,
  hasHoldDown: true,
}
const PANEL: Node = {
  type: 'panel',
  place: 'indoors',
  bus: 'single phase',
  numbering: 'odd left, even right',
  landings: 'on separate bars',
  hasSecondSource: false,
  interlock: 'none',
  cover: 'in place',
  coverScrews: 'all blunt',
  openings: 0,
  directory: 'legible and specific',
  contradictions: 0,
  entryConnectors: 'one each, or as listed',
  strayWiring: 'none',
  fedFromLabel: 'there',
  interrupting: 'enough for the fault current',
  torque: 'torque tool used',
  gutter: 'room left',
  corrosion: 'none',
  protectiveBreakers: 'available',
  hasTripRecord: false,
  tandems: read('none'),
  location: 'ordinary',
  work: 'none',
  workingDepthIn: measured(48, 'tape'),
  workingWidthIn: measured(36, 'tape'),
  workingHeightIn: measured(96, 'tape'),
  widthIn: measured(14.5, 'tape'),
  door: '90° or more',
  isKeptClear: true,
  escape: 'upright, with a step back',
  topHandleIn: measured(66, 'tape'),
  isPlugOnNeutral: false,
  upperMains: 1,
}

type Use =
  | 'bedroom'
  | 'living'
  | 'kitchen'
  | 'bathroom'
  | 'laundry'
  | 'garage'
  | 'basement'
  | 'porch'
  | 'closet'
const ROOM_USE: Readonly<Record<Use, string>> = {
  bedroom: 'bedroom',
  living: 'living',
  kitchen: 'kitchen',
  bathroom: 'bathroom',
  laundry: 'laundry',
  garage: 'garage',
  basement: 'basement, unfinished',
  porch: 'outdoors',
  closet: 'closet',
}
/** Which rooms want a ground-fault device at their receptacles, and which an arc-fault device. */
const WANTS_GFCI = new Set<Use>(['kitchen', 'bathroom', 'laundry', 'garage', 'basement', 'porch'])

interface Draft {
  readonly random: Random
  /** Whether a house has what so many of them have. */
  readonly has: (share: number) => boolean
  readonly edition: number
  readonly year: number
  readonly rooms: Node[]
}
/** How many of each room, at most and at least. */
export interface SoundOptions {
  /** Few rooms, one panel: something to begin with. */
  readonly isSmall?: boolean
  /** Everything these houses may have. */
  readonly isWhole?: boolean
}

const size = (amps: number): string =>
  amps <= 15 ? '14' : amps <= 20 ? '12' : amps <= 30 ? '10' : amps <= 40 ? '8' : '6'

/** A sound house, recorded whole, but for what instruments read in it. */
export function soundHouse(
  random: Random,
  { isSmall = false, isWhole = false }: SoundOptions = {},
): Node {
  const has = (share: number): boolean => random() < (isWhole ? 1 : isSmall ? 0 : share)
  const edition = has(0.4) ? 2020 : 2017
  const year = (edition === 2020 ? 2021 : 2018) + Math.floor(random() * 3)
  const draft: Draft = { random, has, edition, year, rooms: [] }
  const room = (use: Use, name: string): string => {
    const id = `room-${name.toLowerCase().replace(/\W+/g, '-')}`
    const sink: Node =
      use === 'bathroom'
        ? { hasSink: true, sinkKind: 'tub or shower' }
        : use === 'kitchen'
          ? { hasSink: true, sinkKind: 'other sink' }
          : use === 'laundry'
            ? { hasSink: true, sinkKind: 'laundry or utility sink' }
            : { hasSink: false }
    draft.rooms.push({
      id,
      name,
      use: ROOM_USE[use],
      isBelowGrade: use === 'basement',
      hydromassage: 'none',
      outlets: 'all there',
      year,
      ...(['kitchen', 'bathroom', 'laundry', 'garage', 'porch'].includes(use) && {
        ownCircuit: 'there',
      }),
      ...sink,
    })
    return id
  }
  const breakers = rooms(draft, room, isSmall)
  const hasSub = has(0.6)
  const hasShed = has(0.35)
  const isMetalRaceway = has(0.4)
  const isJumper = has(0.3)
  const isTubing = has(0.3)
  const hasGenerator = has(0.3)
  const hasFuseBox = has(0.3)
  // A house with everything has one panel with a main of its own.
  const isSplit = !isWhole && has(0.15)
  const inSub = hasSub ? breakers.splice(-Math.ceil(breakers.length / 3)) : []
  // Whatever there is in it, 200 A carry it.
  const amps = isSmall ? 100 : 200
  return {
    corvit: 1,
    form: 'house',
    premises: {
      name: `Practice house ${Math.floor(random() * 9000) + 1000}`,
      visitedOn: '2026-06-09',
      purpose: 'purchase',
      yearBuilt: read(isSplit ? SPLIT_YEAR : year),
      edition,
      allowedToRemain: 'mention',
      aluminumSchool: 'strict',
      supply: measured('120/240 V single phase', 'multimeter'),
      floorAreaFt2: measured(isSmall ? 900 : 1600, 'tape'),
      areAppliancesRecorded: true,
      serviceRun: 'disconnect nearest the entrance',
      electrodesTogether: 'joined',
      poolWiring: 'none',
      serviceDrop: 'sound',
      intersystem: 'termination with room for three',
      waterPiping: 'metal',
      waterBond: 'found',
      gasPiping: isTubing ? 'corrugated tubing' : 'rigid metal',
      gasBond: 'found',
      doGasAppliancesHaveGround: true,
      serviceEntrance: 'sound',
      emergencyDisconnect: 'there',
      centralHeating: 'own circuit',
      alarmsAge: 'under ten years',
      alarms: 'where required',
    },
    adoptions: [{ id: 'law', edition, year: edition }],
    rooms: draft.rooms,
    ...(hasShed && { buildings: [shed(draft)] }),
    enclosures: [
      meter(amps),
      service(draft, amps, breakers, {
        feeds: [
          ...(hasSub ? [SUB] : []),
          ...(hasShed ? [SHED] : []),
          ...(hasFuseBox ? [FUSES] : []),
        ],
        hasGenerator,
        isSplit,
        isMetalRaceway,
        isJumper,
      }),
      ...(hasSub ? [subPanel(draft, SUB, inSub)] : []),
      ...(hasFuseBox ? [fuseBox(draft, room)] : []),
    ],
    electrodes: [
      {
        id: 'footing',
        name: 'Footing steel',
        type: 'concrete-encased',
        landsIn: 'main',
        landsOn: 'neutral bar',
        size: gauge('4'),
        metal: 'copper',
        connection: 'sound',
        isNearEarth: false,
        isProtected: true,
        isSpliced: false,
        isTenFtInEarth: true,
        year,
      },
      {
        id: 'rods',
        name: 'Rods',
        type: 'rod',
        rods: 2,
        spacingFt: measured(8, 'tape'),
        landsIn: 'main',
        landsOn: 'neutral bar',
        size: gauge('6'),
        metal: 'copper',
        connection: 'sound',
        isNearEarth: false,
        isProtected: true,
        isSpliced: false,
        year,
      },
    ],
    bonds: ['water piping', 'gas piping'].map((to, i) => ({
      id: i === 0 ? 'water' : 'gas',
      to,
      landsIn: 'main',
      landsOn: 'ground bar',
      size: gauge('4'),
      metal: 'copper',
      connection: 'sound',
      year,
    })),
  }
}

const shed = (draft: Draft): Node => ({
  id: 'shed-building',
  name: 'Shed',
  isDetached: true,
  disconnect: 'at the building',
  fedThrough: 'a feeder',
  electrode: 'found',
  yearBuilt: read(draft.year),
  rooms: [
    {
      id: 'room-shed',
      name: 'Shed room',
      use: 'workshop',
      isBelowGrade: false,
      hasSink: false,
      hydromassage: 'none',
      outlets: 'all there',
      year: draft.year,
    },
  ],
  enclosures: [
    subPanel(draft, SHED, [
      {
        ...BREAKER,
        ratingAmps: read(20),
        circuit: {
          ...CIRCUIT,
          id: 'shed-light',
          label: 'Shed light',
          supplies: 'lighting',
          segments: [{ ...SEGMENT, size: gauge('12'), egcSize: gauge('12') }],
          outlets: [
            {
              ...LUMINAIRE,
              id: 'shed-light-1',
              room: 'room-shed',
              name: 'Shed light',
              after: 'panel',
              runFt: 20,
              size: gauge('12'),
            },
          ],
        },
      },
    ]),
  ],
  electrodes: [
    {
      id: 'shed-rods',
      name: 'Shed rods',
      type: 'rod',
      rods: 2,
      spacingFt: measured(8, 'tape'),
      landsIn: SHED.id,
      landsOn: 'ground bar',
      size: gauge('6'),
      metal: 'copper',
      connection: 'sound',
      isNearEarth: false,
      isProtected: true,
      isSpliced: false,
      year: draft.year,
    },
  ],
})

const meter = (amps: number): Node => ({
  id: 'meter',
  name: 'Meter',
  type: 'meter',
  place: 'outdoors',
  fedFrom: 'utility',
  openings: 0,
  corrosion: 'none',
  serviceRaceway: 'plastic raceway',
  hasSecondSource: false,
  interlock: 'none',
  bondMeans: 'none',
  busAmps: read(200),
  serviceSize: read(amps > 150 ? '3/0' : amps > 100 ? '1/0' : '3'),
  serviceMetal: 'copper',
  serviceInsulationC: read(75),
})

interface ServiceParts {
  /** Panels fed from it. */
  readonly feeds: readonly Feed[]
  readonly hasGenerator: boolean
  /** An old service panel with a split bus. */
  readonly isSplit: boolean
  readonly isMetalRaceway: boolean
  readonly isJumper: boolean
}
/** Two bus sections, the lower one behind one of six mains at most, as panels were made until the early 1980s. */
const SPLIT_YEAR = 1972
const MOST_MAINS = 6
const SPLIT_BUS: Node = {
  mainKind: 'split bus',
  bus: 'split bus',
  upperMains: MOST_MAINS,
  areDisconnectsApart: false,
  hasAddedUpper: false,
}
/** The same breakers on a split bus: what takes two poles above the gap as far as there is room, the rest below. */
function split(breakers: Breakers): Breakers {
  const lowerMain: Node = {
    ...BREAKER,
    id: 'lower-main',
    label: 'Lower section',
    poles: 2,
    handleTie: 'common trip',
    ratingAmps: read(100),
    role: 'main of the lower section',
    section: 'upper',
  }
  let room = MOST_MAINS - 1
  const within = (b: Node, section: string): Node => ({ ...b, section })
  const upper: Breakers = [lowerMain]
  const lower: Breakers = []
  for (const b of breakers) {
    if (Array.isArray(b)) {
      const [one, other] = b as readonly [Node, Node]
      lower.push([within(one, 'lower'), within(other, 'lower')])
    } else if ((b as Node).poles === 2 && room > 0) {
      upper.push(within(b as Node, 'upper'))
      room--
    } else lower.push(within(b as Node, 'lower'))
  }
  return [...upper, ...lower]
}

interface Feed {
  readonly id: string
  readonly name: string
}
const feederBreaker = (panel: Feed): Node => ({
  ...BREAKER,
  id: `to-${panel.id}`,
  label: panel.name,
  poles: 2,
  handleTie: 'common trip',
  ratingAmps: read(60),
  role: 'feeder',
})
/** Where the cord of a portable generator comes in; it holds itself by a screw. */
const GENERATOR: Node = {
  ...BREAKER,
  id: 'generator',
  label: 'Generator inlet',
  poles: 2,
  handleTie: 'common trip',
  ratingAmps: read(30),
  role: 'backfed source',
  sourceKind: 'generator',
  hasHoldDown: true,
}

function service(draft: Draft, amps: number, breakers: Breakers, parts: ServiceParts): Node {
  const { feeds, hasGenerator, isSplit, isMetalRaceway, isJumper } = parts
  const all = [...breakers, ...feeds.map(feederBreaker), ...(hasGenerator ? [GENERATOR] : [])]
  const placed = place(isSplit ? split(all) : all)
  const used = placed.reduce((most, b) => Math.max(most, (b.space as number) + 2), 0)
  const wire = amps > 150 ? '3/0' : amps > 100 ? '1/0' : '3'
  return {
    ...PANEL,
    id: 'main',
    name: 'Service panel',
    marking: 'service disconnect',
    ...(isSplit ? SPLIT_BUS : { mainKind: 'main breaker', mainAmps: read(amps) }),
    busAmps: read(amps),
    bondMeans: isJumper ? 'wire jumper' : 'screw',
    ...(isJumper && { jumperSize: gauge('2'), jumperMetal: 'copper' }),
    spaces: Math.max(20, 2 * Math.ceil(used / 2) + 4),
    maxCircuits: read(80),
    serviceSize: read(wire),
    serviceMetal: 'copper',
    serviceInsulationC: read(75),
    serviceRaceway: isMetalRaceway ? 'metal raceway' : 'plastic raceway',
    ...(isMetalRaceway && { supplyJumperSize: gauge('2'), supplyJumperMetal: 'copper' }),
    racewayBond: 'bonding bushing or jumper',
    electrodes: 'found',
    surge: 'present',
    year: isSplit ? SPLIT_YEAR : draft.year,
    ...(hasGenerator && {
      hasSecondSource: true,
      interlock: 'listed interlock or transfer switch',
    }),
    feeder: {
      id: 'service',
      from: 'meter',
      size: read(wire),
      metal: 'copper',
      wiring: 'plastic conduit',
      egc: 'none',
      insulationC: read(75),
      terminalsC: read(75),
      carriesWholeDwelling: true,
      isInInsulation: false,
      hasOtherMetallicPath: false,
      isTap: false,
      year: draft.year,
    },
    bars: bars('main', true),
    breakers: placed,
  }
}

const SUB = { id: 'sub', name: 'Sub-panel', bars: 'sub' } as const
const SHED = { id: 'shed', name: 'Shed panel', bars: 'shed' } as const
const FUSES = { id: 'fuses', name: 'Fuse box', bars: 'fuses' } as const
/** When the part of a house was wired that nobody has rewired. */
const OLD = 1956

/** What is left of an old house: plug fuses, and two-wire cable to receptacles that a ground-fault device protects. */
function fuseBox(draft: Draft, room: AddRoom): Node {
  const cellar = room('basement', 'Old cellar')
  const old: Node = { year: OLD }
  const outlet = (n: number): Node => ({
    ...RECEPTACLE,
    id: `cellar-${n}`,
    name: `Old cellar ${n}`,
    room: cellar,
    after: n === 1 ? 'panel' : `cellar-${n - 1}`,
    runFt: 12 + 8 * n,
    ground: 'none',
    protection: 'GFCI',
    gfciButton: 'trips, goes dead',
    isMarkedNoGround: true,
    isMarkedGfci: true,
    groundsInBox: 0,
    largestInBox: '14',
    size: gauge('14'),
    work: 'replaced',
    year: draft.year,
  })
  return {
    ...subPanel(draft, FUSES, [
      {
        device: 'plug fuse',
        fuseBase: 'Type S adapter',
        role: 'branch',
        poles: 1,
        ratingAmps: read(15),
        conductorsOnTerminal: 1,
        isMarkedForTwo: false,
        termination: 'sound',
        rescan: 'no warmer than similar breakers',
        circuit: {
          ...CIRCUIT,
          ...old,
          id: 'cellar',
          label: 'Old cellar',
          supplies: 'receptacles',
          segments: [
            {
              ...SEGMENT,
              ...old,
              size: gauge('14'),
              wiring: read('NM'),
              insulationC: read(60),
              egc: 'none',
            },
          ],
          outlets: [outlet(1), outlet(2)],
        },
      },
    ]),
    ...old,
  }
}

function subPanel(
  draft: Draft,
  { id, name }: { readonly id: string; readonly name: string },
  breakers: Breakers,
): Node {
  const placed = place(breakers)
  return {
    ...PANEL,
    id,
    name,
    marking: 'not service equipment',
    mainKind: 'main lugs',
    busAmps: read(125),
    bondMeans: 'none',
    spaces: 20,
    maxCircuits: read(40),
    electrodes: id === SHED.id ? 'found' : 'none found',
    year: draft.year,
    ...(id === SHED.id && draft.has(0.4) && THREE_BARS),
    feeder: {
      id: `${id}-feeder`,
      from: `to-${id}`,
      size: gauge('6'),
      metal: 'copper',
      wiring: read('NM-B'),
      egc: 'wire',
      egcSize: gauge('10'),
      egcMetal: 'copper',
      insulationC: read(90),
      terminalsC: read(75),
      isInInsulation: false,
      hasOtherMetallicPath: false,
      isTap: false,
      carriesWholeDwelling: false,
      year: draft.year,
    },
    bars: bars(id, false),
    breakers: placed,
  }
}

const bars = (id: string, isService: boolean): Node[] => [
  {
    id: `${id}-neutral`,
    role: 'neutral',
    isBondedToEnclosure: isService,
    screws: 20,
    areAllScrewsSeen: true,
    screwList: [1, 2, 3, 4, 5, 6].map(position => ({
      position,
      neutrals: 1,
      grounds: 0,
      electrodes: 0,
    })),
  },
  {
    id: `${id}-ground`,
    role: 'ground',
    isBondedToEnclosure: true,
    isTiedToNeutral: isService,
    screws: 20,
    areAllScrewsSeen: true,
    groundsPerScrew: read(2),
    screwList: [1, 2, 3, 4].map(position => ({ position, neutrals: 0, grounds: 2, electrodes: 0 })),
  },
]

/** A panel made for three phases on a house supply, its third bar tied to a leg by a part its label shows. */
const THREE_BARS: Node = {
  bus: 'three phase',
  thirdLeg: 'jumpered to another leg',
  jumperedTo: 'A',
  isJumperListed: true,
}

/** The last two breakers, as a pair on one neutral. */
function shareNeutral(breakers: Breakers): void {
  const [first, second] = breakers.splice(-2) as [Node, Node]
  const joined = (breaker: Node, other: Node): Node => {
    const circuit = breaker.circuit as Node
    const [segment] = circuit.segments as Node[]
    return {
      ...breaker,
      handleTie: 'listed tie',
      circuit: {
        ...circuit,
        sharesNeutralWith: [(other.circuit as Node).id],
        segments: [{ ...segment, conductors: 3 }],
        outlets: (circuit.outlets as Node[]).map(o => ({ ...o, multiwireNeutral: 'pigtailed' })),
      },
    }
  }
  breakers.push([joined(first, second), joined(second, first)])
}

/** Breakers in the order they are put in; two that share a neutral stand together, on opposite legs. */
type Breakers = (Node | readonly [Node, Node])[]

/** Spaces down both sides: a breaker of two poles takes one and the next of its side. */
function place(breakers: Breakers): Node[] {
  let [left, right] = [1, 2]
  return breakers.flatMap(breaker => {
    const pair = Array.isArray(breaker) ? (breaker as readonly [Node, Node]) : undefined
    const poles = pair ? 2 : ((breaker as Node).poles as number)
    const isLeft = left <= right
    const space = isLeft ? left : right
    if (isLeft) left += 2 * poles
    else right += 2 * poles
    return pair
      ? [
          { ...pair[0], space },
          { ...pair[1], space: space + 2 },
        ]
      : [{ ...(breaker as Node), space }]
  })
}

type AddRoom = (use: Use, name: string) => string

/** Rooms with their outlets, and the breakers that feed them. */
function rooms(draft: Draft, room: AddRoom, isSmall: boolean): Breakers {
  const { random, has } = draft
  const breakers: Breakers = []
  const circuit = (
    id: string,
    label: string,
    amps: number,
    outlets: Node[],
    more: { circuit?: Node; breaker?: Node; segment?: Node } = {},
  ) => {
    const wire = size(amps)
    let feet = 15 + Math.floor(random() * 40)
    breakers.push({
      ...BREAKER,
      ratingAmps: read(amps),
      ...more.breaker,
      circuit: {
        ...CIRCUIT,
        id,
        label,
        year: draft.year,
        ...more.circuit,
        segments: [
          {
            ...SEGMENT,
            size: gauge(wire),
            egcSize: gauge(wire === '14' ? '14' : wire === '12' ? '12' : '10'),
            ...more.segment,
          },
        ],
        outlets: outlets.map((o, i) => {
          if (i > 0) feet += 6 + Math.floor(random() * 8)
          return {
            ...o,
            id: `${id}-${i + 1}`,
            after: i === 0 ? 'panel' : `${id}-${i}`,
            runFt: feet,
            largestInBox: wire === '14' ? '14' : '12',
            groundSizeInBox: wire === '14' ? '14' : '12',
            size: gauge(wire === '14' ? '14' : '12'),
          }
        }),
      },
    })
  }
  const receptacles = (
    use: Use,
    id: string,
    name: string,
    count: number,
    more: Node = {},
  ): Node[] =>
    Array.from({ length: count }, (_, i) => ({
      ...RECEPTACLE,
      room: id,
      name: `${name} ${i + 1}`,
      ...(WANTS_GFCI.has(use) && {
        protection: 'GFCI',
        gfciButton: 'trips, goes dead',
        gfciTest: 'goes dead',
        sinkFt: measured(
          use === 'garage' || use === 'basement' || use === 'porch' ? 30 : 3,
          'tape',
        ),
      }),
      ...more,
    }))
  const lights = (id: string, name: string): Node => ({
    ...LUMINAIRE,
    room: id,
    name: `${name} light`,
  })
  const AFCI: Node = { protection: 'AFCI', testButton: 'trips' }
  /** From 2020 on receptacles of 240 V and outdoor equipment want a ground-fault device too. */
  const TWO_POLES: Node = {
    poles: 2,
    handleTie: 'common trip',
    ...(draft.edition >= 2020 && { protection: 'GFCI', testButton: 'trips' }),
  }

  const living = room('living', 'Living room')
  circuit(
    'living',
    'Living room',
    15,
    [
      ...receptacles('living', living, 'Living room', 3 + Math.floor(random() * 3)),
      lights(living, 'Living room'),
    ],
    {
      circuit: { supplies: 'receptacles and lighting' },
      breaker: AFCI,
    },
  )
  const bedrooms = isSmall ? 1 : 2 + Math.floor(random() * 2)
  for (let i = 1; i <= bedrooms; i++) {
    const name = `Bedroom ${i}`
    const bed = room('bedroom', name)
    const closet = i === 1 && has(0.5) ? room('closet', 'Closet') : undefined
    circuit(
      `bed-${i}`,
      name,
      15,
      [
        ...receptacles('bedroom', bed, name, 2 + Math.floor(random() * 3), {
          termination: 'push-in',
          pushInMarking: '14 solid',
        }),
        lights(bed, name),
        ...(closet
          ? [lights(closet, 'Closet'), { ...SWITCH, room: bed, name: `${name} switch` }]
          : []),
      ],
      {
        circuit: { supplies: 'receptacles and lighting' },
        breaker: AFCI,
      },
    )
  }
  const kitchen = room('kitchen', 'Kitchen')
  for (const side of ['left', 'right'])
    circuit(
      `counter-${side}`,
      `Kitchen counter ${side}`,
      20,
      receptacles('kitchen', kitchen, `Counter ${side}`, 2, {
        servesCounter: true,
        heightFt: measured(3.5, 'tape'),
      }),
      {
        circuit: { supplies: 'receptacles', requiredUse: 'kitchen small-appliance' },
        breaker: AFCI,
      },
    )
  const bath = room('bathroom', 'Bathroom')
  circuit(
    'bath',
    'Bathroom',
    20,
    receptacles('bathroom', bath, 'Bathroom', 1, { heightFt: measured(3.5, 'tape') }),
    {
      circuit: { supplies: 'receptacles', requiredUse: 'bathroom receptacles' },
    },
  )
  const laundry = room('laundry', 'Laundry')
  circuit(
    'laundry',
    'Laundry',
    20,
    receptacles('laundry', laundry, 'Laundry', 1, { isSingle: false }),
    {
      circuit: { supplies: 'receptacles', requiredUse: 'laundry' },
      breaker: AFCI,
    },
  )
  circuit(
    'furnace',
    'Furnace',
    15,
    [{ ...HARD_WIRED, room: laundry, name: 'Furnace', appliance: 'heating or cooling unit' }],
    {
      circuit: {
        supplies: 'fixed appliance',
        applianceAmps: read(8),
        applianceMaxDevice: read(15),
        isDeviceMarked: true,
        disconnect: 'within sight',
        applianceDisconnect: 'within sight or lockable',
      },
      breaker: AFCI,
    },
  )
  circuit(
    'heater',
    'Water heater',
    30,
    [{ ...HARD_WIRED, room: laundry, name: 'Water heater', appliance: 'other fixed appliance' }],
    {
      circuit: {
        supplies: 'water heater',
        heaterKind: 'storage, 120 gal or less',
        feedsLineToLine: true,
        applianceAmps: read(18.8),
        applianceMaxDevice: read(30),
        isDeviceMarked: true,
        applianceDisconnect: 'within sight or lockable',
      },
      breaker: { poles: 2, handleTie: 'common trip' },
    },
  )
  if (isSmall) return breakers
  const garage = room('garage', 'Garage')
  circuit(
    'garage',
    'Garage',
    20,
    receptacles('garage', garage, 'Garage', 2 + Math.floor(random() * 2)),
    {
      circuit: { supplies: 'receptacles', requiredUse: 'garage' },
      ...(has(0.4) && { segment: PIPE }),
    },
  )
  const porch = room('porch', 'Porch')
  circuit(
    'porch',
    'Porch',
    20,
    receptacles('porch', porch, 'Porch', 1, {
      isWeatherResistant: true,
      wetCover: 'covers the plug in use',
      hasGradeAccess: true,
    }),
    { circuit: { supplies: 'receptacles', isSharedOutside: false } },
  )
  if (has(0.4)) shareNeutral(breakers)
  if (has(0.6)) {
    const basement = room('basement', 'Basement')
    circuit(
      'basement',
      'Basement',
      20,
      [...receptacles('basement', basement, 'Basement', 2), lights(basement, 'Basement')],
      {
        circuit: { supplies: 'receptacles and lighting' },
      },
    )
  }
  if (has(0.7)) {
    const isAluminum = has(0.4)
    circuit(
      'range',
      'Range',
      50,
      [
        {
          ...RECEPTACLE,
          slots: '240 V',
          deviceAmps: 50,
          room: kitchen,
          name: 'Range outlet',
          isSingle: true,
          isDedicated: true,
          appliance: 'range, oven or cooktop',
          ...(isAluminum && TO_COPPER),
        },
      ],
      {
        circuit: {
          supplies: 'cooking appliance',
          feedsLineToLine: true,
          applianceKw: read(11.5),
          applianceMaxDevice: read(50),
          isDeviceMarked: true,
          applianceDisconnect: 'plug and receptacle',
        },
        breaker: TWO_POLES,
        ...(isAluminum && { segment: ALUMINUM }),
      },
    )
  }
  if (has(0.6))
    circuit(
      'dryer',
      'Dryer',
      30,
      [
        {
          ...RECEPTACLE,
          slots: '240 V',
          deviceAmps: 30,
          room: laundry,
          name: 'Dryer outlet',
          isSingle: true,
          isDedicated: true,
          appliance: 'dryer',
        },
      ],
      {
        circuit: {
          supplies: 'fixed appliance',
          feedsLineToLine: true,
          applianceKw: read(5),
          applianceMaxDevice: read(30),
          isDeviceMarked: true,
          applianceDisconnect: 'plug and receptacle',
        },
        breaker: TWO_POLES,
      },
    )
  if (has(0.3))
    circuit(
      'charger',
      'Vehicle charger',
      50,
      [
        {
          ...HARD_WIRED,
          room: garage,
          name: 'Vehicle charger',
          appliance: 'other fixed appliance',
        },
      ],
      {
        circuit: {
          supplies: 'vehicle charger',
          feedsLineToLine: true,
          applianceAmps: read(32),
          applianceKw: read(7.7),
          applianceMaxDevice: read(50),
          isDeviceMarked: true,
          chargerCircuit: 'its own',
          applianceDisconnect: 'within sight or lockable',
          disconnect: 'within sight',
        },
        breaker: TWO_POLES,
      },
    )
  if (has(0.5))
    circuit(
      'cooling',
      'Outdoor unit',
      30,
      [
        {
          ...HARD_WIRED,
          room: porch,
          name: 'Outdoor unit',
          appliance: 'heating or cooling unit',
          nameplateMca: read(18),
          nameplateMocp: read(30),
        },
      ],
      {
        circuit: {
          supplies: 'air conditioning',
          feedsLineToLine: true,
          nameplateMca: read(18),
          nameplateMocp: read(30),
          nameplateDevice: 'fuse or breaker',
          applianceKw: read(4.2),
          disconnect: 'within sight',
          applianceDisconnect: 'within sight or lockable',
        },
        breaker: TWO_POLES,
      },
    )
  return breakers
}
