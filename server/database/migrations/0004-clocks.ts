import type { Kysely, Migration } from 'kysely'
import { withClocks, type RawObservation } from '../../../core'

interface Stored {
  seq: number
  body: string
}

/** Logs stored before there were clocks get those of their instants, once, so that every reader sees the same order. */
export const clocks: Migration = {
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- untied to today's types, as every migration
  async up(db: Kysely<any>) {
    await db.transaction().execute(async tx => {
      const jobs = await tx.selectFrom('jobs').select('id').execute()
      for (const { id } of jobs) {
        const rows: Stored[] = await tx
          .selectFrom('observations')
          .select(['seq', 'body'])
          .where('job_id', '=', id)
          .orderBy('seq')
          .execute()
        const stamped = withClocks(rows.map(r => JSON.parse(r.body) as RawObservation))
        for (const [i, row] of rows.entries()) {
          await tx
            .updateTable('observations')
            .set({ body: JSON.stringify(stamped[i]) })
            .where('seq', '=', row.seq)
            .execute()
        }
      }
    })
  },
}
