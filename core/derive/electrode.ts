import { whereSeen, type Subject } from '../model/house'
import { sizeName } from '../tables/allowed-device'
import { sizeIndex } from '../tables/ampacity'
import { electrodeConductorSize } from '../tables/grounding'
import { serviceConductors } from './service-conductors'
import { Question, type Site } from './site'
import { Trail, type Walked } from './trail'

/** What is wrong with a grounding electrode conductor, by the message ids of the rule that judges it. */
export interface ElectrodeFault {
  readonly id:
    | 'lands-on-nothing'
    | 'lands-on-enclosure'
    | 'lands-behind-screw'
    | 'aluminum-near-earth'
    | 'unprotected'
    | 'connection'
    | 'clamp-hidden'
    | 'spliced'
    | 'no-jumper'
    | 'too-small'
  readonly data: Readonly<Record<string, string>>
}
export interface Soundness {
  readonly faults: readonly ElectrodeFault[]
  /** Everything that could be wrong with it has been looked at. */
  readonly isSeen: boolean
}
const SOUNDNESS = new Question<Walked<Soundness> & { readonly value: Soundness }>()

/** What may never be an electrode, whatever its conductor is like. 250.52(B). */
export const isForbidden = (type: string | undefined): boolean =>
  type === 'gas pipe' || type === 'pool shell'

/**
 * Whether one grounding electrode conductor is sound: landing, connection, splices, jumpers of a water pipe, size
 * against the service conductors of the enclosure it lands in. 250.64, 250.66, 250.68, 250.70.
 */
export function soundnessOf(
  site: Site,
  electrode: Subject<'electrode'>,
  enclosure: Subject<'enclosure'>,
): Walked<Soundness> & { readonly value: Soundness } {
  const answers = site.kept(SOUNDNESS)
  const key = `${electrode.id} ${enclosure.id}`
  let walked = answers.get(key)
  if (!walked) answers.set(key, (walked = look(site, electrode, enclosure)))
  return walked
}

function look(site: Site, electrode: Subject<'electrode'>, enclosure: Subject<'enclosure'>) {
  const trail = new Trail()
  const { facts } = electrode
  const faults: ElectrodeFault[] = []
  const fail = (id: ElectrodeFault['id'], data: ElectrodeFault['data'] = {}) =>
    faults.push({ id, data })
  const type = trail.ask(facts.type)
  const connection = trail.ask(facts.connection)
  const isSpliced = trail.ask(facts.isSpliced)
  const landsOn = trail.ask(facts.landsOn)
  const size = trail.ask(facts.size)
  const metal = trail.ask(facts.metal)
  const conductors = serviceConductors(site, enclosure, trail)
  const service = conductors.size()
  const serviceMetal = conductors.metal()
  const isJumpered = type === 'water pipe' ? trail.ask(facts.isJumpered) : true
  if (landsOn === 'isolated bar' || landsOn === 'nothing')
    fail('lands-on-nothing', { where: landsOn === 'nothing' ? 'nothing' : 'an isolated bar' })
  let isLandingSeen = landsOn !== undefined
  if (landsOn === 'enclosure') fail('lands-on-enclosure')
  if (landsOn === 'ground bar') {
    // The bar it lands on may be in another enclosure than the service disconnect, such as the meter.
    const landsIn = site.get(trail.ask(facts.landsIn), 'enclosure') ?? enclosure
    const isTied = groundBarTied(site, landsIn, trail)
    if (isTied === false) fail('lands-behind-screw')
    if (isTied === undefined) isLandingSeen = false
  }
  // Aluminum corrodes near the soil; small copper breaks where it is not protected. 250.64(A), (B).
  const isNearEarth = metal === 'aluminum' ? trail.ask(facts.isNearEarth) : false
  if (isNearEarth) fail('aluminum-near-earth')
  const isProtected = size === '8' ? trail.ask(facts.isProtected) : true
  if (isProtected === false) fail('unprotected')
  if (connection === 'loose' || connection === 'corroded' || connection === 'not a listed clamp')
    fail('connection', { connection })
  if (isSpliced) fail('spliced')
  // A rod or a footing may hide its clamp; that of a pipe or of steel stays in reach. 250.68(A).
  const place = whereSeen(facts.clampPlace) && trail.ask(facts.clampPlace)
  if (place === 'behind a finish') fail('clamp-hidden')
  if (isJumpered === false) fail('no-jumper')
  const least =
    service && serviceMetal && metal && type && !isForbidden(type)
      ? electrodeConductorSize(service, serviceMetal, metal, type, conductors.sets())
      : undefined
  if (
    size &&
    least &&
    service &&
    serviceMetal &&
    metal &&
    type &&
    sizeIndex(size) < sizeIndex(least)
  ) {
    fail('too-small', {
      size: sizeName(size),
      metal,
      type,
      least: sizeName(least),
      service: sizeName(service),
      serviceMetal,
    })
  }
  const isSeen =
    [isJumpered, isSpliced, connection, size, least, isNearEarth, isProtected].every(
      x => x !== undefined,
    ) && isLandingSeen
  return { value: { faults, isSeen }, rests: trail.rests }
}

/**
 * Whether a wire or busbar ties the ground bar to the neutral: only then may an electrode conductor land on it. A bar
 * held to the enclosure by the green screw alone puts the screw in the way of lightning. 250.24(A)(4).
 */
function groundBarTied(
  site: Site,
  enclosure: Subject<'enclosure'>,
  trail: Trail,
): boolean | undefined {
  const bars = site.children(enclosure, 'bar').filter(b => trail.ask(b.facts.role) === 'ground')
  const ties = bars.map(b => trail.ask(b.facts.isTiedToNeutral))
  if (ties.includes(true)) return true
  const means = trail.ask(enclosure.facts.bondMeans)
  if (means === 'listed bar') return true
  // A wire jumper may go to the bar or to the enclosure; where no bar was recorded, nobody has seen which.
  if (ties.includes(undefined) || means === undefined) return undefined
  return ties.length === 0 && means === 'wire jumper' ? undefined : false
}
