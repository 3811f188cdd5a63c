import { SEVERITIES, valueOf, type Severity, type Site, type SpokenResult, type Subject } from '#core'

export type Mark = Severity | 'undecided' | 'clear'
const ORDER: readonly Mark[] = [...SEVERITIES, 'undecided', 'clear']

/** The worst mark of some judgements; undefined where nothing was judged. */
export function worstMark(results: readonly SpokenResult[]): Mark | undefined {
  let worst: Mark | undefined
  for (const r of results) {
    const mark: Mark = r.outcome === 'fault' ? r.severity! : r.outcome === 'undecided' ? 'undecided' : 'clear'
    if (worst === undefined || ORDER.indexOf(mark) < ORDER.indexOf(worst)) worst = mark
  }
  return worst
}

/** The subjects that hang together with a thing a person points at: a breaker with its circuits, conductors and feeder. */
export function belongings(site: Site, subject: Subject): Subject[] {
  if (subject.kind === 'breaker') {
    const circuits = site.circuitsOf(subject)
    return [subject, ...circuits, ...circuits.flatMap(c => site.children(c, 'segment')), ...site.feedersFrom(subject)]
  }
  if (subject.kind === 'bar') return [subject, ...site.children(subject, 'screw')]
  if (subject.kind === 'enclosure') {
    const feeder = site.get(valueOf(subject as Subject<'enclosure'>, 'fedFrom'), 'feeder')
    return feeder ? [subject, feeder] : [subject]
  }
  return [subject]
}

/** Marks and judgements of things, from the open job. */
export function useMarks() {
  const job = useJobStore()
  const resultsOf = (subject: Subject): SpokenResult[] => belongings(job.site, subject).flatMap(s => job.bySubject.get(s.id) ?? [])
  const markOf = (subject: Subject): Mark | undefined => worstMark(resultsOf(subject))
  return { resultsOf, markOf }
}
