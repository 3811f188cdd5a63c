import { defineStore } from 'pinia'
import { Ledger, looksOf, resultKey, Site, type House, type Kind, type Observation, type SpokenResult, type Totals, type AnyValue, type Grade, valueOf } from '#core'
import { Appended, Job } from '#shared/api'
import { ObservationSchema } from '#core'
import type { JudgeAnswer, JudgeRequest } from '~/workers/judge.worker'

/** on-disk: acknowledged · saving: on its way · held: kept on this device, the server has not answered · refused: the server will not take it. */
export type SaveState = 'on-disk' | 'saving' | 'held' | 'refused'
type Draft = { act: 'add', subject: string, kind: Kind, parent: string | null } | { act: 'drop', subject: string } | { act: 'note', subject: string, field: string, value: AnyValue, grade: Grade, instrument?: string } | { act: 'block', subject: string, field: string, reason: string } | { act: 'retract', target: string }

const BATCH = 500
const RETRY_MS = 4000
const pendingKey = (id: string) => `corvit-pending-${id}`

/** The open job: its log, the house it folds to, its judgements, and what is not on disk yet. */
export const useJobStore = defineStore('job', () => {
  let ledger = new Ledger()
  let worker: Worker | undefined
  let run = 0
  let flushing: Promise<void> | undefined
  let retry: ReturnType<typeof setTimeout> | undefined
  const jobId = ref<string>()
  const house = shallowRef<House>({ subjects: new Map() })
  const results = shallowRef<ReadonlyMap<string, SpokenResult>>(new Map())
  const totals = shallowRef<Totals>()
  const pending = shallowRef<readonly Observation[]>([])
  const saveState = ref<SaveState>('on-disk')
  const saveProblem = ref('')
  const isJudged = ref(false)
  /** The first judgement of the open job has arrived: before it, nothing may be said to be found or not found. */
  const isReady = ref(false)
  const done = shallowRef<readonly (readonly string[])[]>([])
  const undone = shallowRef<readonly (readonly string[])[]>([])

  const site = computed(() => new Site(house.value))
  const assessor = computed(() => valueOf(site.value.premises, 'assessor') ?? 'assessor')
  const bySubject = computed(() => {
    const map = new Map<string, SpokenResult[]>()
    for (const result of results.value.values()) {
      const list = map.get(result.subject.id)
      if (list) list.push(result)
      else map.set(result.subject.id, [result])
    }
    return map
  })
  const faults = computed(() => [...results.value.values()].filter(r => r.outcome === 'fault'))
  const looks = computed(() => looksOf([...results.value.values()]))

  async function open(id: string): Promise<void> {
    if (jobId.value === id) return
    close()
    const { job, observations } = await api(`/api/jobs/${id}`, Job)
    jobId.value = job.id
    const held = readHeld(id)
    ledger = new Ledger(observations as Observation[])
    ledger.append(held)
    house.value = ledger.house
    startJudging(ledger.log())
    if (held.length > 0) {
      pending.value = held
      void flush()
    }
  }

  function close(): void {
    worker?.terminate()
    worker = undefined
    clearTimeout(retry)
    ledger = new Ledger()
    house.value = ledger.house
    results.value = new Map()
    totals.value = undefined
    pending.value = []
    done.value = undone.value = []
    saveState.value = 'on-disk'
    isJudged.value = isReady.value = false
    jobId.value = undefined
  }

  function startJudging(observations: Observation[]): void {
    worker = new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<JudgeAnswer>) => {
      const next = new Map(data.start ? [] : results.value)
      for (const key of data.gone) next.delete(key)
      for (const result of data.changed) {
        const key = resultKey(result.rule, result.subject.id)
        if (result.outcome === 'n/a') next.delete(key)
        else next.set(key, result)
      }
      results.value = next
      totals.value = data.totals
      isJudged.value = data.run === run
      isReady.value = true
    }
    post(observations, true)
  }
  function post(observations: readonly Observation[], start = false): void {
    run++
    isJudged.value = false
    worker?.postMessage({ run, start, observations: JSON.parse(JSON.stringify(observations)) } satisfies JudgeRequest)
  }

  /** Records what was seen. One call is one step of undo. */
  function record(drafts: readonly Draft[], step: 'new' | 'undo' | 'redo' = 'new'): readonly string[] {
    if (drafts.length === 0) return []
    const at = Date.now()
    const observations = drafts.map((d, i) => ({ ...d, id: crypto.randomUUID(), at: new Date(at + i).toISOString(), by: assessor.value }) as Observation)
    ledger.append(observations)
    house.value = ledger.house
    const ids = observations.map(o => o.id)
    if (step === 'new') {
      done.value = [...done.value, ids]
      undone.value = []
    }
    post(observations)
    pending.value = [...pending.value, ...observations]
    hold()
    void flush()
    return ids
  }
  const note = (subject: string, field: string, value: AnyValue, grade: Grade = 'seen') => record([{ act: 'note', subject, field, value, grade }])
  const block = (subject: string, field: string, reason: string) => record([{ act: 'block', subject, field, reason }])

  function undo(): void {
    const last = done.value.at(-1)
    if (!last) return
    done.value = done.value.slice(0, -1)
    undone.value = [...undone.value, record([...last].reverse().map(target => ({ act: 'retract', target })), 'undo')]
  }
  function redo(): void {
    const last = undone.value.at(-1)
    if (!last) return
    undone.value = undone.value.slice(0, -1)
    done.value = [...done.value, record([...last].reverse().map(target => ({ act: 'retract', target })), 'redo')]
  }

  /** Sends what is not on disk yet, in order; keeps it on this device until the server has acknowledged it. */
  function flush(): Promise<void> {
    return flushing ??= send().finally(() => { flushing = undefined })
  }
  async function send(): Promise<void> {
    clearTimeout(retry)
    const id = jobId.value
    while (id !== undefined && id === jobId.value && pending.value.length > 0) {
      saveState.value = 'saving'
      const batch = pending.value.slice(0, BATCH)
      try {
        await api(`/api/jobs/${id}/observations`, Appended, postJson({ observations: batch }))
      } catch (error) {
        if (id !== jobId.value) return
        const isFinal = error instanceof ApiFailure && ['invalid-input', 'no-job', 'conflict', 'too-large'].includes(error.code)
        saveState.value = isFinal ? 'refused' : 'held'
        saveProblem.value = (error as Error).message
        if (!isFinal) retry = setTimeout(() => void flush(), RETRY_MS)
        return
      }
      if (id !== jobId.value) return
      pending.value = pending.value.slice(batch.length)
      hold()
    }
    if (pending.value.length === 0) saveState.value = 'on-disk'
  }
  function hold(): void {
    if (jobId.value === undefined) return
    if (pending.value.length === 0) localStorage.removeItem(pendingKey(jobId.value))
    else localStorage.setItem(pendingKey(jobId.value), JSON.stringify(pending.value))
  }
  function readHeld(id: string): Observation[] {
    try {
      const parsed = ObservationSchema.array().safeParse(JSON.parse(localStorage.getItem(pendingKey(id)) ?? '[]'))
      return parsed.success ? parsed.data as Observation[] : []
    } catch { return [] }
  }

  return {
    jobId, house, site, results, totals, bySubject, faults, looks, saveState, saveProblem, pending, isJudged, isReady, assessor,
    canUndo: computed(() => done.value.length > 0), canRedo: computed(() => undone.value.length > 0),
    open, close, record, note, block, undo, redo, flush,
  }
})
