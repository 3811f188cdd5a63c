import { fieldOf, PREMISES_ID, type Kind, type Meaning } from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]

/** Records what was said: things that are not there yet are added, all in one step of undo. */
export function useSaid() {
  const job = useJobStore()

  function keep(means: readonly Meaning[]): readonly string[] {
    const drafts: Draft[] = []
    const made = new Map<string, string>()
    const note = (subject: string, field: string, value: Meaning['value']) => {
      if (value === null) return
      const kind = kindOf(subject)
      const declared = kind && fieldOf(kind, field)
      const isMeasured = /meter|tester|analyzer|thermometer/.test(declared?.with ?? '')
      drafts.push({ act: 'note', subject, field, value, grade: isMeasured ? 'measured' : 'seen' })
    }
    const kinds = new Map<string, Kind>()
    const kindOf = (id: string): Kind | undefined =>
      kinds.get(id) ?? job.house.subjects.get(id)?.kind
    const add = (spoken: string, kind: Kind, parent: string): string => {
      const id = crypto.randomUUID()
      made.set(spoken, id)
      kinds.set(id, kind)
      drafts.push({ act: 'add', subject: id, kind, parent })
      return id
    }
    /** The thing of the job that is spoken of; one that is not there yet is added with what it hangs on. */
    function thing(spoken: string, kind: Kind): string {
      if (job.house.subjects.has(spoken)) return spoken
      const known = made.get(spoken)
      if (known) return known
      const owner = spoken.slice(0, spoken.lastIndexOf('/'))
      switch (kind) {
        case 'breaker':
          return add(spoken, kind, owner)
        case 'circuit': {
          const breaker = thing(owner, 'breaker')
          const id = add(spoken, kind, PREMISES_ID)
          note(id, 'fedBy', breaker)
          return id
        }
        case 'segment':
          return add(spoken, kind, thing(owner, 'circuit'))
        case 'feeder': {
          const id = add(spoken, kind, PREMISES_ID)
          note(owner, 'fedFrom', id)
          return id
        }
        case 'screw': {
          const bar = bars(owner)
          const id = add(spoken, kind, bar)
          note(id, 'position', Number(/(\d+)$/.exec(spoken)?.[1] ?? 1))
          return id
        }
        default:
          return add(spoken, kind, PREMISES_ID)
      }
    }
    function bars(spoken: string): string {
      if (job.house.subjects.has(spoken)) return spoken
      const known = made.get(spoken)
      if (known) return known
      const id = add(spoken, 'bar', spoken.slice(0, spoken.lastIndexOf('/')))
      note(id, 'role', 'neutral')
      return id
    }
    for (const m of means) {
      const id = thing(m.thing, m.kind)
      if (m.blocked !== undefined) {
        drafts.push({ act: 'block', subject: id, field: m.field, reason: m.blocked })
        continue
      }
      const { value } = m
      // What points at other things points at those that are there.
      const refs = Array.isArray(value)
        ? (value as readonly (string | number)[]).map(v =>
            typeof v === 'string' ? thing(v, 'circuit') : v,
          )
        : value
      if (m.was !== undefined) note(id, m.field, m.was)
      note(id, m.field, refs as Meaning['value'])
    }
    job.record(drafts)
    return [...new Set(means.map(m => made.get(m.thing) ?? m.thing))]
  }
  return { keep }
}
