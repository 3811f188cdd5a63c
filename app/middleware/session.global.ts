const OUTSIDE = new Set(['/sign-in', '/setup'])

/** Nobody sees anything before the server has said who sits here; a reader's link needs no account. */
export default defineNuxtRouteMiddleware(async to => {
  if (to.path.startsWith('/read/')) return
  const session = useSessionStore()
  if (session.door === undefined || session.door === 'closed' || session.door === 'setup')
    await session.load()
  const isInside = session.door === 'in' || session.door === 'open'
  if (session.door === 'setup' && to.path !== '/setup') return navigateTo('/setup')
  if (session.door === 'closed' && to.path !== '/sign-in') return navigateTo('/sign-in')
  if (isInside && OUTSIDE.has(to.path)) return navigateTo('/')
})
