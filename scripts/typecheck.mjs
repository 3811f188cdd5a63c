// The core against its own bare library, the rest through Nuxt's type check of Vue files.
import { spawnSync } from 'node:child_process'

const run = (...args) => spawnSync('npx', args, { stdio: 'inherit' }).status ?? 1
const failed = [
  run('tsc', '-p', 'tsconfig.core.json'),
  run('nuxt', 'prepare'),
  run('vue-tsc', '-b', '--noEmit'),
].some(code => code !== 0)
process.exit(failed ? 1 : 0)
