import type { H3Error, H3Event } from 'h3'

const KEPT_MS = 5 * 60 * 1000
const MOST = 1000
const challenges = new Map<string, { challenge: string; at: number }>()

/** Keeps a challenge for a few minutes; each is good once. */
export function keepChallenge(_event: H3Event, challenge: string, attemptId: string): void {
  const now = Date.now()
  for (const [id, { at }] of challenges) {
    if (now - at < KEPT_MS && challenges.size < MOST) break
    challenges.delete(id)
  }
  challenges.set(attemptId, { challenge, at: now })
}
export function takeChallenge(_event: H3Event, attemptId: string): string {
  const kept = challenges.get(attemptId)
  challenges.delete(attemptId)
  if (!kept || Date.now() - kept.at > KEPT_MS)
    throw refuse('wrong-password', 'That took too long; try again')
  return kept.challenge
}
/** Words of ours instead of the library's. */
export function passkeyRefused(_event: H3Event, error: H3Error): never {
  if ((error.data as { code?: string } | undefined)?.code !== undefined) throw error
  throw refuse('wrong-password', 'The passkey was not accepted')
}
