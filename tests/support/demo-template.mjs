// Before the browser tests: the demo houses are put into a database once, and every test file begins with a copy.
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import serveLib from '../../scripts/lib/serve.cjs'

export default async function makeTemplate() {
  const directory = mkdtempSync(join(tmpdir(), 'corvit-template-'))
  const server = await serveLib.serve({ db: join(directory, 'corvit.db'), demo: true })
  await server.stop()
  // Workers are started after this and inherit it.
  process.env.CORVIT_TEMPLATE = directory
}
