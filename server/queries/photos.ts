import type { Kysely } from 'kysely'
import type { Database, PhotosTable } from '../database/types'

type Db = Kysely<Database>

export const findPhoto = (db: Db, jobId: string, hash: string) =>
  db
    .selectFrom('photos')
    .selectAll()
    .where('job_id', '=', jobId)
    .where('hash', '=', hash)
    .executeTakeFirst()
export const addPhoto = (db: Db, row: PhotosTable) =>
  db
    .insertInto('photos')
    .values(row)
    .onConflict(c => c.columns(['job_id', 'hash']).doNothing())
    .execute()
/** Bytes of every photograph stored, each file once. */
export const bytesOfPhotos = async (db: Db): Promise<number> =>
  Number(
    (
      await db
        .selectFrom(db.selectFrom('photos').select(['hash', 'bytes']).distinct().as('p'))
        .select(q => q.fn.sum('p.bytes').as('bytes'))
        .executeTakeFirst()
    )?.bytes ?? 0,
  )
export const isPhotoUsed = async (db: Db, hash: string): Promise<boolean> =>
  (await db.selectFrom('photos').select('hash').where('hash', '=', hash).executeTakeFirst()) !==
  undefined
export const hashesOf = async (db: Db, jobId: string): Promise<string[]> =>
  (await db.selectFrom('photos').select('hash').where('job_id', '=', jobId).execute()).map(
    r => r.hash,
  )
