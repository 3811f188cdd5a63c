import {
  ACCESS_FACTS,
  INSTRUMENT_FACTS,
  recordedScope,
  visitOf,
  visitOfJob,
  type Access,
  type Attestation,
  type Instrument,
  type OpenLook,
  type Purpose,
  type Question,
  type Sample,
} from '#core'

type Draft = Parameters<ReturnType<typeof useJobStore>['record']>[0][number]

/** The visit of the open job: what is asked within its scope, and how the scope is changed. */
export function useVisit() {
  const job = useJobStore()
  const scope = computed(() => recordedScope(job.site))
  const visit = computed(() => visitOf(job.site, [...job.results.values()], scope.value))
  const looks = computed(() => new Map(job.looks.map(l => [`${l.subject} ${l.field}`, l])))
  const looksOfQuestion = (q: Question): OpenLook[] =>
    q.things.flatMap(t => looks.value.get(`${t.id} ${q.field}`) ?? [])

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
  /** Every look at one thing is taken. */
  const widen = (id: string) => say('widened', [...scope.value.widened, id])

  /** Writes what was attested: one step of undo. */
  function attest(attestation: Attestation) {
    job.record(
      attestation.writes.map(({ thing, field, value }) => ({
        act: 'note' as const,
        subject: thing,
        field,
        value,
        grade: 'seen' as const,
      })),
    )
  }
  return {
    scope,
    visit,
    looksOfQuestion,
    choose,
    setAccess,
    setInstrument,
    setSample,
    widen,
    attest,
  }
}
