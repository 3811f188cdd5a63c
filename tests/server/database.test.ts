import { mkdtempSync, readdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addUser, setMembers } from '../../server/queries/people'
import { MIGRATIONS } from '../../server/database/migrations'
import { openDatabase, takeLock } from '../../server/database/open'
import {
  addJob,
  addObservations,
  bodiesAfter,
  findJob,
  indexJob,
  listJobs,
  listTrash,
  removeJob,
  updateJob,
} from '../../server/queries/jobs'

// The driver's errors belong to whichever test file of the process loaded it first, so they are told by their words.
const saying = (words: string) => ({ message: expect.stringContaining(words) as string })

const row = (id: string, job = 'job-1') => ({
  job_id: job,
  id,
  at: '2026-01-01T00:00:00.000Z',
  act: 'drop',
  subject: 's',
  field: null,
  body: JSON.stringify({ id }),
})

describe('the database', () => {
  it('lists in code every migration of the folder, in order', () => {
    const files = readdirSync('server/database/migrations')
      .filter(f => /^\d{4}-/.test(f))
      .map(f => f.replace('.ts', ''))
      .sort()
    expect(Object.keys(MIGRATIONS)).toEqual(files)
  })
  it('keeps observations in order and refuses one id twice', async () => {
    const db = await openDatabase(':memory:')
    await addJob(db, 'job-1', '2026-01-01T00:00:00.000Z')
    const last = await addObservations(db, [row('b'), row('a')])
    expect(await bodiesAfter(db, 'job-1', 0, 10)).toEqual([
      { seq: 1, body: '{"id":"b"}' },
      { seq: 2, body: '{"id":"a"}' },
    ])
    expect([
      last,
      await bodiesAfter(db, 'job-1', 1, 10),
      await bodiesAfter(db, 'job-1', 0, 1),
    ]).toEqual([2, [{ seq: 2, body: '{"id":"a"}' }], [{ seq: 1, body: '{"id":"b"}' }]])
    await expect(addObservations(db, [row('a')])).rejects.toMatchObject(saying('UNIQUE'))
    await db.destroy()
  })
  it('refuses observations of no job, and removes them with their job', async () => {
    const db = await openDatabase(':memory:')
    await expect(addObservations(db, [row('a', 'ghost')])).rejects.toMatchObject(
      saying('FOREIGN KEY'),
    )
    await addJob(db, 'job-1', '2026-01-01T00:00:00.000Z')
    await addObservations(db, [row('a')])
    await removeJob(db, 'job-1')
    expect(await bodiesAfter(db, 'job-1', 0, 10)).toEqual([])
    expect(await findJob(db, 'job-1')).toBeUndefined()
    expect(await listJobs(db, { offset: 0, limit: 10 })).toEqual({ rows: [], total: 0 })
    await db.destroy()
  })
  it('makes a job once, and lists it to those who may see it, unless it is in the trash or half read', async () => {
    const db = await openDatabase(':memory:')
    const now = '2026-01-01T00:00:00.000Z'
    await addUser(db, {
      id: 'u',
      login: 'u',
      name: 'U',
      role: 'assessor',
      password_hash: '',
      session_version: 1,
      created_at: now,
      disabled_at: null,
    })
    expect(await addJob(db, 'own', now, { owner_id: 'u' })).toBe(true)
    expect(await addJob(db, 'own', now, { owner_id: 'somebody' })).toBe(false)
    await addJob(db, 'shared', now, { owner_id: 'other' })
    await addJob(db, 'hidden', now, { owner_id: 'other' })
    await addJob(db, 'half', now, { owner_id: 'u', state: 'importing' })
    await addJob(db, 'thrown', now, { owner_id: 'u' })
    await updateJob(db, 'thrown', { deleted_at: now })
    await setMembers(db, 'shared', ['u'])
    const ids = async (userId?: string) => {
      const { rows } = await listJobs(db, { offset: 0, limit: 10, ...(userId && { userId }) })
      return rows.map(j => j.id).sort()
    }
    expect([await ids('u'), await ids()]).toEqual([
      ['own', 'shared'],
      ['hidden', 'own', 'shared'],
    ])
    expect((await listTrash(db, 'u')).map(j => j.id)).toEqual(['thrown'])
    await db.destroy()
  })
  it('finds jobs by the beginnings of words, a page at a time, and says how many there are', async () => {
    const db = await openDatabase(':memory:')
    const days = ['2026-01-01', '2026-01-02', '2026-01-03']
    for (const [i, day] of days.entries()) {
      const id = `job-${i}`
      await addJob(db, id, `${day}T00:00:00.000Z`, { stage: i === 2 ? 'signed' : 'on site' })
      const words = { name: `Quince ${i}`, street: 'Émile Row', people: 'Ann', findings: 'Bootleg' }
      await indexJob(db, { job_id: id, ...words })
    }
    const found = async (words: string, more: object = {}) => {
      const { rows, total } = await listJobs(db, { words, offset: 0, limit: 2, ...more })
      return [rows.map(r => r.id), total]
    }
    expect(await found('')).toEqual([['job-2', 'job-1'], 3])
    expect(await found('', { offset: 2 })).toEqual([['job-0'], 3])
    expect(await found('qui 1')).toEqual([['job-1'], 1])
    expect(await found('emile boot')).toEqual([['job-2', 'job-1'], 3])
    expect(await found('ann', { stage: 'signed' })).toEqual([['job-2'], 1])
    expect(await found('nobody')).toEqual([[], 0])
    // Signs of the search language are no signs here, and a word of nothing but them asks for nothing.
    expect(await found('"quince" -ann* NEAR(')).toEqual([[], 0])
    expect(await found('" * ( )')).toEqual([['job-2', 'job-1'], 3])
    await updateJob(db, 'job-2', { archived_at: '2026-02-01T00:00:00.000Z' })
    expect(await found('')).toEqual([['job-1', 'job-0'], 2])
    expect(await found('', { isArchived: true })).toEqual([['job-2'], 1])
    await removeJob(db, 'job-1')
    expect(await found('quince')).toEqual([['job-0'], 1])
    await db.destroy()
  })
  it('is taken by one process at a time', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'corvit-lock-')), 'corvit.db')
    const first = takeLock(file)
    expect(first).toBeDefined()
    expect(takeLock(file)).toBeUndefined()
    first!.release()
    const next = takeLock(file)
    expect(next).toBeDefined()
    next!.release()
  })
  it('syncs every commit to disk', async () => {
    const { sql } = await import('kysely')
    const db = await openDatabase(':memory:')
    expect(
      (await sql<{ synchronous: number }>`pragma synchronous`.execute(db)).rows[0]!.synchronous,
    ).toBe(2)
    expect(
      (await sql<{ foreign_keys: number }>`pragma foreign_keys`.execute(db)).rows[0]!.foreign_keys,
    ).toBe(1)
    await db.destroy()
  })
})
