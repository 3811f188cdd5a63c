import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import { requirementsOf } from '../tables/protection-years'
import { EDITIONS } from '../tables/editions'
import { TURNS } from '../tables/years'
import { RULES } from '../rules'
import { labelOf } from '../texts/labels'

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

/** What was required when, and what was built when: for the whole premises, one room, or one rule. */
export function timelineOf(
  site: Site,
  about: { room?: Subject<'room'>; rule?: string } = {},
): Moment[] {
  const moments: Moment[] = []
  const use = valueOf(about.room, 'use')
  if (about.room) {
    for (const row of use ? requirementsOf(use) : [])
      moments.push({ year: row.since, lane: 'required', text: `${row.protection}: ${row.text}` })
    for (const outlet of site.all.outlet)
      if (valueOf(outlet, 'room') === about.room.id) part(outlet)
  } else {
    for (const rule of RULES)
      if (rule.since && (!about.rule || about.rule === rule.id))
        moments.push({ year: rule.since, lane: 'required', text: rule.title, rule: rule.id })
    for (const s of TURNS)
      if (!about.rule || about.rule === s.rule)
        moments.push({ year: s.year, lane: 'required', text: s.text, rule: s.rule })
    for (const s of [...site.all.enclosure, ...site.all.feeder, ...site.all.circuit]) part(s)
  }
  for (const s of [site.premises, ...site.all.building]) {
    const built = s.facts.yearBuilt
    if (built.state === 'known') house(s, built.value, 'built')
  }
  for (const edition of EDITIONS)
    moments.push({
      year: edition,
      lane: 'edition',
      text: edition === site.edition ? `${edition} edition, in force here` : `${edition} edition`,
    })
  for (const adoption of site.all.adoption) {
    const edition = valueOf(adoption, 'edition')
    const since = valueOf(adoption, 'year')
    if (edition !== undefined && since !== undefined)
      moments.push({ year: since, lane: 'edition', text: `${edition} edition becomes law here` })
  }
  moments.push({ year: site.visitYear, lane: 'house', text: 'this visit' })
  return moments.sort((a, b) => a.year - b.year || a.text.localeCompare(b.text))

  function part(subject: Subject<'enclosure' | 'feeder' | 'circuit' | 'outlet'>) {
    const { year } = subject.facts
    if (year.state === 'known') house(subject, year.value, '')
  }
  function house(subject: Subject, value: number | readonly [number, number], what: string) {
    const [year, until] = typeof value === 'number' ? [value, undefined] : value
    moments.push({
      year,
      ...(until !== undefined && { until }),
      lane: 'house',
      text: [labelOf(site, subject), what].filter(Boolean).join(' '),
      subject: subject.id,
    })
  }
}
