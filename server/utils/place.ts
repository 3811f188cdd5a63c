import { mkdirSync, existsSync, readFileSync, writeFileSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { dirname, join, resolve } from 'node:path'

/** Where this server keeps everything: CORVIT_DATA, or the folder of CORVIT_DB. */
export const dataFolder = (): string =>
  resolve(process.env.CORVIT_DATA ?? dirname(process.env.CORVIT_DB ?? 'data/corvit.db'))
export const databaseFile = (): string => process.env.CORVIT_DB ?? join(dataFolder(), 'corvit.db')
export const photoFolder = (): string => process.env.CORVIT_PHOTOS ?? join(dataFolder(), 'photos')
export const scratchFolder = (): string => join(dataFolder(), 'scratch')

/** A random text kept in the data folder, readable by this user only. */
export function keptSecret(name: string): string {
  const file = join(dataFolder(), name)
  if (existsSync(file)) return readFileSync(file, 'utf8').trim()
  mkdirSync(dataFolder(), { recursive: true })
  const secret = randomBytes(32).toString('base64url')
  writeFileSync(file, secret, { mode: 0o600, flag: 'wx' })
  return secret
}
