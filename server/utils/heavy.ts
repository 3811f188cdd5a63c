import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { HeavyAnswer, HeavyTask } from '../heavy/tasks'
import type { WorkerAnswer } from '../heavy/worker'

/** A task that was given up, and what it could not get. */
export class TookTooLong extends Error {}

const SIZE = 2
export const LIMIT_MS = Number(process.env.CORVIT_HEAVY_LIMIT_MS ?? 20_000)
const MEMORY_MB = 1500

interface Job {
  run: number
  task: HeavyTask
  limitMs: number
  resolve(answer: HeavyAnswer): void
  reject(error: Error): void
}
interface Slot {
  worker: Worker | undefined
  job: Job | undefined
  timer: NodeJS.Timeout | undefined
}

const slots: Slot[] = Array.from({ length: SIZE }, () => ({
  worker: undefined,
  job: undefined,
  timer: undefined,
}))
const waiting: Job[] = []
let runs = 0

/** Beside the server's own entry in a build; nuxt.config.ts says where in development. */
const workerFile = (): string =>
  process.env.CORVIT_HEAVY ?? join(dirname(process.argv[1]!), 'heavy.mjs')

/**
 * Has a task done beside the server, one of two at a time.
 * @throws TookTooLong where it takes more time or memory than it may
 */
export function heavy(task: HeavyTask, limitMs = LIMIT_MS): Promise<HeavyAnswer> {
  return new Promise((resolve, reject) => {
    waiting.push({ run: ++runs, task, limitMs, resolve, reject })
    startNext()
  })
}

function startNext(): void {
  const slot = slots.find(s => !s.job)
  const job = slot && waiting.shift()
  if (!slot || !job) return
  slot.job = job
  slot.worker ??= start(slot)
  slot.timer = setTimeout(() => giveUp(slot, new TookTooLong()), job.limitMs)
  slot.worker.ref()
  slot.worker.postMessage({ run: job.run, task: job.task })
}

function start(slot: Slot): Worker {
  const worker = new Worker(workerFile(), { resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB } })
  worker.on('message', (reply: WorkerAnswer) => {
    if (reply.run !== slot.job?.run) return
    const { resolve, reject } = slot.job
    finish(slot)
    if ('answer' in reply) resolve(reply.answer)
    else reject(Object.assign(new Error(reply.failed.message), { code: reply.failed.code }))
  })
  worker.on('error', error => {
    const isMemory = (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY'
    giveUp(slot, isMemory ? new TookTooLong() : error)
  })
  worker.unref()
  return worker
}

function giveUp(slot: Slot, error: Error): void {
  void slot.worker?.terminate()
  slot.worker = undefined
  const { job } = slot
  finish(slot)
  job?.reject(error)
}

function finish(slot: Slot): void {
  clearTimeout(slot.timer)
  slot.job = undefined
  slot.worker?.unref()
  startNext()
}

/** Ends the workers, for a graceful stop. */
export async function stopHeavy(): Promise<void> {
  for (const job of waiting.splice(0)) job.reject(new TookTooLong())
  await Promise.all(slots.map(s => s.worker?.terminate()))
}

/** The same for a route: what took too long, or found the disk full, is answered as such. */
export async function heavyAnswer(task: HeavyTask): Promise<HeavyAnswer> {
  try {
    return await heavy(task)
  } catch (error) {
    if (error instanceof TookTooLong) throw tookTooLong()
    throw isFull(error) ? diskFull() : error
  }
}

/** The text a task makes. */
export async function heavyText(task: HeavyTask): Promise<Buffer> {
  try {
    const answer = await heavy(task)
    if (answer.kind !== 'text') throw new Error(`${task.kind} made no text`)
    return Buffer.from(
      answer.bytes.buffer as ArrayBuffer,
      answer.bytes.byteOffset,
      answer.bytes.byteLength,
    )
  } catch (error) {
    if (error instanceof TookTooLong) throw tookTooLong()
    throw error
  }
}
export const tookTooLong = () =>
  refuse('took-too-long', 'That took longer than it may; nothing was changed')
