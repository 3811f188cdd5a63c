import { EDITIONS } from './editions'

/**
 * Years in which a thing that was lawful stopped being so, entered once: rules judge by them, the
 * timeline shows them.
 */

/** The year of what was never lawful, whatever the rule it belongs to says of the rest. */
export const ALWAYS = -Infinity

/** Years of the editions of the model code before those Corvit has the text of. */
const OLDER_EDITIONS = [
  1940, 1947, 1951, 1953, 1956, 1959, 1962, 1965, 1968, 1971, 1975, 1978, 1981, 1984, 1987, 1990,
  1993, 1996, 1999, 2002, 2005,
]
/**
 * Years after its own in which an edition may or may not have been law in a place. Places adopt one to five years
 * late; most do before the next edition is out, so that is taken where nobody has recorded it.
 */
export const ADOPTION_LAG = 3
/** Whether something began with an edition of the code, rather than with a listing or about that time. */
export const isEditionYear = (year: number): boolean =>
  OLDER_EDITIONS.includes(year) || EDITIONS.some(e => e === year)

/** Circuits that must be 20 A, by use. 210.11(C). */
export const REQUIRED_20A_SINCE = {
  'kitchen small-appliance': 1959,
  laundry: 1959,
  'bathroom receptacles': 1996,
  garage: 2017,
} as const
/** Grounding-type receptacles and a ground with the circuit, about. 210.7 of its day. */
export const GROUND_RUN_SINCE = 1962
/** CO/ALR devices for aluminum on 15 and 20 A, about. 406.3(C). */
export const CO_ALR_SINCE = 1971
/** Push-in terminals no longer take 12 AWG, about; by the listing of the device. */
export const PUSH_IN_14_SINCE = 1995
/** Dryers and ranges on four wires. 250.140. */
export const FOUR_WIRE_SINCE = 1996
/** A white conductor used as hot is marked at every end, switch loops too. 200.7(C). */
export const WHITE_MARKED_SINCE = 1999
/** Feeders to separate buildings carry a ground. 250.32(B). */
export const FEEDER_GROUND_SINCE = 2008

/** The same for people, with the rule each bears on. */
export const TURNS: readonly {
  readonly year: number
  readonly text: string
  readonly rule: string
}[] = [
  ...Object.entries(REQUIRED_20A_SINCE).map(([use, year]) => ({
    year,
    text: `${use} circuit of 20 A`,
    rule: 'required-20A-circuit-downsized',
  })),
  {
    year: GROUND_RUN_SINCE,
    text: 'grounding-type receptacles, about',
    rule: 'open-ground-three-slot',
  },
  {
    year: CO_ALR_SINCE,
    text: 'CO/ALR devices for aluminum, about',
    rule: 'aluminum-at-unmarked-device',
  },
  {
    year: PUSH_IN_14_SINCE,
    text: 'push-in terminals for 14 AWG only, about',
    rule: 'push-in-misuse',
  },
  {
    year: FOUR_WIRE_SINCE,
    text: 'new dryers and ranges on four wires',
    rule: 'three-wire-dryer-range',
  },
  {
    year: WHITE_MARKED_SINCE,
    text: 'white used as hot marked at every end',
    rule: 'hot-on-unmarked-white',
  },
  {
    year: FEEDER_GROUND_SINCE,
    text: 'new feeders to separate buildings with a ground',
    rule: 'three-wire-feeder',
  },
]
