import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import SQLite from 'better-sqlite3'
import { Appended, ErrorBody, Health, Job, StoredPhoto } from '#shared/api'
import { freshDb, makeOwner, serve, signIn, withCookie, type SignedIn } from '../support/app'

const FIRST = { name: 'Kept', purpose: 'service', edition: 2020 }
const newJob = async (me: SignedIn) =>
  Appended.parse(await (await me.send('POST', '/api/jobs', FIRST)).json()).job.id
const note = (id: string, value: string) => ({
  id,
  at: '2026-03-01T10:00:00.000Z',
  by: 'Ann',
  act: 'note',
  subject: 'premises',
  field: 'client',
  value,
  grade: 'told',
})
const script = (name: string, db: string, ...args: string[]) =>
  spawnSync(process.execPath, [join('scripts', name), ...args], {
    env: { ...process.env, CORVIT_DB: db },
    encoding: 'utf8',
  })
const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#804020' } })
    .jpeg()
    .toBuffer()
async function photograph(url: string, me: SignedIn, job: string): Promise<string> {
  const headers = { cookie: me.cookie, 'content-type': 'image/jpeg' }
  const response = await fetch(`${url}/api/jobs/${job}/photos`, {
    method: 'POST',
    body: new Uint8Array(await picture()),
    headers,
  })
  return StoredPhoto.parse(await response.json()).hash
}

describe('one database, one process', () => {
  it('a second server on the same database is refused with words, and the first goes on', async () => {
    const db = freshDb()
    const server = await serve({ db })
    await expect(serve({ db })).rejects.toThrow('in use by another Corvit')
    expect(Health.parse(await (await fetch(`${server.url}/api/health`)).json())).toMatchObject({
      status: 'ok',
      isDemo: false,
    })
    await server.stop('SIGKILL')
    // The lock falls with the process, however it ended.
    const again = await serve({ db })
    await again.stop()
  })
  it('listens on this machine only, unless told otherwise', async () => {
    const server = await serve({ db: freshDb() })
    expect(server.log()).toContain('Listening on http://127.0.0.1:')
    await server.stop()
  })
  it('parallel first appends after a restart are all there, each readable when it is acknowledged (long)', async () => {
    const db = freshDb()
    let server = await serve({ db, env: { CORVIT_RATE_SCALE: '100' } })
    const { cookie } = await makeOwner(server)
    const job = await newJob(withCookie(server.url, cookie))
    for (let round = 0; round < 3; round++) {
      await server.stop()
      server = await serve({ db, env: { CORVIT_RATE_SCALE: '100' } })
      const me = withCookie(server.url, cookie)
      await Promise.all(
        Array.from({ length: 4 }, async (_, i) => {
          const id = `p-${round}-${i}`
          const answer = Appended.parse(
            await (
              await me.send('POST', `/api/jobs/${job}/observations`, {
                observations: [note(id, id)],
              })
            ).json(),
          )
          expect(answer).toMatchObject({ stored: 1, refused: [] })
          expect(await (await me.get(`/api/jobs/${job}`)).text()).toContain(`"${id}"`)
          expect(await (await me.get(`/api/jobs/${job}/export?form=log`)).text()).toContain(
            `"${id}"`,
          )
        }),
      )
      const later = { ...note(`q-${round}`, 'later'), over: [`p-${round}-0`] }
      expect(
        Appended.parse(
          await (
            await me.send('POST', `/api/jobs/${job}/observations`, { observations: [later] })
          ).json(),
        ).refused,
      ).toEqual([])
    }
    await server.stop()
  })
  it('ends gracefully while somebody listens, within a few seconds', async () => {
    const server = await serve({ db: freshDb() })
    const me = await makeOwner(server)
    const stream = await me.get(`/api/jobs/${await newJob(me)}/stream`)
    const reading = stream.text()
    const began = Date.now()
    await server.stop('SIGTERM')
    await reading
    expect(Date.now() - began).toBeLessThan(8000)
  })
})

describe('logs stored by version 1', () => {
  it('are given clocks and the words of today once, when the database is opened', async () => {
    const db = freshDb()
    const first = await serve({ db })
    const { cookie } = await makeOwner(first)
    const job = await newJob(withCookie(first.url, cookie))
    await first.stop()
    const sqlite = new SQLite(db)
    const rows = sqlite.prepare('SELECT seq, body FROM observations').all() as {
      seq: number
      body: string
    }[]
    const bare = sqlite.prepare('UPDATE observations SET body = ? WHERE seq = ?')
    for (const { seq, body } of rows) {
      const { clock: _clock, ...old } = JSON.parse(body) as Record<string, unknown>
      bare.run(JSON.stringify(old), seq)
    }
    // And what was recorded in the words of version 1.
    const insert = sqlite.prepare(
      `INSERT INTO observations (job_id, id, at, act, subject, field, body, received_at)
       VALUES (?, ?, ?, ?, 'p', ?, ?, ?)`,
    )
    const at = '2026-03-01T10:00:00.000Z'
    const old = [
      { id: 'v1-a', at, by: 'A', act: 'add', subject: 'p', kind: 'point', parent: 'premises' },
      {
        id: 'v1-b',
        at,
        by: 'A',
        act: 'note',
        subject: 'p',
        field: 'groundToEarthV',
        value: 0.4,
        grade: 'measured',
      },
    ] as const
    for (const o of old)
      insert.run(job, o.id, at, o.act, 'field' in o ? o.field : null, JSON.stringify(o), at)
    sqlite.prepare(`DELETE FROM kysely_migration WHERE name >= '0004'`).run()
    sqlite.exec('DROP INDEX jobs_listed')
    for (const column of ['in_scope', 'stage', 'next_on', 'archived_at'])
      sqlite.exec(`ALTER TABLE jobs DROP COLUMN ${column}`)
    for (const table of ['job_search', 'signed', 'outbox', 'permits'])
      sqlite.exec(`DROP TABLE ${table}`)
    sqlite.close()
    const second = await serve({ db })
    const { observations } = Job.parse(
      await (await withCookie(second.url, cookie).get(`/api/jobs/${job}`)).json(),
    )
    expect(observations.length).toBe(rows.length + old.length)
    const now = observations.filter(o => o.id.startsWith('v1-'))
    expect(now.map(o => (o.act === 'add' ? o.kind : o.act === 'note' ? o.field : ''))).toEqual([
      'outlet',
      'groundToReferenceV',
    ])
    expect(observations.every(o => o.clock !== undefined)).toBe(true)
    await second.stop()
  })
})

describe('what a killed server leaves', () => {
  it('half a picture, a half-read file and a picture no job has are swept away at the start (long)', async () => {
    const db = freshDb()
    const first = await serve({ db })
    const me = await makeOwner(first)
    const job = await newJob(me)
    const hash = await photograph(first.url, me, job)
    await first.stop('SIGKILL')
    const folder = join(dirname(db), 'photos', 'ab')
    mkdirSync(folder, { recursive: true })
    writeFileSync(join(folder, `${'ab'.repeat(32)}.jpg`), 'orphan')
    writeFileSync(join(folder, `${'ab'.repeat(32)}.jpg.1234.part`), 'half')
    const sqlite = new SQLite(db)
    sqlite
      .prepare(
        `INSERT INTO jobs (id, created_at, changed_at, state) VALUES ('half-read', '2026', '2026', 'importing')`,
      )
      .run()
    sqlite.close()
    const second = await serve({ db })
    expect(readdirSync(folder)).toEqual([])
    const again = await signIn(second, 'olive')
    expect((await again.get(`/api/jobs/${job}/photos/${hash}`)).status).toBe(200)
    expect(await (await again.get('/api/jobs')).text()).not.toContain('half-read')
    await second.stop()
  })
})

describe('a full disk', () => {
  it('is said as such; nothing is lost, and reading goes on', async () => {
    const server = await serve({
      db: freshDb(),
      env: { CORVIT_DB_MAX_MB: '1', CORVIT_RATE_SCALE: '100' },
    })
    const me = await makeOwner(server)
    const job = await newJob(me)
    let full: Response | undefined
    let stored = 0
    for (let i = 0; i < 60 && !full; i++) {
      const observations = Array.from({ length: 200 }, (_, k) =>
        note(`f-${i}-${k}`, 'x'.repeat(150)),
      )
      const response = await me.send('POST', `/api/jobs/${job}/observations`, { observations })
      if (response.ok) stored += 200
      else full = response
    }
    expect(full?.status).toBe(507)
    expect(ErrorBody.parse(((await full!.json()) as { data: unknown }).data).code).toBe(
      'storage-full',
    )
    const { observations } = Job.parse(await (await me.get(`/api/jobs/${job}`)).json())
    expect(observations.filter(o => o.id.startsWith('f-')).length).toBe(stored)
    await server.stop()
  })
})

describe('limits', () => {
  it('too many calls are told when to come again, and nothing is lost by waiting', async () => {
    const server = await serve({ db: freshDb(), env: { CORVIT_RATE_SCALE: '0.02' } })
    const me = await makeOwner(server)
    const job = await newJob(me)
    const send = (n: number) =>
      me.send('POST', `/api/jobs/${job}/observations`, { observations: [note(`l-${n}`, `${n}`)] })
    const answers = await Promise.all(Array.from({ length: 30 }, (_, n) => send(n)))
    const late = answers.find(r => r.status === 429)!
    expect(ErrorBody.parse(((await late.json()) as { data: unknown }).data).code).toBe('too-often')
    expect(Number(late.headers.get('retry-after'))).toBeGreaterThan(0)
    await server.stop()
  })
  it('a file that takes longer to read than it may is given up, and leaves no job (long)', async () => {
    const server = await serve({ db: freshDb(), env: { CORVIT_HEAVY_LIMIT_MS: '40' } })
    const me = await makeOwner(server)
    const outlets = Array.from({ length: 15_000 }, (_, i) => ({ id: `p${i}`, type: 'receptacle' }))
    const response = await me.send('POST', '/api/jobs/import', {
      corvit: 1,
      form: 'house',
      outlets: outlets,
    })
    expect([
      response.status,
      ErrorBody.parse(((await response.json()) as { data: unknown }).data).code,
    ]).toEqual([503, 'took-too-long'])
    expect(await (await me.get('/api/jobs')).json()).toMatchObject({ jobs: [] })
    await server.stop()
  })
  it('what lay in the trash long enough is gone at the next start; the trail says it was there (long)', async () => {
    const db = freshDb()
    const first = await serve({ db })
    const me = await makeOwner(first)
    const [old, young] = [await newJob(me), await newJob(me)]
    for (const job of [old, young]) await me.send('DELETE', `/api/jobs/${job}`)
    await first.stop()
    const sqlite = new SQLite(db)
    sqlite
      .prepare('UPDATE jobs SET deleted_at = ? WHERE id = ?')
      .run(new Date(Date.now() - 31 * 86_400_000).toISOString(), old)
    sqlite.close()
    const second = await serve({ db })
    const again = await signIn(second, 'olive')
    await new Promise(r => setTimeout(r, 300))
    const trash = await (await again.get('/api/trash')).text()
    expect([trash.includes(old), trash.includes(young)]).toEqual([false, true])
    expect(await (await again.get('/api/audit')).text()).toContain(old)
    await second.stop()
  })
})

describe('backup and restore', () => {
  it('a backup made while Corvit runs is whole, is checked, and brings everything back', async () => {
    const db = freshDb()
    const server = await serve({ db, env: { CORVIT_RATE_SCALE: '100' } })
    const me = await makeOwner(server)
    const job = await newJob(me)
    const hash = await photograph(server.url, me, job)
    const folder = join(dirname(db), 'backup')
    // Somebody goes on recording meanwhile.
    let isDone = false
    const recording = (async () => {
      for (let i = 0; !isDone; i++)
        await me.send('POST', `/api/jobs/${job}/observations`, {
          observations: [note(`w-${i}`, `${i}`)],
        })
    })()
    const made = await new Promise<string>(resolve => {
      const child = spawn(process.execPath, ['scripts/backup.mjs', folder], {
        env: { ...process.env, CORVIT_DB: db },
      })
      let out = ''
      child.stdout.on('data', d => {
        out += d
      })
      child.on('exit', code => resolve(`${code} ${out}`))
    })
    isDone = true
    await recording
    expect(made).toMatch(/^0 .*1 jobs, \d+ observations, 1 photographs/)
    expect(script('restore.mjs', db, folder).stderr).toContain('Corvit is running')
    await me.send('DELETE', `/api/jobs/${job}`)
    await me.send('DELETE', `/api/trash/${job}`)
    await server.stop()
    const restored = script('restore.mjs', db, folder)
    expect([restored.status, restored.stderr]).toEqual([0, ''])
    const again = await serve({ db })
    const back = await signIn(again, 'olive')
    expect((await back.get(`/api/jobs/${job}`)).status).toBe(200)
    expect((await back.get(`/api/jobs/${job}/photos/${hash}`)).status).toBe(200)
    await again.stop()
  }, 60_000)
  it('a backup that was touched is refused, and nothing is changed (long)', async () => {
    const db = freshDb()
    const server = await serve({ db })
    await server.stop()
    const folder = join(dirname(db), 'backup')
    expect(script('backup.mjs', db, folder).status).toBe(0)
    const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as {
      files: { path: string; sha256: string }[]
    }
    writeFileSync(join(folder, 'corvit.db'), 'something else')
    const before = readFileSync(db)
    const refused = script('restore.mjs', db, folder)
    expect([refused.status, refused.stderr]).toEqual([
      1,
      expect.stringContaining('is not what it was'),
    ])
    manifest.files.push({ path: '../../outside', sha256: '' })
    writeFileSync(
      join(folder, 'manifest.json'),
      JSON.stringify({ ...manifest, files: manifest.files.slice(1), corvit: 'backup', version: 1 }),
    )
    expect(script('restore.mjs', db, folder).stderr).toContain('leads out')
    expect(readFileSync(db).equals(before)).toBe(true)
    expect(script('restore.mjs', db, join(folder, 'nothing')).stderr).toContain('is no backup')
  }, 60_000)
})

it('the command line ends quietly when its reader has seen enough', () => {
  const run = () =>
    execFileSync(
      'bash',
      [
        '-o',
        'pipefail',
        '-c',
        'node cli/corvit.mjs assess docs/examples/multiwire.corvit.json 2>&1 | head -c 20',
      ],
      { encoding: 'utf8' },
    )
  expect(run()).toMatch(/^\{\s+"corvit"/)
})
