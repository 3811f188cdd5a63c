import { fieldOf, type Kind } from '../model/fields'
import { Ledger } from '../model/ledger'
import type { Observation } from '../model/observation'
import { expects } from '../model/values'
import { checkLinks, checkObservations } from './check'
import { observationsFromHouse, type Stamper } from './from-house'
import { problemsOf, UnreadableFile, found } from './problems'
import { respell } from './spelling'
import { FILE_VERSION, HouseFile, LogFile, MAX_FILE_BYTES } from './schema'

/** What a readable file holds. */
export interface ReadFile { form: 'house' | 'log', observations: Observation[] }

/**
 * Reads a job file in either form.
 * @throws UnreadableFile naming path, expected and found; nothing is changed
 */
export function readJobFile(text: string, stamp: Stamper): ReadFile {
  if (text.length > MAX_FILE_BYTES) throw new UnreadableFile([{ path: '(file)', expected: `at most ${MAX_FILE_BYTES / 1024 / 1024} MB`, found: `${Math.ceil(text.length / 1024 / 1024)} MB` }])
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    throw new UnreadableFile([{ path: '(file)', expected: 'JSON', found: (error as Error).message.slice(0, 160) }])
  }
  return readJob(raw, stamp)
}

/** Reads a job file that is parsed already. */
export function readJob(raw: unknown, stamp: Stamper): ReadFile {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw new UnreadableFile([{ path: '(top)', expected: 'an object', found: found(raw) }])
  const { corvit, form } = raw as Record<string, unknown>
  if (typeof corvit === 'number' && corvit > FILE_VERSION) throw new UnreadableFile([{ path: 'corvit', expected: `version ${FILE_VERSION}`, found: `${corvit}, written by a newer Corvit` }])
  if (corvit !== FILE_VERSION) throw new UnreadableFile([{ path: 'corvit', expected: `the version number ${FILE_VERSION}`, found: found(corvit) }])
  if (form !== 'house' && form !== 'log') throw new UnreadableFile([{ path: 'form', expected: '"house" or "log"', found: found(form) }])

  let observations: Observation[]
  if (form === 'house') {
    const parsed = HouseFile.safeParse(respell(raw))
    if (!parsed.success) throw new UnreadableFile(problemsOf(parsed.error, raw, expectedInHouse))
    const made = observationsFromHouse(parsed.data, stamp)
    if ('problems' in made) throw new UnreadableFile(made.problems.slice(0, 20))
    observations = made.observations
  } else {
    const parsed = LogFile.safeParse(raw)
    if (!parsed.success) throw new UnreadableFile(problemsOf(parsed.error, raw))
    observations = parsed.data.observations as Observation[]
  }
  const problems = checkObservations(observations, () => undefined, i => `observations[${i}]`)
  if (problems.length > 0) throw new UnreadableFile(problems)
  const links = checkLinks(new Ledger(observations).house, new Set(observations.flatMap(o => o.act === 'add' ? [o.subject] : [])))
  if (links.length > 0) throw new UnreadableFile(links)
  return { form, observations }
}

const PLURAL: Record<string, Kind> = {
  premises: 'premises', buildings: 'building', rooms: 'room', enclosures: 'enclosure', bars: 'bar', screws: 'screw', screwList: 'screw', breakers: 'breaker',
  feeder: 'feeder', feeders: 'feeder', electrodes: 'electrode', bonds: 'bond', photos: 'photo', amendments: 'amendment', overrides: 'override', circuit: 'circuit', circuits: 'circuit', segments: 'segment', exposures: 'exposure', points: 'point',
}

/** What belongs at a path of a house file, from the field declarations. */
function expectedInHouse(path: readonly PropertyKey[]): string | undefined {
  const names = path.filter(p => typeof p === 'string')
  for (let i = names.length - 1; i > 0; i--) {
    const kind = PLURAL[names[i - 1]!]
    const field = kind && fieldOf(kind, names[i]!)
    if (field) return expects(field)
  }
  return undefined
}
