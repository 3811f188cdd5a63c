import type { PracticeAsk, PracticeSay } from '~/workers/practice.worker'

type Made = Extract<PracticeSay, { kind: 'made' }>

/** Has a practice house made in a worker, one at a time; a new wish ends the one before. */
export function usePracticeMaker() {
  const isMaking = ref(false)
  const problem = ref('')
  let worker: Worker | undefined
  onScopeDispose(() => worker?.terminate())
  function make(ask: PracticeAsk, onMade: (made: Made) => void): void {
    worker?.terminate()
    problem.value = ''
    isMaking.value = true
    worker = new Worker(new URL('../workers/practice.worker.ts', import.meta.url), {
      type: 'module',
    })
    worker.onmessage = ({ data }: MessageEvent<PracticeSay>) => {
      isMaking.value = false
      if (data.kind === 'failed') problem.value = data.message
      else onMade(data)
    }
    worker.onerror = ({ message }) => {
      isMaking.value = false
      problem.value = message || 'the worker that makes houses did not start'
    }
    worker.postMessage(ask)
  }
  return { make, isMaking, problem }
}
