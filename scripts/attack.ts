/**
 * npm run attack: does to a server of its own what a hostile page, file or person would, and says what came of it.
 * `--short` is the part that runs with the tests; `--seed N` turns the random parts.
 */
import { mkdtempSync } from 'node:fs'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ROUTES, type Route } from '../shared/routes'
import { mayAtLeast, type Role } from '../shared/people'
import serveLib from './lib/serve.cjs'

export interface Outcome {
  attack: string
  tried: number
  held: number
  worst: string
}
interface Person {
  role: Role
  cookie: string
  id: string
}
interface Target {
  url: string
  log(): string
  people: Person[]
  job: string
}

const PASSWORD = 'quite a long one'
const AT = '2026-01-01T00:00:00.000Z'

/** One request, with any headers at all: the built-in fetch would not let a foreign Host or Origin through. */
function call(
  url: string,
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body?: string,
): Promise<{ status: number; text: string; headers: Record<string, unknown>; ms: number }> {
  const began = performance.now()
  const { hostname, port, host } = new URL(url)
  return new Promise((resolve, reject) => {
    const req = request({ hostname, port, path, method, headers: { host, ...headers } }, res => {
      let text = ''
      res.on('data', d => {
        text += d
      })
      const done = () =>
        resolve({
          status: res.statusCode ?? 0,
          text,
          headers: res.headers,
          ms: performance.now() - began,
        })
      res.on('end', done)
      // A live stream does not end by itself.
      if (String(res.headers['content-type']).includes('event-stream'))
        setTimeout(() => void (done(), req.destroy()), 50)
    })
    req.on('error', reject)
    req.end(body)
  })
}
const json = (cookie = ''): Record<string, string> => ({
  'content-type': 'application/json',
  ...(cookie && { cookie }),
})
const cookieOf = (headers: Record<string, unknown>) =>
  ((headers['set-cookie'] as string[] | undefined) ?? []).at(-1)?.split(';')[0] ?? ''

async function prepare(url: string, log: () => string): Promise<Target> {
  let code: string | undefined
  for (let i = 0; i < 60 && !code; i++) {
    code = /with this code: ([A-Z0-9-]+)/.exec(log())?.[1]
    if (!code) await new Promise(r => setTimeout(r, 100))
  }
  const made = await call(
    url,
    'POST',
    '/api/setup',
    json(),
    JSON.stringify({ code, login: 'olive', name: 'Olive', password: PASSWORD }),
  )
  const owner: Person = {
    role: 'owner',
    cookie: cookieOf(made.headers),
    id: JSON.parse(made.text).id,
  }
  const people = [owner]
  for (const role of ['assessor', 'apprentice'] as const) {
    const body = JSON.stringify({ login: role, name: role, role, password: PASSWORD })
    const { text } = await call(url, 'POST', '/api/people', json(owner.cookie), body)
    const signed = await call(
      url,
      'POST',
      '/api/session',
      json(),
      JSON.stringify({ login: role, password: PASSWORD }),
    )
    people.push({ role, cookie: cookieOf(signed.headers), id: JSON.parse(text).id })
  }
  const job = await newJob(url, owner.cookie)
  return { url, log, people, job }
}
async function newJob(url: string, cookie: string): Promise<string> {
  const body = JSON.stringify({ name: 'Attacked', purpose: 'service', edition: 2020 })
  return JSON.parse((await call(url, 'POST', '/api/jobs', json(cookie), body)).text).job.id
}

class Tally {
  tried = 0
  held = 0
  worst = ''
  constructor(readonly attack: string) {}
  note(isHeld: boolean, what: string): void {
    this.tried++
    if (isHeld) this.held++
    else if (!this.worst) this.worst = what
  }

  get outcome(): Outcome {
    return { attack: this.attack, tried: this.tried, held: this.held, worst: this.worst }
  }
}

/** Writes that another site's page can send with the owner's cookie. */
async function hostileOrigin({ url, people, job }: Target): Promise<Outcome> {
  const tally = new Tally('a page of another site writes')
  const { cookie } = people[0]!
  const note = JSON.stringify({
    observations: [{ id: 'x', at: AT, by: 'x', act: 'drop', subject: 'premises' }],
  })
  const dresses: Record<string, string>[] = [
    { origin: 'http://evil.example' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
    { origin: 'null' },
    { 'content-type': 'text/plain' },
    { 'content-type': 'application/x-www-form-urlencoded' },
    { 'content-type': 'multipart/form-data; boundary=x' },
  ]
  for (const dress of dresses) {
    for (const [method, path, body] of [
      ['POST', `/api/jobs/${job}/observations`, note],
      ['POST', '/api/jobs', '{"name":"x","purpose":"service","edition":2020}'],
      ['DELETE', `/api/jobs/${job}`, ''],
      ['POST', '/api/demo/reset', '{}'],
      ['POST', '/api/jobs/import', '{}'],
    ] as const) {
      // A form cannot send DELETE, so only the origin protects there.
      if (method === 'DELETE' && 'content-type' in dress) continue
      const { status } = await call(url, method, path, { ...json(cookie), ...dress }, body)
      tally.note(
        status === 403 || status === 415,
        `${method} ${path} with ${JSON.stringify(dress)}: ${status}`,
      )
    }
  }
  return tally.outcome
}

/** A foreign name that leads to this machine. */
async function rebinding({ url, people, job }: Target): Promise<Outcome> {
  const tally = new Tally('a foreign name that leads here')
  for (const host of [
    'evil.example',
    'evil.example:3000',
    '127.0.0.1.evil.example',
    'localhost.evil.example',
    '127.0.0.1:1@evil.example',
  ]) {
    for (const path of ['/', '/api/jobs', `/api/jobs/${job}`, `/api/jobs/${job}/export`]) {
      const { status } = await call(url, 'GET', path, { host, cookie: people[0]!.cookie }).catch(
        () => ({ status: 400 }),
      )
      tally.note(status === 421 || status === 400, `${path} as ${host}: ${status}`)
    }
  }
  return tally.outcome
}

async function framing({ url, people }: Target): Promise<Outcome> {
  const tally = new Tally('framing, sniffing, scripts of others')
  for (const path of ['/', '/people', '/api/session']) {
    const { headers, text } = await call(url, 'GET', path, { cookie: people[0]!.cookie })
    tally.note(headers['x-frame-options'] === 'DENY', `${path} may be framed`)
    tally.note(headers['x-content-type-options'] === 'nosniff', `${path} may be sniffed`)
    tally.note(headers['referrer-policy'] === 'no-referrer', `${path} tells where one comes from`)
    if (path.startsWith('/api/')) continue
    const policy = String(headers['content-security-policy'])
    const nonce = /'nonce-([^']+)'/.exec(policy)?.[1]
    tally.note(
      nonce !== undefined && policy.includes(`frame-ancestors 'none'`),
      `${path}: ${policy}`,
    )
    tally.note(!/script-src[^;]*unsafe/.test(policy), `${path} lets any script run`)
    const scripts = [...text.matchAll(/<script[^>]*>/g)]
    tally.note(
      scripts.length > 0 && scripts.every(s => s[0].includes(`nonce="${nonce}"`)),
      `${path} has a script without its nonce`,
    )
  }
  const [a, b] = [await call(url, 'GET', '/'), await call(url, 'GET', '/')]
  tally.note(
    a.headers['content-security-policy'] !== b.headers['content-security-policy'],
    'the nonce repeats',
  )
  return tally.outcome
}

/** Each role at each route: nobody gets further than the list says. */
async function roles(target: Target): Promise<Outcome> {
  const { url, people, job } = target
  const tally = new Tally('each role × each route')
  const own = await newJob(url, people[0]!.cookie)
  const fill = (route: Route) =>
    route.path
      .replace(':jobId', route.method === 'DELETE' ? own : job)
      .replace(':hash', 'a'.repeat(64))
      .replace(/:\w+/, 'nothing')
  const strangers: (Person | undefined)[] = [undefined, ...people.slice(1)]
  for (const route of ROUTES) {
    // Their own sessions are needed to the end.
    if (route.method === 'DELETE' && route.path === '/api/session') continue
    for (const person of strangers) {
      const { status, text } = await call(
        url,
        route.method,
        fill(route),
        json(person?.cookie),
        ['GET', 'DELETE'].includes(route.method) ? undefined : '{}',
      )
      const isOpen = route.who === 'anyone' || route.who === 'link'
      const what = `${person?.role ?? 'stranger'}: ${route.method} ${route.path}: ${status}`
      tally.note(
        !/at .*\.(mjs|ts|js):\d+|node_modules|\/work\//.test(text),
        `${what} tells its insides`,
      )
      if (isOpen) tally.note(status !== 500, what)
      else if (!person) tally.note(status === 401, what)
      else if (!mayAtLeast(person.role, route.who as Role)) tally.note(status === 403, what)
      // The job is the owner's and not shared: nobody else may see that it is there.
      else if (route.path.includes('/jobs/:jobId'))
        tally.note([404, 409, 422, 415].includes(status), what)
      else tally.note(status !== 500, what)
    }
  }
  const kept = await call(url, 'GET', `/api/jobs/${job}`, { cookie: people[0]!.cookie })
  tally.note(kept.status === 200, 'the job is gone')
  return tally.outcome
}

/** Has a file read, and tells how long the slowest small request beside it took, in milliseconds. */
async function whileReading(
  url: string,
  cookie: string,
  body: string,
): Promise<{ status: number; slowest: number }> {
  let slowest = 0
  let isDone = false
  const watch = (async () => {
    while (!isDone) {
      const { ms } = await call(url, 'GET', '/api/session', { cookie })
      slowest = Math.max(slowest, ms)
      await new Promise(r => setTimeout(r, 5))
    }
  })()
  const { status, text } = await call(url, 'POST', '/api/jobs/import', json(cookie), body)
  if (status === 201) await call(url, 'GET', `/api/jobs/${JSON.parse(text).job.id}`, { cookie })
  isDone = true
  await watch
  return { status, slowest }
}

/** Files made to stop a reader; meanwhile somebody else asks for something small. */
async function heavyFiles({ url, people }: Target, isShort: boolean): Promise<Outcome> {
  const tally = new Tally('files made to stop the server; nobody else waits 200 ms')
  const { cookie } = people[0]!
  const scale = isShort ? 0.1 : 1
  const n = (full: number) => Math.round(full * scale)
  const stamp = (id: string, at = AT) => ({ id, at, by: 'x' })
  const premises = {
    ...stamp('p'),
    act: 'add',
    subject: 'premises',
    kind: 'premises',
    parent: null,
  }
  const log = (list: object[]) =>
    JSON.stringify({ corvit: 1, form: 'log', observations: [premises, ...list] })
  const house = (circuits: number, outlets: number, isChain: boolean) =>
    JSON.stringify({
      corvit: 1,
      form: 'house',
      enclosures: [
        {
          id: 'e',
          type: 'panel',
          breakers: Array.from({ length: circuits }, (_, c) => ({
            id: `b${c}`,
            space: (c % 42) + 1,
            poles: 1,
            ratingAmps: 15,
            circuit: {
              id: `c${c}`,
              label: 'x',
              outlets: Array.from({ length: outlets }, (_, i) => ({
                id: `p${c}-${i}`,
                type: 'receptacle',
                ...(isChain && { after: i === 0 ? 'panel' : `p${c}-${i - 1}` }),
              })),
            },
          })),
        },
      ],
    })
  const files: Record<string, () => string> = {
    'chained retractions': () =>
      log(
        Array.from({ length: n(7000) }, (_, i) => ({
          ...stamp(`r${i}`),
          act: 'retract',
          target: i === 0 ? 'p' : `r${i - 1}`,
        })),
      ),
    'notes in reverse time': () =>
      log(
        Array.from({ length: n(20_000) }, (_, i) => ({
          ...stamp(`n${i}`, new Date(Date.UTC(2026, 0, 1) - i * 1000).toISOString()),
          act: 'note',
          subject: 'premises',
          field: 'client',
          value: `c${i}`,
          grade: 'told',
        })),
      ),
    'bad observations': () =>
      JSON.stringify({ corvit: 1, form: 'log', observations: Array(n(190_000)).fill({ id: 4 }) }),
    'unknown names': () =>
      JSON.stringify({
        corvit: 1,
        form: 'house',
        premises: Object.fromEntries(Array.from({ length: n(800_000) }, (_, i) => [`k${i}`, 1])),
      }),
    'outlets in one chain': () => house(1, n(4000), true),
    'outlets in many chains': () => house(n(40), 100, true),
    'brackets in brackets': () =>
      `{"corvit":1,"form":"house","premises":${'['.repeat(100_000)}${']'.repeat(100_000)}}`,
    'a number of a million digits': () =>
      `{"corvit":1,"form":"house","premises":{"yearBuilt":${'9'.repeat(1_000_000)}}}`,
    'not JSON': () => 'x'.repeat(5_000_000),
  }
  const limitMs = isShort ? 400 : 200
  for (const [name, make] of Object.entries(files)) {
    const body = make()
    let { status, slowest } = await whileReading(url, cookie, body)
    // A server that keeps others waiting for a file does so each time, a busy machine now and then.
    for (let again = 0; again < 2 && slowest >= limitMs; again++)
      ({ status, slowest } = await whileReading(url, cookie, body))
    tally.note([201, 413, 422, 503].includes(status), `${name}: ${status}`)
    tally.note(slowest < limitMs, `${name}: another request waited ${Math.round(slowest)} ms`)
  }
  const over = await call(
    url,
    'POST',
    '/api/jobs/import',
    json(cookie),
    'x'.repeat(21 * 1024 * 1024),
  ).catch(() => ({ status: 413 }))
  tally.note(over.status === 413, `21 MB: ${over.status}`)
  return tally.outcome
}

/** One poisoned observation in each batch, of every kind; the good one beside it must go through. */
async function queuePoisoning(
  { url, people, job }: Target,
  random: () => number,
): Promise<Outcome> {
  const tally = new Tally('one bad observation in a batch')
  const { cookie } = people[0]!
  const good = (id: string) => ({
    id,
    at: AT,
    by: 'x',
    act: 'note',
    subject: 'premises',
    field: 'client',
    value: id,
    grade: 'told',
  })
  const bads: unknown[] = [
    null,
    4,
    'text',
    [],
    {},
    { id: 'b' },
    { ...good('b1'), at: '9999-01-01T00:00:00Z' },
    { ...good('b2'), value: { deep: [] } },
    { ...good('b3'), field: '__proto__' },
    { ...good('b4'), subject: 'constructor' },
    { ...good('b5'), act: 'explode' },
    { ...good('b6'), id: '../../etc' },
    { ...good('b7'), clock: '9999-01-01T00:00:00.000Z~000000~x' },
    { ...good('b8'), over: ['x'.repeat(500)] },
    { ...good('b9'), value: 'x'.repeat(5000) },
    { ...good('b10'), extra: 1 },
  ]
  for (const [i, bad] of bads.entries()) {
    const id = `good-${i}-${Math.floor(random() * 1e9)}`
    const batch = random() < 0.5 ? [bad, good(id)] : [good(id), bad]
    const { status, text } = await call(
      url,
      'POST',
      `/api/jobs/${job}/observations`,
      json(cookie),
      JSON.stringify({ observations: batch }),
    )
    const answer =
      status === 200
        ? (JSON.parse(text) as { stored: number; refused: { problems: { expected: string }[] }[] })
        : undefined
    tally.note(
      answer?.stored === 1 && answer.refused.length === 1,
      `${JSON.stringify(bad)?.slice(0, 60)}: ${status} ${text.slice(0, 120)}`,
    )
    const words = JSON.stringify(answer?.refused ?? [])
    tally.note(
      !/Invalid input|Too big|Unrecognized key|received/.test(words),
      `validator English: ${words.slice(0, 120)}`,
    )
  }
  return tally.outcome
}

/** Cells a spreadsheet would run. */
async function sheets({ url, people }: Target): Promise<Outcome> {
  const tally = new Tally('formulas in CSV')
  const { cookie } = people[0]!
  const cells = [
    '=1+1',
    '+1',
    '-1+1',
    '@SUM(A1)',
    '\n=1+1',
    ' =1+1',
    '\t=1+1',
    '＝1+1',
    '＋1',
    'a\n=1+1',
    '\u200b=1',
    '"=1+1',
  ]
  const breakers = cells.map((label, i) => ({
    id: `b${i}`,
    space: i + 1,
    poles: 1,
    label,
    circuit: { id: `c${i}`, label },
  }))
  const file = {
    corvit: 1,
    form: 'house',
    premises: { name: 'x' },
    enclosures: [{ id: 'e', type: 'panel', breakers }],
  }
  const { text } = await call(url, 'POST', '/api/jobs/import', json(cookie), JSON.stringify(file))
  const { job } = JSON.parse(text) as { job: { id: string } }
  for (const kind of ['schedule', 'findings']) {
    const csv = (await call(url, 'GET', `/api/jobs/${job.id}/${kind}.csv`, { cookie })).text
    const runs = cellsOf(csv).filter(
      c => /^[\s\u200b"]*[=+\-@＝＋]/.test(c) && !/^-?\d+(\.\d+)?$/.test(c),
    )
    tally.note(runs.length === 0, `${kind}: ${JSON.stringify(runs[0])}`)
  }
  return tally.outcome
}
function cellsOf(csv: string): string[] {
  const cells: string[] = []
  for (const m of csv.matchAll(/(?:^|,|\r\n)(?:"((?:[^"]|"")*)"|([^,\r\n]*))/g))
    cells.push((m[1]?.replaceAll('""', '"') ?? m[2])!)
  return cells
}

/** Guessing passwords, and hammering. Last, since it uses up what may be used. */
async function rates({ url }: Target): Promise<Outcome> {
  const tally = new Tally('guessing passwords')
  let right = 0
  let stopped = 0
  for (let i = 0; i < 40; i++) {
    const { status } = await call(
      url,
      'POST',
      '/api/session',
      json(),
      JSON.stringify({ login: 'olive', password: `guess ${i}` }),
    )
    if (status === 429) stopped++
    if (status === 200) right++
  }
  tally.note(right === 0, 'a guess was right')
  tally.note(stopped >= 20, `only ${stopped} of 40 guesses were stopped`)
  return tally.outcome
}

async function methods({ url, people }: Target): Promise<Outcome> {
  const tally = new Tally('addresses and methods that are not there')
  const { cookie } = people[0]!
  for (const [method, path, status] of [
    ['GET', '/api/nothing', 404],
    ['GET', '/api/jobs/x/y/z', 404],
    ['PATCH', '/api/jobs', 405],
    ['DELETE', '/api/jobs', 405],
    ['TRACE', '/api/jobs', 405],
    ['GET', '/api/../package.json', 404],
    ['GET', '/api/', 404],
    ['GET', '/api/jobs/%00', 404],
  ] as const) {
    const answer = await call(url, method, path, { cookie }).catch(() => undefined)
    const isJson = answer?.headers['content-type']?.toString().includes('application/json')
    tally.note(
      answer?.status === status && isJson === true,
      `${method} ${path}: ${answer?.status} ${answer?.headers['content-type']}`,
    )
  }
  return tally.outcome
}

/** Other ways to write an address of the API: none may lead past the door. */
async function detours({ url }: Target): Promise<Outcome> {
  const tally = new Tally('other spellings of an address')
  for (const start of [
    '//api',
    '///api',
    '/./api',
    '/x/../api',
    '/API',
    '/;/api',
    '/\\api',
    '/%61pi',
    '/api/',
    '/api/.',
  ]) {
    for (const rest of ['/people', '/audit', '/settings', '/jobs']) {
      const answer = await call(url, 'GET', `${start}${rest}`).catch(() => undefined)
      const isData =
        answer?.status === 200 && String(answer.headers['content-type']).includes('json')
      tally.note(!isData, `${start}${rest}: ${answer?.status}`)
    }
  }
  return tally.outcome
}

/** A small generator, so that a run can be repeated. */
function generator(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Attacks a server that was started for it and has no account yet. */
export async function attack(
  url: string,
  log: () => string,
  isShort: boolean,
  seed: number,
): Promise<Outcome[]> {
  const target = await prepare(url, log)
  const random = generator(seed)
  return [
    await hostileOrigin(target),
    await rebinding(target),
    await framing(target),
    await methods(target),
    await detours(target),
    await roles(target),
    await queuePoisoning(target, random),
    await sheets(target),
    await heavyFiles(target, isShort),
    await rates(target),
  ]
}

async function main(): Promise<void> {
  const isShort = process.argv.includes('--short')
  const seed = Number(process.argv[process.argv.indexOf('--seed') + 1]) || 1
  const db = join(mkdtempSync(join(tmpdir(), 'corvit-attack-')), 'corvit.db')
  const server = await serveLib.serve({ db })
  try {
    const outcomes = await attack(server.url, server.log, isShort, seed)
    console.table(
      outcomes.map(o => ({
        attack: o.attack,
        tried: o.tried,
        held: o.held,
        'first that got through': o.worst,
      })),
    )
    const failed = outcomes.filter(o => o.held < o.tried).length
    console.log(`${outcomes.length - failed} passed, ${failed} failed`)
    process.exitCode = failed > 0 ? 1 : 0
  } finally {
    await server.stop()
  }
}
if (process.argv[1]?.endsWith('attack.ts')) void main()
