/**
 * Every fact Corvit knows how to record, declared once: value, unit, domain, plain label, where and how to look.
 * Forms, shorthand, imports, the command line and the undecided list all read this declaration.
 */
import { EDITIONS } from '../tables/editions'
import { SIZES } from '../tables/ampacity'
import { RULE_IDS } from './rule-ids'
import { SEVERITIES } from './severities'

/** Stages of the walk, in the order people work. */
export const STAGES = [
  'before',
  'outside',
  'cover on',
  'cover off',
  'sub-panel',
  'trace',
  'rooms',
  'open box',
] as const
export type Stage = (typeof STAGES)[number]

interface Look {
  /** What to look at, as an instruction. */
  look: string
  stage: Stage
  /** Instrument or aid; none means eyes. */
  with?: string
}
export interface NumberField<U extends string = string> extends Look {
  type: 'number'
  label: string
  unit: U
  min: number
  max: number
  integer?: boolean
}
export interface ChoiceField<V extends string | number = string | number> extends Look {
  type: 'choice'
  label: string
  options: readonly V[]
  unit?: string
}
export interface FlagField extends Look {
  type: 'flag'
  label: string
}
export interface TextField extends Look {
  type: 'text'
  label: string
  max: number
}
/** A year, or an interval of years [from, to]. */
export interface YearField extends Look {
  type: 'year'
  label: string
}
/** The id of another subject, or one of the fixed words. */
export interface RefField<W extends string = string> extends Look {
  type: 'ref'
  label: string
  kinds: readonly string[]
  words: readonly W[]
}
export interface RefsField extends Look {
  type: 'refs'
  label: string
  kinds: readonly string[]
}
export type Field =
  NumberField | ChoiceField | FlagField | TextField | YearField | RefField | RefsField

export type Year = number | readonly [number, number]
export type ValueOf<F> = F extends { type: 'number' }
  ? number
  : F extends { type: 'choice'; options: readonly (infer V)[] }
    ? V
    : F extends { type: 'flag' }
      ? boolean
      : F extends { type: 'text' }
        ? string
        : F extends { type: 'year' }
          ? Year
          : F extends { type: 'refs' }
            ? readonly string[]
            : F extends { type: 'ref' }
              ? string
              : never

const number = <const U extends string>(
  label: string,
  unit: U,
  min: number,
  max: number,
  at: Look,
  integer = false,
): NumberField<U> => ({ type: 'number', label, unit, min, max, integer, ...at })
const whole = <const U extends string>(
  label: string,
  unit: U,
  min: number,
  max: number,
  at: Look,
) => number(label, unit, min, max, at, true)
const choice = <const V extends string | number>(
  label: string,
  options: readonly V[],
  at: Look,
  unit?: string,
): ChoiceField<V> => ({ type: 'choice', label, options, unit, ...at })
const flag = (label: string, at: Look): FlagField => ({ type: 'flag', label, ...at })
const text = (label: string, at: Look, max = 200): TextField => ({
  type: 'text',
  label,
  max,
  ...at,
})
const year = (label: string, at: Look): YearField => ({ type: 'year', label, ...at })
const ref = <const W extends string = never>(
  label: string,
  kinds: readonly string[],
  at: Look,
  words: readonly W[] = [],
): RefField<W> => ({ type: 'ref', label, kinds, words, ...at })
const refs = (label: string, kinds: readonly string[], at: Look): RefsField => ({
  type: 'refs',
  label,
  kinds,
  ...at,
})
const at = (stage: Stage, look: string, tool?: string): Look => ({ stage, look, with: tool })

const METALS = [
  'copper',
  'tinned copper',
  'aluminum',
  'copper-clad aluminum',
  'silver-looking',
  'copper-looking',
] as const
const WIRINGS = [
  'NM-B',
  'NM',
  'cloth NM',
  'UF',
  'armored cable',
  'old spiral armor',
  'MC',
  'steel conduit',
  'aluminum conduit',
  'flexible conduit',
  'plastic conduit',
  'SE',
  'knob-and-tube',
  'cord',
] as const
/** What a room is used for, in the words the code knows. */
const ROOM_USES = [
  'bedroom',
  'living',
  'kitchen',
  'bathroom',
  'laundry',
  'hallway',
  'closet',
  'garage',
  'basement, finished',
  'basement, unfinished',
  'attic',
  'crawl space',
  'utility',
  'outdoors',
  'workshop',
  'stairs',
  'office',
  'boathouse',
  'food preparation',
  'damp or wet room',
] as const

const JUMPER_ENDS = ['sound', 'loose', 'corroded', 'not a listed lug'] as const
const EGCS = ['wire', 'metal raceway or armor', 'none'] as const

const conductor = (stage: Stage) => ({
  size: choice(
    'conductor size',
    SIZES,
    at(
      stage,
      'Gauge the conductor where it lands; photograph gauge and breaker rating together',
      'wire gauge',
    ),
    'AWG',
  ),
  metal: choice(
    'conductor metal',
    METALS,
    at(stage, 'Look at the surface and at a cut end; scrape if in doubt', 'flashlight'),
  ),
  wiring: choice(
    'wiring method',
    WIRINGS,
    at(stage, 'Read the jacket print or see the raceway at the entry', 'flashlight'),
  ),
  insulationC: choice(
    'insulation rating',
    [60, 75, 90] as const,
    at(stage, 'Read the print on the conductor', 'flashlight'),
    '°C',
  ),
  terminalsC: choice(
    'terminal marking, the lower of both ends',
    [60, 75] as const,
    at(stage, 'Read the temperature marking at both ends', 'flashlight'),
    '°C',
  ),
  isInInsulation: flag(
    'runs inside in thermal insulation',
    at(
      stage,
      'See whether the cable runs inside the building and through thermal insulation',
      'flashlight',
    ),
  ),
  egc: choice(
    'equipment grounding conductor',
    EGCS,
    at(stage, 'See whether a grounding wire, raceway or armor runs with it', 'flashlight'),
  ),
  egcSize: choice(
    'grounding conductor size',
    ['18', '16', ...SIZES] as const,
    at(stage, 'Gauge the grounding wire that runs with it', 'wire gauge'),
    'AWG',
  ),
  egcMetal: choice(
    'grounding conductor metal',
    ['copper', 'aluminum'] as const,
    at(stage, 'See whether the grounding wire is copper or aluminum', 'flashlight'),
  ),
  year: year(
    'year put in',
    at('trace', 'Ask for the permit or invoice; read the date on jacket or device'),
  ),
})

/** Kinds of things a photograph may be attached to. */
const PHOTOGRAPHED = [
  'premises',
  'building',
  'room',
  'enclosure',
  'bar',
  'screw',
  'breaker',
  'feeder',
  'electrode',
  'bond',
  'circuit',
  'segment',
  'exposure',
  'conductor',
  'outlet',
] as const

/** Who a report speaks to. */
export const VOICES = [
  'inspector',
  'electrician',
  'corrections',
  'household',
  'insurance',
  'rental',
] as const
/** How far a job is. */
export const JOB_STAGES = ['planned', 'on site', 'writing', 'signed', 'return'] as const

export const FIELDS = {
  premises: {
    name: text('name of the job', at('before', 'Give the job a name')),
    street: text('street', at('before', 'Ask')),
    client: text('client', at('before', 'Ask')),
    assessor: text('assessed by', at('before', 'Your name')),
    visitedOn: text('day of the visit', at('before', 'Year-month-day'), 10),
    purpose: choice(
      'purpose',
      ['purchase', 'insurance', 'rental', 'service', 'remodel', 'final'] as const,
      at('before', 'Ask who it is for'),
    ),
    yearBuilt: year(
      'year built',
      at('before', 'Ask; public record; date inside a toilet tank or on the panel label'),
    ),
    edition: choice(
      'code edition in force',
      EDITIONS,
      at('before', 'Ask the local authority which edition is in force'),
    ),
    areAdoptionsRecorded: flag(
      'years in which editions became law here recorded',
      at('before', 'Ask the local authority from which year each edition was law; add each'),
    ),
    allowedToRemain: choice(
      'report what is allowed to remain as',
      ['mention', 'recommend upgrade'] as const,
      at('before', 'Your settings'),
    ),
    aluminumSchool: choice(
      'aluminum remedies',
      ['strict', 'listed connectors'] as const,
      at('before', 'Your settings'),
    ),
    stage: choice('state of the job', JOB_STAGES, at('before', 'Say how far it is')),
    temperatures: choice('temperatures shown in', ['°F', '°C'], at('before', 'Your settings')),
    citeSections: flag('inspector report cites sections', at('before', 'Your settings')),
    supply: choice(
      'supply from the utility',
      ['120/240 V single phase', '208Y/120 V'] as const,
      at('outside', 'Measure hot to hot at the service: 240 V or 208 V', 'multimeter'),
    ),
    floorAreaFt2: number(
      'floor area',
      'ft²',
      100,
      20000,
      at(
        'outside',
        'Outside dimensions of every floor, without porches, garage and unfinished spaces',
      ),
    ),
    areAppliancesRecorded: flag(
      'every fixed appliance recorded',
      at('rooms', 'Walk the house once for what is fastened in place or has a circuit of its own'),
    ),
    serviceRun: choice(
      'service conductors inside',
      ['disconnect nearest the entrance', 'run on inside'] as const,
      at('outside', 'Follow the service conductors from the outside to the first disconnect'),
    ),
    electrodesTogether: choice(
      'electrodes joined to each other',
      ['joined', 'one stands apart'] as const,
      at(
        'outside',
        'Look for rods of telephone, antenna or added panels, and where their wires go',
      ),
    ),
    poolWiring: choice(
      'pool, spa or hot tub',
      [
        'bonded and protected',
        'metal not bonded',
        'no ground-fault protection',
        'receptacle, light or line too near',
        'none',
      ] as const,
      at('outside', 'Look at bonds, protection and what stands near the water'),
    ),
    serviceDrop: choice(
      'service drop and mast',
      [
        'sound',
        'insulation damaged',
        'taped splices',
        'mast or attachment loose',
        'too low or within reach',
        'underground',
      ] as const,
      at(
        'outside',
        'From the ground, look at the drop, its splices, the attachment and the mast; do not touch',
        'binoculars',
      ),
    ),
    intersystem: choice(
      'bonding point for communications',
      ['termination with room for three', 'other accessible means', 'none found'] as const,
      at(
        'outside',
        'Look near the meter or service for a termination where cable, telephone and dish grounds land',
      ),
    ),
    waterPiping: choice(
      'water piping inside',
      ['metal', 'metal in part', 'plastic', 'none'] as const,
      at('outside', 'See what the water pipes are made of where they enter and inside'),
    ),
    waterBond: choice(
      'bond to the water piping',
      ['found', 'none found'] as const,
      at(
        'outside',
        'Follow the pipe from where it enters: is there a clamp with a conductor on bare metal?',
        'flashlight',
      ),
    ),
    gasPiping: choice(
      'gas piping inside',
      [
        'none',
        'rigid metal',
        'corrugated tubing',
        'corrugated tubing, arc-resistant jacket',
      ] as const,
      at(
        'outside',
        'Follow the gas from the meter: rigid pipe or yellow or black corrugated tubing? Read the jacket',
        'flashlight',
      ),
    ),
    gasBond: choice(
      'bond to the gas piping',
      ['found', 'none found'] as const,
      at(
        'outside',
        'Look for a clamp with a conductor on the rigid pipe or a fitting, never on the tubing itself',
        'flashlight',
      ),
    ),
    doGasAppliancesHaveGround: flag(
      'gas appliances have a circuit with a grounding conductor',
      at(
        'rooms',
        'See whether each appliance with gas and a cord or circuit has an equipment ground',
      ),
    ),
    serviceEntrance: choice(
      'service cable, weatherhead and meter',
      [
        'sound',
        'sheath frayed or open',
        'weatherhead damaged',
        'meter loose',
        'enclosure not made for wet places',
      ] as const,
      at(
        'outside',
        'From the ground, follow the service cable from the weatherhead to the meter; do not touch',
      ),
    ),
    emergencyDisconnect: choice(
      'emergency disconnect outdoors',
      ['there', 'none found'] as const,
      at('outside', 'Look outside for a marked disconnect that shuts everything off'),
    ),
    centralHeating: choice(
      'circuit of the central heating',
      ['own circuit', 'shared with other outlets', 'no central heating'] as const,
      at('trace', 'See whether the furnace or boiler has a circuit of its own', 'circuit tracer'),
    ),
    alarmsAge: choice(
      'age of the smoke alarms',
      ['under ten years', 'ten years or more'] as const,
      at('rooms', 'Read the date on the back of each alarm'),
    ),
    alarms: choice(
      'smoke and carbon monoxide alarms',
      ['where required', 'some missing', 'none found'] as const,
      at(
        'rooms',
        'See whether there is one in each bedroom, outside them and on each level; press the button',
      ),
    ),
  },
  building: {
    name: text('building', at('before', 'Name the building')),
    isDetached: flag(
      'stands apart from the main building',
      at('outside', 'Look whether it is a separate building'),
    ),
    disconnect: choice(
      'disconnect of the building',
      ['at the building', 'none'] as const,
      at('outside', 'See whether one disconnect at this building shuts it off'),
    ),
    fedThrough: choice(
      'fed by',
      [
        'a feeder',
        'one branch circuit with a ground',
        'one branch circuit without a ground',
        'several branch circuits',
        'nothing',
      ] as const,
      at('outside', 'See what brings power to the building'),
    ),
    electrode: choice(
      'grounding electrode of its own',
      ['found', 'none found'] as const,
      at(
        'outside',
        'Look round the building and in its panel for an grounding electrode conductor',
      ),
    ),
    yearBuilt: year('year built', at('before', 'Ask; public record')),
  },
  room: {
    name: text('room', at('rooms', 'Name the room')),
    order: number(
      'place in the walk',
      '',
      0,
      10000,
      at('rooms', 'Drag the rooms into the order you walk them'),
    ),
    hydromassage: choice(
      'hydromassage tub',
      [
        'protected and reached',
        'no ground-fault protection',
        'metal not bonded',
        'motor out of reach',
        'none',
      ] as const,
      at('rooms', 'Look for its access panel, its protection and the bond of its metal'),
    ),
    use: choice('use of the room', ROOM_USES, at('rooms', 'See what the room is used for')),
    year: year('year made or last altered', at('rooms', 'Ask when the room was made or altered')),
    alsoUse: choice(
      'also used as',
      ROOM_USES,
      at('rooms', 'See whether it serves as another kind of room too'),
    ),
    isBelowGrade: flag(
      'floor below the ground outside',
      at('rooms', 'Compare the floor with the ground outside the window'),
    ),
    hasSink: flag(
      'sink, tub or shower in the room',
      at(
        'rooms',
        'See whether there is a sink, tub or shower, or one within 6 ft through the doorway',
      ),
    ),
    sinkKind: choice(
      'water in the room',
      ['wet-bar sink', 'laundry or utility sink', 'other sink', 'tub or shower'] as const,
      at('rooms', 'See what kind of sink, or whether it is a tub or shower'),
    ),
    ownCircuit: choice(
      '20 A circuits the room must have',
      ['there', 'missing'] as const,
      at(
        'trace',
        'Trace: two 20 A circuits for the kitchen counter, one for the laundry, one for bathroom ' +
          'receptacles, one for the garage',
        'circuit tracer',
      ),
    ),
    outlets: choice(
      'outlets the room has to have',
      [
        'all there',
        'gap along the wall',
        'gap along the counter',
        'none at the peninsula or island',
        'no switched light at the exterior door',
      ] as const,
      at(
        'rooms',
        'Walk the walls: no outlet farther than 6 ft from a receptacle; counter and exterior door',
      ),
    ),
  },
  enclosure: {
    name: text('enclosure', at('cover on', 'Name the enclosure')),
    type: choice(
      'kind of enclosure',
      ['meter', 'disconnect', 'panel'] as const,
      at('outside', 'See what it is'),
    ),
    place: choice(
      'stands',
      ['indoors', 'outdoors', 'on a pole or yard structure'] as const,
      at('outside', 'See where it stands'),
    ),
    room: ref('stands in', ['room'], at('cover on', 'Say which room it stands in')),
    fedFrom: ref(
      'fed from',
      ['feeder'],
      at('cover off', 'Follow the supply conductors to where they start'),
      ['utility'] as const,
    ),
    marking: choice(
      'marking as disconnect',
      ['service disconnect', 'not service equipment', 'none'] as const,
      at(
        'outside',
        'Read the label on the disconnect: is it marked as service disconnect, or as not service equipment?',
        'flashlight',
      ),
    ),
    mainKind: choice(
      'main',
      ['main breaker', 'main lugs', 'split bus', 'fused main'] as const,
      at('cover off', 'See what the supply conductors land on'),
    ),
    mainAmps: number(
      'main rating',
      'A',
      30,
      400,
      at('cover on', 'Read the number on the main handle', 'flashlight'),
    ),
    busAmps: number(
      'bus rating',
      'A',
      30,
      600,
      at('cover on', 'Read the label inside the door', 'flashlight'),
    ),
    bus: choice(
      'bus',
      ['single phase', 'split bus', 'three phase'] as const,
      at('cover off', 'Count the bus bars behind the breakers; read the label', 'flashlight'),
    ),
    numbering: choice(
      'spaces numbered',
      ['odd left, even right', 'down each side'] as const,
      at('cover on', 'Read the numbers beside the spaces'),
    ),
    spaces: whole('spaces', '', 2, 84, at('cover on', 'Count the spaces')),
    bondMeans: choice(
      'neutral bonded to the enclosure by',
      ['screw', 'strap', 'listed bar', 'wire jumper', 'none'] as const,
      at(
        'cover off',
        'Look for a bonding screw, strap or jumper from the neutral bar to the enclosure; an empty hole is an answer',
        'flashlight',
      ),
    ),
    landings: choice(
      'neutrals and grounds land',
      ['on separate bars', 'on a common bar'] as const,
      at('cover off', 'See whether neutrals and grounds share a bar', 'flashlight'),
    ),
    interlock: choice(
      'generator connected through',
      ['listed interlock or transfer switch', 'none'] as const,
      at('cover on', 'Look for a transfer switch, or a plate that lets one handle on at a time'),
    ),
    hasSecondSource: flag(
      'a second source feeds it (generator, solar, battery)',
      at('cover off', 'Look for a backfed breaker, interlock or inverter circuit'),
    ),
    upperMains: whole(
      'hand movements to shut everything off',
      '',
      1,
      42,
      at('cover on', 'Count the handles that must be thrown to kill everything'),
    ),
    year: year('year put in', at('cover on', 'Read the label; ask for the permit')),
    cover: choice(
      'dead front (cover)',
      ['in place', 'missing', 'damaged'] as const,
      at(
        'cover on',
        'See whether the inner cover is there and whole; test it for voltage before touching',
        'voltage tester',
      ),
    ),
    coverScrews: choice(
      'cover screws',
      ['all blunt', 'pointed', 'some missing'] as const,
      at('cover on', 'Look at every screw: blunt, and all there?'),
    ),
    openings: whole(
      'unclosed openings',
      '',
      0,
      40,
      at('cover on', 'Count open knockouts and empty breaker windows', 'flashlight'),
    ),
    directory: choice(
      'directory',
      ['legible and specific', 'vague', 'missing'] as const,
      at('cover on', 'Read the circuit directory; photograph it'),
    ),
    contradictions: whole(
      'directory entries contradicted by tracing',
      '',
      0,
      84,
      at(
        'trace',
        'Compare the directory with what each breaker was found to feed',
        'circuit tracer',
      ),
    ),
    entryConnectors: choice(
      'cables in one connector',
      ['one each, or as listed', 'several in one'] as const,
      at(
        'cover off',
        'Look at each connector: one cable, or more than it is listed for?',
        'flashlight',
      ),
    ),
    strayWiring: choice(
      'stray wiring in the enclosure',
      ['none', 'live abandoned ends', 'low-voltage wiring'] as const,
      at(
        'cover off',
        'Look for loose ends that are live, and for bell, alarm or network wiring',
        'voltage tester',
      ),
    ),
    fedFromLabel: choice(
      'label says where it is fed from',
      ['there', 'missing'] as const,
      at('cover on', 'Look for a label that names the device and place feeding this panel'),
    ),
    interrupting: choice(
      'interrupting rating against the fault current',
      ['enough for the fault current', 'less than the fault current'] as const,
      at('cover on', 'Ask the utility for the fault current and read the marking of the breakers'),
    ),
    torque: choice(
      'terminals tightened',
      ['torque tool used', 'by hand'] as const,
      at('cover off', 'Ask whoever made the terminals, or look for torque marks'),
    ),
    gutter: choice(
      'wiring space of the panel',
      ['room left', 'overfilled'] as const,
      at('cover off', 'See how full the wiring space is at its fullest place'),
    ),
    corrosion: choice(
      'corrosion or debris',
      ['none', 'surface rust', 'on bus or terminals', 'debris or pests'] as const,
      at('cover off', 'Look for rust, water tracks, insects, paint on the bus', 'flashlight'),
    ),
    protectiveBreakers: choice(
      'AFCI or GFCI breakers for this panel line',
      ['available', 'none made'] as const,
      at('cover on', 'Find out whether protective breakers are still made for this panel line'),
    ),
    hasTripRecord: flag(
      'panel line with a documented record of failing to trip',
      at('cover on', 'Identify the panel line and check its record'),
    ),
    tandems: choice(
      'twin breakers allowed',
      ['all spaces', 'marked spaces', 'none'] as const,
      at('cover on', 'Read the panel label', 'flashlight'),
    ),
    workingDepthIn: number(
      'clear depth in front',
      'in',
      0,
      240,
      at('cover on', 'Measure from the face of the enclosure', 'tape'),
    ),
    workingWidthIn: number(
      'clear width',
      'in',
      0,
      240,
      at('cover on', 'Measure the clear width at the enclosure', 'tape'),
    ),
    location: choice(
      'location',
      ['ordinary', 'clothes closet', 'bathroom', 'over steps'] as const,
      at('cover on', 'See what kind of place it stands in'),
    ),
    work: choice(
      'work being done now',
      ['none', 'replaced', 'extended', 'new'] as const,
      at('before', 'Say whether this part is being replaced, extended or newly made now'),
    ),
    topHandleIn: number(
      'highest handle above floor',
      'in',
      0,
      120,
      at('cover on', 'Measure to the highest handle in its up position', 'tape'),
    ),
    workingHeightIn: number(
      'clear height in front',
      'in',
      0,
      240,
      at('cover on', 'Measure floor to ceiling or to whatever hangs in front', 'tape'),
    ),
    widthIn: number(
      'width of the enclosure',
      'in',
      4,
      120,
      at('cover on', 'Measure the enclosure', 'tape'),
    ),
    door: choice(
      'door or cover opens',
      ['90° or more', 'less than 90°', 'no door'] as const,
      at('cover on', 'Open the door as far as it goes'),
    ),
    isKeptClear: flag(
      'space in front kept clear',
      at('cover on', 'See whether anything is stored or built in front of it'),
    ),
    escape: choice(
      'room to stand and get away',
      ['upright, with a step back', 'must sit or kneel', 'no way out past it'] as const,
      at(
        'cover on',
        'Stand in front as if to switch: upright, and with a way out if it goes wrong?',
      ),
    ),
    serviceSize: choice(
      'service conductor size',
      SIZES,
      at(
        'cover off',
        'Read the print of the service conductors; do not touch: they stay live',
        'flashlight',
      ),
      'AWG',
    ),
    serviceMetal: choice(
      'service conductor metal',
      ['copper', 'aluminum'] as const,
      at(
        'cover off',
        'Read the print of the service conductors; do not touch: they stay live',
        'flashlight',
      ),
    ),
    serviceInsulationC: choice(
      'service conductor insulation',
      [60, 75, 90] as const,
      at(
        'cover off',
        'Read the print of the service conductors; old rubber counts as 60; do not touch: they stay live',
        'flashlight',
      ),
      '°C',
    ),
    serviceSets: whole(
      'service conductors in parallel for each phase',
      '',
      1,
      8,
      at('cover off', 'Count the conductors that land together on one terminal; do not touch'),
    ),
    jumperSize: choice(
      'main bonding jumper size',
      SIZES,
      at('cover off', 'Where a wire bonds the neutral to the enclosure: gauge it', 'wire gauge'),
      'AWG',
    ),
    jumperMetal: choice(
      'main bonding jumper metal',
      ['copper', 'aluminum'] as const,
      at('cover off', 'See whether the bonding wire is copper or aluminum', 'flashlight'),
    ),
    jumperLandsOn: choice(
      'main bonding jumper lands on',
      ['enclosure', 'ground bar', 'nothing'] as const,
      at(
        'cover off',
        'Follow the bonding wire from the neutral bar to its other end',
        'flashlight',
      ),
    ),
    jumperConnection: choice(
      'ends of the main bonding jumper',
      JUMPER_ENDS,
      at('cover off', 'Look at both ends of the bonding wire', 'flashlight'),
    ),
    supplyJumperSize: choice(
      'supply-side jumper size',
      SIZES,
      at('cover off', 'Gauge the jumper from the bonding bushing to the neutral', 'wire gauge'),
      'AWG',
    ),
    supplyJumperMetal: choice(
      'supply-side jumper metal',
      ['copper', 'aluminum'] as const,
      at('cover off', 'See whether the jumper of the bushing is copper or aluminum', 'flashlight'),
    ),
    supplyJumperLandsOn: choice(
      'supply-side jumper lands on',
      ['neutral bar', 'ground bar', 'enclosure', 'nothing'] as const,
      at('cover off', 'Follow the jumper from the bushing to its other end', 'flashlight'),
    ),
    supplyJumperConnection: choice(
      'ends of the supply-side jumper',
      JUMPER_ENDS,
      at('cover off', 'Look at both ends of the jumper of the bushing', 'flashlight'),
    ),
    serviceRaceway: choice(
      'service conductors enter in',
      ['metal raceway', 'plastic raceway', 'cable'] as const,
      at('outside', 'See what the service conductors run in'),
    ),
    racewayBond: choice(
      'service raceway bonded by',
      ['bonding bushing or jumper', 'threaded hub', 'plain locknuts', 'nothing'] as const,
      at(
        'cover off',
        'Look where the metal raceway enters: bushing with a jumper, hub, or locknuts only',
        'flashlight',
      ),
    ),
    electrodes: choice(
      'grounding electrode conductor at this enclosure',
      ['found', 'none found'] as const,
      at(
        'cover off',
        'Look for the bare or green conductor to an electrode; follow it to its end',
        'flashlight',
      ),
    ),
    areDisconnectsApart: flag(
      'each service disconnect in a compartment of its own',
      at('cover on', 'See whether several mains share one enclosure'),
    ),
    upperRows: whole(
      'rows in the upper section',
      '',
      1,
      12,
      at('cover off', 'On a split bus, count the rows of breakers above the gap'),
    ),
    isPlugOnNeutral: flag(
      'neutral rail for plug-on breakers',
      at('cover off', 'See whether a neutral rail runs beside the stabs', 'flashlight'),
    ),
    order: number(
      'place in the list',
      '',
      0,
      10000,
      at('cover on', 'Drag the enclosures into the order you walk them'),
    ),
    hasAddedUpper: flag(
      'breakers added in the upper section',
      at(
        'cover off',
        'Look for small breakers among the mains that feed single circuits',
        'flashlight',
      ),
    ),
    thirdLeg: choice(
      'third bus bar',
      ['not connected', 'jumpered to another leg', 'fed by a third phase'] as const,
      at('cover off', 'Measure every bus bar to the neutral and to each other', 'multimeter'),
    ),
    jumperedTo: choice(
      'third bar jumpered to leg',
      ['A', 'B'] as const,
      at(
        'cover off',
        'Measure from the third bar to each leg: 0 V on the leg it is jumpered to',
        'multimeter',
      ),
    ),
    isJumperListed: flag(
      'jumper of the third bar is a listed part',
      at('cover off', 'Read the panel label: does it show this jumper?', 'flashlight'),
    ),
    maxCircuits: whole(
      'circuits the label allows',
      '',
      2,
      100,
      at('cover on', 'Read the panel label for the most poles or circuits', 'flashlight'),
    ),
    surge: choice(
      'surge protector',
      ['present', 'signals failed', 'none'] as const,
      at('cover on', 'Look for a surge device at or in the panel, and for its light'),
    ),
    legAToNeutralV: number(
      'leg A to neutral',
      'V',
      0,
      300,
      at(
        'cover off',
        'Measure from one leg to the neutral, large loads on, then off',
        'multimeter',
      ),
    ),
    legBToNeutralV: number(
      'leg B to neutral',
      'V',
      0,
      300,
      at('cover off', 'Measure from the other leg to the neutral at the same time', 'multimeter'),
    ),
    wereLoadsOn: flag(
      'large loads ran while the legs were measured',
      at('cover off', 'Run a range, a dryer or heaters while you measure'),
    ),
    ambientC: number(
      'air at the panel',
      '°C',
      -30,
      60,
      at('cover off', 'Measure the air beside the panel', 'thermometer'),
    ),
  },
  bar: {
    role: choice(
      'bar for',
      ['neutral', 'ground', 'common', 'electrode'] as const,
      at('cover off', 'See which conductors land on the bar', 'flashlight'),
    ),
    isBondedToEnclosure: flag(
      'bar fastened to the enclosure metal',
      at(
        'cover off',
        'See whether the bar sits on metal or on plastic; with the power off, continuity bar to enclosure',
        'multimeter',
      ),
    ),
    isTiedToNeutral: flag(
      'wire or busbar jumper to the neutral bar',
      at(
        'cover off',
        'Look for a jumper or busbar between this bar and the neutral bar',
        'flashlight',
      ),
    ),
    screws: whole('screws', '', 1, 60, at('cover off', 'Count the screws of the bar')),
    areAllScrewsSeen: flag(
      'every screw of the bar looked at',
      at(
        'cover off',
        'Look at every screw of the bar; record the ones holding more than one conductor',
        'flashlight',
      ),
    ),
    groundsPerScrew: whole(
      'grounds the label allows under one screw',
      '',
      1,
      4,
      at(
        'cover on',
        'Read the panel label for how many grounding conductors one screw may hold',
        'flashlight',
      ),
    ),
  },
  screw: {
    position: whole('screw', '', 1, 60, at('cover off', 'Count from the top')),
    neutrals: whole(
      'neutrals under it',
      '',
      0,
      8,
      at('cover off', 'Count the white conductors under this screw', 'flashlight'),
    ),
    grounds: whole(
      'grounds under it',
      '',
      0,
      8,
      at('cover off', 'Count the bare or green conductors under this screw', 'flashlight'),
    ),
    electrodes: whole(
      'grounding electrode conductors under it',
      '',
      0,
      4,
      at('cover off', 'See whether an grounding electrode conductor lands here', 'flashlight'),
    ),
  },
  breaker: {
    label: text('directory says', at('cover on', 'Read the directory')),
    device: choice(
      'device',
      ['breaker', 'plug fuse', 'cartridge fuse'] as const,
      at('cover on', 'See what kind of device it is'),
    ),
    space: whole('space', '', 1, 84, at('cover on', 'Read the space number')),
    half: choice(
      'half of the space',
      ['a', 'b'] as const,
      at('cover on', 'See whether two breakers share the space'),
    ),
    poles: whole('poles', '', 1, 3, at('cover on', 'Count the poles')),
    ratingAmps: number(
      'rating',
      'A',
      5,
      400,
      at('cover on', 'Read the number on the handle', 'flashlight'),
    ),
    role: choice(
      'serves as',
      ['branch', 'feeder', 'main', 'main of the lower section', 'spare', 'backfed source'] as const,
      at('cover on', 'See what it serves'),
    ),
    section: choice(
      'section of a split bus',
      ['upper', 'lower'] as const,
      at('cover off', 'On a split bus: does it stand above the gap or below it?', 'flashlight'),
    ),
    sourceKind: choice(
      'brings in power from',
      ['solar or battery inverter', 'generator'] as const,
      at('cover on', 'Follow the backfed breaker to what it brings in'),
    ),
    hasHoldDown: flag(
      'held down by a fastener',
      at('cover off', 'A backfed plug-in breaker: is it held by a screw or clip of its own?'),
    ),
    isOppositeEnd: flag(
      'at the end of the bus away from the main',
      at('cover off', 'See whether the backfed breaker stands at the far end of the bus'),
    ),
    polesV: number(
      'voltage between its poles',
      'V',
      0,
      300,
      at('cover off', 'Measure between the two terminals of the two-pole breaker', 'multimeter'),
    ),
    handleTie: choice(
      'handles',
      ['common trip', 'listed tie', 'improvised tie', 'not tied'] as const,
      at('cover on', 'See whether the handles move together, and by what'),
    ),
    protection: choice(
      'protection',
      ['standard', 'GFCI', 'AFCI', 'dual'] as const,
      at('cover on', 'Look for a test button and read its legend'),
    ),
    fuseBase: choice(
      'base of the plug fuse',
      ['Type S adapter', 'Edison base'] as const,
      at(
        'cover on',
        'Unscrew nothing: see whether the base takes any size, or has an adapter that takes one',
      ),
    ),
    testButton: choice(
      'by its own test button',
      ['trips', 'does not trip'] as const,
      at('cover on', 'Press the test button of the GFCI or AFCI breaker; then reset it'),
    ),
    isAluminumMarked: flag(
      'terminal marked for aluminum',
      at('cover off', 'Read the breaker: AL or CU-AL beside the terminal', 'flashlight'),
    ),
    conductorsOnTerminal: whole(
      'conductors on one terminal',
      '',
      0,
      6,
      at('cover off', 'Count the conductors under the terminal', 'flashlight'),
    ),
    isMarkedForTwo: flag(
      'marked for two conductors',
      at('cover off', 'Read the breaker: is its terminal marked for two conductors?', 'flashlight'),
    ),
    measuredLeg: choice(
      'leg, measured',
      ['A', 'B', 'C'] as const,
      at(
        'cover off',
        'Measure between this terminal and a terminal of known leg: 240 V other leg, 0 V same',
        'multimeter',
      ),
    ),
    termination: choice(
      'condition at the terminal',
      ['sound', 'discolored', 'melted', 'loose', 'buzzes or smells'] as const,
      at(
        'cover off',
        'Look at the terminal and insulation; power off, a gentle pull test',
        'pull test',
      ),
    ),
    temperatureC: number(
      'temperature at the terminal',
      '°C',
      -20,
      300,
      at(
        'cover off',
        'Scan terminal and body of every breaker in one go, with the clamp reading of the same moment',
        'infrared thermometer',
      ),
    ),
    loadAmps: number(
      'load of a feeder or main measured',
      'A',
      0,
      400,
      at(
        'cover off',
        'Clamp each hot of the feeder with the loads running; note the larger',
        'clamp meter',
      ),
    ),
    rescan: choice(
      'second scan',
      [
        'no warmer than similar breakers',
        'warmer than similar breakers',
        'cooler after re-torque',
        'as hot after re-torque',
      ] as const,
      at(
        'cover off',
        'Scan terminal against body against similar breakers; millivolts across the ' +
          'breaker under load; power off, re-torque, scan again',
        'infrared thermometer',
      ),
    ),
    isTwinSpace: flag(
      'space marked for a twin',
      at(
        'cover on',
        'Read the label and look at the stab: is this space made for a twin?',
        'flashlight',
      ),
    ),
    fitsPanel: choice(
      'listed for this panel',
      ['listed', 'not listed'] as const,
      at(
        'cover off',
        'Compare the type on the breaker with the types on the panel label',
        'flashlight',
      ),
    ),
    year: year('year put in', at('cover off', 'Ask for the permit; read the date code')),
  },
  feeder: {
    ...conductor('cover off'),
    from: ref(
      'starts at',
      ['breaker', 'enclosure'],
      at('cover off', 'Follow the feeder to the breaker or lugs where it starts'),
    ),
    fromTerminals: choice(
      'starts at the',
      ['line lugs', 'load lugs', 'bus'] as const,
      at(
        'cover off',
        'Where it starts in an enclosure without a breaker of its own: ahead of the main, behind it, or on the bus?',
        'flashlight',
      ),
    ),
    egcEnds: choice(
      'grounding conductor lands',
      ['at both ends', 'not where it starts', 'not where it ends'] as const,
      at(
        'cover off',
        'See at both ends whether the ground of the feeder is on a bar',
        'flashlight',
      ),
    ),
    carriesWholeDwelling: flag(
      'carries the whole load of the dwelling',
      at('cover off', 'See whether everything in the dwelling is fed through it'),
    ),
    sets: whole(
      'conductors in parallel for each phase',
      '',
      1,
      8,
      at('cover off', 'Count the conductors that land together on one terminal', 'flashlight'),
    ),
    hasOtherMetallicPath: flag(
      'another metal path runs between the buildings',
      at(
        'outside',
        'Look for metal water pipe, conduit, cable shield or fence between the buildings',
      ),
    ),
    hasGroundFaultProtectionAhead: flag(
      'ground-fault protection ahead of it',
      at('cover off', 'Look for ground-fault protection of equipment ahead of the feeder'),
    ),
    isTap: flag(
      'a feeder tap',
      at(
        'cover off',
        'See whether smaller conductors leave a feeder without a device at the start',
      ),
    ),
    tapFt: number(
      'length of the tap',
      'ft',
      0,
      1000,
      at('cover off', 'Measure the tap from where it leaves to the device it ends in', 'tape'),
    ),
    tapEndsIn: choice(
      'the tap ends in',
      ['one breaker or set of fuses', 'several devices or lugs'] as const,
      at('cover off', 'See what the tap conductors land on'),
    ),
    tapIsOutdoors: flag(
      'the tap runs outdoors, but for its end at the disconnect',
      at('outside', 'Follow the tap: outside the buildings to the disconnect where it enters'),
    ),
  },
  electrode: {
    name: text('electrode', at('outside', 'Name it by where it is')),
    type: choice(
      'kind of electrode',
      [
        'rod',
        'concrete-encased',
        'water pipe',
        'plate',
        'ring',
        'building steel',
        'gas pipe',
        'pool shell',
      ] as const,
      at('outside', 'Follow the grounding electrode conductor to what it is clamped to'),
    ),
    landsIn: ref(
      'its conductor lands in',
      ['enclosure'],
      at(
        'cover off',
        'Follow the grounding electrode conductor to the enclosure it lands in',
        'flashlight',
      ),
    ),
    landsOn: choice(
      'its conductor lands on',
      ['neutral bar', 'ground bar', 'isolated bar', 'enclosure', 'nothing'] as const,
      at('cover off', 'See which bar or lug holds it', 'flashlight'),
    ),
    size: choice(
      'grounding electrode conductor size',
      SIZES,
      at('outside', 'Gauge the grounding electrode conductor', 'wire gauge'),
      'AWG',
    ),
    metal: choice(
      'grounding electrode conductor metal',
      ['copper', 'aluminum'] as const,
      at('outside', 'See whether it is copper or aluminum'),
    ),
    connection: choice(
      'connection',
      ['sound', 'loose', 'corroded', 'not a listed clamp'] as const,
      at('outside', 'Look at the clamp and try it by hand'),
    ),
    clampPlace: choice(
      'place of its clamp',
      ['in reach', 'buried or encased', 'behind a finish'] as const,
      at('outside', 'See whether the clamp can be reached without opening anything'),
    ),
    isNearEarth: flag(
      'aluminum ends within 18 in. of the earth',
      at('outside', 'Aluminum or copper-clad: how high above the soil does it end?', 'tape'),
    ),
    isProtected: flag(
      'its conductor runs protected',
      at(
        'outside',
        'See whether it runs in raceway or armor, or out of harm’s way on the building',
      ),
    ),
    isSpliced: flag(
      'its conductor is spliced other than by crimp or weld',
      at('outside', 'Follow the conductor its whole length'),
    ),
    ohms: number(
      'resistance to the soil',
      'Ω',
      0,
      100000,
      at(
        'outside',
        'Measure by fall of potential, or read the record of it',
        'ground resistance tester',
      ),
    ),
    rods: whole('rods', '', 1, 12, at('outside', 'Count the rods joined together')),
    spacingFt: number(
      'distance between the rods',
      'ft',
      0,
      200,
      at('outside', 'Measure between the rods', 'tape'),
    ),
    clampFt: number(
      'clamp inside from where the water pipe enters',
      'ft',
      0,
      500,
      at('outside', 'Measure along the pipe from the wall to the clamp', 'tape'),
    ),
    isTenFtInEarth: flag(
      'metal pipe in the earth for 10 ft or more',
      at(
        'outside',
        'See whether metal pipe comes out of the earth, or plastic; ask the water utility',
      ),
    ),
    currentA: number(
      'current in its conductor',
      'A',
      0,
      200,
      at('outside', 'Clamp the grounding electrode conductor with large loads on', 'clamp meter'),
    ),
    isJumpered: flag(
      'meter and filters bridged by a jumper',
      at(
        'outside',
        'On a water pipe: is there a jumper round meter, filter or softener?',
        'flashlight',
      ),
    ),
    year: year('year put in', at('before', 'Ask for the permit')),
  },
  bond: {
    name: text('bond', at('outside', 'Name it by where it is')),
    to: choice(
      'bonds',
      ['water piping', 'gas piping', 'communications', 'building steel'] as const,
      at('outside', 'See what the clamp is on'),
    ),
    landsIn: ref(
      'lands in',
      ['enclosure'],
      at(
        'outside',
        'Follow the bond to the enclosure or grounding electrode conductor it joins',
        'flashlight',
      ),
    ),
    size: choice(
      'bond size',
      SIZES,
      at('outside', 'Gauge the bonding conductor', 'wire gauge'),
      'AWG',
    ),
    metal: choice(
      'bond metal',
      ['copper', 'aluminum'] as const,
      at('outside', 'See whether it is copper or aluminum'),
    ),
    landsOn: choice(
      'lands on',
      [
        'neutral bar',
        'ground bar',
        'enclosure',
        'grounding electrode conductor',
        'electrode of the service',
        'an electrode of its own',
        'nothing',
      ] as const,
      at('outside', 'Follow the bond to its other end: which bar, conductor or electrode?'),
    ),
    connection: choice(
      'connection',
      [
        'sound',
        'loose',
        'corroded',
        'not a listed clamp',
        'on the corrugated tubing itself',
      ] as const,
      at('outside', 'Look at the clamp and try it by hand'),
    ),
    clampPlace: choice(
      'place of its clamp',
      ['bare metal, in reach', 'on paint or a coating', 'behind a finish'] as const,
      at('outside', 'See what the clamp sits on, and whether it can be reached', 'flashlight'),
    ),
    lengthFt: number(
      'length of the bond',
      'ft',
      0,
      500,
      at('outside', 'Measure along the bond from its clamp to where it lands', 'tape'),
    ),
    isNearEarth: flag(
      'aluminum ends within 18 in. of the earth',
      at('outside', 'Aluminum or copper-clad: how high above the soil does it end?', 'tape'),
    ),
    isProtected: flag(
      'runs protected',
      at('outside', 'See whether it runs in raceway or armor, or out of harm’s way'),
    ),
    isSpliced: flag(
      'spliced other than with a listed connector',
      at('outside', 'Follow the bond its whole length'),
    ),
    year: year('year put in', at('before', 'Ask for the permit')),
  },
  photo: {
    caption: text('caption', at('cover off', 'Say what it shows')),
    of: ref('shows', [...PHOTOGRAPHED, 'recheck'], at('cover off', 'Say which thing it shows')),
    shows: choice(
      'frame holds',
      [
        'the whole',
        'gauge, conductor and breaker rating together',
        'nameplate',
        'label or marking',
        'damage close up',
        'reading on the instrument',
        'marking after the work',
      ] as const,
      at('cover off', 'Put into the frame what proves it'),
    ),
    hash: text('file', at('cover off', 'Name of the file kept'), 64),
    takenAt: text('taken at', at('cover off', 'When it was taken'), 30),
    widthPx: whole('width', 'px', 1, 20000, at('cover off', 'Width of the picture')),
    heightPx: whole('height', 'px', 1, 20000, at('cover off', 'Height of the picture')),
    marks: text('marks on it', at('cover off', 'Arrows, circles and words drawn on it'), 4000),
  },
  amendment: {
    rule: choice('rule amended', RULE_IDS, at('before', 'Say which rule the local law changes')),
    effect: choice(
      'local law says',
      ['not enforced here', 'as in another edition'] as const,
      at('before', 'Read the local ordinance'),
    ),
    asIn: choice(
      'edition that holds for it',
      EDITIONS,
      at('before', 'Read the ordinance: which edition of this rule holds here?'),
    ),
    source: text('ordinance', at('before', 'Cite it, so that others can look it up')),
  },
  adoption: {
    edition: whole(
      'code edition adopted here',
      '',
      1897,
      2100,
      at('before', 'Ask the local authority which editions were law here, and from when'),
    ),
    year: whole(
      'law here from',
      '',
      1897,
      2100,
      at('before', 'Ask the local authority from which year it was enforced'),
    ),
  },
  visit: {
    coverOff: flag(
      'covers of panels come off',
      at('before', 'Say whether covers come off on this visit'),
    ),
    devicePulled: flag(
      'devices are pulled out of their boxes',
      at('before', 'Say whether devices are pulled, power off'),
    ),
    boxOpened: flag(
      'boxes are opened and wires worked on, power off',
      at('before', 'Say whether boxes are opened'),
    ),
    atticEntered: flag(
      'attic and crawl space are entered',
      at('before', 'Say whether attic and crawl space are entered'),
    ),
    recordAsked: flag(
      'permits and invoices are asked for',
      at('before', 'Say whether papers are asked for'),
    ),
    loadedTest: flag(
      'circuits are loaded to measure them',
      at('before', 'Say whether circuits are loaded'),
    ),
    lampTester: flag('three-lamp tester carried', at('before', 'Look into the bag')),
    voltageTester: flag('voltage tester carried', at('before', 'Look into the bag')),
    detector: flag('non-contact detector carried', at('before', 'Look into the bag')),
    multimeter: flag('multimeter carried', at('before', 'Look into the bag')),
    analyzer: flag('branch analyzer carried', at('before', 'Look into the bag')),
    clamp: flag('clamp meter carried', at('before', 'Look into the bag')),
    tracer: flag('circuit tracer carried', at('before', 'Look into the bag')),
    infrared: flag('infrared thermometer carried', at('before', 'Look into the bag')),
    thermometer: flag('thermometer carried', at('before', 'Look into the bag')),
    groundTester: flag('ground resistance tester carried', at('before', 'Look into the bag')),
    sample: choice(
      'outlets looked at',
      ['every outlet', 'one per room', 'only those named'] as const,
      at('before', 'Say which outlets are looked at'),
    ),
    named: refs('outlets the client named', ['outlet'], at('before', 'Ask the client')),
    area: refs(
      'only this part of the property',
      ['building', 'room', 'enclosure', 'circuit'],
      at('before', 'Say what the visit is about, where it is not the whole property'),
    ),
    widened: refs(
      'things looked at all the way',
      PHOTOGRAPHED,
      at('before', 'Widen the visit for one thing, from its finding'),
    ),
  },
  override: {
    rule: choice('finding', RULE_IDS, at('before', 'Say which finding is weighed otherwise')),
    of: ref('at', PHOTOGRAPHED, at('before', 'Say at which thing')),
    severity: choice('weighed as', SEVERITIES, at('before', 'Say how it is weighed')),
    reason: text('because', at('before', 'Say why, so that others can follow'), 400),
  },
  task: {
    order: whole('order of the work', '', 0, 9999, at('before', 'Say what is done first')),
    choice: whole(
      'belongs to choice',
      '',
      0,
      9999,
      at('before', 'Works with one number are one choice of the plan'),
    ),
    rule: choice('finding', RULE_IDS, at('before', 'Say which finding it is for')),
    of: ref('at', PHOTOGRAPHED, at('before', 'Say at which thing')),
    remedy: text('remedy', at('before', 'Say what is done'), 80),
    stage: text('when', at('before', 'Say with which power-off it is done'), 120),
    cents: whole('price planned', '¢', 0, 1_000_000_000, at('before', 'Take it from the plan')),
    state: choice(
      'state of the work',
      ['planned', 'done', 'given up'] as const,
      at('before', 'Say how far the work is'),
    ),
    doneOn: text('day it was done', at('before', 'Year-month-day'), 10),
    note: text('note on the work', at('before', 'Say what differed'), 400),
  },
  edit: {
    rule: choice('finding', RULE_IDS, at('before', 'Say which finding is worded otherwise')),
    of: ref('at', PHOTOGRAPHED, at('before', 'Say at which thing')),
    words: text('wording', at('before', 'Say it in your own words'), 2000),
    order: whole('place among its kind', '', 1, 999, at('before', 'Say what is told first')),
    isLeftOut: flag('left out of the report', at('before', 'Say whether the report leaves it out')),
    reason: text('because', at('before', 'Say why; the report discloses it'), 400),
  },
  signing: {
    number: whole('revision', '', 1, 999, at('before', 'Sign the report')),
    voice: choice('report', VOICES, at('before', 'Say which report is signed')),
    signedBy: text('signed by', at('before', 'Your name'), 120),
    signedOn: text('signed on', at('before', 'Year-month-day'), 30),
    hash: text('seal', at('before', 'Worked out when it is signed'), 64),
    fileHash: text('seal of the PDF', at('before', 'Worked out when it is signed'), 64),
    open: whole('questions left open', '', 0, 99999, at('before', 'Worked out when it is signed')),
    discloses: text('what is left open, and why', at('before', 'Say why it stays open'), 2000),
    changes: text('what changed', at('before', 'Say what changed since the last one'), 2000),
  },
  returnVisit: {
    number: whole('return visit', '', 1, 99, at('before', 'Count the visits')),
    basis: choice(
      'goes back to',
      ['corrections', 'plan'] as const,
      at('before', 'Say what is looked at again: the corrections, or the accepted works'),
    ),
    on: text('day', at('before', 'Year-month-day'), 10),
    by: text('looked at by', at('before', 'Your name'), 120),
    nextOn: text('next visit', at('before', 'Year-month-day'), 10),
    note: text('note', at('before', 'Say what the next one should know'), 400),
  },
  recheck: {
    order: whole('order', '', 0, 9999, at('before', 'In the order of the sheet')),
    rule: choice('finding', RULE_IDS, at('before', 'Say which finding is looked at again')),
    of: ref('at', PHOTOGRAPHED, at('before', 'Say at which thing')),
    was: text('found before', at('before', 'What the last visit found'), 600),
    outcome: choice(
      'found now',
      ['corrected', 'not corrected', 'could not be seen'] as const,
      at('rooms', 'Look at it again'),
    ),
    reading: text('reading', at('rooms', 'Measure it again and write what the meter shows')),
    note: text('note', at('rooms', 'Say what was done, or what is still missing'), 400),
  },
  circuit: {
    label: text('circuit', at('trace', 'Name what it feeds')),
    fedBy: ref('fed by', ['breaker'], at('trace', 'Find which breaker kills it', 'circuit tracer')),
    supplies: choice(
      'supplies',
      [
        'receptacles',
        'lighting',
        'receptacles and lighting',
        'fixed appliance',
        'cooking appliance',
        'air conditioning',
        'motor',
        'water heater',
        'space heating',
        'vehicle charger',
        'alarms',
      ] as const,
      at('trace', 'See what the circuit feeds', 'circuit tracer'),
    ),
    requiredUse: choice(
      'circuit that must be 20 A',
      ['none', 'kitchen small-appliance', 'laundry', 'bathroom receptacles', 'garage'] as const,
      at('trace', 'See whether it is one of the circuits that must be 20 A', 'circuit tracer'),
    ),
    sharesNeutralWith: refs(
      'shares its neutral with',
      ['circuit'],
      at(
        'cover off',
        'Follow the cable: two hots and one white together share a neutral',
        'flashlight',
      ),
    ),
    feedsLineToLine: flag(
      'feeds a 240 V or 120/240 V load',
      at('trace', 'See whether any load is connected hot to hot'),
    ),
    isOnOneYoke: flag(
      'both hots land on one device yoke',
      at(
        'open box',
        'Open the split receptacle or double switch: do both hots land on one yoke?',
        'screwdriver, power proved off',
      ),
    ),
    neutralReturn: choice(
      'its current returns',
      ['with its own hot', 'on the neutral of another circuit'] as const,
      at(
        'cover off',
        'Clamp hot and neutral together with the load on: 0 A where they belong together',
        'clamp meter',
      ),
    ),
    frameGround: choice(
      'frame of dryer or range grounded by',
      ['grounding conductor', 'neutral', 'neutral and grounding conductor', 'nothing'] as const,
      at(
        'rooms',
        'Power off: look at the terminal block and the cord or outlet: three wires or four?',
        'screwdriver, power proved off',
      ),
    ),
    neutral: choice(
      'neutral of the three-wire circuit',
      ['insulated', 'bare in SE cable', 'bare in other cable'] as const,
      at(
        'open box',
        'Power off and proved off: is the neutral insulated?',
        'screwdriver, power proved off',
      ),
    ),
    disconnect: choice(
      'disconnect of the unit',
      ['within sight', 'not within sight', 'none'] as const,
      at('outside', 'From the unit: is its disconnect visible and within 50 ft?'),
    ),
    applianceDisconnect: choice(
      'disconnect of the appliance',
      ['within sight or lockable', 'plug and receptacle', 'none'] as const,
      at(
        'rooms',
        'From the appliance: is its breaker or switch in sight, or can it be locked off?',
      ),
    ),
    chargerCircuit: choice(
      'circuit of the vehicle charger',
      ['its own', 'shared with other outlets'] as const,
      at(
        'trace',
        'See whether anything else hangs on the circuit of the charger',
        'circuit tracer',
      ),
    ),
    isSharedOutside: flag(
      'serves outlets it may not serve',
      at(
        'trace',
        'See whether this required circuit feeds anything outside its rooms',
        'circuit tracer',
      ),
    ),
    homeRun: choice(
      'run from the panel to the first outlet',
      ['metal raceway or steel-armored cable', 'listed arrangement', 'other wiring'] as const,
      at(
        'trace',
        'See what runs from the panel to the first outlet, and read the listing of breaker and device',
      ),
    ),
    extensionFt: number(
      'length of the extension',
      'ft',
      0,
      500,
      at('before', 'Measure what is being added to the circuit', 'tape'),
    ),
    addsOutlets: flag(
      'the extension adds outlets or devices',
      at('before', 'Say whether any outlet or device is added'),
    ),
    work: choice(
      'work being done now',
      ['none', 'replaced', 'extended', 'new'] as const,
      at('before', 'Say whether this part is being replaced, extended or newly made now'),
    ),
    isGroupedInPanel: flag(
      'its conductors are grouped in the panel',
      at(
        'cover off',
        'See whether the hots and their neutral are tied together or enter in one cable',
      ),
    ),
    nameplateMca: number(
      'nameplate minimum circuit ampacity',
      'A',
      1,
      200,
      at('outside', 'Read the nameplate of the unit; photograph it', 'flashlight'),
    ),
    nameplateMocp: number(
      'nameplate maximum overcurrent protection',
      'A',
      5,
      250,
      at('outside', 'Read the nameplate of the unit; photograph it', 'flashlight'),
    ),
    nameplateDevice: choice(
      'nameplate names',
      ['fuse or breaker', 'fuses only'] as const,
      at(
        'outside',
        'Read the nameplate: maximum fuse or circuit breaker, or maximum fuse alone?',
        'flashlight',
      ),
    ),
    unitFuseAmps: number(
      'fuses at the unit',
      'A',
      5,
      250,
      at(
        'outside',
        'Open the disconnect of the unit, power proved off: read the fuses',
        'flashlight',
      ),
    ),
    hasFusesAtUnit: flag(
      'fuses in the disconnect of the unit',
      at(
        'outside',
        'Open the disconnect of the unit, power proved off: fuses, or only a switch?',
        'screwdriver, power proved off',
      ),
    ),
    isHeldOff: flag(
      'held off by a load controller',
      at(
        'rooms',
        'Look for a listed controller that measures the service and holds this load off',
        'flashlight',
      ),
    ),
    applianceAmps: number(
      'appliance rating',
      'A',
      0.5,
      200,
      at(
        'rooms',
        'Read the nameplate: amperes, or watts divided by volts; photograph it',
        'flashlight',
      ),
    ),
    applianceKw: number(
      'appliance rating in kilowatts',
      'kW',
      0.1,
      60,
      at('rooms', 'Read the nameplate of the range or heater: kilowatts', 'flashlight'),
    ),
    heaterKind: choice(
      'kind of water heater',
      ['storage, 120 gal or less', 'storage, more than 120 gal', 'tankless'] as const,
      at('rooms', 'See whether it has a tank, and read its volume'),
    ),
    isDeviceMarked: flag(
      'a largest device is marked on the appliance',
      at('rooms', 'Read the nameplate for a largest fuse or breaker', 'flashlight'),
    ),
    applianceMaxDevice: number(
      'largest device marked on the appliance',
      'A',
      5,
      250,
      at('rooms', 'Read the nameplate for a largest fuse or breaker', 'flashlight'),
    ),
    loadAmps: number(
      'load measured',
      'A',
      0,
      400,
      at('cover off', 'Clamp the hot with the load running', 'clamp meter'),
    ),
    year: year('year put in', at('trace', 'Ask for the permit; read the date on jacket or device')),
  },
  segment: {
    ...conductor('cover off'),
    lengthFt: number(
      'length of the run',
      'ft',
      0,
      1000,
      at('rooms', 'Measure or estimate the run from the panel or the box before', 'tape'),
    ),
    name: text('where', at('cover off', 'Say which part of the run this is')),
    conductors: whole(
      'insulated conductors in the cable',
      '',
      1,
      12,
      at('cover off', 'Count the insulated conductors of the cable', 'flashlight'),
    ),
    exposure: choice(
      'cable where it can be seen',
      ['protected or out of harm’s way', 'exposed to damage', 'not exposed'] as const,
      at('rooms', 'Follow the cable in basement, garage and attic: can anything strike it?'),
    ),
    burial: choice(
      'cable in the ground',
      ['deep enough', 'too shallow', 'unprotected where it rises', 'not buried'] as const,
      at('outside', 'Probe the depth; look where it leaves the ground', 'tape'),
    ),
    isTap: flag(
      'a tap with limits of its own',
      at('open box', 'See whether it is a short tap to one appliance or luminaire'),
    ),
    isBuried: flag(
      'knob-and-tube buried in insulation',
      at('rooms', 'Look in attic and crawl space: is thermal insulation round it?', 'flashlight'),
    ),
    isExtended: flag(
      'knob-and-tube extended or spliced to newer cable outside a box',
      at('rooms', 'Follow it to where newer cable begins', 'flashlight'),
    ),
    isNeutralFused: flag(
      'neutral fused or switched',
      at('cover off', 'See whether a fuse or switch stands in the neutral', 'multimeter'),
    ),
    isWhiteHot: flag(
      'a white or gray conductor is used as a hot',
      at('cover off', 'Look for a white conductor on a breaker or switch', 'flashlight'),
    ),
    isSwitchLoop: flag(
      'the white is the feed of a switch loop',
      at(
        'open box',
        'Follow the cable: does it only bring a feed down to a switch and the switched hot back?',
      ),
    ),
    isColorMadeWhite: flag(
      'a colored conductor re-marked white serves as neutral',
      at(
        'cover off',
        'In pipe: look for a colored conductor with white tape on the neutral bar',
        'flashlight',
      ),
    ),
    isWhiteMarked: flag(
      'the white hot is re-marked at every visible end',
      at('cover off', 'Look for tape or paint round the white at each end', 'flashlight'),
    ),
    insulation: choice(
      'insulation condition',
      ['sound', 'brittle', 'frayed or bare', 'melted'] as const,
      at(
        'cover off',
        'Look at the insulation down to where it enters; do not flex brittle insulation',
        'flashlight',
      ),
    ),
    entry: choice(
      'entry fitting',
      [
        'clamp or bushing',
        'none',
        'none, single-gang plastic box',
        'jacket ends before the fitting',
        'pipe end without insulating bushing',
        'not needed',
      ] as const,
      at(
        'cover off',
        'Look at the entry: clamp, connector or bushing; does the jacket reach ¼ in inside?',
        'flashlight',
      ),
    ),
    fastenedAtBoxIn: number(
      'fastened from the box at',
      'in',
      0,
      120,
      at('open box', 'Measure from the plastic box to the first staple', 'tape'),
    ),
    surface: choice(
      'surface of the bare end',
      ['copper color', 'silver color'] as const,
      at('cover off', 'Look at the bare end in white light', 'flashlight'),
    ),
    core: choice(
      'metal under the surface',
      ['copper color', 'silver color'] as const,
      at(
        'cover off',
        'Power off and proved off: scrape lightly, or look at a fresh cut end',
        'knife, power proved off',
      ),
    ),
    legend: choice(
      'print legend',
      ['CU', 'AL', 'CU-CLAD'] as const,
      at('cover off', 'Read the print on jacket or insulation', 'flashlight'),
    ),
    isSoft: flag(
      'bends softly',
      at('cover off', 'Power off and proved off: aluminum bends with hardly a spring', 'pull test'),
    ),
    bareMm: number(
      'bare diameter',
      'mm',
      0.5,
      15,
      at(
        'cover off',
        'Power off and proved off: measure the bare conductor, one strand if stranded',
        'caliper',
      ),
    ),
    workmanship: choice(
      'how it lands',
      [
        'sound',
        'nicked',
        'wrapped counterclockwise',
        'insulation under the screw',
        'paint under the screw',
        'hooked in a straight clamp',
        'too much bare',
        'fails a gentle pull test',
      ] as const,
      at(
        'cover off',
        'Power off and proved off: look at each end where it lands, then a gentle pull test',
        'pull test',
      ),
    ),
    tape: choice(
      'tape as insulation',
      ['none', 'electrical', 'packing, masking or other'] as const,
      at('cover off', 'Look whether anything is insulated with tape, and with which', 'flashlight'),
    ),
    support: choice(
      'cable fastened',
      [
        'within 12 in and every 4½ ft',
        'not near the enclosure',
        'spans too long',
        'stapled on edge or too many',
      ] as const,
      at('rooms', 'Follow the cable where it can be seen: basement, attic, garage', 'tape'),
    ),
    isFished: flag(
      'fished in a finished wall or ceiling',
      at('rooms', 'See whether the hidden run was fished'),
    ),
    boring: choice(
      'holes through framing',
      ['1¼ in or more from the edge', 'plated', 'nearer and not plated', 'none'] as const,
      at('rooms', 'Measure from the hole to the edge of the framing', 'tape'),
    ),
    firestop: choice(
      'fire-rated penetrations',
      ['sealed', 'open', 'none'] as const,
      at('rooms', 'Look where cables pass fire-rated walls and floors'),
    ),
  },
  /** One conductor by itself, as knob-and-tube and other old wiring runs them: each is traced from joint to joint. */
  conductor: {
    name: text('conductor', at('trace', 'Name it by where it runs: attic, north side')),
    circuit: ref(
      'circuit',
      ['circuit'],
      at('trace', 'Trace which circuit it belongs to', 'circuit tracer'),
    ),
    from: ref(
      'comes from',
      ['breaker', 'conductor', 'outlet'],
      at('trace', 'Follow it back by eye to what it is tapped from', 'flashlight'),
    ),
    joint: choice(
      'joined there by',
      [
        'a terminal',
        'soldered and taped tap',
        'splice in a box',
        'splice outside a box',
        'transition to cable in a box',
        'transition to cable outside a box',
      ] as const,
      at('trace', 'Look at the joint; touch nothing that is not proved dead', 'flashlight'),
    ),
    identity: choice(
      'it is',
      ['hot', 'neutral', 'switched hot', 'dead, not used'] as const,
      at(
        'trace',
        'By a meter to a proved reference, switched on and off: color and place prove nothing here',
        'multimeter',
      ),
    ),
    feeds: refs(
      'outlets at its end',
      ['outlet'],
      at('trace', 'Follow it to the outlets it lands on', 'circuit tracer'),
    ),
    size: choice(
      'size',
      SIZES,
      at('trace', 'Gauge it where it is bare, proved dead', 'wire gauge'),
      'AWG',
    ),
    insulation: choice(
      'insulation',
      ['sound', 'brittle', 'frayed or bare', 'melted'] as const,
      at('trace', 'Look along it; do not bend it', 'flashlight'),
    ),
    support: choice(
      'carried',
      ['on knobs and in tubes', 'loose or sagging', 'buried in insulation'] as const,
      at('trace', 'Look at knobs, tubes and what lies round it', 'flashlight'),
    ),
    year: year('year put in', at('trace', 'Ask; the age of the house where nobody knows')),
  },
  exposure: {
    what: choice(
      'stretch is',
      ['hot', 'crowded', 'hot and crowded'] as const,
      at('open box', 'Say whether it is the heat, the number of conductors, or both'),
    ),
    name: text('where', at('open box', 'Say where')),
    ambientC: number(
      'ambient',
      '°C',
      -40,
      85,
      at('open box', 'Measure the air where the run is hottest', 'thermometer'),
    ),
    circuits: refs(
      'circuits that run together here',
      ['circuit'],
      at('open box', 'Follow every circuit in the bundle or pipe, this one too', 'circuit tracer'),
    ),
    currentCarrying: whole(
      'current-carrying conductors together',
      '',
      1,
      60,
      at(
        'open box',
        'Count the current-carrying conductors in the bundle or pipe, grounds left out',
        'flashlight',
      ),
    ),
  },
  outlet: {
    name: text('outlet', at('rooms', 'Name the outlet')),
    order: number(
      'place in the room',
      '',
      0,
      10000,
      at('rooms', 'Drag the outlets into the order you pass them, from the door around the room'),
    ),
    circuit: ref(
      'on circuit',
      ['circuit'],
      at('trace', 'Find which breaker kills it', 'circuit tracer'),
    ),
    after: ref(
      'next after',
      ['outlet'],
      at('trace', 'Find the outlet it is fed through', 'circuit tracer'),
      ['panel'] as const,
    ),
    room: ref('in room', ['room'], at('rooms', 'Say which room')),
    type: choice(
      'kind of outlet',
      [
        'receptacle',
        'switch',
        'luminaire',
        'junction box',
        'hard-wired outlet',
        'alarm',
        'blank-face GFCI',
      ] as const,
      at('rooms', 'See what it is'),
    ),
    slots: choice(
      'slots',
      ['two', 'three', 'T-slot', '240 V'] as const,
      at('rooms', 'Look at the face'),
    ),
    deviceAmps: number(
      'device rating',
      'A',
      10,
      60,
      at('rooms', 'Read the rating on the strap or face'),
    ),
    isBoxOpened: flag(
      'box opened',
      at(
        'open box',
        'Power off and proved off, take the device out of the box',
        'screwdriver, power proved off',
      ),
    ),
    ground: choice(
      'equipment ground in the box',
      ['connected', 'present, not connected', 'metal raceway or armor', 'none'] as const,
      at(
        'open box',
        'Power off and proved off, open the box: is there a grounding conductor, and is it on the device?',
        'screwdriver, power proved off',
      ),
    ),
    hasMetalParts: flag(
      'box, plate or fixture of metal',
      at('rooms', 'See whether the box, its cover or the fixture is of metal that can be touched'),
    ),
    lamps: choice(
      'three-lamp tester says',
      [
        'correct',
        'open ground',
        'reversed',
        'open neutral',
        'open hot',
        'hot and ground reversed',
      ] as const,
      at('rooms', 'Plug in the three-lamp tester', 'three-lamp tester'),
    ),
    groundOhms: number(
      'ground impedance',
      'Ω',
      0,
      100000,
      at('rooms', 'Measure the ground impedance', 'branch analyzer'),
    ),
    groundToReferenceV: number(
      'ground terminal to reference',
      'V',
      0,
      300,
      at(
        'rooms',
        'Measure from the ground terminal to a proved ground on a long lead',
        'multimeter, low impedance',
      ),
    ),
    groundClampA: number(
      'current in the ground under load',
      'A',
      0,
      50,
      at(
        'open box',
        'Clamp the grounding conductor while a load of 12 A runs on this outlet',
        'clamp meter',
      ),
    ),
    narrowToReferenceV: number(
      'narrow slot to reference',
      'V',
      0,
      300,
      at(
        'rooms',
        'Measure from the narrow slot to a proved ground on a long lead',
        'multimeter, low impedance',
      ),
    ),
    neutralGroundRiseV: number(
      'neutral-to-ground voltage under load',
      'V',
      0,
      250,
      at(
        'rooms',
        'Load the outlet with 12 A or more and read neutral to ground',
        'branch analyzer',
      ),
    ),
    hotNeutralV: number(
      'narrow slot to wide slot',
      'V',
      0,
      300,
      at('rooms', 'Measure between the slots', 'multimeter, low impedance'),
    ),
    hotGroundV: number(
      'narrow slot to ground terminal',
      'V',
      0,
      300,
      at(
        'rooms',
        'Measure from the narrow slot to the ground terminal',
        'multimeter, low impedance',
      ),
    ),
    neutralGroundV: number(
      'wide slot to ground terminal',
      'V',
      0,
      300,
      at('rooms', 'Measure from the wide slot to the ground terminal', 'multimeter, low impedance'),
    ),
    otherHalfV: number(
      'other half of the shared neutral, at the same moment',
      'V',
      0,
      300,
      at(
        'rooms',
        'Measure hot to neutral on the other circuit of the pair at the same moment',
        'multimeter, low impedance',
      ),
    ),
    dropPercent: number(
      'voltage lost under load',
      '%',
      0,
      100,
      at('rooms', 'Load the outlet with 12 A or more and read the drop', 'branch analyzer'),
    ),
    testLoadA: number(
      'test load',
      'A',
      1,
      40,
      at('rooms', 'Read the load on the analyzer', 'branch analyzer'),
    ),
    runFt: number(
      'wire back to the panel',
      'ft',
      0,
      1000,
      at('rooms', 'Measure or pace the run back to the panel', 'tape measure'),
    ),
    hasLoadsOn: flag(
      'anything on this circuit switched on while measuring',
      at('rooms', 'See whether anything on the circuit is on'),
    ),
    isGroundDetected: flag(
      'voltage detector alarms on the ground terminal',
      at(
        'rooms',
        'Hold a non-contact detector to the ground terminal or frame',
        'non-contact detector',
      ),
    ),
    hasNeutralGroundJumper: flag(
      'jumper between neutral and ground at the device',
      at(
        'open box',
        'Power off and proved off, look for a wire or strap from the wide-slot screw to the green screw',
        'screwdriver, power proved off',
      ),
    ),
    protection: choice(
      'protection in the device',
      ['none', 'GFCI', 'AFCI', 'dual'] as const,
      at('rooms', 'Look for test and reset buttons'),
    ),
    gfciTest: choice(
      'with the GFCI ahead tripped',
      ['goes dead', 'stays live'] as const,
      at(
        'rooms',
        'Trip the GFCI by its own button and see whether this outlet is dead',
        'voltage tester',
      ),
    ),
    afciTest: choice(
      'with an arc-fault tester plugged in',
      ['goes dead', 'stays live'] as const,
      at(
        'rooms',
        'Press the arc button of a plug-in tester and see whether the outlet goes dead; reset it',
        'plug-in tester',
      ),
    ),
    isFedFromLoadSide: flag(
      'fed from the load terminals of the protective device ahead',
      at(
        'open box',
        'See whether the onward cable is on the load terminals',
        'screwdriver, power proved off',
      ),
    ),
    isMarkedNoGround: flag(
      'marked No Equipment Ground',
      at('rooms', 'Read the label on the plate: must be visible after installation'),
    ),
    isMarkedGfci: flag(
      'marked GFCI Protected',
      at('rooms', 'Read the label on the plate: must be visible after installation'),
    ),
    gfciButton: choice(
      'by its own test button',
      ['trips, goes dead', 'trips, stays live', 'does not trip'] as const,
      at(
        'rooms',
        'Press its own test button with a load plugged in, then measure',
        'voltage tester',
      ),
    ),
    resetAccess: choice(
      'its reset',
      [
        'readily accessible',
        'behind an appliance',
        'behind a fixed panel',
        'attic or crawl space',
        'locked away',
      ] as const,
      at('rooms', 'See whether the reset can be reached without moving anything'),
    ),
    carriesGroundOn: flag(
      'a grounding conductor runs on from it to further outlets',
      at(
        'open box',
        'Power off and proved off: does a ground leave for the next box from this ungrounded device?',
        'screwdriver, power proved off',
      ),
    ),
    servesCounter: flag(
      'serves a kitchen counter',
      at('rooms', 'See whether it serves the counter or peninsula'),
    ),
    sinkFt: number(
      'distance to sink, tub or shower',
      'ft',
      0,
      100,
      at('rooms', 'Measure to the inside edge of the bowl, through a doorway too', 'tape'),
    ),
    isThroughDoorway: flag(
      'the way to that sink passes a doorway',
      at('rooms', 'See whether the shortest way to it passes a doorway'),
    ),
    isDedicated: flag(
      'for one appliance in its place',
      at('rooms', 'See whether it is behind or for one appliance not easily moved'),
    ),
    isOutOfReach: flag(
      'out of reach',
      at('rooms', 'See whether it is at the ceiling, as for a door opener'),
    ),
    hasGradeAccess: flag(
      'reached from the ground outside',
      at('rooms', 'See whether it can be reached standing on the ground'),
    ),
    heightFt: number(
      'height above the floor',
      'ft',
      0,
      20,
      at('rooms', 'Measure to the face', 'tape'),
    ),
    isHigh: flag('above 5½ ft', at('rooms', 'See whether the face is higher than 5½ ft')),
    isTamperResistant: flag(
      'tamper-resistant',
      at('rooms', 'Look for TR on the face and for shutters in the slots', 'flashlight'),
    ),
    isWeatherResistant: flag(
      'weather-resistant',
      at('rooms', 'Look for WR on the face', 'flashlight'),
    ),
    isSingle: flag(
      'a single receptacle, not a duplex',
      at('rooms', 'See whether one plug or two fit'),
    ),
    nameplateMca: number(
      'nameplate minimum circuit ampacity of this unit',
      'A',
      1,
      200,
      at(
        'outside',
        'Where several units share a circuit: read the nameplate of each; photograph it',
        'flashlight',
      ),
    ),
    nameplateMocp: number(
      'nameplate maximum overcurrent protection of this unit',
      'A',
      5,
      250,
      at(
        'outside',
        'Where several units share a circuit: read the nameplate of each; photograph it',
        'flashlight',
      ),
    ),
    appliance: choice(
      'feeds an appliance',
      [
        'none that needs a ground',
        'refrigerator or freezer',
        'washer',
        'dryer',
        'dishwasher',
        'room air conditioner',
        'disposer',
        'computer',
        'sump pump',
        'aquarium',
        'motor tool',
        'range, oven or cooktop',
        'microwave',
        'heating or cooling unit',
        'boat hoist',
        'other fixed appliance',
      ] as const,
      at('rooms', 'See what is plugged in there'),
    ),
    size: choice(
      'conductor on the device',
      ['14', '12', '10', '8', '6'] as const,
      at('open box', 'Power off and proved off: gauge the conductor on the device', 'wire gauge'),
      'AWG',
    ),
    pushInMarking: choice(
      'push-in terminals marked for',
      ['14 solid', '12 solid', 'stranded'] as const,
      at('open box', 'Read the strap: which conductors its push-in terminals take', 'flashlight'),
    ),
    isOneSize: flag(
      'all conductors in the box of one size',
      at('open box', 'Gauge them: are all of one size?', 'wire gauge'),
    ),
    setbackIn: number(
      'box behind the finished surface',
      'in',
      0,
      6,
      at('open box', 'Measure from the finished surface to the front edge of the box', 'tape'),
    ),
    finish: choice(
      'wall finish',
      ['non-combustible', 'combustible'] as const,
      at('rooms', 'See whether the wall is plaster, drywall or tile, or wood'),
    ),
    hasExtender: flag(
      'listed box extender',
      at('open box', 'See whether an extension ring brings the box flush'),
    ),
    cover: choice(
      'cover or plate',
      ['in place', 'missing', 'broken'] as const,
      at('rooms', 'Look at the cover'),
    ),
    splicePlace: choice(
      'splices are',
      ['in a box', 'outside a box', 'in a listed tap device'] as const,
      at('rooms', 'Look in attic, crawl space and basement where cables meet', 'flashlight'),
    ),
    isAccessible: flag(
      'box can be reached without opening the finish',
      at('rooms', 'See whether a finish would have to be opened to reach it'),
    ),
    lampKind: choice(
      'luminaire in the closet',
      [
        'bare lamp or pendant',
        'surface incandescent or LED, enclosed',
        'surface fluorescent',
        'recessed, enclosed',
      ] as const,
      at('rooms', 'See what kind it is'),
    ),
    clearanceIn: number(
      'clearance to the storage space',
      'in',
      0,
      120,
      at('rooms', 'Measure to the nearest shelf or hanging space', 'tape'),
    ),
    metal: choice(
      'metal of the conductor that lands on the device',
      METALS,
      at(
        'open box',
        'Power off and proved off, look at surface and cut end; with a pigtail, the pigtail is what lands',
        'screwdriver, power proved off',
      ),
    ),
    stranding: choice(
      'conductor at the device',
      ['solid', 'stranded'] as const,
      at('open box', 'See whether it is solid or stranded', 'screwdriver, power proved off'),
    ),
    termination: choice(
      'termination',
      ['binding screw', 'clamp plate', 'push-in'] as const,
      at(
        'open box',
        'Power off and proved off, see how the conductors land',
        'screwdriver, power proved off',
      ),
    ),
    aluminumMarking: choice(
      'device marking for aluminum',
      ['CO/ALR', 'AL-CU', 'none'] as const,
      at('open box', 'Read the strap of the device', 'flashlight'),
    ),
    work: choice(
      'work being done now',
      ['none', 'replaced', 'extended', 'new'] as const,
      at('before', 'Say whether this part is being replaced, extended or newly made now'),
    ),
    boxVolumeIn3: number(
      'box volume',
      'in³',
      4,
      200,
      at('open box', 'Read the volume in the box or measure it', 'tape'),
    ),
    conductorsInBox: whole(
      'conductors ending or spliced in the box',
      '',
      0,
      40,
      at(
        'open box',
        'Count the insulated conductors that end or are spliced in the box',
        'screwdriver, power proved off',
      ),
    ),
    groundsInBox: whole(
      'grounding conductors in the box',
      '',
      0,
      20,
      at('open box', 'Count the grounding conductors in the box', 'screwdriver, power proved off'),
    ),
    largestInBox: choice(
      'largest conductor in the box',
      ['14', '12', '10', '8', '6'] as const,
      at('open box', 'Gauge the largest conductor in the box', 'wire gauge'),
      'AWG',
    ),
    conductors14InBox: whole(
      'of them 14 AWG',
      '',
      0,
      40,
      at('open box', 'Where sizes differ: count the 14 AWG', 'wire gauge'),
    ),
    conductors12InBox: whole(
      'of them 12 AWG',
      '',
      0,
      40,
      at('open box', 'Where sizes differ: count the 12 AWG', 'wire gauge'),
    ),
    conductors10InBox: whole(
      'of them 10 AWG',
      '',
      0,
      40,
      at('open box', 'Where sizes differ: count the 10 AWG', 'wire gauge'),
    ),
    conductors8InBox: whole(
      'of them 8 AWG',
      '',
      0,
      40,
      at('open box', 'Where sizes differ: count the 8 AWG', 'wire gauge'),
    ),
    conductors6InBox: whole(
      'of them 6 AWG',
      '',
      0,
      40,
      at('open box', 'Where sizes differ: count the 6 AWG', 'wire gauge'),
    ),
    groundSizeInBox: choice(
      'largest grounding conductor in the box',
      ['14', '12', '10', '8', '6'] as const,
      at('open box', 'Gauge the largest bare or green conductor', 'wire gauge'),
      'AWG',
    ),
    throughSizeInBox: choice(
      'largest conductor passing through',
      ['14', '12', '10', '8', '6'] as const,
      at('open box', 'Gauge what passes through unbroken', 'wire gauge'),
      'AWG',
    ),
    throughInBox: whole(
      'conductors passing through unbroken',
      '',
      0,
      40,
      at(
        'open box',
        'Count the insulated conductors that pass through the box without a splice; a loop with ' +
          '12 in. or more of slack counts twice',
        'screwdriver, power proved off',
      ),
    ),
    fittingsInBox: whole(
      'box supports (studs, hickeys) in the box',
      '',
      0,
      6,
      at('open box', 'Count the support fittings inside the box', 'screwdriver, power proved off'),
    ),
    yokesInBox: whole(
      'device widths in the box',
      '',
      0,
      8,
      at('open box', 'Count the devices; one wider than 2 in. counts once per gang'),
    ),
    hasInternalClamps: flag(
      'cable clamps inside the box',
      at('open box', 'See whether clamps are inside the box'),
    ),
    splice: choice(
      'splices in the box',
      ['none', 'copper to copper', 'aluminum to aluminum', 'aluminum to copper'] as const,
      at(
        'open box',
        'Power off and proved off: which metals meet in the splices?',
        'screwdriver, power proved off',
      ),
    ),
    connector: choice(
      'connector',
      [
        'twist-on',
        'push-in',
        'set-screw lug',
        'crimped cold-weld',
        'solder and tape',
        'lever',
      ] as const,
      at('open box', 'See what kind of connector joins them', 'screwdriver, power proved off'),
    ),
    connectorListing: choice(
      'connector marked for',
      ['aluminum to copper', 'aluminum to aluminum', 'copper only'] as const,
      at(
        'open box',
        'Read the print on the connector or its package for metals and sizes',
        'flashlight',
      ),
    ),
    spliceState: choice(
      'splices look',
      ['sound', 'discolored', 'melted', 'buzz or smell'] as const,
      at(
        'open box',
        'Look at every connector and the insulation beside it; listen, smell',
        'screwdriver, power proved off',
      ),
    ),
    supplyMarkC: choice(
      'supply conductors the luminaire demands',
      [60, 75, 90] as const,
      at(
        'rooms',
        'Read the marking in the canopy: supply conductors of at least so many °C',
        'flashlight',
      ),
      '°C',
    ),
    wetCover: choice(
      'cover in a wet place',
      ['covers the plug in use', 'covers only without a plug', 'not in a wet place'] as const,
      at('rooms', 'Outdoors or where it gets wet: does the cover close over a plug?'),
    ),
    isLooseInBox: flag(
      'device or box loose',
      at('rooms', 'Push on the face: does device or box move?'),
    ),
    shell: choice(
      'screw shell of the lampholder',
      ['on the neutral', 'on the hot'] as const,
      at('open box', 'Power off and proved off: which conductor goes to the shell?', 'multimeter'),
    ),
    switchNeutral: choice(
      'neutral at the switch',
      ['in the box', 'can be added', 'not there'] as const,
      at(
        'open box',
        'Power off and proved off, look for a white neutral in the switch box',
        'screwdriver, power proved off',
      ),
    ),
    switched: choice(
      'conductor the switch opens',
      ['hot', 'neutral'] as const,
      at(
        'open box',
        'With the switch off, measure at the fixture: is it still live?',
        'voltage tester',
      ),
    ),
    isOverlamped: flag(
      'lamps larger than marked',
      at('rooms', 'Compare the lamp with the marking of the fixture'),
    ),
    recessed: choice(
      'recessed fixture',
      [
        'rated for insulation contact',
        'clear of insulation',
        'in insulation, not rated',
        'not recessed',
      ] as const,
      at(
        'rooms',
        'Look from above: is insulation against it, and what does its label say?',
        'flashlight',
      ),
    ),
    fanBox: choice(
      'box under a ceiling fan',
      ['rated for a fan', 'not rated', 'no fan'] as const,
      at('open box', 'Read the box that carries the fan'),
    ),
    multiwireNeutral: choice(
      'neutral of a multiwire circuit at the device',
      ['pigtailed', 'carried through the device', 'not a multiwire circuit'] as const,
      at(
        'open box',
        'Power off and proved off: does taking out the device open the neutral?',
        'screwdriver, power proved off',
      ),
    ),
    hasFreeLength: flag(
      'six inches of free conductor in the box',
      at('open box', 'Pull the conductors out gently: how long from where they enter?', 'tape'),
    ),
    tubZone: choice(
      'over or beside a tub or shower',
      [
        'clear of it',
        'receptacle in the tub or shower space',
        'hanging fixture or fan too low',
        'no tub or shower',
      ] as const,
      at(
        'rooms',
        'Measure 3 ft from the rim and 8 ft up: nothing may hang or be plugged in there',
        'tape',
      ),
    ),
    condition: choice(
      'condition',
      ['sound', 'loose grip', 'cracked', 'painted over', 'buzzing', 'scorched'] as const,
      at('rooms', 'Feel the grip, look at the face, listen'),
    ),
    year: year('year put in', at('rooms', 'Read the date code; ask')),
  },
} as const satisfies Record<string, Record<string, Field>>

export type Kind = keyof typeof FIELDS
export const KINDS = Object.keys(FIELDS) as Kind[]
export type FieldsOf<K extends Kind> = (typeof FIELDS)[K]
export type FieldName<K extends Kind> = keyof FieldsOf<K> & string
export type Value<K extends Kind, F extends FieldName<K>> = ValueOf<FieldsOf<K>[F]>
export type AnyValue = number | string | boolean | readonly string[] | readonly [number, number]

/** Fields that point at other things: they give the house its shape. */
export const SHAPING_FIELDS: ReadonlySet<string> = new Set(
  Object.values(FIELDS).flatMap((fields: Record<string, Field>) =>
    Object.entries(fields)
      .filter(([, f]) => f.type === 'ref' || f.type === 'refs')
      .map(([name]) => name),
  ),
)

/** Which kind a subject may hang under, and how a hand-written house nests it. */
export const PARENTS: Record<Kind, readonly Kind[]> = {
  premises: [],
  building: ['premises'],
  room: ['building', 'premises'],
  enclosure: ['building', 'premises'],
  bar: ['enclosure'],
  screw: ['bar'],
  breaker: ['enclosure'],
  feeder: ['premises'],
  circuit: ['premises'],
  electrode: ['building', 'premises'],
  bond: ['premises'],
  photo: ['premises'],
  amendment: ['premises'],
  adoption: ['premises'],
  visit: ['premises'],
  override: ['premises'],
  task: ['premises'],
  edit: ['premises'],
  signing: ['premises'],
  returnVisit: ['premises'],
  recheck: ['returnVisit'],
  segment: ['circuit'],
  conductor: ['premises'],
  exposure: ['segment', 'feeder'],
  outlet: ['premises'],
}

/** The declaration of a field, or undefined where the kind has none of that name. */
export function fieldOf(kind: Kind, name: string): Field | undefined {
  const fields: Record<string, Field> = FIELDS[kind]
  return Object.hasOwn(fields, name) ? fields[name] : undefined
}

/** What a subject is called where it has no name of its own. */
export const KIND_LABEL: Record<Kind, string> = {
  premises: 'property',
  building: 'building',
  room: 'room',
  enclosure: 'enclosure',
  bar: 'bar',
  screw: 'screw',
  breaker: 'breaker',
  feeder: 'feeder',
  circuit: 'circuit',
  segment: 'conductors',
  conductor: 'single conductor',
  electrode: 'electrode',
  bond: 'bond',
  photo: 'photograph',
  amendment: 'local amendment',
  adoption: 'edition adopted here',
  visit: 'scope of the visit',
  override: 'weighed by hand',
  task: 'planned work',
  edit: 'edited finding',
  signing: 'signature',
  returnVisit: 'return visit',
  recheck: 'looked at again',
  exposure: 'hot or crowded stretch',
  outlet: 'outlet',
}
