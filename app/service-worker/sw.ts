/// <reference lib="webworker" />
/** Opens the application without a network: its files, its page, the pictures seen before; goes on sending. */
import type { PrecacheEntry } from 'workbox-precaching'
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { CacheFirst } from 'workbox-strategies'
import { Replica } from '../local/replica'
import { sendAll } from '../local/send'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (PrecacheEntry | string)[] }

const manifest = self.__WB_MANIFEST
/** The page belongs to the files it was built with. */
const SHELL = `corvit-shell-${[...JSON.stringify(manifest)].reduce(mix, 7).toString(36)}`
function mix(sum: number, letter: string): number {
  return (sum * 31 + letter.charCodeAt(0)) >>> 0
}
const PHOTOS = 'corvit-photos'
const PAGE_WAIT_MS = 4000

precacheAndRoute(manifest)
cleanupOutdatedCaches()

self.addEventListener('install', event => {
  event.waitUntil(
    caches.open(SHELL).then(cache => cache.add(new Request('/', { cache: 'reload' }))),
  )
  void self.skipWaiting()
})
self.addEventListener('activate', event => {
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) {
        if (name.startsWith('corvit-shell-') && name !== SHELL) await caches.delete(name)
      }
      await self.clients.claim()
    })(),
  )
})

/** From the server where it answers in time, since only it has a policy with a new nonce; else as it was kept. */
async function page(request: Request): Promise<Response> {
  const kept = async () => (await (await caches.open(SHELL)).match('/')) ?? Response.error()
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(PAGE_WAIT_MS) })
    return answer.status >= 500 ? await kept() : answer
  } catch {
    return await kept()
  }
}
registerRoute(new NavigationRoute(({ request }) => page(request), { denylist: [/^\/api\//] }))

// A picture never changes under its name.
registerRoute(
  ({ url, request }) =>
    request.method === 'GET' && /^\/api\/jobs\/[^/]+\/photos\/[0-9a-f]{64}$/.test(url.pathname),
  new CacheFirst({
    cacheName: PHOTOS,
    plugins: [new ExpirationPlugin({ maxEntries: 600, purgeOnQuotaError: true })],
  }),
)

self.addEventListener('sync', event => {
  const { tag, waitUntil } = event as Event & {
    tag: string
    waitUntil(done: Promise<unknown>): void
  }
  if (tag === 'corvit-send') waitUntil.call(event, navigator.locks.request('corvit-send', sendKept))
})

async function sendKept(): Promise<void> {
  const replica = new Replica()
  const channel = new BroadcastChannel('corvit')
  const none = () => undefined
  const stopped = await sendAll({
    replica,
    device: (await replica.recall<string>('device')) ?? 'unnamed',
    account: (await replica.recall<string>('account')) ?? null,
    news: { acknowledged: none, refused: none, recorded: none, skew: none },
  })
  channel.postMessage({ kind: 'outbox' })
  channel.close()
  replica.close()
  // The browser tries again later where this fails.
  if (stopped && stopped.kind === 'offline') throw new Error(stopped.message)
}
