import { readdirSync } from 'node:fs'
import { attack, type Outcome } from '../../scripts/attack'
import { ROUTES } from '#shared/routes'
import { freshDb, serve, type Server } from '../support/app'

describe('what a hostile page, file or person would do', () => {
  let server: Server
  let outcomes: Outcome[]
  beforeAll(async () => {
    server = await serve({ db: freshDb() })
    outcomes = await attack(server.url, server.log, true, 11)
  })
  afterAll(() => server.stop())
  it.each([
    'a page of another site writes',
    'a foreign name that leads here',
    'framing, sniffing, scripts of others',
    'addresses and methods that are not there',
    'other spellings of an address',
    'each role × each route',
    'one bad observation in a batch',
    'formulas in CSV',
    'files made to stop the server; nobody else waits 200 ms',
    'guessing passwords',
  ])('%s: held (long)', name => {
    const outcome = outcomes.find(o => o.attack === name)
    expect(outcome?.tried).toBeGreaterThan(0)
    expect(outcome).toMatchObject({ held: outcome!.tried, worst: '' })
  })
})

it('every file of a route is in the list of the door, and every line of the list has its file', () => {
  const files = readdirSync('server/api', { recursive: true })
    .map(String)
    .filter(f => f.endsWith('.ts'))
  const inFolder = files.map(file => {
    const [, path, method] = /^(.*?)\.(get|post|put|patch|delete)\.ts$/.exec(file)!
    const named = path!.replace(/\[(\w+)\]/g, ':$1').replace(/\/?index$/, '')
    return `${method!.toUpperCase()} /api/${named}`
  })
  const listed = ROUTES.map(r => `${r.method} ${r.path}`).filter(r => !r.includes('/_auth/'))
  expect(listed.sort()).toEqual(inFolder.sort())
})
