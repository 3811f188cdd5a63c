// What the two commands need on a fresh machine: packages, the native database, a build that is not stale, Chromium.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('..', import.meta.url))
const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm'

export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options })
  if (error || status !== 0)
    throw new Error(`${command} ${args.join(' ')} failed${error ? `: ${error.message}` : ''}`)
}

/** Installs what package-lock.json names, unless that has been done already. */
export function install() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex')
  const stamp = join(ROOT, 'node_modules', '.corvit-installed')
  const isInstalled = existsSync(stamp) && readFileSync(stamp, 'utf8') === lock
  if (!isInstalled) {
    console.log('Installing packages; the first time takes a few minutes')
    run(npm, ['ci', '--no-audit', '--no-fund', '--loglevel=error'])
  }
  const native = join(
    ROOT,
    'node_modules',
    'better-sqlite3',
    'build',
    'Release',
    'better_sqlite3.node',
  )
  if (!existsSync(native)) {
    console.log('Building the database driver')
    run(npm, ['rebuild', 'better-sqlite3', '--foreground-scripts'])
    if (!existsSync(native))
      throw new Error(
        'better-sqlite3 could not be built; python3, make and a C++ compiler are needed',
      )
  }
  writeFileSync(stamp, lock)
}

const SOURCES = ['app', 'core', 'server', 'shared', 'nuxt.config.ts', 'package-lock.json']
function newest(path) {
  const stat = statSync(path)
  return stat.isDirectory()
    ? Math.max(0, ...readdirSync(path).map(name => newest(join(path, name))))
    : stat.mtimeMs
}

function isBuilt() {
  const built = join(ROOT, '.output', 'server', 'index.mjs')
  return (
    existsSync(built) &&
    statSync(built).mtimeMs > Math.max(...SOURCES.map(s => newest(join(ROOT, s))))
  )
}
const NUXT = join(ROOT, 'node_modules', '.bin', 'nuxt')
const QUIET = { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'] }

/** Builds the application if a source is newer than the build. */
export function build() {
  if (isBuilt()) return
  console.log('Building the application, about a minute')
  run(NUXT, ['build'], QUIET)
}
/** The same, while something else is done. */
export async function buildMeanwhile() {
  if (isBuilt()) return
  console.log('Building the application meanwhile')
  const [status] = await once(spawn(NUXT, ['build'], QUIET), 'close')
  if (status !== 0) throw new Error('The application could not be built')
}

/** Finds Chromium, or installs Debian's where this is root on Debian; undefined with the way said otherwise. */
export function chromium() {
  const find = () =>
    [
      process.env.CHROMIUM_PATH,
      '/usr/bin/chromium',
      '/usr/bin/chromium-browser',
      '/usr/bin/google-chrome',
    ].find(p => p && existsSync(p))
  if (find()) return find()
  const isRoot = process.getuid?.() === 0
  if (isRoot && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium for the browser tests')
    const quiet = {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }
    spawnSync('apt-get', ['update', '-qq'], quiet)
    spawnSync('apt-get', ['install', '-y', '-qq', 'chromium'], quiet)
  }
  return find()
}
