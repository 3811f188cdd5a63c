import sharp from 'sharp'
import { Appended, Job, StoredPhoto } from '#shared/api'
import { freshDb, makeOwner, serve, withCookie, type Server, type SignedIn } from '../support/app'

const CLIENTS = 6
const ROUNDS = process.env.CORVIT_TRIALS ? 4 : 2
const ROOMY = { CORVIT_RATE_SCALE: '1000' }

/** Everything that was acknowledged before the server was killed, at moments the writes know nothing of. */
it('a server killed again and again, with several clients on one job, loses nothing it acknowledged', async () => {
  const db = freshDb()
  const acknowledged: string[] = []
  const photos: string[] = []
  const jobs: string[] = []
  let job = ''
  let cookie = ''
  const picture = await sharp({
    create: { width: 60, height: 40, channels: 3, background: '#804020' },
  })
    .jpeg()
    .toBuffer()
  for (let round = 0; round < ROUNDS; round++) {
    const server = await serve({ db, env: ROOMY })
    cookie ||= (await makeOwner(server)).cookie
    const me = withCookie(server.url, cookie)
    job ||= Appended.parse(await (await me.send('POST', '/api/jobs', FIRST)).json()).job.id
    // The first appends of a restarted server come at once: each of them must see the others.
    const killed = new Promise<void>(resolve =>
      setTimeout(() => void server.stop('SIGKILL').then(resolve), 400 + round * 150),
    )
    const clients = Array.from({ length: CLIENTS }, (_, c) =>
      recordUntilKilled(me, job, `k-${round}-${c}`, acknowledged),
    )
    await Promise.all([
      ...clients,
      photographUntilKilled(server, cookie, job, picture, photos),
      importUntilKilled(me, jobs),
      killed,
    ])
  }
  expect(acknowledged.length).toBeGreaterThan(10 * ROUNDS)
  const server = await serve({ db, env: ROOMY })
  const me = withCookie(server.url, cookie)
  const stored = new Set(
    Job.parse(await (await me.get(`/api/jobs/${job}`)).json()).observations.map(o => o.id),
  )
  const exported = await (await me.get(`/api/jobs/${job}/export?form=log`)).text()
  expect(acknowledged.filter(id => !stored.has(id) || !exported.includes(`"${id}"`))).toEqual([])
  for (const hash of photos)
    expect((await me.get(`/api/jobs/${job}/photos/${hash}`)).status).toBe(200)
  for (const id of jobs) expect((await me.get(`/api/jobs/${id}`)).status).toBe(200)
  const listed = ((await (await me.get('/api/jobs')).json()) as { jobs: { name: string }[] }).jobs
  expect(listed.filter(j => j.name === '')).toEqual([])
  await server.stop()
})

const FIRST = { name: 'Killed', purpose: 'service', edition: 2020 }
const AT = '2026-01-01T00:00:00.000Z'

async function recordUntilKilled(
  me: SignedIn,
  job: string,
  name: string,
  acknowledged: string[],
): Promise<void> {
  for (let n = 0; n < 2000; n++) {
    const id = `${name}-${n}`
    const note = {
      id,
      at: AT,
      by: 'Ann',
      act: 'note',
      subject: 'premises',
      field: 'client',
      value: id,
      grade: 'told',
    }
    try {
      const response = await me.send('POST', `/api/jobs/${job}/observations`, {
        observations: [note],
      })
      const { stored } = Appended.parse(await response.json())
      if (stored === 1) acknowledged.push(id)
    } catch {
      return
    }
    // Readable at once, not only in the end.
    if (n !== 3) continue
    try {
      const text = await (await me.get(`/api/jobs/${job}`)).text()
      if (!text.includes(`"${id}"`)) throw new Error(`${id} was acknowledged and is not readable`)
    } catch (error) {
      if ((error as Error).message.includes('not readable')) throw error
      return
    }
  }
}

async function photographUntilKilled(
  server: Server,
  cookie: string,
  job: string,
  picture: Buffer,
  kept: string[],
): Promise<void> {
  try {
    const headers = { cookie, 'content-type': 'image/jpeg' }
    const response = await fetch(`${server.url}/api/jobs/${job}/photos`, {
      method: 'POST',
      body: new Uint8Array(picture),
      headers,
    })
    kept.push(StoredPhoto.parse(await response.json()).hash)
  } catch {
    /* killed before it was stored */
  }
}

async function importUntilKilled(me: SignedIn, jobs: string[]): Promise<void> {
  const file = {
    corvit: 1,
    form: 'house',
    premises: { name: 'Imported' },
    enclosures: [{ id: 'e', type: 'panel' }],
  }
  for (let n = 0; n < 50; n++) {
    try {
      const response = await me.send('POST', '/api/jobs/import', file)
      jobs.push(Appended.parse(await response.json()).job.id)
    } catch {
      return
    }
  }
}
