import { fieldOf, PARENTS, type Kind } from '../model/fields'
import type { House, Subject } from '../model/house'
import { factsOf, valueOf } from '../model/house'
import { Site } from '../derive/site'
import { expects, valueSchema } from '../model/values'
import type { Observation } from '../model/observation'
import { found, type Problem } from './problems'

/**
 * Checks observations against the declarations: every field belongs to its kind, every value to its field.
 * @param kindOf the kind of subjects that exist already
 */
export function checkObservations(observations: readonly Observation[], kindOf: (subject: string) => Kind | undefined, path: (i: number) => string): Problem[] {
  const problems: Problem[] = []
  const added = new Map<string, Kind>()
  const ids = new Map<string, number>()
  observations.forEach((o, i) => {
    const other = ids.get(o.id)
    if (other !== undefined) problems.push({ path: `${path(i)}.id`, expected: 'an id used once', found: `${found(o.id)}, also at ${path(other)}` })
    ids.set(o.id, i)
    if (o.act === 'add') {
      const before = added.get(o.subject) ?? kindOf(o.subject)
      if (before !== undefined && before !== o.kind) problems.push({ path: `${path(i)}.kind`, expected: `${before}, as this subject was added before`, found: o.kind })
      added.set(o.subject, o.kind)
    }
  })
  const kind = (subject: string) => added.get(subject) ?? kindOf(subject)
  observations.forEach((o, i) => {
    if (o.act === 'retract') return
    const own = kind(o.subject)
    if (own === undefined) {
      problems.push({ path: `${path(i)}.subject`, expected: 'a subject that was added', found: found(o.subject) })
      return
    }
    if (o.act === 'add') {
      const parent = o.parent === null ? undefined : kind(o.parent)
      const isRight = PARENTS[o.kind].length === 0 ? o.parent === null : parent !== undefined && PARENTS[o.kind].includes(parent)
      if (!isRight) problems.push({ path: `${path(i)}.parent`, expected: PARENTS[o.kind].length ? `the id of a ${PARENTS[o.kind].join(' or ')}` : 'null', found: found(o.parent) })
    }
    if (o.act !== 'note' && o.act !== 'block') return
    const field = fieldOf(own, o.field)
    if (!field) problems.push({ path: `${path(i)}.field`, expected: `a field of a ${own}`, found: found(o.field) })
    else if (o.act === 'note') {
      if (!valueSchema(field).safeParse(o.value).success) problems.push({ path: `${path(i)}.value`, expected: expects(field), found: found(o.value) })
    }
  })
  return problems.slice(0, 20)
}

/**
 * Checks that references point at the right things and that neither chains nor supply run in a circle.
 * @param gone ids of things that were there once and were taken out: what points at them points at nothing, and may
 */
export function checkLinks(house: House, gone: ReadonlySet<string> = new Set()): Problem[] {
  const problems: Problem[] = []
  for (const subject of house.subjects.values()) {
    for (const fact of factsOf(subject)) {
      if (fact.state !== 'known') continue
      const field = fieldOf(subject.kind, fact.field)
      if (field?.type !== 'ref' && field?.type !== 'refs') continue
      for (const id of field.type === 'refs' ? fact.value as readonly string[] : [fact.value as string]) {
        if (field.type === 'ref' && (field.words as readonly string[]).includes(id)) continue
        const target = house.subjects.get(id)
        if (!target && gone.has(id)) continue
        if (!target || !field.kinds.includes(target.kind)) problems.push({ path: `${subject.id}.${fact.field}`, expected: expects(field), found: target ? `${found(id)} (${target.kind})` : `${found(id)}, which is not in the file` })
      }
    }
  }
  const site = new Site(house)
  const circle = (start: Subject, field: string, next: (s: Subject) => Subject | undefined) => {
    const walked = new Set<string>()
    for (let at: Subject | undefined = start; at; at = next(at)) {
      if (walked.has(at.id)) {
        if (at === start) problems.push({ path: `${start.id}.${field}`, expected: 'a chain that leads to the supply', found: `a circle through ${[...walked].slice(0, 6).join(', ')}` })
        return
      }
      walked.add(at.id)
    }
  }
  for (const point of site.all.point) circle(point, 'after', p => site.get(valueOf(p as Subject<'point'>, 'after'), 'point'))
  for (const enclosure of site.all.enclosure) {
    circle(enclosure, 'fedFrom', (e) => {
      const feeder = site.get(valueOf(e as Subject<'enclosure'>, 'fedFrom'), 'feeder')
      const from = feeder && valueOf(feeder, 'from')
      return site.get(from, 'enclosure') ?? site.get(site.get(from, 'breaker')?.parent ?? undefined, 'enclosure')
    })
  }
  return problems.slice(0, 20)
}
