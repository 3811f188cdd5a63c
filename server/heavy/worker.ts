/** Runs one heavy task after the other beside the server. Built into a file of its own (see nuxt.config.ts). */
import { parentPort } from 'node:worker_threads'
import { doTask, type HeavyAnswer, type HeavyTask } from './tasks'

export type WorkerAnswer =
  | { run: number; answer: HeavyAnswer }
  | { run: number; failed: { message: string; code: string | undefined } }

async function answer({ run, task }: { run: number; task: HeavyTask }): Promise<void> {
  let reply: WorkerAnswer
  try {
    reply = { run, answer: await doTask(task) }
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
}
// One after the other: tasks share connections.
let last = Promise.resolve()
parentPort!.on('message', (message: { run: number; task: HeavyTask }) => {
  last = last.then(() => answer(message))
})
