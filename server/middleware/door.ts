import type { H3Event } from 'h3'
import { mayAtLeast } from '../../shared/people'
import { routesAt, type Route } from '../../shared/routes'
import type { Asker } from '../utils/people'

/** Names this server answers to; another name that leads here (by a trick of its owner's) is refused. */
const OWN_NAMES = ['127.0.0.1', 'localhost', '[::1]']
const named = (process.env.CORVIT_HOSTS ?? '')
  .split(',')
  .map(h => h.trim().toLowerCase())
  .filter(Boolean)
const hosts = new Set([...OWN_NAMES, ...named])
const hostOf = (header: string | undefined): string =>
  (header ?? '').toLowerCase().replace(/:\d+$/, '')

/** Lets through only listed routes, from our own pages, of the right kind, by whoever may. */
export default defineEventHandler(async event => {
  if (!hosts.has(hostOf(getHeader(event, 'host'))))
    throw refuse('wrong-host', 'This server does not go by that name')
  const path = event.path.split('?')[0]!
  if (!path.startsWith('/api/')) return
  setHeader(event, 'cache-control', 'no-store')
  const route = routeOf(event, path)
  const isWrite = route.method !== 'GET'
  if (isWrite) checkOrigin(event)
  const db = await useDb()
  event.context.asker = await askerOf(event, db)
  if (route.who !== 'anyone' && route.who !== 'link') {
    const asker = requireAsker(event)
    if (!mayAtLeast(asker.role, route.who)) {
      throw refuse('forbidden', `This needs the role ${route.who}; yours is ${asker.role}`)
    }
  }
  if (isWrite) checkType(event, route)
  checkAccount(event)
  await spend(event, route.rate)
})

function routeOf(event: H3Event, path: string): Route {
  const routes = routesAt(path)
  if (routes.length === 0) throw refuse('no-route', 'There is nothing at this address')
  const wanted = event.method === 'HEAD' ? 'GET' : event.method
  const route = routes.find(r => r.method === wanted)
  if (route) return route
  const methods = routes.map(r => r.method).join(', ')
  setHeader(event, 'allow', methods)
  throw refuse('wrong-method', `This address takes ${methods}`)
}

/** A write must come from one of our own pages; programs outside a browser send no origin. */
function checkOrigin(event: H3Event): void {
  const site = getHeader(event, 'sec-fetch-site')
  const origin = getHeader(event, 'origin')
  const refuseIt = () => refuse('wrong-origin', 'Another site may not write here')
  if (site !== undefined && site !== 'same-origin') throw refuseIt()
  if (origin === undefined) return
  if (!URL.canParse(origin) || new URL(origin).host !== getHeader(event, 'host')) throw refuseIt()
}

/** A device that says for whom it sends is not answered as somebody else, who has signed in on it since. */
function checkAccount(event: H3Event): void {
  const claimed = getHeader(event, 'x-corvit-account')
  const asker = event.context.asker as Asker | undefined
  if (claimed !== undefined && claimed !== asker?.id)
    throw refuse('sign-in', 'Somebody else is signed in on this device now')
}

/** What a form of another site can send without asking is never taken. */
function checkType(event: H3Event, route: Route): void {
  const type = (getHeader(event, 'content-type') ?? '').split(';')[0]!.trim().toLowerCase()
  const found = type === '' ? 'nothing' : type.slice(0, 80)
  if (route.body === 'json' && type !== 'application/json') {
    const problem = { path: 'content-type', expected: 'application/json', found }
    throw refuse('wrong-type', 'Only JSON is taken here', [problem])
  }
  if (route.body === 'file' && !/^application\/(json|zip|octet-stream)$/.test(type)) {
    const problem = { path: 'content-type', expected: 'application/json or application/zip', found }
    throw refuse('wrong-type', 'A job file or a bundle is taken here', [problem])
  }
  if (route.body === 'photo' && !/^(image\/[a-z.+-]+|application\/octet-stream)$/.test(type)) {
    const problem = { path: 'content-type', expected: 'a picture', found }
    throw refuse('wrong-type', 'Only pictures are taken here', [problem])
  }
}
