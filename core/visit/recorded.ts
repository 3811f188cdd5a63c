import type { FieldName } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import type { Access, Instrument } from './access'
import { PRESETS, scopeOf, type Purpose, type Scope, type ScopeInput } from './scope'

type Said = FieldName<'visit'>

/** Which fact of a visit says whether a class of looks is taken. */
export const ACCESS_FACTS: readonly (readonly [Said, Access])[] = [
  ['coverOff', 'cover off'],
  ['devicePulled', 'device pulled'],
  ['boxOpened', 'box opened'],
  ['atticEntered', 'attic or crawl space'],
  ['recordAsked', 'record'],
  ['loadedTest', 'loaded test'],
]
/** Which fact of a visit says whether an instrument is carried. */
export const INSTRUMENT_FACTS: readonly (readonly [Said, Instrument])[] = [
  ['lampTester', 'three-lamp tester'],
  ['voltageTester', 'voltage tester'],
  ['detector', 'non-contact detector'],
  ['multimeter', 'multimeter'],
  ['analyzer', 'branch analyzer'],
  ['clamp', 'clamp meter'],
  ['tracer', 'circuit tracer'],
  ['infrared', 'infrared thermometer'],
  ['thermometer', 'thermometer'],
  ['groundTester', 'ground resistance tester'],
]

/** The visit recorded last; its facts change what the preset of the purpose promises. */
export const visitOfJob = (site: Site): Subject<'visit'> | undefined => site.all.visit.at(-1)

/**
 * The scope as the job records it: the preset of its purpose, with what was said of the visit on top.
 * @param over what somebody asks for now, on top of both
 */
export function recordedScope(site: Site, over: ScopeInput = {}): Scope {
  const visit = visitOfJob(site)
  const purpose: Purpose = over.purpose ?? valueOf(site.premises, 'purpose') ?? 'purchase'
  const preset = PRESETS[purpose]
  // Asked for another purpose, its own preset holds.
  const isOther = over.purpose !== undefined && over.purpose !== valueOf(site.premises, 'purpose')
  const said = isOther ? undefined : visit
  const access = over.access ?? chosen(said, ACCESS_FACTS, preset.access)
  const instruments = over.instruments ?? chosen(said, INSTRUMENT_FACTS, preset.instruments)
  return scopeOf({
    purpose,
    access: [...access],
    instruments: [...instruments],
    sample: over.sample ?? valueOf(said, 'sample') ?? preset.sample,
    named: over.named ?? [...(valueOf(said, 'named') ?? [])],
    area: over.area ?? [...(valueOf(said, 'area') ?? [])],
    widened: over.widened ?? [...(valueOf(said, 'widened') ?? [])],
  })
}

/** The preset with each thing said put in or taken out. */
function chosen<T extends string>(
  visit: Subject<'visit'> | undefined,
  facts: readonly (readonly [Said, T])[],
  preset: readonly T[],
): readonly T[] {
  const result = new Set(preset)
  for (const [field, what] of facts) {
    const is = valueOf(visit, field)
    if (is === true) result.add(what)
    if (is === false) result.delete(what)
  }
  return [...result]
}
