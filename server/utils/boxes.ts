import type { Kysely } from 'kysely'
import { Ledger, type Observation } from '../../core'
import type { Database } from '../database/types'
import { bodiesAfter } from '../queries/jobs'

type Db = Kysely<Database>

const PAGE = 2000
const KEPT = 12
/** Observations kept in memory over all jobs, about a kilobyte each. */
const KEPT_OBSERVATIONS = 500_000

/** Lets other requests have a turn. */
export const breathe = (): Promise<void> => new Promise(resolve => setImmediate(resolve))

/** One job in memory: its one ledger and its one queue of writes. */
export class JobBox {
  readonly ledger = new Ledger()
  lastSequence = 0
  #tail: Promise<unknown> = Promise.resolve()
  #waiting = 0
  #loaded: Promise<void> | undefined

  constructor(
    readonly db: Db,
    readonly jobId: string,
  ) {}

  get isIdle(): boolean {
    return this.#waiting === 0
  }

  /** Runs after everything queued before it, whether that went well or not. */
  enqueue<T>(run: () => Promise<T>): Promise<T> {
    this.#waiting++
    const turn = this.#tail.then(() => this.#load()).then(run)
    this.#tail = turn
      .catch(() => undefined)
      .finally(() => {
        this.#waiting--
      })
    return turn
  }

  #load(): Promise<void> {
    return (this.#loaded ??= this.catchUp().catch(error => {
      this.#loaded = undefined
      throw error
    }))
  }

  /** Takes in whatever the disk has and the ledger has not. */
  async catchUp(): Promise<void> {
    for (;;) {
      const rows = await bodiesAfter(this.db, this.jobId, this.lastSequence, PAGE)
      if (rows.length === 0) return
      this.ledger.append(rows.map(r => JSON.parse(r.body) as Observation))
      this.lastSequence = rows.at(-1)!.seq
      await breathe()
    }
  }
}

/** Boxes of the jobs used last. One that is at work is never let go, so that a job never has two. */
const boxes = new Map<string, JobBox>()

export function boxOf(db: Db, jobId: string): JobBox {
  let box = boxes.get(jobId)
  if (!box || box.db !== db) box = new JobBox(db, jobId)
  boxes.delete(jobId)
  boxes.set(jobId, box)
  let held = 0
  for (const kept of boxes.values()) held += kept.ledger.size
  for (const [id, old] of boxes) {
    if (boxes.size <= KEPT && held <= KEPT_OBSERVATIONS) break
    if (!old.isIdle || old === box) continue
    boxes.delete(id)
    held -= old.ledger.size
  }
  return box
}
/** After a failed write, or when a job is gone: the disk is read again at the next use. */
export const forgetBox = (jobId: string): boolean => boxes.delete(jobId)
/** Waits for everything queued; for a graceful stop. */
export const drainBoxes = (): Promise<unknown> =>
  Promise.all([...boxes.values()].map(b => b.enqueue(async () => undefined)))

/** The ledger of a job with everything that is on the disk. */
export async function ledgerOf(db: Db, jobId: string): Promise<Ledger> {
  const box = boxOf(db, jobId)
  await box.enqueue(() => box.catchUp())
  return box.ledger
}
