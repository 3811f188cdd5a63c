// npm run bench [-- run|record|clients|plan|jobs|paths]: bundles a bench as the server is bundled (a development
// loader would wrap every
// function), then runs it.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { build as bundle } from 'esbuild'
import { build, install, ROOT } from './setup.mjs'

install()
build()
const names =
  process.argv.length > 2
    ? process.argv.slice(2)
    : ['run', 'record', 'clients', 'plan', 'jobs', 'paths']
for (const name of names) {
  const outfile = join(ROOT, 'scripts', `.bench-${name}.mjs`)
  await bundle({
    entryPoints: [join(ROOT, 'tests', 'bench', `${name}.ts`)],
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    outfile,
    logLevel: 'error',
    external: ['*/lib/serve.cjs', '*/lib/browser.cjs'],
    alias: {},
    plugins: [
      {
        name: 'libs',
        setup: b =>
          b.onResolve({ filter: /scripts\/lib\/\w+\.cjs$/ }, a => ({
            path: `./lib/${a.path.split('/').at(-1)}`,
            external: true,
          })),
      },
    ],
  })
  const { status } = spawnSync(process.execPath, ['--expose-gc', outfile], {
    cwd: ROOT,
    stdio: 'inherit',
  })
  if (status !== 0) process.exit(status ?? 1)
}
