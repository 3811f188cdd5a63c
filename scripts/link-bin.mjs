// npm does not link a package's own bin; without this `npx corvit` would reinstall the checkout into a cache first.
import { chmodSync, existsSync, mkdirSync, rmSync, symlinkSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { join } from 'node:path'

const root = fileURLToPath(new URL('..', import.meta.url))
const bin = join(root, 'node_modules', '.bin')
// The core as a package, for examples and whoever tries it out of this checkout.
const core = join(root, 'node_modules', '@corvit', 'core')
if (existsSync(join(root, 'packages', 'core', 'package.json'))) {
  mkdirSync(join(core, '..'), { recursive: true })
  rmSync(core, { force: true, recursive: true })
  symlinkSync('../../packages/core', core)
}
const target = join(root, 'cli', 'corvit.mjs')
if (existsSync(target)) {
  mkdirSync(bin, { recursive: true })
  rmSync(join(bin, 'corvit'), { force: true })
  symlinkSync('../../cli/corvit.mjs', join(bin, 'corvit'))
  chmodSync(target, 0o755)
}
