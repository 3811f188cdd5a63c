// npm run demo: installs if needed, builds if stale, seeds the demo house, starts, prints the address.
import { createServer } from 'node:net'
import { join } from 'node:path'
import { build, install, ROOT } from './setup.mjs'

install()
build()
const {
  default: { serve },
} = await import('./lib/serve.cjs')
const isFree = port =>
  new Promise(resolve => {
    const server = createServer()
    server.once('error', () => resolve(false))
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)))
  })
const wanted = Number(process.env.PORT ?? 3000)
const db = process.env.CORVIT_DB ?? join(ROOT, 'data', 'demo', 'corvit.db')
const running = await demoAt(wanted)
if (running) {
  console.log(`\nThe demo is running already: ${running}\n`)
  process.exit(0)
}
const port = (await isFree(wanted)) ? wanted : undefined
const server = await serve({ db, demo: true, port }).catch(error => {
  // Two servers on one database would not see each other's work, so the second one does not start.
  console.error(
    /in use by another/.test(error.message)
      ? `The demo's data are in use by another Corvit (${db}). Stop that one, or name another file in CORVIT_DB.`
      : error.message,
  )
  process.exit(1)
})
console.log(
  `\nCorvit with its demo house: ${server.url}\nNobody signs in here; for real use there is npm ` +
    `start.\nThe demo data are in ${db} and can be put back from the list of jobs. Ctrl C ends it.\n`,
)
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => void server.stop().then(() => process.exit(0)))
server.child.on('exit', code => process.exit(code ?? 0))

/** The address of a demo that has this port and these data already. */
async function demoAt(at) {
  try {
    const url = `http://127.0.0.1:${at}`
    const health = await (
      await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(1000) })
    ).json()
    return health.isDemo && health.status === 'ok' ? url : undefined
  } catch {
    return undefined
  }
}
