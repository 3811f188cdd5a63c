import type { Browser, Page } from 'puppeteer-core'
import { Appended, JobList } from '#shared/api'
import { Signed } from '#shared/files'
import { Access, Audit, MadeLink, People } from '#shared/people'
import {
  blankPage,
  clickText,
  closePage,
  DESK,
  faultsOf,
  freshDb,
  giveBack,
  goTo,
  hasText,
  HAND,
  launch,
  lacksText,
  leaveAll,
  PASSWORD,
  post,
  serve,
  serveHere,
  signIn,
  signInPage,
  type Server,
  type SignedIn,
} from '../support/app'

let server: Server
let browser: Browser
let owner: SignedIn
const db = freshDb()
const ENV = { CORVIT_RATE_SCALE: '20' }
beforeAll(async () => {
  server = await serveHere({ db, env: ENV })
  browser = await launch()
})
afterAll(async () => {
  await giveBack(browser)
  await server.stop()
})
afterEach(() => leaveAll(browser))
const page = (size = DESK): Promise<Page> => blankPage(browser, size)
const newJob = async (me: SignedIn, name: string) =>
  Appended.parse(
    await (await me.send('POST', '/api/jobs', { name, purpose: 'service', edition: 2020 })).json(),
  ).job.id
async function addPerson(login: string, role: string): Promise<SignedIn> {
  const response = await owner.send('POST', '/api/people', {
    login,
    name: `${login} by name`,
    role,
    password: PASSWORD,
  })
  expect(response.status).toBe(201)
  return signIn(server, login)
}

describe('the first account', () => {
  it('is made with the code from the console; the door leads there, and then away from it', async () => {
    const view = await page()
    await goTo(view, server.url)
    await hasText(view, 'h1', 'The first account')
    const code = /with this code: ([A-Z0-9-]+)/.exec(server.log())![1]!
    const fill = async (name: string, text: string) => view.type(`input[name="${name}"]`, text)
    await fill('code', 'ABCD-EFGH-JKLM')
    await fill('name', 'Olive Owner')
    await fill('login', 'olive')
    await fill('password', PASSWORD)
    await clickText(view, 'button', 'Make the account')
    await hasText(view, '[data-slot="title"]', 'not the code')
    await view.$eval('input[name="code"]', e => {
      ;(e as HTMLInputElement).value = ''
    })
    await fill('code', code)
    await clickText(view, 'button', 'Make the account')
    await hasText(view, 'h1', 'Jobs')
    expect(
      (
        await post(`${server.url}/api/setup`, {
          code,
          login: 'eve',
          name: 'Eve',
          password: PASSWORD,
        })
      ).status,
    ).toBe(410)
    owner = await signIn(server, 'olive')
  })
})

describe('signing in', () => {
  it('keeps strangers out, says nothing of who exists, and lets the right password in', async () => {
    const view = await page(HAND)
    await goTo(view, `${server.url}/jobs/some-job/panel`)
    await hasText(view, 'h1', 'Sign in')
    await view.type('input[name="login"]', 'olive')
    await view.type('input[name="password"]', 'a wrong password')
    await clickText(view, 'button[type="submit"]', 'Sign in')
    await hasText(view, '[data-slot="title"]', 'do not belong together')
    const unknown = await post(`${server.url}/api/session`, {
      login: 'nobody',
      password: 'a wrong password',
    })
    expect(await unknown.text()).toContain('do not belong together')
    await view.$eval('input[name="password"]', e => {
      ;(e as HTMLInputElement).value = ''
    })
    await view.type('input[name="password"]', PASSWORD)
    await clickText(view, 'button[type="submit"]', 'Sign in')
    await hasText(view, 'h1', 'Jobs')
    const { httpOnly, sameSite } = (await view.cookies()).find(c => c.name === 'corvit-session')!
    expect([httpOnly, sameSite]).toEqual([true, 'Strict'])
  })
  it('by a passkey, added on the account page (long)', async () => {
    const view = await page()
    const session = await view.createCDPSession()
    await session.send('WebAuthn.enable')
    await session.send('WebAuthn.addVirtualAuthenticator', {
      options: {
        protocol: 'ctap2',
        transport: 'internal',
        hasResidentKey: true,
        hasUserVerification: true,
        isUserVerified: true,
        automaticPresenceSimulation: true,
      },
    })
    const url = server.url.replace('127.0.0.1', 'localhost')
    await goTo(view, `${url}/sign-in`)
    await view.type('input[name="login"]', 'olive')
    await view.type('input[name="password"]', PASSWORD)
    await clickText(view, 'button[type="submit"]', 'Sign in')
    await hasText(view, 'h1', 'Jobs')
    await goTo(view, `${url}/account`)
    await clickText(view, 'button', 'Add a passkey')
    await hasText(view, 'li', 'Added')
    await clickText(view, 'button', 'Sign out')
    await hasText(view, 'h1', 'Sign in')
    await clickText(view, 'button', 'Use a passkey')
    await hasText(view, 'h1', 'Jobs')
  })
  it('a new password ends every other session, a closed account all of them', async () => {
    const ann = await addPerson('ann', 'assessor')
    const other = await signIn(server, 'ann')
    expect(
      (
        await ann.send('PUT', '/api/me/password', {
          current: 'wrong one',
          password: 'another long one',
        })
      ).status,
    ).toBe(403)
    expect(
      (
        await ann.send('PUT', '/api/me/password', {
          current: PASSWORD,
          password: 'another long one',
        })
      ).status,
    ).toBe(200)
    expect((await other.get('/api/jobs')).status).toBe(401)
    const again = await signIn(server, 'ann', 'another long one')
    const { people } = People.parse(await (await owner.get('/api/people')).json())
    const id = people.find(p => p.login === 'ann')!.id
    expect((await owner.send('PATCH', `/api/people/${id}`, { isDisabled: true })).status).toBe(200)
    expect((await again.get('/api/jobs')).status).toBe(401)
    expect(
      (await post(`${server.url}/api/session`, { login: 'ann', password: 'another long one' }))
        .status,
    ).toBe(403)
  })
  it('the last owner stays', async () => {
    const { people } = People.parse(await (await owner.get('/api/people')).json())
    const id = people.find(p => p.role === 'owner')!.id
    expect((await owner.send('PATCH', `/api/people/${id}`, { role: 'assessor' })).status).toBe(403)
    expect((await owner.send('PATCH', `/api/people/${id}`, { isDisabled: true })).status).toBe(403)
  })
})

describe('jobs of people', () => {
  it('are seen by their owner and whom they are shared with; an apprentice records and does not delete', async () => {
    const [ben, cleo] = [await addPerson('ben', 'assessor'), await addPerson('cleo', 'apprentice')]
    const job = await newJob(ben, 'Of Ben')
    const observations = [
      {
        id: 'c-1',
        at: '2026-03-01T10:00:00.000Z',
        by: 'somebody else',
        act: 'note',
        subject: 'premises',
        field: 'client',
        value: 'C',
        grade: 'told',
      },
    ]
    expect((await cleo.get(`/api/jobs/${job}`)).status).toBe(404)
    expect(
      (await cleo.send('POST', `/api/jobs/${job}/observations`, { observations })).status,
    ).toBe(404)
    const access = Access.parse(await (await ben.get(`/api/jobs/${job}/people`)).json())
    const id = access.others.find(p => p.login === 'cleo')!.id
    expect((await ben.send('PUT', `/api/jobs/${job}/people`, { members: [id] })).status).toBe(200)
    expect(
      (await cleo.send('POST', `/api/jobs/${job}/observations`, { observations })).status,
    ).toBe(200)
    // The name is the account's, whatever was sent.
    expect(await (await ben.get(`/api/jobs/${job}`)).text()).toContain('"by":"cleo by name"')
    expect((await cleo.send('DELETE', `/api/jobs/${job}`)).status).toBe(403)
    expect(
      (await cleo.send('POST', `/api/jobs/${job}/links`, { voice: 'inspector', days: 3 })).status,
    ).toBe(403)
    expect((await ben.send('PUT', `/api/jobs/${job}/people`, { members: [] })).status).toBe(200)
    expect((await cleo.get(`/api/jobs/${job}`)).status).toBe(404)
  })
  it('made without a network are seen and sent only by who made them, whoever signs in next (long)', async () => {
    const [dora, emil] = [await addPerson('dora', 'assessor'), await addPerson('emil', 'assessor')]
    const view = await page()
    await signInPage(view, server, dora)
    await goTo(view, server.url)
    await hasText(view, 'h1', 'Jobs')
    await view.waitForFunction(
      async () => {
        await navigator.serviceWorker.ready
        return (await caches.keys()).some(n => n.startsWith('corvit-shell'))
      },
      { timeout: 20_000, polling: 200 },
    )
    // The server goes, so that neither the page nor the service worker can send.
    const port = Number(new URL(server.url).port)
    await server.stop('SIGKILL')
    await clickText(view, 'button', 'New job')
    await view.type('input[name="name"]', 'Of Dora alone')
    await clickText(view, 'form.new button', 'Start')
    await view.waitForSelector('[data-testid="save-dot"][data-state="device"]')
    // Somebody else signs in in another tab, while this one still believes that Dora sits here.
    await signInPage(view, server, emil)
    server = await serve({ db, env: ENV, port })
    await view.evaluate(() => {
      dispatchEvent(new Event('online'))
    })
    // Time enough to be sent under the wrong name, by this page or by the service worker.
    await new Promise(r => setTimeout(r, 4000))
    const namesOf = async (who: SignedIn) =>
      JobList.parse(await (await who.get('/api/jobs')).json()).jobs.map(j => j.name)
    expect(await namesOf(emil)).not.toContain('Of Dora alone')
    await goTo(view, server.url)
    await hasText(view, 'h1', 'Jobs')
    await lacksText(view, '.job', 'Of Dora alone')
    await goTo(view, `${server.url}/unsent`)
    await view.waitForSelector('[data-testid="of-others"]')
    await lacksText(view, '.list', 'Of Dora alone')
    await signInPage(view, server, dora)
    await goTo(view, server.url)
    await hasText(view, '.job', 'Of Dora alone')
    for (let i = 0; i < 50 && !(await namesOf(dora)).includes('Of Dora alone'); i++)
      await new Promise(r => setTimeout(r, 100))
    expect(await namesOf(dora)).toContain('Of Dora alone')
    expect(await namesOf(emil)).not.toContain('Of Dora alone')
  }, 90_000)
  it('one report is read by link, until it is taken back or over', async () => {
    const job = await newJob(owner, 'Linked')
    const link = MadeLink.parse(
      await (
        await owner.send('POST', `/api/jobs/${job}/links`, { voice: 'inspector', days: 1 })
      ).json(),
    )
    const view = await page(HAND)
    await goTo(view, `${server.url}/read/${link.token}`)
    await hasText(view, '[data-testid="report"] header', 'Linked')
    await hasText(view, '[data-testid="link-unsigned"]', 'may still change')
    expect((await fetch(`${server.url}/api/shared/${link.token}/signed.pdf`)).status).toBe(404)
    // Once signed, the link shows what was signed, and the very file.
    const sign = {
      by: 'Olive Owner',
      on: '2026-03-04',
      discloses: 'nothing looked at yet',
      changes: '',
    }
    const made = await owner.send('POST', `/api/jobs/${job}/signed`, {
      voice: 'inspector',
      ...sign,
    })
    const { name } = Signed.parse(await made.json())
    await goTo(view, `${server.url}/read/${link.token}`)
    await hasText(
      view,
      '[data-testid="link-signed"]',
      'Signed by Olive Owner on 2026-03-04, revision 1',
    )
    const bytes = async (response: Response) => Buffer.from(await response.arrayBuffer())
    const shown = await bytes(await fetch(`${server.url}/api/shared/${link.token}/signed.pdf`))
    expect(shown.equals(await bytes(await owner.get(`/api/jobs/${job}/signed/${name}`)))).toBe(true)
    expect((await fetch(`${server.url}/api/jobs/${job}`)).status).toBe(401)
    expect((await fetch(`${server.url}/api/shared/${'x'.repeat(43)}`)).status).toBe(410)
    await owner.send('DELETE', `/api/jobs/${job}/links/${link.id}`)
    expect((await fetch(`${server.url}/api/shared/${link.token}/signed.pdf`)).status).toBe(410)
    await goTo(view, `${server.url}/read/${link.token}`)
    await hasText(view, '[data-testid="link-over"]', 'no longer good')
    expect(
      (await owner.send('POST', `/api/jobs/${job}/links`, { voice: 'inspector', days: 0 })).status,
    ).toBe(422)
  })
  it('deleted they lie in the trash, come back, and are gone only for good; the trail of it all stays', async () => {
    const job = await newJob(owner, 'Thrown away')
    const view = await page()
    await signInPage(view, server, owner)
    await goTo(view, server.url)
    await clickText(view, '.job', 'Thrown away').catch(() => undefined)
    await goTo(view, server.url)
    await hasText(view, '.job', 'Thrown away')
    await view.click('[aria-label="share or delete Thrown away"]')
    await clickText(view, '[role="menuitem"]', 'Delete')
    await lacksText(view, '.job', 'Thrown away')
    await goTo(view, `${server.url}/trash`)
    await clickText(view, 'li button', 'Restore')
    await lacksText(view, 'li', 'Thrown away')
    expect((await owner.get(`/api/jobs/${job}`)).status).toBe(200)
    await owner.send('DELETE', `/api/jobs/${job}`)
    expect((await owner.send('DELETE', `/api/trash/${job}`)).status).toBe(204)
    expect((await owner.get(`/api/jobs/${job}`)).status).toBe(404)
    const { entries } = Audit.parse(await (await owner.get('/api/audit')).json())
    expect(entries.filter(e => e.jobId === job).map(e => e.action)).toEqual([
      'job deleted for good',
      'job deleted',
      'job restored',
      'job deleted',
      'job made',
    ])
    expect(entries.every(e => e.device.length > 3)).toBe(true)
    expect(entries.find(e => e.jobId === job)!.who).toBe('Olive Owner')
  })
  it('imported names are marked as imported', async () => {
    const file = {
      corvit: 1,
      form: 'log',
      observations: [
        {
          id: 'a',
          at: '2026-01-01T00:00:00Z',
          by: 'Famous Person',
          act: 'add',
          subject: 'premises',
          kind: 'premises',
          parent: null,
        },
        {
          id: 'b',
          at: '2026-01-01T00:00:01Z',
          by: 'Famous Person',
          act: 'note',
          subject: 'premises',
          field: 'client',
          value: 'old',
          grade: 'told',
        },
        {
          id: 'c',
          at: '2026-01-01T00:00:02Z',
          by: 'Famous Person',
          act: 'add',
          subject: 'e',
          kind: 'enclosure',
          parent: 'premises',
        },
      ],
    }
    const { job } = Appended.parse(
      await (await owner.send('POST', '/api/jobs/import', file)).json(),
    )
    expect(job.imported).toBe(3)
    const view = await page()
    await signInPage(view, server, owner)
    await goTo(view, `${server.url}/jobs/${job.id}/panel`)
    await clickText(view, 'button', 'about the job')
    await view.waitForSelector('[data-field="client"] .head')
    await view.$eval('[data-field="client"] .head', e => (e as HTMLElement).click())
    await view.type('[data-field="client"] .pad input', '!')
    await clickText(view, '[data-field="client"] button', 'Save')
    await hasText(view, '[data-field="client"]', 'Famous Person (imported)')
  })
  it('everything leaves in one archive with checksums', async () => {
    const bytes = Buffer.from(await (await owner.get('/api/everything')).arrayBuffer())
    expect(bytes.subarray(0, 2).toString()).toBe('PK')
    expect(bytes.includes('SHA256SUMS')).toBe(true)
    expect(bytes.includes('audit.json')).toBe(true)
  })
})

describe('the screens of the door', () => {
  async function isSound(path: string): Promise<void> {
    for (const size of [DESK, HAND]) {
      const view = await page(size)
      await signInPage(view, server, owner)
      await goTo(view, server.url + path)
      for (const scheme of ['light', 'dark']) {
        await view.emulateMediaFeatures([
          { name: 'prefers-color-scheme', value: scheme },
          { name: 'prefers-reduced-motion', value: 'reduce' },
        ])
        await new Promise(r => setTimeout(r, 300))
        expect(await faultsOf(view, scheme === 'dark' ? 'colors' : 'all')).toEqual([])
      }
      expect(await view.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(
        true,
      )
      await closePage(view)
    }
  }
  it.each(['/people', '/account', '/trash', '/unsent'])(
    '%s has no serious accessibility fault, on the desk and on a phone, light and dark (long)',
    isSound,
  )
  it('where two people disagree has none (long)', async () => {
    const job = await newJob(owner, 'Disagreed')
    const said = (id: string, value: string) => ({
      id,
      at: '2026-03-01T10:00:00.000Z',
      by: id,
      act: 'note',
      subject: 'premises',
      field: 'client',
      value,
      grade: 'told',
      over: [],
    })
    await owner.send('POST', `/api/jobs/${job}/observations`, {
      observations: [said('x-1', 'one'), said('x-2', 'other')],
    })
    for (const size of [DESK, HAND]) {
      const view = await page(size)
      await signInPage(view, server, owner)
      await goTo(view, `${server.url}/jobs/${job}/opinions`)
      await hasText(view, '[data-testid="conflicts"]', 'one')
      expect(await faultsOf(view)).toEqual([])
    }
  })
  it('/sign-in has none either', async () => {
    const view = await page(HAND)
    await goTo(view, `${server.url}/sign-in`)
    expect(await faultsOf(view)).toEqual([])
  })
})
