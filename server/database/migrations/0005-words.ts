import type { Kysely, Migration } from 'kysely'
import { upcastObservation } from '../../../core'

interface Stored {
  seq: number
  body: string
}
const PAGE = 2000

/** Logs stored in the words of version 1 get those of today, once, so that no reader has to know both. */
export const words: Migration = {
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- untied to today's types, as every migration
  async up(db: Kysely<any>) {
    await db.transaction().execute(async tx => {
      let after = 0
      for (;;) {
        const rows: Stored[] = await tx
          .selectFrom('observations')
          .select(['seq', 'body'])
          .where('seq', '>', after)
          .orderBy('seq')
          .limit(PAGE)
          .execute()
        if (rows.length === 0) return
        for (const { seq, body } of rows) {
          const before: unknown = JSON.parse(body)
          const now = upcastObservation(before) as { field?: string }
          after = seq
          if (now === before) continue
          const field = now.field ?? null
          await tx
            .updateTable('observations')
            .set({ body: JSON.stringify(now), field })
            .where('seq', '=', seq)
            .execute()
        }
      }
    })
  },
}
