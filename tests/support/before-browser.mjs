// Before the browser tests: the demo houses are put into a database once, and every test file begins with a copy. Each
// worker has a browser that its files use one after the other, so that the application is compiled once and not anew.
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import browserLib from '../../scripts/lib/browser.cjs'
import serveLib from '../../scripts/lib/serve.cjs'

async function makeTemplate() {
  const directory = mkdtempSync(join(tmpdir(), 'corvit-template-'))
  const server = await serveLib.serve({ db: join(directory, 'corvit.db'), demo: true })
  await server.stop()
  return directory
}

export default async function prepare({ maxWorkers }) {
  const launched = Array.from({ length: maxWorkers }, () => browserLib.launch())
  const [directory, ...browsers] = await Promise.all([makeTemplate(), ...launched])
  globalThis.browsersOfTests = browsers
  // Workers are started after this and inherit it.
  process.env.CORVIT_TEMPLATE = directory
  process.env.CORVIT_BROWSERS = browsers.map(b => b.wsEndpoint()).join(' ')
}
