import type { Comparison } from '../engine/verdict'
import { asTyped, quantity, type Units } from '../model/units'
import {
  FIELDS,
  fieldOf,
  KIND_LABEL,
  type AnyValue,
  type Field,
  type Kind,
  type Stage,
} from '../model/fields'
import { valueAt, valueOf, type FactRef, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { remedyById } from '../remedies'
import { ruleById } from '../rules'

/**
 * What a thing is called on screens and in reports. Made once per site: a judgment names the same
 * things over and over.
 */
export function labelOf(site: Site, subject: Subject): string {
  const { labels } = site.names
  let label = labels.get(subject)
  if (label === undefined) labels.set(subject, (label = makeLabel(site, subject)))
  return label
}

function makeLabel(site: Site, subject: Subject): string {
  switch (subject.kind) {
    case 'breaker': {
      const breaker = subject
      const name = valueOf(site.circuitsOf(breaker)[0], 'label') ?? valueOf(breaker, 'label')
      return [spaceOf(site, breaker) ?? 'breaker', name].filter(Boolean).join(' · ')
    }
    case 'circuit': {
      const circuit = subject
      const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
      return [breaker && spaceOf(site, breaker), valueOf(circuit, 'label') ?? 'circuit']
        .filter(Boolean)
        .join(' · ')
    }
    case 'segment': {
      const circuit = site.get(subject.parent ?? undefined, 'circuit')
      const where = valueOf(subject, 'name')
      return [circuit && labelOf(site, circuit), where ?? 'conductors'].filter(Boolean).join(' · ')
    }
    case 'feeder': {
      const target = site.enclosuresOn(subject)[0]
      return target ? `feeder to ${labelOf(site, target)}` : 'feeder'
    }
    case 'bar': {
      const panel = site.get(subject.parent ?? undefined, 'enclosure')
      const role = valueOf(subject, 'role') ?? 'unidentified'
      return `${panel ? `${labelOf(site, panel)} · ` : ''}${role} bar`
    }
    case 'screw': {
      const bar = site.get(subject.parent ?? undefined, 'bar')
      const position = valueOf(subject, 'position') ?? ''
      return `${bar ? `${labelOf(site, bar)} · ` : ''}screw ${position}`.trim()
    }
    case 'exposure': {
      const parent = site.house.subjects.get(subject.parent ?? '')
      const name = valueOf(subject, 'name') ?? 'hot or crowded stretch'
      return `${parent ? `${labelOf(site, parent)} · ` : ''}${name}`
    }
    case 'amendment': {
      const rule = valueOf(subject, 'rule')
      return rule === undefined
        ? 'local amendment'
        : `local amendment: ${ruleById(rule)?.fault.toLowerCase() ?? rule}`
    }
    case 'adoption': {
      const edition = valueOf(subject, 'edition')
      return edition === undefined ? 'edition adopted here' : `${edition} edition adopted here`
    }
    case 'override': {
      const thing = site.house.subjects.get(valueOf(subject, 'of') ?? '')
      return thing ? `weighed by hand: ${labelOf(site, thing)}` : 'weighed by hand'
    }
    case 'task': {
      const title = remedyById(valueOf(subject, 'remedy') ?? '')?.title ?? 'planned work'
      const thing = site.house.subjects.get(valueOf(subject, 'of') ?? '')
      return thing ? `${title}: ${labelOf(site, thing)}` : title
    }
    case 'edit':
    case 'recheck': {
      const thing = site.house.subjects.get(valueOf(subject, 'of') ?? '')
      const what = KIND_LABEL[subject.kind]
      return thing ? `${what}: ${labelOf(site, thing)}` : what
    }
    case 'signing':
      return `revision ${valueOf(subject, 'number') ?? '?'}`
    case 'returnVisit':
      return `return visit ${valueOf(subject, 'number') ?? '?'}`
    case 'photo':
      return valueOf(subject, 'caption') ?? 'photograph'
    case 'premises':
      return valueOf(subject, 'name') ?? 'property'
    case 'outlet': {
      const room = site.roomOf(subject)
      const name = valueOf(subject, 'name') ?? subject.id
      const roomName = valueOf(room, 'name')
      const plain = roomName && !name.startsWith(roomName) ? `${roomName} · ${name}` : name
      if ((namesakesOf(site).get(`${room?.id} ${name}`) ?? 0) < 2) return plain
      const circuit = valueOf(site.get(valueOf(subject, 'circuit'), 'circuit'), 'label')
      return circuit === undefined ? `${plain} (${subject.id})` : `${plain} (${circuit})`
    }
    default:
      return String(valueAt(subject, 'name') ?? `${KIND_LABEL[subject.kind]} ${subject.id}`)
  }
}

/** How many outlets of a room go by one name: two of them are told apart by their circuits. */
function namesakesOf(site: Site): ReadonlyMap<string, number> {
  if (site.names.namesakes) return site.names.namesakes
  const count = new Map<string, number>()
  for (const outlet of site.all.outlet) {
    const key = `${valueOf(outlet, 'room')} ${valueOf(outlet, 'name') ?? outlet.id}`
    count.set(key, (count.get(key) ?? 0) + 1)
  }
  return (site.names.namesakes = count)
}

/** The space of a breaker; with its panel, where there are several. */
function spaceOf(site: Site, breaker: Subject<'breaker'>): string | undefined {
  const space = valueOf(breaker, 'space')
  if (space === undefined) return undefined
  const text = `space ${space}${valueOf(breaker, 'half') ?? ''}`
  const panel = site.get(breaker.parent ?? undefined, 'enclosure')
  return panel && site.all.enclosure.length > 1 ? `${labelOf(site, panel)}, ${text}` : text
}

/** A value as people write it, with its unit. */
export function valueText(field: Field, value: AnyValue, units?: Units): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (field.type === 'year' && Array.isArray(value)) return `${value[0]} to ${value[1]}`
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.join(', ')
  if (field === FIELDS.amendment.rule || field === FIELDS.override.rule)
    return ruleById(String(value))?.fault ?? String(value)
  if (field.type === 'number' && typeof value === 'number')
    return quantity(value, field.unit ?? '', units)
  const unit = field.type === 'choice' ? field.unit : undefined
  return unit ? `${value} ${unit}` : String(value)
}

/** A thing to look at: where, what, with which instrument, in which stage of the walk. */
export interface Look {
  subject: string
  kind: Kind
  label: string
  field: string
  fact: string
  look: string
  stage: Stage
  with: string | undefined
  state: 'unseen' | 'blocked' | 'assumed'
  reason: string | undefined
}

const LOOKS = new WeakMap<Site['names'], Map<FactRef, Look>>()

/** The look that would settle a missing fact. Made once per site: many judgments wait for the same look. */
export function lookFor(site: Site, ref: FactRef): Look {
  let looks = LOOKS.get(site.names)
  if (looks === undefined) LOOKS.set(site.names, (looks = new Map()))
  let look = looks.get(ref)
  if (look === undefined) looks.set(ref, (look = makeLook(site, ref)))
  return look
}

function makeLook(site: Site, ref: FactRef): Look {
  const subject = site.house.subjects.get(ref.subject)
  const kind = subject?.kind ?? 'premises'
  const field = fieldOf(kind, ref.field) ?? FIELDS.premises.name
  return {
    subject: ref.subject,
    kind,
    label: subject ? labelOf(site, subject) : ref.subject,
    field: ref.field,
    fact: field.label,
    look: field.look,
    stage: field.stage,
    with: field.with,
    state: ref.state === 'known' ? 'assumed' : ref.state,
    reason: ref.state === 'blocked' ? ref.reason : undefined,
  }
}

/** A comparison in the units that are shown; ratings of insulation stay in °C. */
export function compareIn(compare: Comparison, units: Units): Comparison {
  if (compare.unit !== '°C' || compare.isRating || units.celsius) return compare
  const [left, right] = [asTyped(compare.left, '°C', units), asTyped(compare.right, '°C', units)]
  return { ...compare, left, right, unit: '°F' }
}
