import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { H3Event } from 'h3'
import type { Rate } from '../../shared/routes'

/** Calls in so many seconds, for one account, or one address where nobody is signed in. */
const LIMITS: Record<Rate, { points: number; duration: number }> = {
  'sign-in': { points: 20, duration: 300 },
  append: { points: 600, duration: 10 },
  import: { points: 20, duration: 60 },
  upload: { points: 120, duration: 60 },
  other: { points: 1200, duration: 10 },
}
/** Wrong passwords for one account, from wherever they come. */
const WRONG = { points: 8, duration: 900 }

// Tests and trials from one address need more room than people do.
const scale = Number(process.env.CORVIT_RATE_SCALE ?? 1)
const limiter = ({ points, duration }: { points: number; duration: number }) =>
  new RateLimiterMemory({ points: Math.max(1, Math.round(points * scale)), duration })
const limiters = Object.fromEntries(
  Object.entries(LIMITS).map(([name, l]) => [name, limiter(l)]),
) as Record<Rate, RateLimiterMemory>
const wrongPasswords = limiter(WRONG)

async function consume(event: H3Event, from: RateLimiterMemory, key: string): Promise<void> {
  try {
    await from.consume(key)
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
    setHeader(event, 'retry-after', seconds)
    throw refuse(
      'too-often',
      `Too often; again in ${seconds} seconds. What is recorded stays on this device meanwhile`,
    )
  }
}

/** The address a call came from. The proxy is believed only where CORVIT_PROXY says there is one. */
export const addressOf = (event: H3Event): string =>
  getRequestIP(event, { xForwardedFor: process.env.CORVIT_PROXY === '1' }) ?? 'unknown'

export const spend = (event: H3Event, rate: Rate): Promise<void> =>
  consume(event, limiters[rate], event.context.asker?.id ?? addressOf(event))

/** Counts a wrong password; refuses further tries for this account for a while. */
export const spendWrongPassword = (event: H3Event, login: string): Promise<void> =>
  consume(event, wrongPasswords, login)
export async function mayTryPassword(event: H3Event, login: string): Promise<void> {
  const spent = await wrongPasswords.get(login)
  if (spent && spent.remainingPoints <= 0) await consume(event, wrongPasswords, login)
}
export const forgiveWrongPasswords = (login: string): Promise<boolean> =>
  wrongPasswords.delete(login)
