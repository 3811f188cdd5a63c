import type { NitroErrorHandler } from 'nitropack'
import { log } from './utils/log'
import { isFull } from './utils/errors'

const PLAIN = {
  'content-type': 'application/json; charset=utf-8',
  'cache-control': 'no-store',
  'x-content-type-options': 'nosniff',
}

/** Every error leaves as JSON of one shape, without stack, path or words of a library. */
const handler: NitroErrorHandler = (thrown, event) => {
  const error = thrown as {
    statusCode?: number
    message: string
    data?: unknown
    cause?: unknown
    unhandled?: boolean
  }
  const cause = error.cause ?? thrown
  const { res } = event.node
  if (res.headersSent) {
    res.destroy()
    return
  }
  let status = error.statusCode ?? 500
  let body: { code: string; problems: unknown } = { code: 'server', problems: [] }
  let message = 'Something went wrong on the server; nothing was stored'
  const told = error.data as { code?: string; problems?: unknown } | undefined
  if (told?.code !== undefined) {
    body = { code: told.code, problems: told.problems ?? [] }
    message = error.message
  } else if (isFull(cause)) {
    status = 507
    body = { code: 'storage-full', problems: [] }
    message = 'The disk is full. Nothing of this was stored; what was stored before is safe'
  } else if (status < 500) {
    body = {
      code: status === 404 ? 'no-route' : status === 405 ? 'wrong-method' : 'invalid-input',
      problems: [],
    }
    message =
      status === 404 ? 'There is nothing at this address' : 'The request could not be understood'
  } else {
    log.error({ err: cause, method: event.method, path: event.path.split('?')[0] }, 'unexpected')
  }
  for (const [name, value] of Object.entries(PLAIN)) res.setHeader(name, value)
  res.statusCode = status
  res.end(JSON.stringify({ statusCode: status, message, data: body }))
}
export default handler
