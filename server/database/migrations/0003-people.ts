import type { Kysely, Migration } from 'kysely'

/** Accounts, who may see which job, links for readers, the audit trail, settings; jobs in the trash. */
export const people: Migration = {
  async up(db: Kysely<unknown>) {
    await db.transaction().execute(async tx => {
      await tx.schema
        .createTable('users')
        .addColumn('id', 'text', c => c.primaryKey())
        .addColumn('login', 'text', c => c.notNull().unique())
        .addColumn('name', 'text', c => c.notNull())
        .addColumn('role', 'text', c => c.notNull())
        .addColumn('password_hash', 'text', c => c.notNull())
        .addColumn('session_version', 'integer', c => c.notNull().defaultTo(1))
        .addColumn('created_at', 'text', c => c.notNull())
        .addColumn('disabled_at', 'text')
        .execute()
      await tx.schema
        .createTable('passkeys')
        .addColumn('id', 'text', c => c.primaryKey())
        .addColumn('user_id', 'text', c => c.notNull().references('users.id').onDelete('cascade'))
        .addColumn('public_key', 'text', c => c.notNull())
        .addColumn('counter', 'integer', c => c.notNull())
        .addColumn('transports', 'text', c => c.notNull())
        .addColumn('created_at', 'text', c => c.notNull())
        .execute()
      await tx.schema
        .createTable('members')
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('user_id', 'text', c => c.notNull().references('users.id').onDelete('cascade'))
        .addPrimaryKeyConstraint('members_once', ['job_id', 'user_id'])
        .execute()
      await tx.schema
        .createTable('links')
        .addColumn('id', 'text', c => c.primaryKey())
        .addColumn('job_id', 'text', c => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('token_hash', 'text', c => c.notNull().unique())
        .addColumn('voice', 'text', c => c.notNull())
        .addColumn('made_by', 'text', c => c.notNull())
        .addColumn('made_at', 'text', c => c.notNull())
        .addColumn('expires_at', 'text', c => c.notNull())
        .addColumn('revoked_at', 'text')
        .execute()
      // No reference to jobs or users: what happened stays known when they are gone.
      await tx.schema
        .createTable('audit')
        .addColumn('seq', 'integer', c => c.primaryKey().autoIncrement())
        .addColumn('at', 'text', c => c.notNull())
        .addColumn('user_id', 'text')
        .addColumn('user_name', 'text', c => c.notNull())
        .addColumn('device', 'text', c => c.notNull())
        .addColumn('action', 'text', c => c.notNull())
        .addColumn('job_id', 'text')
        .addColumn('detail', 'text', c => c.notNull())
        .execute()
      await tx.schema
        .createTable('settings')
        .addColumn('key', 'text', c => c.primaryKey())
        .addColumn('value', 'text', c => c.notNull())
        .execute()
      await tx.schema.alterTable('jobs').addColumn('owner_id', 'text').execute()
      await tx.schema.alterTable('jobs').addColumn('deleted_at', 'text').execute()
      await tx.schema
        .alterTable('jobs')
        .addColumn('state', 'text', c => c.notNull().defaultTo('ready'))
        .execute()
      await tx.schema
        .alterTable('jobs')
        .addColumn('imported', 'integer', c => c.notNull().defaultTo(0))
        .execute()
      await tx.schema.alterTable('observations').addColumn('received_at', 'text').execute()
      await tx.schema.alterTable('observations').addColumn('account_id', 'text').execute()
      await tx.schema
        .createIndex('observations_of_job')
        .on('observations')
        .columns(['job_id', 'seq'])
        .execute()
    })
  },
}
