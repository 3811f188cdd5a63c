import type { Subject } from '../model/house'
import { sizeName } from '../tables/allowed-device'
import { sizeIndex } from '../tables/ampacity'
import { electrodeConductorSize } from '../tables/grounding'
import type { Site } from './site'
import { Trail, type Walked } from './trail'

/** What is wrong with a grounding electrode conductor, by the message ids of the rule that judges it. */
export interface ElectrodeFault {
  readonly id: 'lands-on-nothing' | 'connection' | 'spliced' | 'no-jumper' | 'too-small'
  readonly data: Readonly<Record<string, string>>
}
export interface Soundness {
  readonly faults: readonly ElectrodeFault[]
  /** Everything that could be wrong with it has been looked at. */
  readonly isSeen: boolean
}

/**
 * Whether one grounding electrode conductor is sound: landing, connection, splices, jumpers of a water pipe, size
 * against the service conductors of the enclosure it lands in. 250.64, 250.66, 250.68, 250.70.
 */
export function soundnessOf(
  site: Site,
  electrode: Subject<'electrode'>,
  enclosure: Subject<'enclosure'>,
): Walked<Soundness> & { readonly value: Soundness } {
  const answers = site.kept<Walked<Soundness> & { readonly value: Soundness }>('electrodes')
  const key = `${electrode.id} ${enclosure.id}`
  let walked = answers.get(key)
  if (!walked) answers.set(key, (walked = look(electrode, enclosure)))
  return walked
}

function look(electrode: Subject<'electrode'>, enclosure: Subject<'enclosure'>) {
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
  const service = trail.ask(enclosure.facts.serviceSize)
  const serviceMetal = trail.ask(enclosure.facts.serviceMetal)
  const isJumpered = type === 'water pipe' ? trail.ask(facts.isJumpered) : true
  if (landsOn === 'isolated bar' || landsOn === 'nothing')
    fail('lands-on-nothing', { where: landsOn === 'nothing' ? 'nothing' : 'an isolated bar' })
  if (connection === 'loose' || connection === 'corroded' || connection === 'not a listed clamp')
    fail('connection', { connection })
  if (isSpliced) fail('spliced')
  if (isJumpered === false) fail('no-jumper')
  const least =
    service && serviceMetal && metal && type
      ? electrodeConductorSize(service, serviceMetal, metal, type)
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
  const isSeen = [isJumpered, landsOn, isSpliced, connection, size, least].every(
    x => x !== undefined,
  )
  return { value: { faults, isSeen }, rests: trail.rests }
}
