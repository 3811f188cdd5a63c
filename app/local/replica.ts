/** What this device keeps: a replica of every job opened here, what the server has not got yet, pictures on the way. */
import Dexie, { type Table } from 'dexie'
import { upcastObservation, type Observation, type Problem } from '#core'
import type { JobSummary } from '#shared/api'

/** A job as this device knows it. */
export interface LocalJob {
  id: string
  /** The last thing the server said of it; nothing where it has not been told yet. */
  summary: JobSummary | null
  /** Told in the list until the server has counted. */
  name: string
  /** The server has not been told that there is such a job. */
  isNew: boolean
  /** The account it was made under on this device, as long as the server does not know of it; null in a demo. */
  account?: string | null
  /** The replica goes up to this number of the server's sequence. */
  lastSequence: number
  /** Observations in the pages. */
  count: number
  openedAt: string
}
/** Observations the server has acknowledged, packed: one row for many is read a hundred times faster. */
export interface Page {
  job: string
  page: number
  bodies: string
}
/** One observation the server has not acknowledged. */
export interface Outgoing {
  order?: number
  job: string
  id: string
  /** As it was recorded; kept as text, so that one that cannot be read harms no other. */
  body: string
  state: 'waiting' | 'refused'
  problems: Problem[]
  /** The account it was recorded under; null in a demo. */
  account: string | null
}
export interface WaitingPhoto {
  id: string
  job: string
  subject: string
  picture: Blob
  by: string
  account: string | null
  state: 'waiting' | 'refused'
  problem: string
}
interface Kept {
  key: string
  value: unknown
}

const PAGE_SIZE = 1000

export class Replica extends Dexie {
  readonly jobs!: Table<LocalJob, string>
  readonly pages!: Table<Page, [string, number]>
  readonly outbox!: Table<Outgoing, number>
  readonly photos!: Table<WaitingPhoto, string>
  readonly kept!: Table<Kept, string>

  constructor() {
    // What is said to be on this device has to be on its disk, not in a buffer of the browser.
    super('corvit', { chromeTransactionDurability: 'strict' })
    this.version(1).stores({
      jobs: 'id',
      pages: '[job+page], job',
      outbox: '++order, job, [job+id], state',
      photos: 'id, job, state',
      kept: 'key',
    })
  }

  async keep(key: string, value: unknown): Promise<void> {
    await this.kept.put({ key, value })
  }
  async recall<T>(key: string): Promise<T | undefined> {
    return (await this.kept.get(key))?.value as T | undefined
  }

  /** Observations of a job that the server has acknowledged, as far as they can be read. */
  async acknowledged(job: string): Promise<Observation[]> {
    const pages = await this.pages.where('job').equals(job).sortBy('page')
    const all = pages.flatMap(p => JSON.parse(`[${p.bodies}]`) as unknown[])
    // Kept perhaps by an earlier version, in its words.
    return all.map(o => upcastObservation(o) as Observation)
  }

  /** Adds acknowledged observations, and how far in the server's sequence the replica now goes. */
  async acknowledge(
    job: string,
    observations: readonly Observation[],
    lastSequence?: number,
  ): Promise<void> {
    await this.transaction('rw', this.jobs, this.pages, async () => {
      const local = await this.jobs.get(job)
      if (!local) return
      const last = await this.pages.where('job').equals(job).last()
      let page = last?.page ?? -1
      for (let i = 0; i < observations.length; i += PAGE_SIZE) {
        const bodies = observations
          .slice(i, i + PAGE_SIZE)
          .map(o => JSON.stringify(o))
          .join(',')
        await this.pages.add({ job, page: ++page, bodies })
      }
      const change: Partial<LocalJob> = { count: local.count + observations.length }
      if (lastSequence !== undefined)
        change.lastSequence = Math.max(local.lastSequence, lastSequence)
      await this.jobs.update(job, change)
      // Many small pages slow the next opening; they are packed now and then.
      if (page > 60) await this.#pack(job)
    })
  }

  async #pack(job: string): Promise<void> {
    const pages = await this.pages.where('job').equals(job).sortBy('page')
    await this.pages.where('job').equals(job).delete()
    let size = 0
    let parts: string[] = []
    let page = 0
    const put = async () => {
      if (parts.length > 0) await this.pages.add({ job, page: page++, bodies: parts.join(',') })
      parts = []
      size = 0
    }
    for (const { bodies } of pages) {
      parts.push(bodies)
      size += bodies.length
      if (size > 250_000) await put()
    }
    await put()
  }

  /** Forgets what the server has of a job; what it has not got stays. */
  async forget(job: string): Promise<void> {
    await this.transaction('rw', this.jobs, this.pages, async () => {
      await this.pages.where('job').equals(job).delete()
      await this.jobs.delete(job)
    })
  }

  async waitingFor(job: string): Promise<Outgoing[]> {
    return this.outbox.where('job').equals(job).sortBy('order')
  }
}
