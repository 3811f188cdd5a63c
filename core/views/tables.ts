import type { House, Subject } from '../model/house'
import { valueOf } from '../model/house'
import { Site } from '../derive/site'
import { legsOf } from '../derive/legs'
import { assess } from '../assess/assess'
import { labelOf } from '../texts/labels'

/**
 * One row per breaker: the panel schedule as found. Cells unseen are written "not seen", never left
 * to be read as fine.
 */
export function panelSchedule(house: House): Record<string, string>[] {
  const site = new Site(house)
  const rows: Record<string, string>[] = []
  for (const enclosure of site.all.enclosure) {
    const breakers = [...site.children(enclosure, 'breaker')].sort(
      (a, b) => (valueOf(a, 'space') ?? 999) - (valueOf(b, 'space') ?? 999),
    )
    for (const breaker of breakers) rows.push(row(site, enclosure, breaker))
  }
  return rows
}

const seen = (value: string | number | undefined) =>
  value === undefined ? 'not seen' : String(value)

function row(
  site: Site,
  enclosure: Subject<'enclosure'>,
  breaker: Subject<'breaker'>,
): Record<string, string> {
  const circuit = site.circuitsOf(breaker)[0]
  const feeder = site.feedersFrom(breaker)[0]
  const segment = circuit ? site.children(circuit, 'segment')[0] : undefined
  const wire = (segment ?? feeder) as Subject<'segment'> | undefined
  return {
    panel: labelOf(site, enclosure),
    space: `${seen(valueOf(breaker, 'space'))}${valueOf(breaker, 'half') ?? ''}`,
    poles: seen(valueOf(breaker, 'poles')),
    'rating A': seen(valueOf(breaker, 'ratingAmps')),
    leg: legsOf(site, breaker).value?.join('') ?? 'not seen',
    feeds: feeder
      ? labelOf(site, feeder)
      : seen(
          valueOf(circuit, 'label') ??
            valueOf(breaker, 'label') ??
            (valueOf(breaker, 'role') === 'spare' ? 'spare' : undefined),
        ),
    'size AWG': wire ? seen(valueOf(wire, 'size')) : '',
    metal: wire ? seen(valueOf(wire, 'metal')) : '',
    wiring: wire ? seen(valueOf(wire, 'wiring')) : '',
    protection: seen(valueOf(breaker, 'protection')),
  }
}

/** One row per fault, per thing allowed to remain, and per undecided judgment. */
export function findingsTable(house: House): Record<string, string>[] {
  return assess(house)
    .results.filter(r => r.outcome !== 'clear' && r.outcome !== 'n/a')
    .map(r => ({
      outcome: r.outcome,
      severity: r.severity ?? '',
      where: r.subject.label,
      finding: r.title,
      why: r.why,
      'also failed': r.checks
        .slice(1)
        .map(c => c.sentence)
        .join('; '),
      unless: r.leans?.unless.join('; ') ?? '',
      'settled by': r.leans ? `${r.leans.ask.label}: ${r.leans.ask.look}` : '',
      standing: r.standing ?? '',
      'grade of evidence': r.grade ?? '',
      sections: r.sections.join(', '),
      rule: r.rule,
      working: r.working.join('; '),
      'look at next': (r.missing.length > 0 || !r.leans ? r.missing : [r.leans.ask])
        .map(m => `${m.label}: ${m.fact}`)
        .join('; '),
      remedies: r.remedies.map(m => `${m.title} (${m.verdict})`).join('; '),
    }))
}
