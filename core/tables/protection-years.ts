/**
 * Where ground-fault and arc-fault protection is required in dwellings, and since which edition. 210.8, 210.12,
 * 406.4(D). Years are editions of the code; local adoption lags behind. Several states amend this.
 */
export interface Requirement {
  readonly protection: 'GFCI' | 'AFCI'
  readonly place: Place
  /** First edition with this requirement. */
  readonly since: number
  /** What it asks, in a few words. */
  readonly text: string
  /** Asks less than a later row of the same place: what was exempt. */
  readonly exempt?: string
}
export const PLACES = ['outdoors', 'bathroom', 'garage', 'kitchen', 'basement, unfinished', 'basement, finished', 'crawl space', 'laundry', 'utility', 'workshop', 'bedroom', 'living', 'hallway', 'closet', 'attic', 'stairs', 'office'] as const
export type Place = (typeof PLACES)[number]

const gfci = (place: Place, since: number, text: string, exempt?: string): Requirement => ({ protection: 'GFCI', place, since, text, exempt })
const afci = (place: Place, since: number, text: string): Requirement => ({ protection: 'AFCI', place, since, text })

export const REQUIREMENTS: readonly Requirement[] = [
  gfci('outdoors', 1973, 'receptacles with direct access from grade', 'those without direct access from grade'),
  gfci('outdoors', 1996, 'all receptacles'),
  gfci('outdoors', 2020, 'outlets up to 50 A and 150 V to ground, hard-wired too, luminaires left out'),
  gfci('bathroom', 1975, 'all receptacles'),
  gfci('garage', 1978, 'receptacles', 'out of reach, or for one appliance in its place'),
  gfci('garage', 2008, 'all receptacles'),
  gfci('kitchen', 1987, 'counter receptacles within 6 ft of the sink', 'counter receptacles farther from the sink'),
  gfci('kitchen', 1996, 'all counter receptacles', 'receptacles that serve no counter'),
  gfci('kitchen', 2014, 'the dishwasher outlet too, and any receptacle within 6 ft of the sink', 'receptacles that serve no counter, 6 ft or more from the sink'),
  gfci('kitchen', 2023, 'every receptacle, and listed appliances'),
  gfci('basement, unfinished', 1987, 'at least one receptacle', 'all but one'),
  gfci('basement, unfinished', 1990, 'receptacles', 'for one appliance in its place'),
  gfci('basement, unfinished', 2008, 'all receptacles'),
  gfci('basement, finished', 2020, 'all receptacles'),
  gfci('crawl space', 1990, 'receptacles at or below grade'),
  gfci('crawl space', 2017, 'lighting outlets too'),
  gfci('laundry', 2005, 'receptacles within 6 ft of the sink', 'receptacles farther from the sink'),
  gfci('laundry', 2014, 'all receptacles'),
  gfci('utility', 2005, 'receptacles within 6 ft of a sink', 'receptacles farther from a sink'),
  afci('bedroom', 1999, 'receptacles'),
  afci('bedroom', 2002, 'all outlets'),
  afci('living', 2008, 'all outlets'), afci('hallway', 2008, 'all outlets'), afci('basement, finished', 2008, 'all outlets: recreation rooms and the like'), afci('stairs', 2008, 'all outlets'), afci('closet', 2008, 'all outlets'), afci('office', 2008, 'all outlets'),
  afci('kitchen', 2014, 'all outlets and devices'), afci('laundry', 2014, 'all outlets and devices'),
  afci('bedroom', 2014, 'all outlets and devices'), afci('living', 2014, 'all outlets and devices'), afci('hallway', 2014, 'all outlets and devices'),
]

/** GFCI that an edition asks for near a sink or tub, whatever the room. */
export const NEAR_WATER: readonly { since: number, text: string }[] = [
  { since: 1993, text: 'within 6 ft of a wet-bar sink' }, { since: 2005, text: 'within 6 ft of laundry, utility and wet-bar sinks' },
  { since: 2011, text: 'within 6 ft of any sink outside the kitchen' }, { since: 2014, text: 'within 6 ft of any sink, tub or shower' },
]

/** Extensions and replacements bring the rule to bear on older wiring from these editions. */
export const REPLACEMENT_GFCI = 1993
export const REPLACEMENT_AFCI = 2014
export const EXTENSION_AFCI = 2011
export const READILY_ACCESSIBLE = 2011

/** What an edition asks for in a place: the latest row up to it. */
export function requirementIn(protection: 'GFCI' | 'AFCI', place: string, edition: number): Requirement | undefined {
  let found: Requirement | undefined
  for (const row of REQUIREMENTS) if (row.protection === protection && row.place === place && row.since <= edition && (!found || row.since >= found.since)) found = row
  return found
}
/** All rows of a place, oldest first. */
export const requirementsOf = (place: string): Requirement[] => REQUIREMENTS.filter(r => r.place === place).sort((a, b) => a.since - b.since)
