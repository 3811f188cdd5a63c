import type { Kysely } from 'kysely'
import sharp from 'sharp'
import { DEFAULT_OWN, OwnSettings } from '../../shared/files'
import type { Database } from '../database/types'
import { settingOf, setSetting } from '../queries/settings'
import type { Letterhead } from '../pdf/render'
import type { Asker } from './people'

type Db = Kysely<Database>
const keyOf = (asker: Pick<Asker, 'id'>): string => `own:${asker.id ?? 'demo'}`

const SIGNATURE = { width: 720, height: 240 }

/**
 * The picture of a signature as every paper can set it: read whole, made small, written anew. One that cannot be read
 * would stop every paper of this person.
 */
export async function plainSignature(address: string): Promise<string> {
  if (address === '') return ''
  const bytes = Buffer.from(address.slice(address.indexOf(',') + 1), 'base64')
  try {
    const picture = sharp(bytes, { limitInputPixels: 40_000_000, failOn: 'error' })
    const png = await picture
      .resize({ ...SIGNATURE, fit: 'inside', withoutEnlargement: true })
      .png()
      .toBuffer()
    return `data:image/png;base64,${png.toString('base64')}`
  } catch {
    throw refuse('invalid-input', 'The picture of the signature cannot be read', [
      { path: 'signature', expected: 'a PNG or JPEG picture', found: 'something else' },
    ])
  }
}

/** A person's own settings; those of a stranger to the schema of today are read as none. */
export async function ownSettings(db: Db, asker: Pick<Asker, 'id'>): Promise<OwnSettings> {
  const kept = await settingOf(db, keyOf(asker))
  const parsed = OwnSettings.safeParse(kept === undefined ? {} : JSON.parse(kept))
  return parsed.success ? parsed.data : DEFAULT_OWN
}
export const keepOwnSettings = (db: Db, asker: Pick<Asker, 'id'>, settings: OwnSettings) =>
  setSetting(db, keyOf(asker), JSON.stringify(settings))

export async function letterheadOf(db: Db, asker: Pick<Asker, 'id'>): Promise<Letterhead> {
  const { letterhead, signature } = await ownSettings(db, asker)
  return { lines: letterhead, ...(signature && { signature }) }
}
