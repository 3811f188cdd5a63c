import type { Kysely } from 'kysely'
import { DEFAULT_OWN, OwnSettings } from '../../shared/files'
import type { Database } from '../database/types'
import { settingOf, setSetting } from '../queries/settings'
import type { Letterhead } from '../pdf/render'
import type { Asker } from './people'

type Db = Kysely<Database>
const keyOf = (asker: Pick<Asker, 'id'>): string => `own:${asker.id ?? 'demo'}`

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
