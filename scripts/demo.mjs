// npm run demo: installs if needed, builds if stale, seeds the demo house, starts, prints the address.
import { createServer } from 'node:net'
import { join } from 'node:path'
import { build, install, ROOT } from './setup.mjs'

install()
build()
const { default: { serve } } = await import('./lib/serve.cjs')
const isFree = port => new Promise((resolve) => {
  const server = createServer()
  server.once('error', () => resolve(false))
  server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)))
})
const wanted = Number(process.env.PORT ?? 3000)
const port = await isFree(wanted) ? wanted : undefined
const server = await serve({ db: process.env.CORVIT_DB ?? join(ROOT, 'data', 'demo.db'), demo: true, port })
console.log(`\nCorvit with its demo house: ${server.url}\nThe demo data are in data/demo.db and can be put back from the list of jobs. Ctrl C ends it.\n`)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void server.stop().then(() => process.exit(0)))
server.child.on('exit', code => process.exit(code ?? 0))
