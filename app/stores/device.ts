import { defineStore } from 'pinia'
import { HybridClock, ObservationSchema, type Observation } from '#core'
import { Replica, type LocalJob, type Outgoing, type WaitingPhoto } from '~/local/replica'
import { outgoing, sendAll, sendDirect, type Stop } from '~/local/send'

/** What the tabs of one browser tell each other. */
export type TabNews =
  | {
      kind: 'recorded' | 'acknowledged' | 'arrived'
      job: string
      observations: Observation[]
      lastSequence?: number
    }
  | { kind: 'outbox' }

const RETRY_MS = [2000, 4000, 8000, 15_000, 30_000] as const
const OLD_KEY = 'corvit-pending-'

/** This device: its replica, its clock, what it has not sent yet, and the other tabs. */
export const useDeviceStore = defineStore('device', () => {
  // Behind a reactive proxy a transaction would not know its own tables.
  const replica = markRaw(new Replica())
  const channel = new BroadcastChannel('corvit')
  const listeners = new Set<(news: TabNews) => void>()
  let clock = new HybridClock('new')
  let sending: Promise<void> | undefined
  let isAgain = false
  let retry: ReturnType<typeof setTimeout> | undefined
  let tries = 0

  const name = ref('new')
  const account = ref<string | null>(null)
  /** The browser refuses to store: what is recorded lives only in this window until the server has it. */
  const storageProblem = ref('')
  const inMemory = shallowRef<readonly { job: string; observation: Observation }[]>([])
  const outbox = shallowRef<readonly Outgoing[]>([])
  const photos = shallowRef<readonly WaitingPhoto[]>([])
  /** Writes to this device's storage under way. */
  const writing = ref(0)
  const isSending = ref(false)
  const stop = shallowRef<Stop>()
  const skewSeconds = ref<number | null>(null)

  const ready = begin()

  async function begin(): Promise<void> {
    channel.onmessage = ({ data }: MessageEvent<TabNews>) => void hear(data)
    addEventListener('online', () => void flush())
    addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') void flush()
    })
    addEventListener('beforeunload', warn)
    try {
      await replica.open()
      name.value = (await replica.recall<string>('device')) ?? crypto.randomUUID().slice(0, 13)
      await replica.keep('device', name.value)
      account.value = (await replica.recall<string>('account')) ?? null
      clock = new HybridClock(name.value, await replica.recall<string>('clock'))
      await takeOld()
    } catch (error) {
      storageProblem.value = wordsOf(error)
      name.value = crypto.randomUUID().slice(0, 13)
      clock = new HybridClock(name.value)
    }
    nameDevice(name.value)
    await refresh()
  }

  /** Work kept by the version before this one. */
  async function takeOld(): Promise<void> {
    for (const key of Object.keys(localStorage).filter(k => k.startsWith(OLD_KEY))) {
      const job = key.slice(OLD_KEY.length)
      const list = ((): unknown[] => {
        try {
          return JSON.parse(localStorage.getItem(key) ?? '[]') as unknown[]
        } catch {
          return []
        }
      })()
      const items = list.map((o): Outgoing => {
        const id = String((o as { id?: unknown }).id ?? crypto.randomUUID())
        return {
          job,
          id,
          body: JSON.stringify(o),
          state: 'waiting',
          problems: [],
          account: account.value,
        }
      })
      await replica.outbox.bulkAdd(items)
      localStorage.removeItem(key)
    }
  }

  const wordsOf = (error: unknown) =>
    /quota/i.test(String(error)) ? 'no room is left' : 'the browser does not allow it'

  let reading: Promise<void> | undefined
  let isStale = false
  /** Raised with what is held here meanwhile: a reading that began before must not take it out of sight. */
  let held = 0

  /** Reads again what is not sent. One reading at a time, and the last one begins after the last call. */
  function refresh(): Promise<void> {
    isStale = true
    return (reading ??= readWaiting().finally(() => {
      reading = undefined
      if (isStale) void refresh()
    }))
  }
  async function readWaiting(): Promise<void> {
    while (isStale) {
      isStale = false
      const before = held
      try {
        const items = await replica.outbox.orderBy('order').toArray()
        const pictures = await replica.photos.toArray()
        if (before !== held) isStale = true
        else [outbox.value, photos.value] = [items, pictures]
      } catch (error) {
        storageProblem.value = wordsOf(error)
      }
    }
  }
  function showHeld(items: readonly Outgoing[]): void {
    held++
    const orders = new Set(items.map(i => i.order))
    outbox.value = [...outbox.value.filter(i => !orders.has(i.order)), ...items]
  }

  const subscribe = (listener: (news: TabNews) => void): (() => void) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  function tell(news: TabNews): void {
    channel.postMessage(JSON.parse(JSON.stringify(news)))
  }
  async function hear(news: TabNews): Promise<void> {
    for (const listener of listeners) listener(news)
    if (news.kind !== 'arrived') await refresh()
  }

  /** The clock for what is recorded now. */
  function stamp(nowMs: number): string {
    return clock.next(nowMs)
  }
  function see(clockSeen: string | undefined): void {
    if (clockSeen !== undefined) clock.see(clockSeen)
  }

  /** Keeps observations on this device, tells the other tabs, and has them sent. */
  async function hold(job: string, observations: readonly Observation[]): Promise<void> {
    writing.value++
    tell({ kind: 'recorded', job, observations: [...observations] })
    try {
      const items = observations.map(o => outgoing(job, o, account.value))
      await replica.transaction('rw', replica.outbox, replica.kept, async () => {
        const keys = await replica.outbox.bulkAdd(items, { allKeys: true })
        items.forEach((item, i) => {
          item.order = keys[i]
        })
        await replica.keep('clock', clock.last)
      })
      showHeld(items)
      storageProblem.value = ''
    } catch (error) {
      storageProblem.value = wordsOf(error)
      inMemory.value = [
        ...inMemory.value,
        ...observations.map(observation => ({ job, observation })),
      ]
    } finally {
      writing.value--
    }
    tell({ kind: 'outbox' })
    void flush()
  }

  async function holdPhoto(
    photo: Omit<WaitingPhoto, 'account' | 'state' | 'problem'>,
  ): Promise<void> {
    await replica.photos.add({ ...photo, account: account.value, state: 'waiting', problem: '' })
    await refresh()
    void flush()
  }

  /** Sends everything, one tab at a time. A call while it runs has it look once more at the end. */
  function flush(): Promise<void> {
    if (sending) {
      isAgain = true
      return sending
    }
    return (sending = run().finally(() => {
      sending = undefined
      if (!isAgain) return
      isAgain = false
      void flush()
    }))
  }

  async function run(): Promise<void> {
    await ready
    clearTimeout(retry)
    if (
      outbox.value.length === 0 &&
      inMemory.value.length === 0 &&
      photos.value.length === 0 &&
      !(await hasNews())
    )
      return
    isSending.value = true
    try {
      stop.value =
        'locks' in navigator
          ? await navigator.locks.request('corvit-send', sendHeld)
          : await sendHeld()
    } catch (error) {
      stop.value = { kind: 'later', message: (error as Error).message }
    }
    isSending.value = false
    await refresh()
    if (!stop.value || stop.value.kind === 'sign in' || stop.value.kind === 'job') {
      tries = 0
      return
    }
    const wait =
      stop.value.kind === 'later' && stop.value.afterMs
        ? stop.value.afterMs
        : RETRY_MS[Math.min(tries++, RETRY_MS.length - 1)]
    retry = setTimeout(() => void flush(), wait)
    void askBackground()
  }

  const hasNews = async () =>
    (await replica.jobs
      .filter(j => j.isNew)
      .count()
      .catch(() => 0)) > 0

  async function sendHeld(): Promise<Stop | undefined> {
    const memory = await sendMemory()
    if (memory) return memory
    const stopped = await sendAll({
      replica,
      device: name.value,
      account: account.value,
      news: {
        acknowledged(job, observations) {
          tell({ kind: 'acknowledged', job, observations: [...observations] })
          void refresh()
        },
        refused() {
          tell({ kind: 'outbox' })
          void refresh()
        },
        recorded(job, observations) {
          const news: TabNews = { kind: 'recorded', job, observations: [...observations] }
          tell(news)
          for (const listener of listeners) listener(news)
          void refresh()
        },
        skew(seconds) {
          skewSeconds.value = seconds
        },
      },
    })
    tell({ kind: 'outbox' })
    return stopped
  }

  /** What could not be stored here goes straight to the server. */
  async function sendMemory(): Promise<Stop | undefined> {
    for (const job of new Set(inMemory.value.map(m => m.job))) {
      const list = inMemory.value.filter(m => m.job === job).map(m => m.observation)
      try {
        const answer = await sendDirect(job, list, name.value)
        const refused = new Set(answer.refused.map(r => list[r.index]?.id))
        const done = new Set(list.map(o => o.id).filter(id => !refused.has(id)))
        inMemory.value = inMemory.value.filter(m => m.job !== job || !done.has(m.observation.id))
        if (refused.size > 0)
          return { kind: 'job', job, message: 'The server did not take everything' }
      } catch (error) {
        if (!(error instanceof ApiFailure)) throw error
        const kind =
          error.code === 'sign-in' ? 'sign in' : error.code === 'offline' ? 'offline' : 'later'
        return { kind, message: error.message }
      }
    }
    return undefined
  }

  /** Where the browser can, the service worker goes on sending when every tab is closed. */
  async function askBackground(): Promise<void> {
    const registration = await navigator.serviceWorker?.getRegistration().catch(() => undefined)
    const sync = (registration as { sync?: { register(tag: string): Promise<void> } } | undefined)
      ?.sync
    await sync?.register('corvit-send').catch(() => undefined)
  }

  function warn(event: BeforeUnloadEvent): void {
    if (inMemory.value.length === 0 && writing.value === 0) return
    event.preventDefault()
  }

  /** Refused observations tried again as they are, or given up. */
  async function tryAgain(items: readonly Outgoing[]): Promise<void> {
    for (const item of items)
      await replica.outbox.update(item.order!, { state: 'waiting', problems: [] })
    await refresh()
    await flush()
  }
  async function giveUp(items: readonly Outgoing[]): Promise<void> {
    await replica.outbox.bulkDelete(items.map(i => i.order!))
    await refresh()
    tell({ kind: 'outbox' })
  }
  async function tryPhotoAgain(id: string): Promise<void> {
    await replica.photos.update(id, { state: 'waiting', problem: '' })
    await refresh()
    await flush()
  }
  async function dropPhoto(id: string): Promise<void> {
    await replica.photos.delete(id)
    await refresh()
  }
  /** Another text in the place of a refused observation, under an id of its own. */
  async function correct(
    item: Outgoing,
    change: Partial<Observation>,
  ): Promise<string | undefined> {
    const body = {
      ...(JSON.parse(item.body) as Observation),
      ...change,
      id: crypto.randomUUID(),
      clock: stamp(Date.now()),
    }
    const parsed = ObservationSchema.safeParse(body)
    if (!parsed.success) return 'That is still not an observation that can be sent'
    await replica.outbox.update(item.order!, {
      id: body.id,
      body: JSON.stringify(body),
      state: 'waiting',
      problems: [],
    })
    const news: TabNews = { kind: 'recorded', job: item.job, observations: [body as Observation] }
    for (const listener of listeners) listener(news)
    tell(news)
    await refresh()
    await flush()
    return undefined
  }

  async function addJob(job: LocalJob): Promise<void> {
    await replica.jobs.put({ ...job, account: account.value })
  }
  /** Whether whoever is signed in may see a job kept here: one not sent yet is seen only by who made it. */
  const isOwn = (job: LocalJob): boolean => !job.isNew || (job.account ?? null) === account.value
  async function setAccount(id: string | null): Promise<void> {
    if (id !== account.value) {
      // Another person's copies are not for this one; what that person has not sent stays, under their name.
      await replica
        .transaction('rw', replica.jobs, replica.pages, replica.kept, async () => {
          await replica.pages.clear()
          await replica.kept.delete('list')
          await replica.jobs.filter(j => !j.isNew).delete()
        })
        .catch(() => undefined)
    }
    account.value = id
    await replica.keep('account', id).catch(() => undefined)
  }

  /** Signing out takes the copies of jobs and pictures off this device; what is not sent stays. */
  async function leave(): Promise<void> {
    await setAccount(null)
    for (const cache of await caches.keys())
      if (cache === 'corvit-photos') await caches.delete(cache)
  }

  const unsentOf = (job: string) =>
    outbox.value.filter(i => i.job === job).length +
    inMemory.value.filter(i => i.job === job).length +
    photos.value.filter(p => p.job === job).length
  const unsent = computed(() => outbox.value.length + inMemory.value.length + photos.value.length)

  return {
    replica,
    ready,
    name,
    account,
    storageProblem,
    inMemory,
    outbox,
    photos,
    writing,
    isSending,
    stop,
    skewSeconds,
    unsent,
    unsentOf,
    subscribe,
    tell,
    stamp,
    see,
    hold,
    holdPhoto,
    flush,
    refresh,
    tryAgain,
    giveUp,
    dropPhoto,
    tryPhotoAgain,
    correct,
    addJob,
    isOwn,
    setAccount,
    leave,
  }
})
