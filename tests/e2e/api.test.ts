import { Appended, ErrorBody, Job, JobList } from '#shared/api'
import { demoDb, freshDb, makeOwner, post, serve, type Server, type SignedIn } from '../support/app'
import { here, scratch } from '../support/corvit'

let server: Server
let me: SignedIn
const ROOMY = { CORVIT_RATE_SCALE: '50' }
beforeAll(async () => {
  server = await serve({ db: freshDb(), env: ROOMY })
  me = await makeOwner(server)
})
afterAll(() => server.stop())

const newJob = async (name = 'Test') =>
  Appended.parse(
    await (await me.send('POST', '/api/jobs', { name, purpose: 'service', edition: 2020 })).json(),
  ).job.id
const problemsOf = async (response: Response) =>
  ErrorBody.parse(((await response.json()) as { data: unknown }).data)
const note = (id: string, value: unknown = 1990, field = 'yearBuilt') => ({
  id,
  at: '2026-03-01T10:00:00.000Z',
  by: 'Ann',
  act: 'note',
  subject: 'premises',
  field,
  value,
  grade: 'told',
})
const observations = (job: string) => `/api/jobs/${job}/observations`

describe('jobs', () => {
  it('are made, listed, opened and removed', async () => {
    const id = await newJob('Fern Row 3')
    expect(JobList.parse(await (await me.get(`/api/jobs`)).json()).jobs.map(j => j.name)).toContain(
      'Fern Row 3',
    )
    expect(
      Job.parse(await (await me.get(`/api/jobs/${id}`)).json()).observations.length,
    ).toBeGreaterThan(5)
    expect((await me.send('DELETE', `/api/jobs/${id}`)).status).toBe(204)
    expect((await me.get(`/api/jobs/${id}`)).status).toBe(404)
  })
  it('that a device made stand in the list under their name as soon as it is stored', async () => {
    const id = crypto.randomUUID()
    const { at, by, subject } = note('')
    const added = { id: 'added', at, by, act: 'add', subject, kind: 'premises', parent: null }
    const first = note('first-name', 'Rowan Yard 8', 'name')
    expect((await me.send('PUT', `/api/jobs/${id}`, {})).status).toBe(201)
    const sent = await me.send('POST', observations(id), { observations: [added, first] })
    expect(Appended.parse(await sent.json())).toMatchObject({ stored: 2, refused: [] })
    const named = async () =>
      JobList.parse(await (await me.get(`/api/jobs`)).json()).jobs.find(j => j.id === id)?.name
    expect(await named()).toBe('Rowan Yard 8')
    const later = { ...note('later-name', 'Rowan Yard 9', 'name'), over: ['first-name'] }
    await me.send('POST', observations(id), { observations: [later] })
    expect(await named()).toBe('Rowan Yard 9')
    expect((await me.send('DELETE', `/api/jobs/${id}`)).status).toBe(204)
  })
  it.each([
    [{ purpose: 'service', edition: 2020 }, 'name'],
    [{ name: 'x', purpose: 'fun', edition: 2020 }, 'purpose'],
    [{ name: 'x', purpose: 'service', edition: 1999 }, 'edition'],
    [{ name: 'x', purpose: 'service', edition: 2020, extra: 1 }, 'extra'],
    [{ name: 'x'.repeat(500), purpose: 'service', edition: 2020 }, 'name'],
  ])('a job like %j is refused at %s', async (body, path) => {
    const response = await me.send('POST', '/api/jobs', body)
    expect(response.status).toBe(422)
    expect((await problemsOf(response)).problems.map(p => p.path)).toContain(path)
  })
  it('that are not there answer 404 with a code', async () => {
    for (const id of ['ghost-job', '..%2f..%2fetc', `${'x'.repeat(300)}`]) {
      const response = await me.get(`/api/jobs/${id}`)
      expect(response.status).toBe(404)
      expect((await problemsOf(response)).code).toBe('no-job')
    }
  })
})

describe('observations', () => {
  it('sent twice are stored once', async () => {
    const id = await newJob()
    const batch = { observations: [note('a-1'), note('a-2', 1985)] }
    expect(
      Appended.parse(await (await me.send('POST', observations(id), batch)).json()),
    ).toMatchObject({ stored: 2, known: 0 })
    expect(
      Appended.parse(await (await me.send('POST', observations(id), batch)).json()),
    ).toMatchObject({ stored: 0, known: 2 })
  })
  it('sent by many at once share a write, and each gets the answer to its own', async () => {
    const id = await newJob()
    const send = async (list: unknown[]) =>
      Appended.parse(await (await me.send('POST', observations(id), { observations: list })).json())
    const twin = note('twin', 'the same', 'client')
    const badTwin = note('bad-twin', 3, 'noSuchField')
    const many = Array.from({ length: 30 }, (_, i) => [
      note(`m-${i}`, 1900 + i),
      note(`n-${i}`, `client ${i}`, 'client'),
      ...(i % 5 === 0 ? [note(`bad-${i}`, 'wet', 'yearBuilt')] : []),
    ])
    // A long one first, so that the short ones wait together for the next turn.
    const long = Array.from({ length: 400 }, (_, i) => note(`long-${i}`, `street ${i}`, 'street'))
    const first = send(long)
    const answers = await Promise.all(
      [...many, [twin], [twin], [badTwin], [badTwin], [note('m-0', 1700)]].map(send),
    )
    const outcome = ({ stored, known, refused }: Appended) => [
      stored,
      known,
      refused.map(r => `${r.index} ${r.id} ${r.code}`),
    ]
    expect(answers.slice(0, 30).map(outcome)).toEqual(
      many.map((_, i) => [2, 0, i % 5 === 0 ? [`2 bad-${i} invalid-input`] : []]),
    )
    expect(
      answers
        .slice(30, 32)
        .map(a => [a.stored, a.known])
        .sort(),
    ).toEqual([
      [0, 1],
      [1, 0],
    ])
    for (const a of answers.slice(32, 34))
      expect(outcome(a)).toEqual([0, 0, ['0 bad-twin invalid-input']])
    expect(outcome(answers[34]!)).toEqual([0, 0, ['0 m-0 conflict']])
    expect((await first).stored).toBe(400)
    const stored = Job.parse(await (await me.get(`/api/jobs/${id}`)).json()).observations.map(
      o => o.id,
    )
    for (let i = 0; i < 30; i++)
      expect(stored.filter(s => s === `m-${i}` || s === `n-${i}`)).toHaveLength(2)
    expect(stored.filter(s => s === 'twin')).toHaveLength(1)
  })
  it('with a used id and another content are set aside, and the rest is stored', async () => {
    const id = await newJob()
    await me.send('POST', observations(id), { observations: [note('a-1')] })
    const response = await me.send('POST', observations(id), {
      observations: [note('a-1', 1950), note('a-9')],
    })
    expect(Appended.parse(await response.json())).toMatchObject({
      stored: 1,
      refused: [{ index: 0, id: 'a-1', code: 'conflict' }],
    })
    const kept = Job.parse(await (await me.get(`/api/jobs/${id}`)).json()).observations
    expect(kept.map(o => o.id).filter(o => /^a-\d$/.test(o))).toEqual(['a-1', 'a-9'])
    expect(kept.find(o => o.id === 'a-1')).toMatchObject({ value: 1990 })
  })
  it.each<[string, unknown, string]>([
    ['an unknown field', note('b', 1, 'charm'), 'observations[0].field'],
    ['a value out of range', note('b', 5), 'observations[0].value'],
    ['an unknown subject', { ...note('b'), subject: 'ghost' }, 'observations[0].subject'],
    ['an unknown act', { ...note('b'), act: 'explode' }, 'observations[0].act'],
    ['no author', { ...note('b'), by: undefined }, 'observations[0].by'],
    ['a time in the year 9999', { ...note('b'), at: '9999-01-01T00:00:00Z' }, 'observations[0].at'],
  ])('%s is refused and nothing stored', async (_name, observation, path) => {
    const id = await newJob()
    const before = Job.parse(await (await me.get(`/api/jobs/${id}`)).json()).observations.length
    const response = await me.send('POST', observations(id), { observations: [observation] })
    const { stored, refused } = Appended.parse(await response.json())
    expect([stored, refused[0]?.problems[0]?.path]).toEqual([0, path])
    expect(Job.parse(await (await me.get(`/api/jobs/${id}`)).json()).observations.length).toBe(
      before,
    )
  })
  it('that close a circle in the chain are refused', async () => {
    const id = await newJob()
    const stamp = (n: number) => ({ id: `p-${n}`, at: `2026-03-01T10:00:0${n}.000Z`, by: 'Ann' })
    const outlet = (n: number, subject: string) => ({
      ...stamp(n),
      act: 'add',
      subject,
      kind: 'outlet',
      parent: 'premises',
    })
    const after = (n: number, subject: string, value: string) => ({
      ...stamp(n),
      act: 'note',
      subject,
      field: 'after',
      value,
      grade: 'seen',
    })
    expect(
      (
        await me.send('POST', observations(id), {
          observations: [outlet(1, 'p'), outlet(2, 'q'), after(3, 'p', 'q')],
        })
      ).status,
    ).toBe(200)
    const response = await me.send('POST', observations(id), { observations: [after(4, 'q', 'p')] })
    const { stored, refused } = Appended.parse(await response.json())
    expect([stored, refused[0]?.problems[0]?.found]).toEqual([0, expect.stringContaining('circle')])
  })
})

describe('bad input of every kind', () => {
  it('broken JSON, a 50 MB body and an empty one get a clear answer', async () => {
    const id = await newJob()
    const broken = await me.send('POST', observations(id), '{"observations": [')
    expect([broken.status, (await problemsOf(broken)).problems[0]?.expected]).toEqual([422, 'JSON'])
    const huge = await me
      .send('POST', `/api/jobs/import`, 'x'.repeat(50 * 1024 * 1024))
      .catch(() => undefined)
    if (huge) expect([huge.status, (await problemsOf(huge)).code]).toEqual([413, 'too-large'])
    expect((await me.send('POST', `/api/jobs/import`, '')).status).toBe(422)
    expect((await me.get(`/api/jobs`)).ok).toBe(true)
  })
  const NASTY =
    `'); DROP TABLE jobs;-- <script>window.hurt=1</script><img src=x ` +
    `onerror="window.hurt=1"> =1+1 \u202e ÿ 漢`
  it('SQL, markup and formulas in every text field are kept as text, and nothing runs', async () => {
    const id = Appended.parse(
      await (
        await me.send('POST', '/api/jobs', {
          name: NASTY.slice(0, 190),
          street: NASTY.slice(0, 190),
          assessor: '=cmd()',
          purpose: 'service',
          edition: 2020,
        })
      ).json(),
    ).job.id
    const stamp = (n: number) => ({
      id: `n-${n}`,
      at: `2026-03-01T10:00:0${n}.000Z`,
      by: NASTY.slice(0, 100),
    })
    expect(
      (
        await me.send('POST', observations(id), {
          observations: [
            { ...stamp(1), act: 'add', subject: 'e', kind: 'enclosure', parent: 'premises' },
            { ...stamp(2), act: 'add', subject: 'b', kind: 'breaker', parent: 'e' },
            {
              ...stamp(3),
              act: 'note',
              subject: 'e',
              field: 'name',
              value: NASTY,
              grade: 'seen',
              remark: NASTY,
            },
            {
              ...stamp(4),
              act: 'note',
              subject: 'b',
              field: 'label',
              value: `=HYPERLINK("x")${NASTY}`.slice(0, 200),
              grade: 'seen',
            },
            { ...stamp(5), act: 'block', subject: 'b', field: 'poles', reason: NASTY },
          ],
        })
      ).status,
    ).toBe(200)
    const job = Job.parse(await (await me.get(`/api/jobs/${id}`)).json())
    expect(job.observations.some(o => o.act === 'note' && o.value === NASTY)).toBe(true)
    const csv = await (await me.get(`/api/jobs/${id}/schedule.csv`)).text()
    expect(csv).toContain(`'=HYPERLINK`)
    expect(csv.match(/(?<![^,\n"])"?[=@+-]/g)).toBeNull()
    const file = await me.get(`/api/jobs/${id}/export?form=house`)
    expect(file.headers.get('content-disposition')).toMatch(
      /^attachment; filename="[a-z0-9-]+\.house\.corvit\.json"$/,
    )
    expect((await me.get(`/api/jobs`)).ok).toBe(true)
  })
  it('an unknown form of export or voice of report is refused', async () => {
    const id = await newJob()
    expect((await me.get(`/api/jobs/${id}/export?form=xml`)).status).toBe(422)
    expect((await me.get(`/api/jobs/${id}/report?voice=poet`)).status).toBe(422)
  })
  it('a demo is reset only where it is one', async () => {
    expect((await me.send('POST', `/api/demo/reset`)).status).toBe(403)
  })
})

describe('the demo house, exported', () => {
  let demo: Server
  beforeAll(async () => {
    demo = await serve({ db: demoDb(), demo: true })
  })
  afterAll(() => demo.stop())

  it('export and import make the same job again, in both forms', async () => {
    for (const form of ['log', 'house']) {
      const text = await (
        await fetch(`${demo.url}/api/jobs/demo-sorrel-bank/export?form=${form}`)
      ).text()
      const { job } = Appended.parse(await (await post(`${demo.url}/api/jobs/import`, text)).json())
      const again = await (await fetch(`${demo.url}/api/jobs/${job.id}/export?form=${form}`)).text()
      expect(again === text).toBe(true)
    }
  })
  it('corvit assess works on what the application exports, and says the same as the application', async () => {
    const { jobs } = (await (await fetch(`${demo.url}/api/jobs`)).json()) as {
      jobs: { id: string; makeSafe: number; undecided: number }[]
    }
    // The job is fetched twice before the command line takes its time: a kept connection would be closed meanwhile.
    const exported = await Promise.all(
      ['log', 'house'].map(
        async form =>
          [
            form,
            await (await fetch(`${demo.url}/api/jobs/demo-sorrel-bank/export?form=${form}`)).text(),
          ] as const,
      ),
    )
    const totals = []
    for (const [form, text] of exported) {
      const file = scratch(`${form}.json`, text)
      const { stdout, status } = await here('assess', file)
      expect(status).toBe(0)
      totals.push(JSON.parse(stdout).totals)
    }
    expect(totals[0]).toEqual(totals[1])
    const own = jobs.find(j => j.id === 'demo-sorrel-bank')!
    expect([own.makeSafe, own.undecided]).toEqual([
      totals[0].severity['make safe now'],
      totals[0].undecided,
    ])
  })
})
