import { fieldOf, type Kind } from '../model/fields'
import { Ledger } from '../model/ledger'
import { withClocks, type Observation, type RawObservation } from '../model/observation'
import { expects } from '../model/values'
import { BOUNDS, outOfBounds } from './bounds'
import { checkLinks, checkObservations, MAX_PROBLEMS } from './check'
import { observationsFromHouse, type Stamper } from './from-house'
import { problemsOf, UnreadableFile, found, type Problem } from './problems'
import { respell } from './spelling'
import { upcastFacts } from './upcast'
import {
  FILE_VERSION,
  HouseFile,
  LogFile,
  MAX_FILE_BYTES,
  ObservationSchema,
  READ_VERSIONS,
} from './schema'

/** What a readable file holds. */
export interface ReadFile {
  form: 'house' | 'log'
  observations: Observation[]
}

/**
 * Reads a job file in either form.
 * @throws UnreadableFile naming path, expected and found; nothing is changed
 */
export function readJobFile(text: string, stamp: Stamper): ReadFile {
  if (text.length > MAX_FILE_BYTES)
    throw new UnreadableFile([
      {
        path: '(file)',
        expected: `at most ${MAX_FILE_BYTES / 1024 / 1024} MB`,
        found: `${Math.ceil(text.length / 1024 / 1024)} MB`,
      },
    ])
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    throw new UnreadableFile([
      { path: '(file)', expected: 'JSON', found: (error as Error).message.slice(0, 160) },
    ])
  }
  return readJob(raw, stamp)
}

/** Reads a job file that is parsed already. */
export function readJob(raw: unknown, stamp: Stamper): ReadFile {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new UnreadableFile([{ path: '(top)', expected: 'an object', found: found(raw) }])
  }
  const { corvit, form } = raw as Record<string, unknown>
  if (typeof corvit === 'number' && corvit > FILE_VERSION) {
    const what = `${corvit}, written by a newer Corvit`
    throw new UnreadableFile([
      { path: 'corvit', expected: `version ${FILE_VERSION} or older`, found: what },
    ])
  }
  if (!READ_VERSIONS.includes(corvit as number)) {
    throw new UnreadableFile([
      { path: 'corvit', expected: 'the version number 1 or 2', found: found(corvit) },
    ])
  }
  if (form !== 'house' && form !== 'log') {
    throw new UnreadableFile([{ path: 'form', expected: '"house" or "log"', found: found(form) }])
  }
  const tooMuch = outOfBounds(raw)
  if (tooMuch) throw new UnreadableFile([tooMuch])
  const observations = form === 'house' ? readHouse(raw, stamp) : readLog(raw)
  const problems = checkObservations(observations, i => `observations[${i}]`)
  if (problems.length > 0) throw new UnreadableFile(problems)
  const added = new Set(observations.flatMap(o => (o.act === 'add' ? [o.subject] : [])))
  const links = checkLinks(new Ledger(observations).house, added)
  if (links.length > 0) throw new UnreadableFile(links)
  return { form, observations }
}

function readHouse(raw: object, stamp: Stamper): Observation[] {
  const parsed = HouseFile.safeParse(respell(upcastFacts(raw)))
  if (!parsed.success) throw new UnreadableFile(problemsOf(parsed.error, raw, expectedInHouse))
  const made = observationsFromHouse(parsed.data, stamp)
  if ('problems' in made) throw new UnreadableFile(made.problems.slice(0, MAX_PROBLEMS))
  const subjects = made.observations.filter(o => o.act === 'add').length
  if (subjects > BOUNDS.subjects) {
    throw new UnreadableFile([
      { path: '(file)', expected: `at most ${BOUNDS.subjects} things`, found: `${subjects}` },
    ])
  }
  return withClocks(made.observations)
}

/** One by one, so that a long file of bad observations is given up after the first few. */
function readLog(raw: object): Observation[] {
  const { observations, ...head } = raw as { observations?: unknown }
  if (!Array.isArray(observations)) {
    throw new UnreadableFile([
      { path: 'observations', expected: 'a list of observations', found: found(observations) },
    ])
  }
  const top = LogFile.safeParse({ ...head, observations: [] })
  if (!top.success) throw new UnreadableFile(problemsOf(top.error, raw))
  const problems: Problem[] = []
  const list: RawObservation[] = []
  for (let i = 0; i < observations.length && problems.length < MAX_PROBLEMS; i++) {
    const parsed = ObservationSchema.safeParse(observations[i])
    if (parsed.success) list.push(parsed.data as RawObservation)
    else problems.push(...problemsOf(parsed.error, observations[i], undefined, ['observations', i]))
  }
  if (problems.length > 0) throw new UnreadableFile(problems.slice(0, MAX_PROBLEMS))
  return withClocks(list)
}

const PLURAL: Record<string, Kind> = {
  premises: 'premises',
  buildings: 'building',
  rooms: 'room',
  enclosures: 'enclosure',
  bars: 'bar',
  screws: 'screw',
  screwList: 'screw',
  breakers: 'breaker',
  feeder: 'feeder',
  feeders: 'feeder',
  electrodes: 'electrode',
  bonds: 'bond',
  photos: 'photo',
  amendments: 'amendment',
  adoptions: 'adoption',
  visits: 'visit',
  overrides: 'override',
  tasks: 'task',
  edits: 'edit',
  signings: 'signing',
  returnVisits: 'returnVisit',
  rechecks: 'recheck',
  circuit: 'circuit',
  circuits: 'circuit',
  segments: 'segment',
  conductors: 'conductor',
  exposures: 'exposure',
  outlets: 'outlet',
  points: 'outlet',
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
