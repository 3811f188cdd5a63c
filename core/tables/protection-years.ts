/**
 * Where ground-fault and arc-fault protection is required in dwellings, and since which edition: entered once, judged by
 * and shown from here. 210.8(A), 210.12(A). Years are editions of the code; local adoption lags behind, and several
 * states amend this.
 */
export const PLACES = ['outdoors', 'bathroom', 'garage', 'kitchen', 'basement, unfinished', 'basement, finished', 'crawl space', 'laundry', 'utility', 'workshop', 'bedroom', 'living', 'hallway', 'closet', 'attic', 'stairs', 'office'] as const
export type Place = (typeof PLACES)[number]

/** Which receptacles of the place a row bears on. */
export type Bearing = 'all' | 'reached from grade' | 'within reach, not dedicated' | 'not dedicated' | 'counter' | 'counter near water' | 'near water' | 'no single receptacle'
/** Which outlets of the room a row bears on: receptacles, every outlet, or switches and other devices too. */
export type Covers = 'receptacles' | 'outlets' | 'devices'
export interface GfciRow { readonly protection: 'GFCI', readonly place: Place, readonly since: number, readonly text: string, readonly bears: Bearing }
export interface AfciRow { readonly protection: 'AFCI', readonly place: Place, readonly since: number, readonly text: string, readonly covers: Covers }
export type Requirement = GfciRow | AfciRow

const gfci = (place: Place, since: number, bears: Bearing, text: string): GfciRow => ({ protection: 'GFCI', place, since, bears, text })
const afci = (since: number, covers: Covers, text: string, ...places: Place[]): AfciRow[] => places.map(place => ({ protection: 'AFCI', place, since, covers, text }))
/** Rooms with nothing of their own: a receptacle near any sink, from the edition that named every sink outside the kitchen. */
const ORDINARY: readonly Place[] = ['workshop', 'bedroom', 'living', 'hallway', 'closet', 'attic', 'stairs', 'office']

export const GFCI_ROWS: readonly GfciRow[] = [
  gfci('outdoors', 1973, 'reached from grade', 'outdoors, reached from the ground'),
  gfci('outdoors', 1996, 'all', 'outdoors'),
  gfci('outdoors', 2020, 'no single receptacle', 'hard-wired outlets up to 50 A too, luminaires left out'),
  gfci('bathroom', 1975, 'all', 'bathroom'),
  gfci('garage', 1978, 'within reach, not dedicated', 'garage, but for what is out of reach or one appliance in its place'),
  gfci('garage', 2008, 'all', 'garage, no exemptions any more'),
  gfci('kitchen', 1987, 'counter near water', 'kitchen counter within 6 ft of the sink'),
  gfci('kitchen', 1996, 'counter', 'kitchen counter'),
  gfci('kitchen', 2014, 'near water', 'within 6 ft of a sink; the dishwasher outlet'),
  gfci('kitchen', 2023, 'all', 'kitchen, every receptacle'),
  gfci('basement, unfinished', 1987, 'no single receptacle', 'unfinished basement, at least one'),
  gfci('basement, unfinished', 1990, 'not dedicated', 'unfinished basement, but for one appliance in its place'),
  gfci('basement, unfinished', 2008, 'all', 'unfinished basement, no exemptions any more'),
  gfci('basement, finished', 2011, 'near water', 'within 6 ft of a sink'),
  gfci('basement, finished', 2020, 'all', 'basement, finished too'),
  gfci('crawl space', 1990, 'all', 'crawl space'),
  gfci('crawl space', 2017, 'no single receptacle', 'lighting outlets of the crawl space too'),
  gfci('laundry', 2005, 'near water', 'within 6 ft of the laundry sink'),
  gfci('laundry', 2014, 'all', 'laundry area'),
  gfci('utility', 2005, 'near water', 'within 6 ft of the utility sink'),
  ...ORDINARY.map(place => gfci(place, 2011, 'near water', 'within 6 ft of a sink; from 2014 of a tub or shower too')),
]
export const AFCI_ROWS: readonly AfciRow[] = [
  ...afci(1999, 'receptacles', 'bedroom receptacles', 'bedroom'),
  ...afci(2002, 'outlets', 'all bedroom outlets', 'bedroom'),
  ...afci(2008, 'outlets', 'all outlets', 'living', 'hallway', 'closet', 'office', 'stairs', 'basement, finished'),
  ...afci(2014, 'devices', 'all outlets and devices', 'bedroom', 'living', 'hallway', 'closet', 'office', 'stairs', 'basement, finished', 'kitchen', 'laundry'),
]

/** Distance to a sink, tub or shower, feet. */
export const NEAR_FT = 6
/** An extension no longer than this that adds no outlet needs no arc-fault protection, from the edition. 210.12(B). */
export const EXTENSION_EXEMPT = { feet: 6, since: 2014 } as const
/** Devices have to be readily accessible from this edition. 210.8(A). */
export const READILY_ACCESSIBLE_SINCE = 2011

const byPlace = <R extends Requirement>(rows: readonly R[]) => new Map(PLACES.map(place => [place as string, rows.filter(r => r.place === place).sort((a, b) => a.since - b.since)]))
const GFCI_BY_PLACE = byPlace(GFCI_ROWS)
const AFCI_BY_PLACE = byPlace(AFCI_ROWS)
/** Ground-fault rows of a place, oldest first. */
export const gfciRowsOf = (place: string): readonly GfciRow[] => GFCI_BY_PLACE.get(place) ?? []
const COVERING: Record<string, readonly Covers[]> = { 'switch': ['devices'], 'receptacle': ['receptacles', 'outlets', 'devices'], 'else': ['outlets', 'devices'] }

/** All rows of a place, oldest first. */
export const requirementsOf = (place: string): Requirement[] => [...GFCI_ROWS, ...AFCI_ROWS].filter(r => r.place === place).sort((a, b) => a.since - b.since)

/** Since which edition arc-fault protection covers a kind of outlet in a room; undefined where it never did. */
export function afciSince(place: string, type: string): number | undefined {
  const covering = COVERING[type] ?? COVERING.else!
  return AFCI_BY_PLACE.get(place)?.find(r => covering.includes(r.covers))?.since
}
