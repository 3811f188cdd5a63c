import {
  factsOf,
  PREMISES_ID,
  valueOf,
  type AnyValue,
  type Grade,
  type Kind,
  type Subject,
} from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]
const add = (subject: string, kind: Kind, parent: string): Draft => ({
  act: 'add',
  subject,
  kind,
  parent,
})
const note = (subject: string, field: string, value: AnyValue, grade: Grade = 'seen'): Draft => ({
  act: 'note',
  subject,
  field,
  value,
  grade,
})

/** What belongs to this one enclosure and not to another like it. */
const OWN = new Set([
  'name',
  'order',
  'fedFrom',
  'marking',
  'contradictions',
  'directory',
  'ambientC',
  'work',
  'year',
  'bondMeans',
  'electrodes',
])
const BREAKER_LAYOUT = new Set([
  'space',
  'half',
  'poles',
  'ratingAmps',
  'protection',
  'device',
  'handleTie',
  'role',
])

/** Draws, copies, names, orders and removes enclosures. Each is one step of undo. */
export function useEnclosures() {
  const job = useJobStore()
  const ordered = computed(() =>
    [...job.site.all.enclosure]
      .map((e, i) => ({ e, at: valueOf(e, 'order') ?? i }))
      .sort((a, b) => a.at - b.at)
      .map(x => x.e),
  )

  function copy(source: Subject<'enclosure'>): string {
    const id = crypto.randomUUID()
    const drafts: Draft[] = [
      add(id, 'enclosure', source.parent ?? PREMISES_ID),
      note(id, 'name', `${valueOf(source, 'name') ?? 'Enclosure'}, another`),
    ]
    for (const fact of factsOf(source))
      if (fact.state === 'known' && !OWN.has(fact.field))
        drafts.push(note(id, fact.field, fact.value, 'assumed'))
    for (const bar of job.site.children(source, 'bar')) {
      const b = crypto.randomUUID()
      drafts.push(add(b, 'bar', id))
      const role = valueOf(bar, 'role')
      if (role) drafts.push(note(b, 'role', role, 'assumed'))
    }
    for (const breaker of job.site.children(source, 'breaker')) {
      const b = crypto.randomUUID()
      drafts.push(add(b, 'breaker', id))
      for (const fact of factsOf(breaker))
        if (fact.state === 'known' && BREAKER_LAYOUT.has(fact.field))
          drafts.push(
            note(
              b,
              fact.field,
              fact.value,
              fact.field === 'space' || fact.field === 'half' || fact.field === 'poles'
                ? 'seen'
                : 'assumed',
            ),
          )
    }
    job.record(drafts)
    return id
  }
  const rename = (e: Subject<'enclosure'>, name: string) => {
    if (name.trim()) job.record([note(e.id, 'name', name.trim())])
  }
  function reorder(ids: readonly string[]) {
    job.record(ids.map((id, i) => note(id, 'order', i)))
  }
  function remove(e: Subject<'enclosure'>) {
    // Circuits of its breakers stay: what they feed is still in the house, and somebody has to find what feeds it.
    job.record([{ act: 'drop', subject: e.id }])
  }
  return { ordered, copy, rename, reorder, remove }
}
