import type { Value } from '../model/fields'
import type { Focus } from './reader'

/** What rooms are called, and the use that is meant. */
export const ROOM_NAMES: Readonly<Record<string, string>> = {
  kitchen: 'kitchen',
  'living room': 'living',
  'family room': 'living',
  'dining room': 'living',
  den: 'living',
  bedroom: 'bedroom',
  'master bedroom': 'bedroom',
  bathroom: 'bathroom',
  bath: 'bathroom',
  'hall bath': 'bathroom',
  'laundry room': 'laundry',
  laundry: 'laundry',
  hallway: 'hallway',
  hall: 'hallway',
  closet: 'closet',
  garage: 'garage',
  basement: 'basement, unfinished',
  'finished basement': 'basement, finished',
  attic: 'attic',
  crawlspace: 'crawl space',
  'crawl space': 'crawl space',
  'utility room': 'utility',
  utility: 'utility',
  outside: 'outdoors',
  outdoors: 'outdoors',
  patio: 'outdoors',
  porch: 'outdoors',
  deck: 'outdoors',
  workshop: 'workshop',
  stairs: 'stairs',
  office: 'office',
}
export const ROOM_PATTERN = `(?:${Object.keys(ROOM_NAMES)
  .sort((a, b) => b.length - a.length)
  .join('|')})`

/** Words of which the name of a circuit is made: loads and rooms. */
const LABEL_WORDS = new Set(
  (
    'light lights lighting lamp lamps outlet outlets receptacle receptacles plugs kitchen bath bathroom bedroom ' +
    'bedrooms garage porch dryer range oven stove cooktop washer laundry water heater furnace boiler ac air ' +
    'conditioner conditioning condenser heat pump disposer disposal dishwasher microwave refrigerator fridge ' +
    'freezer counter counters living dining family room rooms den hall hallway basement attic outside outdoor ' +
    'outdoors yard shed workshop shop well sump pool spa hot tub smoke alarm alarms detectors doorbell fan fans ' +
    'heater heaters baseboard charger car vehicle ev office closet sprinkler sprinklers septic gate patio deck ' +
    'island hood opener door security network study library nursery utility crawlspace stairs stair loft studio ' +
    'barn greenhouse kiln compressor welder saw television tv computer aquarium'
  ).split(' '),
)
export const isLabelWord = (word: string): boolean => LABEL_WORDS.has(word)

const SUPPLIES: readonly (readonly [RegExp, Value<'circuit', 'supplies'>])[] = [
  [
    /\blights? and (?:receptacles?|outlets?)|(?:receptacles?|outlets?) and lights?\b/,
    'receptacles and lighting',
  ],
  [/\b(?:lights?|lighting)\b/, 'lighting'],
  [/\b(?:range|oven|cooktop|stove)\b/, 'cooking appliance'],
  [/\bwater heater\b/, 'water heater'],
  [/\b(?:air condition(?:er|ing)|ac|condenser|heat pump)\b/, 'air conditioning'],
  [/\b(?:pump|motor|compressor)\b/, 'motor'],
  [/\b(?:alarms?|smoke)\b/, 'alarms'],
  [/\b(?:charger|car|ev)\b/, 'vehicle charger'],
  [/\b(?:baseboard|space heat(?:er|ing)|electric heat)\b/, 'space heating'],
  [/\b(?:dryer|dishwasher|furnace|boiler|dispos(?:er|al)|microwave|washer)\b/, 'fixed appliance'],
  [/\b(?:receptacles?|outlets?|counter|plugs)\b/, 'receptacles'],
]
/** What a circuit supplies, by what somebody says it feeds. */
export const suppliesOf = (label: string): Value<'circuit', 'supplies'> | undefined =>
  SUPPLIES.find(([pattern]) => pattern.test(label))?.[1]

type Noun = readonly [RegExp, string]
/** What somebody could not see, by the noun for it. */
export const BLOCKED_NOUNS: Readonly<Partial<Record<Focus, readonly Noun[]>>> = {
  enclosure: [
    [/bond(?:ing)?(?: screw)?/, 'enclosure.bondMeans'],
    [/bus/, 'enclosure.busAmps'],
    [/service (?:conductors?|wires?|size)/, 'enclosure.serviceSize'],
    [/neutral|grounds?\b(?! rod)|bars?/, 'enclosure.landings'],
    [/main(?: breaker| rating)?(?! panel)/, 'enclosure.mainAmps'],
    [/directory|legend|circuit list/, 'enclosure.directory'],
    [/panel label|label/, 'enclosure.busAmps'],
    [/rods?|electrodes?|gec/, 'enclosure.electrodes'],
    [
      /^(?:it|panel|cover|inside|breakers?|dead ?front|the panel|enclosure|subpanel|main panel|box)?$/,
      'enclosure.mainKind',
    ],
    [/open/, 'enclosure.mainKind'],
  ],
  main: [
    [/rating|number|handle|main|it/, 'enclosure.mainAmps'],
    [/./, 'enclosure.mainAmps'],
  ],
  service: [
    [/metal/, 'enclosure.serviceMetal'],
    [/./, 'enclosure.serviceSize'],
  ],
  breaker: [
    [/metal/, 'segment.metal'],
    [/insulation/, 'segment.insulation'],
    [/wire|size|gauge|conductor|print/, 'segment.size'],
    [/terminal|lug|connection/, 'breaker.termination'],
    [/nameplate/, 'circuit.nameplateMca'],
    [/button|test/, 'breaker.testButton'],
    [/neutral/, 'circuit.sharesNeutralWith'],
    [/brand|type|listing/, 'breaker.fitsPanel'],
    [/rating|number|handle|amp/, 'breaker.ratingAmps'],
  ],
  feeder: [
    [/metal/, 'feeder.metal'],
    [/ground/, 'feeder.egc'],
    [/./, 'feeder.size'],
  ],
  outlet: [
    [/ground|inside|box|splice/, 'outlet.ground'],
    [/button/, 'outlet.gfciButton'],
    [/test|tester/, 'outlet.lamps'],
    [/metal/, 'outlet.metal'],
    [/size|wire/, 'outlet.size'],
    [/open/, 'outlet.ground'],
    [/^(?:it|outlet|receptacle|them|they|that one|this one)?$/, 'outlet.lamps'],
  ],
  electrode: [
    [/clamp|connection/, 'electrode.connection'],
    [/size|wire|conductor/, 'electrode.size'],
    [/./, 'electrode.type'],
  ],
  bond: [
    [/size|wire/, 'bond.size'],
    [/end|lands/, 'bond.landsOn'],
    [/./, 'bond.connection'],
  ],
  property: [
    [/drop|mast/, 'premises.serviceDrop'],
    [/weather ?head|meter|service cable/, 'premises.serviceEntrance'],
    [/gas bond/, 'premises.gasBond'],
    [/gas/, 'premises.gasPiping'],
    [/water bond/, 'premises.waterBond'],
    [/water (?:pipes?|piping)/, 'premises.waterPiping'],
    [/intersystem/, 'premises.intersystem'],
    [/alarms?/, 'premises.alarms'],
  ],
}
