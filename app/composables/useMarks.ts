import {
  isAsked,
  SEVERITIES,
  valueOf,
  type Severity,
  type Site,
  type SpokenResult,
  type Subject,
} from '#core'

/** A fault, or an undecided judgment that leans to one. */
export const isFinding = (r: SpokenResult): boolean =>
  r.outcome === 'fault' || r.leans !== undefined

export type Mark = Severity | 'undecided' | 'clear'
const ORDER: readonly Mark[] = [...SEVERITIES, 'undecided', 'clear']

/** The worst mark of some judgments; undefined where nothing was judged. */
export function worstMark(results: readonly SpokenResult[]): Mark | undefined {
  let worst: Mark | undefined
  for (const r of results) {
    const mark: Mark = isFinding(r)
      ? r.severity!
      : r.outcome === 'undecided'
        ? 'undecided'
        : 'clear'
    if (worst === undefined || ORDER.indexOf(mark) < ORDER.indexOf(worst)) worst = mark
  }
  return worst
}

/**
 * The subjects that hang together with a thing a person points at: a breaker with its circuits,
 * conductors and feeder.
 */
export function belongings(site: Site, subject: Subject): Subject[] {
  if (subject.kind === 'breaker') {
    const circuits = site.circuitsOf(subject)
    const wires = [
      ...circuits.flatMap(c => site.children(c, 'segment')),
      ...site.feedersFrom(subject),
    ]
    return [subject, ...circuits, ...wires, ...wires.flatMap(w => site.children(w, 'exposure'))]
  }
  // The screws of a whole bar are many: the ones that hold more than one conductor, and the unfinished ones, are shown.
  if (subject.kind === 'bar')
    return [
      subject,
      ...site
        .children(subject, 'screw')
        .filter(
          s =>
            valueOf(s, 'neutrals') === undefined ||
            valueOf(s, 'grounds') === undefined ||
            (valueOf(s, 'neutrals') ?? 0) + (valueOf(s, 'grounds') ?? 0) > 1,
        ),
    ]
  if (subject.kind === 'enclosure') {
    const feeder = site.get(valueOf(subject as Subject<'enclosure'>, 'fedFrom'), 'feeder')
    return feeder ? [subject, feeder, ...site.children(feeder, 'exposure')] : [subject]
  }
  if (subject.kind === 'premises') return [subject, ...site.all.adoption, ...site.all.amendment]
  return [subject]
}

/** Marks and judgments of things, from the open job. */
export function useMarks() {
  const job = useJobStore()
  const resultsOf = (subject: Subject): SpokenResult[] =>
    belongings(job.site, subject).flatMap(s => job.bySubject.get(s.id) ?? [])
  /** Open is drawn open where it leans, or where this visit asks for it; what lies outside stays quiet. */
  const isShown = (r: SpokenResult): boolean =>
    r.outcome !== 'undecided' ||
    r.leans !== undefined ||
    r.missing.some(m => {
      const thing = job.house.subjects.get(m.subject)
      return thing !== undefined && isAsked(job.covering, thing, m.field)
    })
  const markOf = (subject: Subject): Mark | undefined =>
    worstMark(resultsOf(subject).filter(isShown))
  return { resultsOf, markOf }
}
