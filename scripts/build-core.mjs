// npm run build:core: the core as a package that plain Node can use, with its types, in packages/core/dist.
// The manifest does not lie in core/: there it would turn every import of that folder into one of the built copy.
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'esbuild'
import { install, ROOT, run } from './setup.mjs'

install()
const dist = join(ROOT, 'packages', 'core', 'dist')
rmSync(dist, { recursive: true, force: true })
await build({
  entryPoints: [join(ROOT, 'core', 'index.ts')],
  outfile: join(dist, 'index.js'),
  bundle: true,
  platform: 'neutral',
  format: 'esm',
  target: 'es2022',
  external: ['zod'],
  logLevel: 'error',
})
run(join(ROOT, 'node_modules', '.bin', 'tsc'), ['-p', 'tsconfig.core-build.json'])
console.log(`Built ${dist}; try: node examples/assess.mjs docs/examples/multiwire.corvit.json`)
