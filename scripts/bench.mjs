// npm run bench: bundles the bench as the server is bundled (a development loader would wrap every function), then runs it.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build } from 'esbuild'
import { install, ROOT } from './setup.mjs'

install()
const outfile = join(ROOT, 'node_modules', '.cache', 'corvit-bench.mjs')
await build({ entryPoints: [join(ROOT, 'tests', 'bench', 'run.ts')], bundle: true, platform: 'node', format: 'esm', packages: 'external', outfile, logLevel: 'error' })
process.exit(spawnSync(process.execPath, ['--expose-gc', outfile], { cwd: ROOT, stdio: 'inherit' }).status ?? 1)
