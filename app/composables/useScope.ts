import {
  ACCESS_FACTS,
  INSTRUMENT_FACTS,
  valueOf,
  visitOfJob,
  type Access,
  type Instrument,
  type Purpose,
  type Sample,
} from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]

/** How the scope of the visit is changed; it is part of the record, and undone like the rest. */
export function useScope() {
  const job = useJobStore()

  /** Says something of the visit; the first time it is recorded as a thing of its own. */
  function say(field: string, value: string | boolean | readonly string[]) {
    const known = visitOfJob(job.site)
    const id = known?.id ?? crypto.randomUUID()
    const drafts: Draft[] = known
      ? []
      : [{ act: 'add', subject: id, kind: 'visit', parent: 'premises' }]
    drafts.push({ act: 'note', subject: id, field, value, grade: 'told' })
    job.record(drafts)
  }
  /** Another purpose begins from its own preset. */
  function choose(purpose: Purpose) {
    const known = visitOfJob(job.site)
    job.record([
      ...(known ? [{ act: 'drop' as const, subject: known.id }] : []),
      { act: 'note', subject: 'premises', field: 'purpose', value: purpose, grade: 'told' },
    ])
  }
  const setAccess = (access: Access, is: boolean) => {
    const fact = ACCESS_FACTS.find(([, a]) => a === access)?.[0]
    if (fact) say(fact, is)
  }
  const setInstrument = (instrument: Instrument, is: boolean) => {
    const fact = INSTRUMENT_FACTS.find(([, i]) => i === instrument)?.[0]
    if (fact) say(fact, is)
  }
  const setSample = (sample: Sample) => say('sample', sample)
  /** Every look at these things is taken. */
  const widen = (ids: readonly string[]) => {
    const known = visitOfJob(job.site)
    say('widened', [...new Set([...(known ? (valueOf(known, 'widened') ?? []) : []), ...ids])])
  }

  return { choose, setAccess, setInstrument, setSample, widen }
}
