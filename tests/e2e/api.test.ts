import { Appended, ErrorBody, Job, JobList } from '#shared/api'
import { freshDb, post, serve, type Server } from '../support/app'

let server: Server
beforeAll(async () => { server = await serve({ db: freshDb() }) })
afterAll(() => server.stop())

const newJob = async (name = 'Test') => Appended.parse(await (await post(`${server.url}/api/jobs`, { name, purpose: 'service', edition: 2020 })).json()).job.id
const problemsOf = async (response: Response) => ErrorBody.parse((await response.json() as { data: unknown }).data)
const note = (id: string, value: unknown = 1990, field = 'yearBuilt') => ({ id, at: '2026-03-01T10:00:00.000Z', by: 'Ann', act: 'note', subject: 'premises', field, value, grade: 'told' })
const observations = (job: string) => `${server.url}/api/jobs/${job}/observations`

describe('jobs', () => {
  it('are made, listed, opened and removed', async () => {
    const id = await newJob('Fern Row 3')
    expect(JobList.parse(await (await fetch(`${server.url}/api/jobs`)).json()).jobs.map(j => j.name)).toContain('Fern Row 3')
    expect(Job.parse(await (await fetch(`${server.url}/api/jobs/${id}`)).json()).observations.length).toBeGreaterThan(5)
    expect((await fetch(`${server.url}/api/jobs/${id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await fetch(`${server.url}/api/jobs/${id}`)).status).toBe(404)
  })
  it.each([[{ purpose: 'service', edition: 2020 }, 'name'], [{ name: 'x', purpose: 'fun', edition: 2020 }, 'purpose'], [{ name: 'x', purpose: 'service', edition: 1999 }, 'edition'], [{ name: 'x', purpose: 'service', edition: 2020, extra: 1 }, 'extra'], [{ name: 'x'.repeat(500), purpose: 'service', edition: 2020 }, 'name']])('a job like %j is refused at %s', async (body, path) => {
    const response = await post(`${server.url}/api/jobs`, body)
    expect(response.status).toBe(422)
    expect((await problemsOf(response)).problems.map(p => p.path)).toContain(path)
  })
  it('that are not there answer 404 with a code', async () => {
    for (const id of ['ghost-job', '..%2f..%2fetc', `${'x'.repeat(300)}`]) {
      const response = await fetch(`${server.url}/api/jobs/${id}`)
      expect(response.status).toBe(404)
      expect((await problemsOf(response)).code).toBe('no-job')
    }
  })
})

describe('observations', () => {
  it('sent twice are stored once', async () => {
    const id = await newJob()
    const batch = { observations: [note('a-1'), note('a-2', 1985)] }
    expect(Appended.parse(await (await post(observations(id), batch)).json())).toMatchObject({ stored: 2, known: 0 })
    expect(Appended.parse(await (await post(observations(id), batch)).json())).toMatchObject({ stored: 0, known: 2 })
  })
  it('with a used id and another content are refused whole', async () => {
    const id = await newJob()
    await post(observations(id), { observations: [note('a-1')] })
    const response = await post(observations(id), { observations: [note('a-1', 1950), note('a-9')] })
    expect(response.status).toBe(409)
    const kept = Job.parse(await (await fetch(`${server.url}/api/jobs/${id}`)).json()).observations
    expect(kept.map(o => o.id).filter(o => /^a-\d$/.test(o))).toEqual(['a-1'])
    expect(kept.find(o => o.id === 'a-1')).toMatchObject({ value: 1990 })
  })
  it.each<[string, unknown, string]>([
    ['an unknown field', note('b', 1, 'charm'), 'observations[0].field'], ['a value out of range', note('b', 5), 'observations[0].value'], ['an unknown subject', { ...note('b'), subject: 'ghost' }, 'observations[0].subject'],
    ['an unknown act', { ...note('b'), act: 'explode' }, 'observations[0].act'], ['no author', { ...note('b'), by: undefined }, 'observations[0].by'],
  ])('%s is refused and nothing stored', async (_name, observation, path) => {
    const id = await newJob()
    const before = Job.parse(await (await fetch(`${server.url}/api/jobs/${id}`)).json()).observations.length
    const response = await post(observations(id), { observations: [observation] })
    expect(response.status).toBe(422)
    expect((await problemsOf(response)).problems[0]?.path).toBe(path)
    expect(Job.parse(await (await fetch(`${server.url}/api/jobs/${id}`)).json()).observations.length).toBe(before)
  })
  it('that close a circle in the chain are refused', async () => {
    const id = await newJob()
    const stamp = (n: number) => ({ id: `p-${n}`, at: `2026-03-01T10:00:0${n}.000Z`, by: 'Ann' })
    const point = (n: number, subject: string) => ({ ...stamp(n), act: 'add', subject, kind: 'point', parent: 'premises' })
    const after = (n: number, subject: string, value: string) => ({ ...stamp(n), act: 'note', subject, field: 'after', value, grade: 'seen' })
    expect((await post(observations(id), { observations: [point(1, 'p'), point(2, 'q'), after(3, 'p', 'q')] })).status).toBe(200)
    const response = await post(observations(id), { observations: [after(4, 'q', 'p')] })
    expect(response.status).toBe(422)
    expect((await problemsOf(response)).problems[0]?.found).toContain('circle')
  })
})

describe('bad input of every kind', () => {
  it('broken JSON, a 50 MB body and an empty one get a clear answer', async () => {
    const id = await newJob()
    const broken = await post(observations(id), '{"observations": [')
    expect([broken.status, (await problemsOf(broken)).problems[0]?.expected]).toEqual([422, 'JSON'])
    const huge = await post(`${server.url}/api/jobs/import`, 'x'.repeat(50 * 1024 * 1024)).catch(() => undefined)
    if (huge) expect([huge.status, (await problemsOf(huge)).code]).toEqual([413, 'too-large'])
    expect((await post(`${server.url}/api/jobs/import`, '')).status).toBe(422)
    expect((await fetch(`${server.url}/api/jobs`)).ok).toBe(true)
  })
  const NASTY = `'); DROP TABLE jobs;-- <script>window.hurt=1</script><img src=x onerror="window.hurt=1"> =1+1 \u202e ÿ 漢`
  it('SQL, markup and formulas in every text field are kept as text, and nothing runs', async () => {
    const id = Appended.parse(await (await post(`${server.url}/api/jobs`, { name: NASTY.slice(0, 190), street: NASTY.slice(0, 190), assessor: '=cmd()', purpose: 'service', edition: 2020 })).json()).job.id
    const stamp = (n: number) => ({ id: `n-${n}`, at: `2026-03-01T10:00:0${n}.000Z`, by: NASTY.slice(0, 100) })
    expect((await post(observations(id), { observations: [
      { ...stamp(1), act: 'add', subject: 'e', kind: 'enclosure', parent: 'premises' }, { ...stamp(2), act: 'add', subject: 'b', kind: 'breaker', parent: 'e' },
      { ...stamp(3), act: 'note', subject: 'e', field: 'name', value: NASTY, grade: 'seen', remark: NASTY }, { ...stamp(4), act: 'note', subject: 'b', field: 'label', value: `=HYPERLINK("x")${NASTY}`.slice(0, 200), grade: 'seen' }, { ...stamp(5), act: 'block', subject: 'b', field: 'poles', reason: NASTY },
    ] })).status).toBe(200)
    const job = Job.parse(await (await fetch(`${server.url}/api/jobs/${id}`)).json())
    expect(job.observations.some(o => o.act === 'note' && o.value === NASTY)).toBe(true)
    const csv = await (await fetch(`${server.url}/api/jobs/${id}/schedule.csv`)).text()
    expect(csv).toContain(`'=HYPERLINK`)
    const file = await fetch(`${server.url}/api/jobs/${id}/export?form=house`)
    expect(file.headers.get('content-disposition')).toMatch(/^attachment; filename="[a-z0-9-]+\.house\.corvit\.json"$/)
    expect((await fetch(`${server.url}/api/jobs`)).ok).toBe(true)
  })
  it('an unknown form of export or voice of report is refused', async () => {
    const id = await newJob()
    expect((await fetch(`${server.url}/api/jobs/${id}/export?form=xml`)).status).toBe(422)
    expect((await fetch(`${server.url}/api/jobs/${id}/report?voice=poet`)).status).toBe(422)
  })
  it('a demo is reset only where it is one', async () => {
    expect((await fetch(`${server.url}/api/demo/reset`, { method: 'POST' })).status).toBe(403)
  })
})

it('export and import make the same job again, in both forms', async () => {
  const demo = await serve({ db: freshDb(), demo: true })
  try {
    for (const form of ['log', 'house']) {
      const text = await (await fetch(`${demo.url}/api/jobs/demo-sorrel-bank/export?form=${form}`)).text()
      const { job } = Appended.parse(await (await post(`${demo.url}/api/jobs/import`, text)).json())
      const again = await (await fetch(`${demo.url}/api/jobs/${job.id}/export?form=${form}`)).text()
      expect(again === text).toBe(true)
    }
  } finally {
    await demo.stop()
  }
})
