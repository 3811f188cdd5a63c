import { dropOf, type Drop } from '../diagnosis/drop'
import { rank, type Ranked, type Ranking } from '../diagnosis/outlet'
import type { ReadingName, Readings, Setting } from '../diagnosis/states'
import type { FieldName } from '../model/fields'
import { factAt, valueOf, whereSeen, type FactRef, type Known, type Subject } from '../model/house'
import { sizeIndex, type Size } from '../tables/ampacity'
import { Question, type Site } from './site'

/** Which fact of an outlet each reading of the diagnosis is. */
export const READING_FIELDS: Readonly<Partial<Record<ReadingName, FieldName<'outlet'>>>> = {
  hotNeutral: 'hotNeutralV',
  hotGround: 'hotGroundV',
  neutralGround: 'neutralGroundV',
  otherHalf: 'otherHalfV',
  dropPercent: 'dropPercent',
  lamps: 'lamps',
  groundOhms: 'groundOhms',
  groundEarth: 'groundToReferenceV',
  narrowEarth: 'narrowToReferenceV',
  detectorOnGround: 'isGroundDetected',
  groundClampAmps: 'groundClampA',
  neutralGroundLoaded: 'neutralGroundRiseV',
  jumperSeen: 'hasNeutralGroundJumper',
}
const SETTING_FIELDS: Readonly<Partial<Record<keyof Setting, FieldName<'outlet'>>>> = {
  loadsOn: 'hasLoadsOn',
  runFt: 'runFt',
  testAmps: 'testLoadA',
}
/** Readings that make a diagnosis worth while; signs alone are judged sign by sign. */
const VOLTAGES: readonly FieldName<'outlet'>[] = [
  'hotNeutralV',
  'hotGroundV',
  'neutralGroundV',
  'otherHalfV',
]

/** What was read at an outlet, as the diagnosis takes it. */
export function readingsOf(outlet: Subject<'outlet'>): {
  readonly readings: Readings
  readonly setting: Setting
  readonly rests: readonly FactRef[]
} {
  const rests: FactRef[] = []
  const take = (fields: Readonly<Partial<Record<string, FieldName<'outlet'>>>>) =>
    Object.fromEntries(
      Object.entries(fields).flatMap(([name, field]) => {
        const fact = field && seenAt(outlet, field)
        if (!fact) return []
        rests.push(fact)
        return [[name, fact.value]]
      }),
    )
  const readings: Readings = take(READING_FIELDS)
  const setting: Setting = take(SETTING_FIELDS)
  return { readings, setting, rests }
}

/** A reading that was taken; it speaks only where it was. */
function seenAt(outlet: Subject<'outlet'>, field: FieldName<'outlet'>): Known | undefined {
  const fact = factAt(outlet, field)
  return fact && whereSeen(fact)
}

export interface ReadState {
  readonly ranking: Ranking
  /** Every way that fits, whichever mode the meter was in, where none of them is one alone; likeliest first. */
  readonly ways: () => readonly Ranked[]
  readonly rests: readonly FactRef[]
}
const READ_STATES = new Question<ReadState>()

/** What the voltages recorded at an outlet prove; undefined where none was. */
export function readStateOf(site: Site, outlet: Subject<'outlet'>): ReadState | undefined {
  if (!VOLTAGES.some(field => seenAt(outlet, field))) return undefined
  const answers = site.kept(READ_STATES)
  let state = answers.get(outlet.id)
  if (!state) {
    const { readings, setting, rests } = readingsOf(outlet)
    // The fields ask for low-impedance mode. What that does not explain may have been read without it.
    const low = rank(readings, { ...setting, meter: 'low' })
    const ranking = low.unexplained.length > 0 ? rank(readings, setting) : low
    const ways = () => {
      const either = ranking === low ? [low, rank(readings, setting)] : [ranking]
      return either.flatMap(r => r.states.filter(s => r.fitting.includes(s.state)))
    }
    answers.set(outlet.id, (state = { ranking, ways, rests }))
  }
  return state
}

/**
 * The drop recorded at an outlet, split into what the run explains and what a joint makes. The run is taken in the
 * conductor gauged at the device, else in the thinnest of the circuit where all of it was gauged.
 */
export function readDropOf(
  site: Site,
  outlet: Subject<'outlet'>,
): {
  readonly drop: Drop | undefined
  readonly size: Size | undefined
  readonly rests: readonly FactRef[]
} {
  const { readings, setting, rests } = readingsOf(outlet)
  const circuit = site.get(valueOf(outlet, 'circuit'), 'circuit')
  const sizes = circuit ? site.children(circuit, 'segment').map(s => valueOf(s, 'size')) : []
  const size = valueOf(outlet, 'size') ?? (sizes.includes(undefined) ? undefined : thinnest(sizes))
  return { drop: dropOf(readings, { ...setting, ...(size && { size }) }), size, rests }
}

const thinnest = (sizes: readonly (Size | undefined)[]): Size | undefined =>
  sizes
    .flatMap(size => size ?? [])
    .sort((a, b) => sizeIndex(a) - sizeIndex(b))
    .at(0)
