import type { Kysely, Migration } from 'kysely'

/** Jobs and their append-only observations. The counts on a job are a summary for lists; the log is the truth. */
export const jobs: Migration = {
  async up(db: Kysely<unknown>) {
    await db.transaction().execute(async tx => {
      let table = tx.schema
        .createTable('jobs')
        .addColumn('id', 'text', c => c.primaryKey())
        .addColumn('created_at', 'text', c => c.notNull())
        .addColumn('changed_at', 'text', c => c.notNull())
      for (const name of ['name', 'street', 'purpose', 'year_built', 'edition'] as const)
        table = table.addColumn(name, 'text', c => c.notNull().defaultTo(''))
      for (const name of [
        'observations',
        'make_safe',
        'repair',
        'upgrade',
        'record',
        'undecided',
      ] as const)
        table = table.addColumn(name, 'integer', c => c.notNull().defaultTo(0))
      await table.execute()
      await tx.schema
        .createTable('observations')
        .addColumn('seq', 'integer', c => c.primaryKey().autoIncrement())
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('id', 'text', c => c.notNull())
        .addColumn('at', 'text', c => c.notNull())
        .addColumn('act', 'text', c => c.notNull())
        .addColumn('subject', 'text')
        .addColumn('field', 'text')
        .addColumn('body', 'text', c => c.notNull())
        .addUniqueConstraint('observations_once', ['job_id', 'id'])
        .execute()
      await tx.schema
        .createIndex('observations_of_fact')
        .on('observations')
        .columns(['job_id', 'subject', 'field'])
        .execute()
    })
  },
}
