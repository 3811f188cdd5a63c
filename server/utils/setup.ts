import { randomBytes, timingSafeEqual } from 'node:crypto'
import type { Kysely } from 'kysely'
import type { Database } from '../database/types'
import { countUsers } from '../queries/people'

export const RETAIN_EVERY_MS = 6 * 3600 * 1000

let code: string | undefined

/** Prints the one-time code of the first account; a new one at every start until there is one. */
export async function announceSetup(db: Kysely<Database>): Promise<void> {
  if (isDemo() || (await countUsers(db)) > 0) return
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'
  const drawn = [...randomBytes(12)].map(b => letters[b % letters.length])
  code = `${drawn.slice(0, 4).join('')}-${drawn.slice(4, 8).join('')}-${drawn.slice(8).join('')}`
  const base = `http://${process.env.NITRO_HOST}:${process.env.NITRO_PORT ?? process.env.PORT ?? 3000}`
  process.stdout.write(
    `\nNo account yet. Open ${base}/setup and make the owner's account with this code: ${code}\n\n`,
  )
}

export function isSetupCode(given: string): boolean {
  if (code === undefined || given.length !== code.length) return false
  return timingSafeEqual(Buffer.from(given), Buffer.from(code))
}
/** The code is good once. */
export const spendSetupCode = (): void => {
  code = undefined
}
