import { readdirSync } from 'node:fs'
import { MIGRATIONS } from '../../server/database/migrations'
import { openDatabase } from '../../server/database/open'
import { addJob, addObservations, bodiesOf, findJob, listJobs, removeJob } from '../../server/queries/jobs'

const row = (id: string, job = 'job-1') => ({ job_id: job, id, at: '2026-01-01T00:00:00.000Z', act: 'drop', subject: 's', field: null, body: JSON.stringify({ id }) })

describe('the database', () => {
  it('lists in code every migration of the folder, in order', () => {
    const files = readdirSync('server/database/migrations').filter(f => /^\d{4}-/.test(f)).map(f => f.replace('.ts', '')).sort()
    expect(Object.keys(MIGRATIONS)).toEqual(files)
  })
  it('keeps observations in order and refuses one id twice', async () => {
    const db = await openDatabase(':memory:')
    await addJob(db, 'job-1', '2026-01-01T00:00:00.000Z')
    await addObservations(db, [row('b'), row('a')])
    expect(await bodiesOf(db, 'job-1')).toEqual(['{"id":"b"}', '{"id":"a"}'])
    await expect(addObservations(db, [row('a')])).rejects.toThrow(/UNIQUE/)
    await db.destroy()
  })
  it('refuses observations of no job, and removes them with their job', async () => {
    const db = await openDatabase(':memory:')
    await expect(addObservations(db, [row('a', 'ghost')])).rejects.toThrow(/FOREIGN KEY/)
    await addJob(db, 'job-1', '2026-01-01T00:00:00.000Z')
    await addObservations(db, [row('a')])
    await removeJob(db, 'job-1')
    expect(await bodiesOf(db, 'job-1')).toEqual([])
    expect(await findJob(db, 'job-1')).toBeUndefined()
    expect(await listJobs(db)).toEqual([])
    await db.destroy()
  })
  it('syncs every commit to disk', async () => {
    const { sql } = await import('kysely')
    const db = await openDatabase(':memory:')
    expect((await sql<{ synchronous: number }>`pragma synchronous`.execute(db)).rows[0]!.synchronous).toBe(2)
    expect((await sql<{ foreign_keys: number }>`pragma foreign_keys`.execute(db)).rows[0]!.foreign_keys).toBe(1)
    await db.destroy()
  })
})
