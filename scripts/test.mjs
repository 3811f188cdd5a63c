// npm test: installs, gets Chromium if it can or says how, builds, unit and browser tests; last
// line "N passed, N failed". With --long those marked (long) too; what Jest takes may follow.
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, chromium, install, ROOT } from './setup.mjs'

const given = process.argv.slice(2)
const isLong = given.includes('--long')
const asked = given.filter(a => a !== '--long')
// Each view and each way through it once, in a few minutes; the rest before anything lands (.ci/run).
const chosen = isLong || asked.length > 0 ? asked : ['--testNamePattern', '^(?!.*\\(long\\)$)']
if (chosen !== asked)
  console.log('Without the tests marked (long): npm test -- --long runs them too.')
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
  [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), ...chosen],
  {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, CHROMIUM_PATH: browser, NODE_OPTIONS: '', TMPDIR: scratch },
  },
)
rmSync(scratch, { recursive: true, force: true })
process.exit(status ?? 1)
