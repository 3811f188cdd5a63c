import { randomBytes } from 'node:crypto'
import { readdirSync, existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import { zipSync } from 'fflate'
import { Appended, ErrorBody, Job, StoredPhoto } from '#shared/api'
import { freshDb, makeOwner, serve, type Server, type SignedIn } from '../support/app'

let server: Server
let db: string
let me: SignedIn
beforeAll(async () => {
  db = freshDb()
  process.env.CORVIT_PHOTO_QUOTA_MB = '1'
  server = await serve({ db, env: { CORVIT_RATE_SCALE: '50' } })
  me = await makeOwner(server)
})
afterAll(async () => {
  delete process.env.CORVIT_PHOTO_QUOTA_MB
  await server.stop()
})
const newJob = async () =>
  Appended.parse(
    await (
      await me.send('POST', '/api/jobs', { name: 'Photos', purpose: 'service', edition: 2020 })
    ).json(),
  ).job.id
const send = (job: string, body: Buffer | string, type = 'image/jpeg') =>
  fetch(`${server.url}/api/jobs/${job}/photos`, {
    method: 'POST',
    body: body as never,
    headers: { 'content-type': type, cookie: me.cookie },
  })
const refusal = async (response: Response) =>
  ErrorBody.parse(((await response.json()) as { data: unknown }).data)
const red = (width = 3000, height = 2000) =>
  sharp({ create: { width, height, channels: 3, background: '#a03020' } })
/** Noise does not compress: it fills a quota, and no picture of it is like another. */
const noise = (edge = 900) =>
  sharp(randomBytes(edge * edge * 3), { raw: { width: edge, height: edge, channels: 3 } })
    .jpeg({ quality: 95 })
    .toBuffer()

it('a photograph is made smaller, upright, freed of what the camera wrote, and kept under its hash', async () => {
  const job = await newJob()
  const taken = await red()
    .withExif({ IFD0: { Artist: 'somebody', Model: 'a phone' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()
  const response = await send(job, taken)
  expect(response.status).toBe(201)
  const stored = StoredPhoto.parse(await response.json())
  expect([stored.width, stored.height]).toEqual([1333, 2000])
  const kept = await me.get(`/api/jobs/${job}/photos/${stored.hash}`)
  expect(kept.headers.get('content-type')).toBe('image/jpeg')
  expect(kept.headers.get('x-content-type-options')).toBe('nosniff')
  const bytes = Buffer.from(await kept.arrayBuffer())
  const meta = await sharp(bytes).metadata()
  expect(meta.exif).toBeUndefined()
  const thumb = await sharp(
    Buffer.from(
      await (await me.get(`/api/jobs/${job}/photos/${stored.hash}?size=thumb`)).arrayBuffer(),
    ),
  ).metadata()
  expect(Math.max(thumb.width, thumb.height)).toBe(360)
  expect(StoredPhoto.parse(await (await send(job, taken)).json()).hash).toBe(stored.hash)
})
it.each<[string, () => Buffer | Promise<Buffer>, string]>([
  [
    'a page named .jpg',
    () => Buffer.from('<!doctype html><script>alert(1)</script>'),
    'a page or drawing',
  ],
  [
    'a drawing with script in it',
    () =>
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><script>alert(1)</script></svg>',
      ),
    'svg',
  ],
  ['an archive', () => Buffer.from(zipSync({ 'a.jpg': new Uint8Array(200_000) })), 'an archive'],
  [
    'a cut-off picture',
    async () => (await red(800, 800).jpeg().toBuffer()).subarray(0, 700),
    'cannot be read whole',
  ],
  ['nothing', () => Buffer.alloc(0), 'nothing'],
  ['words', () => Buffer.from('just words'), 'no picture'],
])('%s is refused by its content', async (_name, make, found) => {
  const job = await newJob()
  const response = await send(job, await make())
  expect(response.status).toBe(415)
  const { code, problems } = await refusal(response)
  expect(code).toBe('not-a-photo')
  expect(problems[0]!.found).toContain(found)
})
it('a hundred megabytes are refused without being read', async () => {
  const job = await newJob()
  const response = await send(job, Buffer.alloc(100 * 1024 * 1024)).catch(() => undefined)
  // The server may close the connection before all of it is sent; either way nothing is kept.
  if (response) {
    expect(response.status).toBe(413)
    expect((await refusal(response)).code).toBe('too-large')
  }
  expect((await me.get(`/api/jobs`)).status).toBe(200)
})
it('a small file that unpacks to a huge picture is refused', async () => {
  const job = await newJob()
  const bomb = await sharp({
    create: { width: 16000, height: 16000, channels: 3, background: '#000' },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer()
  expect(bomb.length).toBeLessThan(5_000_000)
  const response = await send(job, bomb, 'image/png')
  expect(response.status).toBe(413)
  expect((await refusal(response)).problems[0]!.found).toMatch(/16000|more/)
}, 60_000)
it.each([
  '..%2f..%2f..%2fetc%2fpasswd',
  'a'.repeat(64),
  'A'.repeat(64),
  `${'a'.repeat(63)}%00`,
  'x',
])('no path leads out of the folder: %s', async hash => {
  const job = await newJob()
  const response = await me.get(`/api/jobs/${job}/photos/${hash}`)
  expect(response.status).toBe(404)
  expect((await refusal(response)).code).toBe('no-photo')
})
it('a photograph of one job is not shown in another, and goes with its job', async () => {
  const [a, b] = [await newJob(), await newJob()]
  const { hash } = StoredPhoto.parse(
    await (await send(a, await red(40, 30).jpeg().toBuffer())).json(),
  )
  expect((await me.get(`/api/jobs/${b}/photos/${hash}`)).status).toBe(404)
  const file = join(dirname(db), 'photos', hash.slice(0, 2), `${hash}.jpg`)
  expect(existsSync(file)).toBe(true)
  await me.send('DELETE', `/api/jobs/${a}`)
  expect(existsSync(file)).toBe(true)
  await me.send('DELETE', `/api/trash/${a}`)
  expect(existsSync(file)).toBe(false)
})
it('where there is no more room photographs are refused and observations are still taken', async () => {
  const job = await newJob()
  const before = readdirSync(join(dirname(db), 'photos')).length
  let refused: Response | undefined
  for (let i = 0; i < 12 && !refused; i++) {
    const response = await send(job, await noise())
    if (response.status === 507) refused = response
  }
  expect(refused).toBeDefined()
  expect((await refusal(refused!)).code).toBe('storage-full')
  const note = {
    id: 'still-1',
    at: '2026-03-01T10:00:00.000Z',
    by: 'Ann',
    act: 'note',
    subject: 'premises',
    field: 'yearBuilt',
    value: 1950,
    grade: 'told',
  }
  expect(
    (await me.send('POST', `/api/jobs/${job}/observations`, { observations: [note] })).status,
  ).toBe(200)
  expect(JSON.stringify(Job.parse(await (await me.get(`/api/jobs/${job}`)).json()))).toContain(
    'still-1',
  )
  expect(before).toBeGreaterThan(0)
  expect(
    readdirSync(join(dirname(db), 'photos'), { recursive: true }).filter(f =>
      String(f).endsWith('.part'),
    ),
  ).toEqual([])
})
it('many photographs at once do not take more room than there is (long)', async () => {
  const own = await serve({
    db: freshDb(),
    env: { CORVIT_RATE_SCALE: '50', CORVIT_PHOTO_QUOTA_MB: '1' },
  })
  const you = await makeOwner(own)
  const job = Appended.parse(
    await (
      await you.send('POST', '/api/jobs', { name: 'Race', purpose: 'service', edition: 2020 })
    ).json(),
  ).job.id
  const pictures = await Promise.all(Array.from({ length: 8 }, () => noise()))
  const headers = { 'content-type': 'image/jpeg', cookie: you.cookie }
  const answers = await Promise.all(
    pictures.map(p =>
      fetch(`${own.url}/api/jobs/${job}/photos`, { method: 'POST', body: p as never, headers }),
    ),
  )
  const stored = await Promise.all(
    answers.filter(r => r.status === 201).map(async r => StoredPhoto.parse(await r.json())),
  )
  expect(stored.length).toBeGreaterThan(0)
  expect(stored.length).toBeLessThan(8)
  expect(stored.reduce((sum, p) => sum + p.bytes, 0)).toBeLessThanOrEqual(1024 * 1024)
  await own.stop()
}, 60_000)
it('a picture that one job gives up while another stores it stays', async () => {
  const picture = await red(50, 50).jpeg().toBuffer()
  for (let round = 0; round < 6; round++) {
    const [a, b] = [await newJob(), await newJob()]
    const { hash } = StoredPhoto.parse(await (await send(a, picture)).json())
    await me.send('DELETE', `/api/jobs/${a}`)
    await Promise.all([me.send('DELETE', `/api/trash/${a}`), send(b, picture)])
    expect((await me.get(`/api/jobs/${b}/photos/${hash}`)).status).toBe(200)
    await me.send('DELETE', `/api/jobs/${b}`)
    await me.send('DELETE', `/api/trash/${b}`)
  }
})
