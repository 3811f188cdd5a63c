/** Sends what the server has not got. Runs in a page or in the service worker; nothing here knows a screen. */
import {
  HybridClock,
  ObservationSchema,
  withClocks,
  type Observation,
  type RawObservation,
} from '#core'
import { Appended, StoredPhoto } from '#shared/api'
import { api, ApiFailure, postJson } from '../utils/api'
import type { Outgoing, Replica, WaitingPhoto } from './replica'

const BATCH = 500

/** Why sending stopped before everything was sent. */
export type Stop =
  | { kind: 'offline' | 'later'; message: string; afterMs?: number }
  /** Somebody has to do something first. */
  | { kind: 'sign in' | 'job'; message: string; job?: string }

export interface SendNews {
  acknowledged(job: string, observations: readonly Observation[]): void
  refused(job: string): void
  recorded(job: string, observations: readonly Observation[]): void
  /** Seconds the clock of this device is ahead of the server's, or null where it is not worth telling. */
  skew(seconds: number | null): void
}
export interface Sender {
  replica: Replica
  device: string
  account: string | null
  news: SendNews
}

/** Says for whom this is sent: another tab may have signed somebody else in, whose work it is not. */
const asAccount = (account: string | null): Record<string, string> =>
  account === null ? {} : { 'x-corvit-account': account }
const postAs = (account: string | null, body: unknown): RequestInit => ({
  ...postJson(body),
  headers: asAccount(account),
})

/** Sends everything of every job that can be sent; says what stopped it, if anything did. */
export async function sendAll(sender: Sender): Promise<Stop | undefined> {
  let stopped: Stop | undefined
  const blocked = new Set<string>()
  for (;;) {
    const job = await nextJob(sender, blocked)
    if (job === undefined) break
    const stop = await sendJob(sender, job)
    if (!stop) continue
    stopped = stop
    if (stop.kind !== 'job') return stop
    // This job needs somebody; the others go on.
    blocked.add(job)
  }
  return (await sendPhotos(sender, blocked)) ?? stopped
}

/**
 * A job that this account has something to send for. A new one always has its first observations, so that a job made
 * under another account waits for that person and never becomes this one's.
 */
async function nextJob(
  { replica, account }: Sender,
  blocked: ReadonlySet<string>,
): Promise<string | undefined> {
  const item = await replica.outbox
    .where('state')
    .equals('waiting')
    .filter(i => i.account === account && !blocked.has(i.job))
    .first()
  return item?.job
}

async function sendJob(sender: Sender, job: string): Promise<Stop | undefined> {
  const { replica, device, account } = sender
  try {
    const local = await replica.jobs.get(job)
    if (local?.isNew) {
      const { job: summary } = await api(`/api/jobs/${job}`, Appended, {
        ...postAs(account, { device }),
        method: 'PUT',
      })
      await replica.jobs.update(job, { isNew: false, summary })
    }
    let size = BATCH
    for (;;) {
      const items = (await replica.waitingFor(job)).filter(
        i => i.state === 'waiting' && i.account === account,
      )
      if (items.length === 0) return undefined
      try {
        await sendBatch(sender, job, items.slice(0, size))
      } catch (error) {
        // A batch refused as a whole is parted until the one that cannot go alone is found and set aside.
        const isWhole =
          error instanceof ApiFailure && ['invalid-input', 'too-large'].includes(error.code)
        if (!isWhole) throw error
        if (size > 1) size = Math.ceil(Math.min(size, items.length) / 2)
        else await setAside(sender, items[0]!, [...error.problems])
      }
    }
  } catch (error) {
    return stopOf(error, job)
  }
}

async function sendBatch(sender: Sender, job: string, items: readonly Outgoing[]): Promise<void> {
  const { replica, device, account, news } = sender
  const readable: { item: Outgoing; observation: Observation }[] = []
  for (const item of items) {
    const observation = readItem(item)
    if (observation) readable.push({ item, observation })
    else
      await setAside(sender, item, [
        { path: item.id, expected: 'an observation', found: 'something that cannot be read' },
      ])
  }
  if (readable.length === 0) return
  const body = {
    observations: readable.map(r => r.observation),
    device,
    sentAt: new Date().toISOString(),
  }
  const answer = await api(`/api/jobs/${job}/observations`, Appended, postAs(account, body))
  const refused = new Map(answer.refused.map(r => [r.index, r.problems]))
  const taken = readable.filter((_, i) => !refused.has(i))
  await replica.transaction('rw', replica.jobs, replica.pages, replica.outbox, async () => {
    await replica.acknowledge(
      job,
      taken.map(t => t.observation),
    )
    await replica.outbox.bulkDelete(taken.map(t => t.item.order!))
    for (const [i, problems] of refused) {
      await replica.outbox.update(readable[i]!.item.order!, { state: 'refused', problems })
    }
    await replica.jobs.update(job, { summary: answer.job })
  })
  news.skew(answer.skewSeconds)
  news.acknowledged(
    job,
    taken.map(t => t.observation),
  )
  if (refused.size > 0) news.refused(job)
}

function readItem(item: Outgoing): Observation | undefined {
  try {
    const parsed = ObservationSchema.safeParse(JSON.parse(item.body))
    return parsed.success ? withClocks([parsed.data as RawObservation])[0] : undefined
  } catch {
    return undefined
  }
}

async function setAside(
  { replica, news }: Sender,
  item: Outgoing,
  problems: Outgoing['problems'],
): Promise<void> {
  await replica.outbox.update(item.order!, { state: 'refused', problems: [...problems] })
  news.refused(item.job)
}

function stopOf(error: unknown, job?: string): Stop {
  if (!(error instanceof ApiFailure)) throw error
  if (error.code === 'offline') return { kind: 'offline', message: error.message }
  if (error.code === 'sign-in')
    return { kind: 'sign in', message: 'Sign in to send what is on this device' }
  const needsSomebody = [
    'no-job',
    'gone',
    'forbidden',
    'conflict',
    'wrong-origin',
    'wrong-host',
  ].includes(error.code)
  if (needsSomebody && job !== undefined) return { kind: 'job', message: error.message, job }
  return {
    kind: 'later',
    message: error.message,
    ...(error.retryAfterMs && { afterMs: error.retryAfterMs }),
  }
}

async function sendPhotos(sender: Sender, blocked: ReadonlySet<string>): Promise<Stop | undefined> {
  const { replica, account, news } = sender
  const waiting = await replica.photos
    .where('state')
    .equals('waiting')
    .filter(p => p.account === account)
    .toArray()
  for (const photo of waiting) {
    if (blocked.has(photo.job)) continue
    try {
      const observations = await sendPhoto(sender, photo)
      news.recorded(photo.job, observations)
    } catch (error) {
      const isFinal =
        error instanceof ApiFailure &&
        ['not-a-photo', 'too-large', 'wrong-type'].includes(error.code)
      const stop = stopOf(error, photo.job)
      if (!isFinal && stop.kind !== 'job') return stop
      // The picture itself is refused, or its job is gone: it is kept, and somebody has to say what becomes of it.
      await replica.photos.update(photo.id, { state: 'refused', problem: stop.message })
      news.refused(photo.job)
    }
  }
  // What was said of the pictures goes too.
  const left = await replica.outbox
    .where('state')
    .equals('waiting')
    .filter(i => i.account === account && !blocked.has(i.job))
    .count()
  return left > 0 && waiting.length > 0 ? sendAll(sender) : undefined
}

/** Stores the picture and says under which name, all or nothing. */
async function sendPhoto({ replica, device }: Sender, photo: WaitingPhoto): Promise<Observation[]> {
  const path = `/api/jobs/${photo.job}/photos`
  const headers = { 'content-type': 'application/octet-stream', ...asAccount(photo.account) }
  const stored = await api(path, StoredPhoto, { method: 'POST', body: photo.picture, headers })
  const now = Date.now()
  const clock = new HybridClock(device, await replica.recall<string>('clock'))
  const facts = { hash: stored.hash, widthPx: stored.width, heightPx: stored.height }
  const observations = Object.entries(facts).map(([field, value]): Observation => ({
    id: crypto.randomUUID(),
    at: new Date(now).toISOString(),
    by: photo.by,
    clock: clock.next(now),
    act: 'note',
    subject: photo.subject,
    field,
    value,
    grade: 'measured',
    over: [],
  }))
  await replica.transaction('rw', replica.outbox, replica.photos, replica.kept, async () => {
    await replica.outbox.bulkAdd(observations.map(o => outgoing(photo.job, o, photo.account)))
    await replica.photos.delete(photo.id)
    await replica.keep('clock', clock.last)
  })
  return observations
}

export const outgoing = (job: string, o: Observation, account: string | null): Outgoing => ({
  job,
  id: o.id,
  body: JSON.stringify(o),
  state: 'waiting',
  problems: [],
  account,
})

/** Sends observations that could not be kept on this device. */
export function sendDirect(
  job: string,
  observations: readonly Observation[],
  device: string,
): Promise<Appended> {
  const body = { observations, device, sentAt: new Date().toISOString() }
  return api(`/api/jobs/${job}/observations`, Appended, postJson(body))
}
