import type { Kysely, Migration } from 'kysely'

/** What is open within the scope of the visit; empty until a job is counted again. */
export const scope: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('jobs').addColumn('in_scope', 'integer').execute()
  },
}
