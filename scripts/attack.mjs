// npm run attack [-- --short] [-- --seed N]: builds if stale, then attacks a server of its own.
import { spawnSync } from 'node:child_process'
import { build, install, ROOT } from './setup.mjs'

install()
build()
const args = ['--import', 'tsx', 'scripts/attack.ts', ...process.argv.slice(2)]
process.exit(spawnSync(process.execPath, args, { cwd: ROOT, stdio: 'inherit' }).status ?? 1)
