/**
 * Where ground-fault and arc-fault protection is required in dwellings, and since which edition:
 * entered once, judged by
 * and shown from here. 210.8(A), 210.12(A). Years are editions of the code; local adoption lags behind, and several
 * states amend this.
 */
export const PLACES = [
  'outdoors',
  'bathroom',
  'garage',
  'kitchen',
  'basement, unfinished',
  'basement, finished',
  'crawl space',
  'laundry',
  'utility',
  'workshop',
  'bedroom',
  'living',
  'hallway',
  'closet',
  'attic',
  'stairs',
  'office',
  'boathouse',
  'food preparation',
  'damp or wet room',
] as const
export type Place = (typeof PLACES)[number]

/**
 * Which outlets of the place a row bears on. Unless it says otherwise a row is about 125 V receptacles, and from 2020
 * about 250 V ones too.
 */
export type Bearing =
  | 'all'
  | 'reached from grade'
  | 'within reach, not dedicated'
  | 'not dedicated'
  | 'counter'
  | 'counter near water'
  | 'near water'
  | 'near a wet-bar sink'
  | 'near a sink'
  | 'no single receptacle'
  | 'hard-wired'
  | 'lighting'
  | 'dishwasher'
  | 'listed appliance'
  | 'boat hoist'
/** Which outlets of the room a row bears on: receptacles, every outlet, or switches and other devices too. */
export type Covers = 'receptacles' | 'outlets' | 'devices'
export interface GfciRow {
  readonly protection: 'GFCI'
  readonly place: Place
  readonly since: number
  readonly text: string
  readonly bears: Bearing
  /** Older requirements are not settled: verify the edition of the year. */ readonly isOpenBefore?: boolean
}
export interface AfciRow {
  readonly protection: 'AFCI'
  readonly place: Place
  readonly since: number
  readonly text: string
  readonly covers: Covers
}
export type Requirement = GfciRow | AfciRow

const gfci = (
  place: Place,
  since: number,
  bears: Bearing,
  text: string,
  isOpenBefore?: boolean,
): GfciRow => ({
  protection: 'GFCI',
  place,
  since,
  bears,
  text,
  ...(isOpenBefore && { isOpenBefore }),
})
const afci = (since: number, covers: Covers, text: string, ...places: Place[]): AfciRow[] =>
  places.map(place => ({ protection: 'AFCI', place, since, covers, text }))
/** Rooms with nothing of their own: only what stands near water, by the kind of water. */
const ORDINARY: readonly Place[] = [
  'workshop',
  'bedroom',
  'living',
  'hallway',
  'closet',
  'attic',
  'stairs',
  'office',
]
/** Where dishwashers, dryers and cooking appliances stand. */
const WITH_APPLIANCES: readonly Place[] = [
  'kitchen',
  'food preparation',
  'laundry',
  'utility',
  'closet',
  'garage',
  'basement, finished',
  'basement, unfinished',
]

export const GFCI_ROWS: readonly GfciRow[] = [
  gfci('outdoors', 1973, 'reached from grade', 'outdoors, reached from the ground'),
  gfci('outdoors', 1996, 'all', 'outdoors'),
  gfci('outdoors', 2020, 'hard-wired', 'hard-wired outlets up to 50 A too, luminaires left out'),
  gfci('bathroom', 1975, 'all', 'bathroom'),
  gfci(
    'garage',
    1978,
    'within reach, not dedicated',
    'garage, but for what is out of reach or one appliance in its place',
  ),
  gfci('garage', 2008, 'all', 'garage, no exemptions any more'),
  gfci('kitchen', 1987, 'counter near water', 'kitchen counter within 6 ft of the sink'),
  gfci('kitchen', 1996, 'counter', 'kitchen counter'),
  gfci('kitchen', 2014, 'near water', 'within 6 ft of a sink'),
  gfci('kitchen', 2023, 'all', 'kitchen, every receptacle'),
  gfci('basement, unfinished', 1987, 'no single receptacle', 'unfinished basement, at least one'),
  gfci(
    'basement, unfinished',
    1990,
    'not dedicated',
    'unfinished basement, but for one appliance in its place',
  ),
  gfci('basement, unfinished', 2008, 'all', 'unfinished basement, no exemptions any more'),
  gfci('basement, finished', 2020, 'all', 'basement, finished too'),
  gfci('crawl space', 1990, 'all', 'crawl space'),
  gfci('crawl space', 2017, 'lighting', 'lighting outlets of the crawl space too'),
  gfci('laundry', 2005, 'near water', 'within 6 ft of the laundry sink'),
  gfci('laundry', 2014, 'all', 'laundry area'),
  gfci('utility', 2005, 'near water', 'within 6 ft of the utility sink'),
  ...[...ORDINARY, 'basement, finished' as const].flatMap(place => [
    gfci(place, 1993, 'near a wet-bar sink', 'within 6 ft of a wet-bar sink'),
    gfci(place, 2011, 'near a sink', 'within 6 ft of a sink'),
    gfci(place, 2014, 'near water', 'within 6 ft of a sink, tub or shower'),
  ]),
  gfci('boathouse', 2005, 'all', 'boathouse', true),
  gfci('boathouse', 2005, 'boat hoist', 'boat hoist'),
  gfci('damp or wet room', 2020, 'all', 'damp or wet place indoors'),
  gfci('food preparation', 2011, 'near a sink', 'within 6 ft of a sink'),
  gfci('food preparation', 2023, 'all', 'place with a sink where food is prepared'),
  ...WITH_APPLIANCES.flatMap(place => [
    gfci(place, 2014, 'dishwasher', 'the outlet of the dishwasher'),
    gfci(
      place,
      2023,
      'listed appliance',
      'the outlet of a range, oven, cooktop, dryer or microwave',
    ),
  ]),
]
export const AFCI_ROWS: readonly AfciRow[] = [
  ...afci(1999, 'receptacles', 'bedroom receptacles', 'bedroom'),
  ...afci(2002, 'outlets', 'all bedroom outlets', 'bedroom'),
  ...afci(
    2008,
    'outlets',
    'all outlets',
    'living',
    'hallway',
    'closet',
    'office',
    'stairs',
    'basement, finished',
  ),
  ...afci(
    2014,
    'devices',
    'all outlets and devices',
    'bedroom',
    'living',
    'hallway',
    'closet',
    'office',
    'stairs',
    'basement, finished',
    'kitchen',
    'laundry',
  ),
]

/** Receptacles of 250 V, at no more than 150 V to ground, count like those of 125 V from this edition. 210.8(A). */
export const ALSO_250V_SINCE = 2020
/** Hard-wired outlets outdoors count up to this device, amperes. 210.8(F). */
export const HARD_WIRED_MOST_AMPS = 50
/** Under the 2023 edition listed heating and cooling outdoors is exempt until this day. 210.8(F). */
export const HVAC_EXEMPT = { edition: 2023, until: '2026-09-01' } as const

/** A room use as a sentence names it. */
export const placeName = (use: string): string =>
  ({
    living: 'living, dining or family room',
    hallway: 'hall',
    'basement, finished': 'finished basement',
    'basement, unfinished': 'unfinished basement',
    'food preparation': 'place where food is prepared',
  })[use] ?? use

/** Distance to a sink, tub or shower, feet. */
export const NEAR_FT = 6
/** An extension no longer than this that adds no outlet needs no arc-fault protection, from the edition. 210.12(B). */
export const EXTENSION_EXEMPT = { feet: 6, since: 2014 } as const
/** Devices have to be readily accessible from this edition. 210.8(A). */
export const READILY_ACCESSIBLE_SINCE = 2011

const byPlace = <R extends Requirement>(rows: readonly R[]) =>
  new Map(
    PLACES.map(place => [
      place as string,
      rows.filter(r => r.place === place).sort((a, b) => a.since - b.since),
    ]),
  )
const GFCI_BY_PLACE = byPlace(GFCI_ROWS)
const AFCI_BY_PLACE = byPlace(AFCI_ROWS)
/** Ground-fault rows of a place, oldest first. */
export const gfciRowsOf = (place: string): readonly GfciRow[] => GFCI_BY_PLACE.get(place) ?? []
/** What a row must cover to bear on a kind of outlet. */
const COVERING = {
  switch: ['devices'],
  receptacle: ['receptacles', 'outlets', 'devices'],
  else: ['outlets', 'devices'],
} as const satisfies Record<string, readonly Covers[]>
/** The edition of the oldest row of a place that covers one of these. */
const oldestFor = (place: string, covering: readonly Covers[]): number | undefined =>
  AFCI_BY_PLACE.get(place)?.find(r => covering.includes(r.covers))?.since
const AFCI_SINCE = new Map(
  PLACES.map(place => [
    place as string,
    {
      switch: oldestFor(place, COVERING.switch),
      receptacle: oldestFor(place, COVERING.receptacle),
      else: oldestFor(place, COVERING.else),
    },
  ]),
)

/** Places whose timeline names the appliances; elsewhere they bear all the same, and are not worth a line. */
const APPLIANCE_PLACES: ReadonlySet<string> = new Set(['kitchen', 'food preparation', 'laundry'])
const isAside = (r: Requirement): boolean =>
  r.protection === 'GFCI' &&
  (r.bears === 'dishwasher' || r.bears === 'listed appliance') &&
  !APPLIANCE_PLACES.has(r.place)
/** All rows of a place, oldest first. */
export const requirementsOf = (place: string): Requirement[] =>
  [...GFCI_ROWS, ...AFCI_ROWS]
    .filter(r => r.place === place && !isAside(r))
    .sort((a, b) => a.since - b.since)

/** Since which edition arc-fault protection covers a kind of outlet in a room; undefined where it never did. */
export function afciSince(place: string, type: string): number | undefined {
  const since = AFCI_SINCE.get(place)
  if (since === undefined) return undefined
  return type === 'receptacle' ? since.receptacle : type === 'switch' ? since.switch : since.else
}
