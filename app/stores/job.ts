import { defineStore } from 'pinia'
import {
  Covering,
  isAsked,
  Ledger,
  looksOf,
  recordedScope,
  resultKey,
  Site,
  valueOf,
  type AnyValue,
  type Conflict,
  type FactRef,
  type Grade,
  type House,
  type Kind,
  type Observation,
  type SpokenResult,
  type Totals,
  type ReportVoice,
} from '#core'
import { Job, StreamMessage, type JobSummary } from '#shared/api'
import type { JudgeAnswer, JudgeRequest, Written } from '~/workers/judge.worker'

/**
 * Where the last of what was recorded is. device: on this device's disk · sending: on its way ·
 * server: acknowledged · needs-you: refused, in this window only, or waiting for somebody to sign in.
 */
export type SaveState = 'device' | 'sending' | 'server' | 'needs-you'
type Draft =
  | { act: 'add'; subject: string; kind: Kind; parent: string | null }
  | { act: 'drop'; subject: string }
  | {
      act: 'note'
      subject: string
      field: string
      value: AnyValue
      grade: Grade
      instrument?: string
    }
  | { act: 'block'; subject: string; field: string; reason: string }
  | { act: 'retract'; target: string }

const RECONNECT_MS = 5000

/** The open job: its log, the house it folds to, and its judgments. What is not sent yet is the device's business. */
export const useJobStore = defineStore('job', () => {
  const device = useDeviceStore()
  const session = useSessionStore()
  let ledger = new Ledger()
  let worker: Worker | undefined
  let run = 0
  let opening = 0
  let live: AbortController | undefined
  let lastSequence = 0
  const reports = new Map<number, (report: Written) => void>()
  const jobId = ref<string>()
  const house = shallowRef<House>({ subjects: new Map() })
  const results = shallowRef<ReadonlyMap<string, SpokenResult>>(new Map())
  const totals = shallowRef<Totals>()
  const imported = shallowRef<ReadonlySet<string>>(new Set())
  const isJudged = ref(false)
  /** The first judgment of the open job has arrived: before it, nothing may be said to be found or not found. */
  const isReady = ref(false)
  const done = shallowRef<readonly (readonly string[])[]>([])
  const undone = shallowRef<readonly (readonly string[])[]>([])

  const site = computed(() => new Site(house.value))
  const assessor = computed(
    () => session.person?.name ?? valueOf(site.value.premises, 'assessor') ?? 'assessor',
  )
  const bySubject = computed(() => {
    const map = new Map<string, SpokenResult[]>()
    for (const result of results.value.values()) {
      const list = map.get(result.subject.id)
      if (list) list.push(result)
      else map.set(result.subject.id, [result])
    }
    return map
  })
  /** Faults, and what leans to one: shown together, the second drawn open and never counted as proven. */
  const findings = computed(() => [...results.value.values()].filter(isFinding))
  const faults = computed(() => findings.value.filter(r => r.outcome === 'fault'))
  const allowed = computed(() => [...results.value.values()].filter(r => r.outcome === 'allowed'))
  const looks = computed(() => looksOf([...results.value.values()]))
  const covering = computed(() => new Covering(site.value, recordedScope(site.value)))
  /** Looks the visit covers: none of them is outside its scope, or presumed by the trade. */
  const openLooks = computed(() =>
    looks.value.filter(l => {
      const thing = house.value.subjects.get(l.subject)
      return l.state === 'blocked' || (thing && isAsked(covering.value, thing, l.field))
    }),
  )
  const conflicts = computed<readonly Conflict[]>(() =>
    house.value.subjects.size > 0 ? ledger.conflicts() : [],
  )

  const refused = computed(
    () => device.outbox.filter(i => i.job === jobId.value && i.state === 'refused').length,
  )
  const unsent = computed(() => (jobId.value === undefined ? 0 : device.unsentOf(jobId.value)))
  const saveState = computed<SaveState>(() => {
    const isPhotoRefused = device.photos.some(p => p.job === jobId.value && p.state === 'refused')
    const isInWindowOnly = device.inMemory.some(m => m.job === jobId.value)
    const { stop } = device
    const isStopped = stop?.kind === 'sign in' || (stop?.kind === 'job' && stop.job === jobId.value)
    if (refused.value > 0 || isPhotoRefused || isInWindowOnly || (isStopped && unsent.value > 0))
      return 'needs-you'
    if (device.writing > 0) return 'sending'
    if (unsent.value === 0) return 'server'
    return device.isSending && !device.stop ? 'sending' : 'device'
  })

  device.subscribe(news => {
    if (!('job' in news) || news.job !== jobId.value) return
    if (news.kind === 'acknowledged') return
    takeIn(news.observations)
    if (news.lastSequence !== undefined) lastSequence = Math.max(lastSequence, news.lastSequence)
  })

  /**
   * Opens a job from this device, where it is here, and catches up with the server beside that.
   * @throws ApiFailure where it is neither here nor to be had
   */
  async function open(id: string): Promise<void> {
    if (jobId.value === id) return
    close()
    const turn = ++opening
    await device.ready
    const here = await device.replica.jobs.get(id).catch(() => undefined)
    const local = here && device.isOwn(here) ? here : undefined
    const kept = local ? await device.replica.acknowledged(id).catch(() => []) : []
    if (turn !== opening) return
    if (!local || (kept.length === 0 && !local.isNew)) {
      await fetchWhole(id, turn)
      return
    }
    lastSequence = local.lastSequence
    show(id, kept, local.summary?.imported ?? 0)
    await device.replica.jobs
      .update(id, { openedAt: new Date().toISOString() })
      .catch(() => undefined)
    if (!local.isNew)
      void catchUp(id, turn)
        .catch(() => undefined)
        .finally(() => listenLive(id, turn))
    else void device.flush().then(() => listenLive(id, turn))
  }

  async function fetchWhole(id: string, turn: number): Promise<void> {
    const answer = await api(`/api/jobs/${id}`, Job)
    if (turn !== opening) return
    const observations = answer.observations as Observation[]
    lastSequence = answer.lastSequence
    await keepWhole(answer.job, observations, lastSequence)
    if (turn !== opening) return
    show(id, observations, answer.job.imported)
    listenLive(id, turn)
  }

  async function keepWhole(
    summary: JobSummary,
    observations: readonly Observation[],
    sequence: number,
  ): Promise<void> {
    try {
      await device.replica.forget(summary.id)
      const openedAt = new Date().toISOString()
      const { id, name } = summary
      await device.addJob({ id, summary, name, isNew: false, lastSequence: 0, count: 0, openedAt })
      await device.replica.acknowledge(id, observations, sequence)
    } catch {
      /* Without room on this device the job is shown from the server alone. */
    }
  }

  function show(id: string, acknowledged: readonly Observation[], importedCount: number): void {
    imported.value = new Set(acknowledged.slice(0, importedCount).map(o => o.id))
    ledger = new Ledger(acknowledged)
    ledger.append(heldFor(id))
    device.see(ledger.lastClock)
    house.value = ledger.house
    jobId.value = id
    // Another log of the same job is judged afresh.
    worker?.terminate()
    worker = undefined
    // Drawn first, judged next: a long log takes a moment to hand over.
    setTimeout(() => {
      if (jobId.value === id && !worker) startJudging(ledger.log())
    })
    void device.flush()
  }

  /** What this device has not sent; what was refused is shown on its own page and not in the house. */
  function heldFor(id: string): Observation[] {
    const waiting = device.outbox.filter(i => i.job === id && i.state === 'waiting')
    const readable = waiting.flatMap(item => {
      try {
        return [JSON.parse(item.body) as Observation]
      } catch {
        return []
      }
    })
    return [...readable, ...device.inMemory.filter(m => m.job === id).map(m => m.observation)]
  }

  /** What the server has and this device has not; and where the server lost what this device has, that. */
  async function catchUp(id: string, turn: number): Promise<void> {
    const local = await device.replica.jobs.get(id)
    const answer = await api(`/api/jobs/${id}?after=${lastSequence}`, Job)
    if (turn !== opening) return
    const isAnother = local?.summary != null && local.summary.createdAt !== answer.job.createdAt
    const isShort = local !== undefined && answer.job.observations < local.count
    if (isAnother || isShort) {
      const known = isAnother ? [] : await device.replica.acknowledged(id)
      await fetchWhole(id, turn)
      const missing = known.filter(o => !ledger.has(o.id))
      if (missing.length > 0 && turn === opening) {
        takeIn(missing)
        await device.hold(id, missing)
      }
      return
    }
    await arrive(id, answer.observations as Observation[], answer.lastSequence)
    await device.replica.jobs
      .update(id, { summary: answer.job, name: answer.job.name })
      .catch(() => undefined)
  }

  /** Observations from the server: into the house and into the replica. */
  async function arrive(
    id: string,
    observations: readonly Observation[],
    sequence: number,
  ): Promise<void> {
    const fresh = takeIn(observations)
    lastSequence = Math.max(lastSequence, sequence)
    await device.replica.acknowledge(id, fresh, sequence).catch(() => undefined)
  }

  /** Observations made elsewhere, in another tab or on another device. */
  function takeIn(observations: readonly Observation[]): Observation[] {
    const fresh = observations.filter(o => !ledger.has(o.id))
    if (fresh.length === 0) return fresh
    ledger.append(fresh)
    device.see(ledger.lastClock)
    house.value = ledger.house
    post(fresh)
    return fresh
  }

  /** Listens to what others record; one tab does it for all tabs of this browser. */
  function listenLive(id: string, turn: number): void {
    if (turn !== opening || jobId.value !== id || live) return
    const own = (live = new AbortController())
    const { signal } = own
    const hold = () =>
      new Promise<void>(resolve => {
        let source: EventSource | undefined
        const connect = () => {
          if (signal.aborted) return
          source = new EventSource(`/api/jobs/${id}/stream?after=${lastSequence}`)
          source.onmessage = ({ data }: MessageEvent<string>) => {
            const parsed = StreamMessage.safeParse(JSON.parse(data))
            if (!parsed.success || signal.aborted) return
            const observations = parsed.data.observations as Observation[]
            void arrive(id, observations, parsed.data.lastSequence)
            device.tell({
              kind: 'arrived',
              job: id,
              observations,
              lastSequence: parsed.data.lastSequence,
            })
          }
          source.onerror = () => {
            if (source?.readyState === EventSource.CLOSED) setTimeout(connect, RECONNECT_MS)
          }
        }
        connect()
        signal.addEventListener('abort', () => {
          source?.close()
          resolve()
        })
      })
    const locks = 'locks' in navigator ? navigator.locks : undefined
    void (locks ? locks.request(`corvit-live-${id}`, { signal }, hold) : hold()).catch(
      () => undefined,
    )
  }

  function close(): void {
    opening++
    live?.abort()
    live = undefined
    worker?.terminate()
    worker = undefined
    reports.clear()
    ledger = new Ledger()
    house.value = ledger.house
    results.value = new Map()
    totals.value = undefined
    done.value = undone.value = []
    isJudged.value = isReady.value = false
    jobId.value = undefined
    lastSequence = 0
  }

  function startJudging(observations: Observation[]): void {
    worker = new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<JudgeAnswer>) => {
      if (data.kind === 'report') {
        reports.get(data.run)?.(data.report)
        reports.delete(data.run)
        return
      }
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
    // What was just recorded may hold reactive lists, which cannot be handed over as they are.
    const plain = start
      ? (observations as Observation[])
      : (JSON.parse(JSON.stringify(observations)) as Observation[])
    const request: JudgeRequest = { kind: 'log', run, start, observations: plain }
    worker?.postMessage(request)
  }
  /** The report of the open job, written beside the screen from what this device has. */
  function report(voice: ReportVoice): Promise<Written> {
    return new Promise(resolve => {
      // Somebody may ask before the judging has begun.
      if (!worker) startJudging(ledger.log())
      run++
      reports.set(run, resolve)
      worker?.postMessage({ kind: 'report', run, voice } satisfies JudgeRequest)
    })
  }

  /** The observations a new value of a fact takes the place of. */
  function headsOf(subject: string, field: string): readonly string[] {
    const fact = (
      house.value.subjects.get(subject)?.facts as Record<string, FactRef> | undefined
    )?.[field]
    return fact?.state === 'known' ? (fact.heads ?? [fact.observation]) : []
  }

  /** Records what was seen. One call is one step of undo. */
  function record(
    drafts: readonly Draft[],
    step: 'new' | 'undo' | 'redo' = 'new',
  ): readonly string[] {
    if (drafts.length === 0 || jobId.value === undefined) return []
    const now = Date.now()
    const at = new Date(now).toISOString()
    const latest = new Map<string, string>()
    const observations = drafts.map(draft => {
      const made = {
        ...(JSON.parse(JSON.stringify(draft)) as Draft),
        id: crypto.randomUUID(),
        at,
        by: assessor.value,
        clock: device.stamp(now),
      }
      if (draft.act !== 'note') return made as Observation
      const key = `${draft.subject} ${draft.field}`
      const own = latest.get(key)
      latest.set(key, made.id)
      return {
        ...made,
        over: own === undefined ? headsOf(draft.subject, draft.field) : [own],
      } as Observation
    })
    ledger.append(observations)
    house.value = ledger.house
    const ids = observations.map(o => o.id)
    if (step === 'new') {
      done.value = [...done.value, ids]
      undone.value = []
    }
    post(observations)
    void device.hold(jobId.value, observations)
    return ids
  }
  const note = (subject: string, field: string, value: AnyValue, grade: Grade = 'seen') =>
    record([{ act: 'note', subject, field, value, grade }])
  const block = (subject: string, field: string, reason: string) =>
    record([{ act: 'block', subject, field, reason }])

  function undo(): void {
    const last = done.value.at(-1)
    if (!last) return
    done.value = done.value.slice(0, -1)
    undone.value = [
      ...undone.value,
      record(
        [...last].reverse().map(target => ({ act: 'retract', target })),
        'undo',
      ),
    ]
  }
  function redo(): void {
    const last = undone.value.at(-1)
    if (!last) return
    undone.value = undone.value.slice(0, -1)
    done.value = [
      ...done.value,
      record(
        [...last].reverse().map(target => ({ act: 'retract', target })),
        'redo',
      ),
    ]
  }

  /** Where a name came with a file, nobody signed in here under it. */
  const whoOf = (observation: string, by: string) =>
    imported.value.has(observation) ? `${by} (imported)` : by
  const find = (id: string) => ledger.find(id)
  const log = () => ledger.log()

  return {
    jobId,
    house,
    site,
    results,
    totals,
    bySubject,
    findings,
    faults,
    allowed,
    looks,
    openLooks,
    covering,
    conflicts,
    saveState,
    refused,
    unsent,
    isJudged,
    isReady,
    assessor,
    imported,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    open,
    close,
    record,
    note,
    block,
    undo,
    redo,
    report,
    whoOf,
    find,
    log,
  }
})
