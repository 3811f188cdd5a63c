import { randomBytes } from 'node:crypto'

const policy = (nonce: string): string =>
  [
    `default-src 'none'`,
    `script-src 'self' 'nonce-${nonce}'`,
    // The component library writes its theme into style elements; styles can neither call out nor run.
    `style-src 'self' 'unsafe-inline'`,
    `img-src 'self' blob: data:`,
    `font-src 'self'`,
    `connect-src 'self'`,
    `worker-src 'self'`,
    `manifest-src 'self'`,
    `form-action 'self'`,
    `base-uri 'none'`,
    `frame-ancestors 'none'`,
  ].join('; ')

/** What holds for every answer, pages and files too: a policy with a nonce, a line in the log. */
export default defineNitroPlugin(nitroApp => {
  nitroApp.hooks.hook('request', event => {
    event.context.begun = performance.now()
    event.context.nonce = randomBytes(16).toString('base64')
  })
  nitroApp.hooks.hook('render:html', (html, { event }) => {
    const nonce = event.context.nonce as string
    const withNonce = (part: string) =>
      part.replace(/<script(?![^>]*\bnonce=)/g, `<script nonce="${nonce}"`)
    for (const section of ['head', 'bodyPrepend', 'body', 'bodyAppend'] as const) {
      html[section] = html[section].map(withNonce)
    }
    setHeader(event, 'content-security-policy', policy(nonce))
    setHeader(event, 'cache-control', 'no-store')
    removeResponseHeader(event, 'x-powered-by')
  })
  nitroApp.hooks.hook('afterResponse', event => {
    const path = event.path.split('?')[0]!
    if (!path.startsWith('/api/')) return
    const status = event.node.res.statusCode
    const ms = Math.round(performance.now() - (event.context.begun as number))
    // A link's token opens a report, so it is not written down.
    const line = {
      method: event.method,
      path: path.replace(/^(\/api\/shared\/).*/, '$1…'),
      status,
      ms,
      who: event.context.asker?.id ?? null,
    }
    if (status >= 500) log.error(line, 'answered')
    else log.info(line, 'answered')
  })
})
