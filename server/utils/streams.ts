import type { ServerResponse } from 'node:http'

/** Bodies of observations as they are stored, with the sequence number of the last. */
export interface News {
  lastSequence: number
  bodies: readonly string[]
}
type Listener = (news: News) => void

const listeners = new Map<string, Set<Listener>>()
const open = new Set<ServerResponse>()
/** More devices than this on one job are sent away; they go on asking now and then. */
export const MAX_LISTENERS = 200

export function listen(jobId: string, listener: Listener): () => void {
  let set = listeners.get(jobId)
  if (!set) listeners.set(jobId, (set = new Set()))
  set.add(listener)
  return () => {
    set.delete(listener)
    if (set.size === 0) listeners.delete(jobId)
  }
}
export const listenersOf = (jobId: string): number => listeners.get(jobId)?.size ?? 0
export function publish(jobId: string, news: News): void {
  for (const listener of listeners.get(jobId) ?? []) listener(news)
}

export const keepOpen = (res: ServerResponse): void => {
  open.add(res)
  res.once('close', () => open.delete(res))
}
/** Ends every stream; devices come back to the next server with the last number they had. */
export function endStreams(): void {
  for (const res of open) res.end()
}
