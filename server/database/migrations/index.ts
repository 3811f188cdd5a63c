import type { Migration } from 'kysely'
import { jobs } from './0001-jobs'

/** Every migration, in order, listed in code: a bundled server has no folder to read. */
export const MIGRATIONS: Record<string, Migration> = { '0001-jobs': jobs }
