import { sql, type Kysely, type Migration } from 'kysely'

/** How far a job is, search over jobs, signed reports, what went out, and what the permit office was sent. */
export const files: Migration = {
  async up(db: Kysely<unknown>) {
    await db.transaction().execute(async tx => {
      await tx.schema
        .alterTable('jobs')
        .addColumn('stage', 'text', c => c.notNull().defaultTo('planned'))
        .execute()
      await tx.schema
        .alterTable('jobs')
        .addColumn('next_on', 'text', c => c.notNull().defaultTo(''))
        .execute()
      await tx.schema.alterTable('jobs').addColumn('archived_at', 'text').execute()
      await tx.schema
        .createIndex('jobs_listed')
        .on('jobs')
        .columns(['state', 'deleted_at', 'changed_at'])
        .execute()
      await sql`CREATE VIRTUAL TABLE job_search USING fts5(
        job_id UNINDEXED, name, street, people, findings,
        tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'
      )`.execute(tx)
      await tx.schema
        .createTable('signed')
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('name', 'text', c => c.notNull())
        .addColumn('number', 'integer', c => c.notNull())
        .addColumn('voice', 'text', c => c.notNull())
        .addColumn('hash', 'text', c => c.notNull())
        .addColumn('signed_by', 'text', c => c.notNull())
        .addColumn('signed_on', 'text', c => c.notNull())
        .addColumn('paper', 'text', c => c.notNull())
        .addColumn('pdf', 'blob', c => c.notNull())
        .addPrimaryKeyConstraint('signed_once', ['job_id', 'name'])
        .execute()
      await tx.schema
        .createTable('outbox')
        .addColumn('id', 'text', c => c.primaryKey())
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('kind', 'text', c => c.notNull())
        .addColumn('recipient', 'text', c => c.notNull())
        .addColumn('subject', 'text', c => c.notNull())
        .addColumn('file', 'text', c => c.notNull())
        .addColumn('made_at', 'text', c => c.notNull())
        .addColumn('made_by', 'text', c => c.notNull())
        .execute()
      await tx.schema
        .createTable('permits')
        .addColumn('reference', 'text', c => c.primaryKey())
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('works', 'integer', c => c.notNull())
        .addColumn('sent_at', 'text', c => c.notNull())
        .execute()
    })
  },
}
