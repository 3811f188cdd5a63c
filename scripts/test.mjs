// npm test: installs, gets Chromium if it can or says how, builds, unit and browser tests; last
// line "N passed, N failed".
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, chromium, install, ROOT } from './setup.mjs'

const only = process.argv.slice(2)
install()
const browser = chromium()
if (!browser) {
  console.error(
    'Chromium was not found, so the browser tests cannot run. Install it ("apt-get install ' +
      'chromium" as root) or name it in CHROMIUM_PATH.',
  )
  console.log('0 passed, 1 failed')
  process.exit(1)
}
build()
// Databases, browser profiles and uploads of the tests go with them.
const scratch = mkdtempSync(join(tmpdir(), 'corvit-run-'))
const { status } = spawnSync(
  process.execPath,
  [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), ...only],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, CHROMIUM_PATH: browser, NODE_OPTIONS: '', TMPDIR: scratch },
  },
)
rmSync(scratch, { recursive: true, force: true })
process.exit(status ?? 1)
