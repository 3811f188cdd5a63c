/** Runs one heavy task after the other beside the server. Built into a file of its own (see nuxt.config.ts). */
import { parentPort } from 'node:worker_threads'
import { doTask, type HeavyAnswer, type HeavyTask } from './tasks'

export type WorkerAnswer =
  | { run: number; answer: HeavyAnswer }
  | { run: number; failed: { message: string; code: string | undefined } }

parentPort!.on('message', ({ run, task }: { run: number; task: HeavyTask }) => {
  let reply: WorkerAnswer
  try {
    reply = { run, answer: doTask(task) }
  } catch (error) {
    reply = {
      run,
      failed: { message: (error as Error).message, code: (error as { code?: string }).code },
    }
  }
  const bytes =
    'answer' in reply && reply.answer.kind === 'text'
      ? [reply.answer.bytes.buffer as ArrayBuffer]
      : []
  parentPort!.postMessage(reply, bytes)
})
