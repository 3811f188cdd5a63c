import { recordedScope, visitOf, type Attestation, type OpenLook, type Question } from '#core'

/** The visit of the open job: what is asked within its scope, and how the scope is changed. */
export function useVisit() {
  const job = useJobStore()
  const scope = computed(() => recordedScope(job.site))
  const visit = computed(() => visitOf(job.site, [...job.results.values()], scope.value))
  const looks = computed(() => new Map(job.looks.map(l => [`${l.subject} ${l.field}`, l])))
  const looksOfQuestion = (q: Question): OpenLook[] =>
    q.things.flatMap(t => looks.value.get(`${t.id} ${q.field}`) ?? [])

  const { choose, setAccess, setInstrument, setSample } = useScope()

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
    attest,
  }
}
