import type { Kysely, Migration } from 'kysely'

/** Photographs: the file lies beside the database under its hash; what it shows is in the observation log. */
export const photos: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('photos')
      .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
      .addColumn('hash', 'text', c => c.notNull())
      .addColumn('stored_at', 'text', c => c.notNull())
      .addColumn('width', 'integer', c => c.notNull())
      .addColumn('height', 'integer', c => c.notNull())
      .addColumn('bytes', 'integer', c => c.notNull())
      .addPrimaryKeyConstraint('photos_once', ['job_id', 'hash'])
      .execute()
  },
}
