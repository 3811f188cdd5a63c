import type { Migration } from 'kysely'
import { jobs } from './0001-jobs'
import { photos } from './0002-photos'
import { people } from './0003-people'
import { clocks } from './0004-clocks'
import { words } from './0005-words'
import { scope } from './0006-scope'
import { files } from './0007-files'

/** Every migration, in order, listed in code: a bundled server has no folder to read. */
export const MIGRATIONS: Record<string, Migration> = {
  '0001-jobs': jobs,
  '0002-photos': photos,
  '0003-people': people,
  '0004-clocks': clocks,
  '0005-words': words,
  '0006-scope': scope,
  '0007-files': files,
}
