#!/usr/bin/env node
// Runs the TypeScript command line in place, so that the checkout and the command always agree.
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

if (!existsSync(new URL('../node_modules/tsx', import.meta.url))) {
  console.error(
    `corvit: its packages are not installed. Run "npm ci" in ${fileURLToPath(new URL('..', import.meta.url))} first.`,
  )
  process.exit(2)
}
// A reader that has seen enough, like head, closes the pipe; that is no fault.
for (const stream of [process.stdout, process.stderr]) {
  stream.on('error', error => {
    if (error.code !== 'EPIPE') throw error
    process.exit(0)
  })
}
const { register } = await import('tsx/esm/api')
register()
const { main } = await import('./main.ts')
process.exitCode = await main(process.argv.slice(2))
