// npm test: installs, gets Chromium if it can or says how, builds, unit and browser tests; last line
// "N passed, N failed". With --long those marked (long) too; what Jest takes may follow.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { build, buildMeanwhile, chromium, install, ROOT } from './setup.mjs'

const given = process.argv.slice(2)
const isLong = given.includes('--long')
const asked = given.filter(a => a !== '--long')
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
// Databases, browser profiles and uploads of the tests go with them.
const scratch = mkdtempSync(join(tmpdir(), 'corvit-run-'))
const env = {
  ...process.env,
  CHROMIUM_PATH: browser,
  NODE_OPTIONS: '',
  TMPDIR: scratch,
  ...(process.stdout.isTTY && { FORCE_COLOR: '1' }),
}

const COUNTS = /^(\d+) passed, (\d+) failed$/
/**
 * Runs Jest and prints what it prints, but for its counts.
 * @returns how many passed and failed; an end without counts, or a bad one with every test passed, is a failure
 */
async function jest(...args) {
  const child = spawn(
    process.execPath,
    [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), ...args],
    { cwd: ROOT, stdio: ['inherit', 'pipe', 'pipe'], env },
  )
  let counts
  for (const stream of [child.stdout, child.stderr])
    createInterface({ input: stream }).on('line', line => {
      const found = COUNTS.exec(line)
      if (found) counts = found.slice(1).map(Number)
      else console.log(line)
    })
  const status = await new Promise(resolve => child.once('close', resolve))
  const [passed, failed] = counts ?? [0, 1]
  return { passed, failed: status !== 0 && failed === 0 ? 1 : failed }
}

/** The unit tests need no build, which mostly takes one core: both begin at once. */
async function everything() {
  // Each view and each way through it once, in a few minutes; the rest before anything lands (.ci/run).
  const chosen = isLong ? [] : ['--testNamePattern', '^(?!.*\\(long\\)$)']
  if (!isLong) console.log('Without the tests marked (long): npm test -- --long runs them too.')
  const building = buildMeanwhile().then(
    () => true,
    error => {
      console.error(error.message)
      return false
    },
  )
  const [unit, isBuilt] = await Promise.all([jest('--selectProjects', 'unit', ...chosen), building])
  const inBrowser = isBuilt
    ? await jest('--selectProjects', 'browser', ...chosen)
    : { passed: 0, failed: 1 }
  return [unit, inBrowser]
}
async function some() {
  build()
  return [await jest(...asked)]
}
const runs = asked.length > 0 ? await some() : await everything()
rmSync(scratch, { recursive: true, force: true })
const sum = of => runs.reduce((total, run) => total + run[of], 0)
console.log(`${sum('passed')} passed, ${sum('failed')} failed`)
process.exit(sum('failed') === 0 ? 0 : 1)
