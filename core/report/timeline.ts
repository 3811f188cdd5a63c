import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { requirementsOf } from '../tables/protection-years'
import { EDITIONS } from '../tables/editions'
import { RULES } from '../rules'
import { labelOf } from './labels'

/** Something that happened in a year, or was required from it. */
export interface Moment {
  readonly year: number
  /** Last year it may have been, where the year is an interval. */
  readonly until?: number
  readonly lane: 'required' | 'house' | 'edition'
  readonly text: string
  readonly subject?: string
  readonly rule?: string
}

const SINCE_IN_RULES: readonly { year: number, text: string, rule: string }[] = [
  { year: 1959, text: 'kitchen and laundry circuits of 20 A', rule: 'required-20A-circuit-downsized' },
  { year: 1962, text: 'grounding-type receptacles', rule: 'open-ground-three-slot' },
  { year: 1971, text: 'CO/ALR devices for aluminium', rule: 'aluminium-at-unmarked-device' },
  { year: 1996, text: 'bathroom receptacles on 20 A; new dryers and ranges on four wires', rule: 'required-20A-circuit-downsized' },
  { year: 1999, text: 'white used as hot marked at every end', rule: 'hot-on-unmarked-white' },
  { year: 2008, text: 'new feeders to separate buildings with a ground', rule: 'three-wire-feeder' },
  { year: 2017, text: 'garage circuit of 20 A', rule: 'required-20A-circuit-downsized' },
]

/** What was required when, and what was built when: for the whole premises, one room, or one rule. */
export function timelineOf(site: Site, about: { room?: Subject<'room'>, rule?: string } = {}): Moment[] {
  const moments: Moment[] = []
  const use = valueOf(about.room, 'use')
  if (about.room) {
    for (const row of use ? requirementsOf(use) : []) moments.push({ year: row.since, lane: 'required', text: `${row.protection}: ${row.text}` })
    for (const point of site.all.point) if (valueOf(point, 'room') === about.room.id) part(point)
  } else {
    for (const rule of RULES) if (rule.since && (!about.rule || about.rule === rule.id)) moments.push({ year: rule.since, lane: 'required', text: rule.title, rule: rule.id })
    for (const s of SINCE_IN_RULES) if (!about.rule || about.rule === s.rule) moments.push({ year: s.year, lane: 'required', text: s.text, rule: s.rule })
    for (const s of [...site.all.enclosure, ...site.all.feeder, ...site.all.circuit]) part(s)
  }
  for (const s of [site.premises, ...site.all.building]) {
    const built = (s as Subject<'building'>).facts.yearBuilt
    if (built?.state === 'known') house(s, built.value, 'built')
  }
  for (const edition of EDITIONS) moments.push({ year: edition, lane: 'edition', text: edition === site.edition ? `${edition} edition, in force here` : `${edition} edition` })
  moments.push({ year: site.visitYear, lane: 'house', text: 'this visit' })
  return moments.sort((a, b) => a.year - b.year || a.text.localeCompare(b.text))

  function part(subject: Subject) {
    const year = (subject.facts as Subject<'circuit'>['facts']).year
    if (year?.state === 'known') house(subject, year.value, '')
  }
  function house(subject: Subject, value: number | readonly [number, number], what: string) {
    const [year, until] = typeof value === 'number' ? [value, undefined] : value
    moments.push({ year, ...until !== undefined && { until }, lane: 'house', text: [labelOf(site, subject), what].filter(Boolean).join(' '), subject: subject.id })
  }
}
