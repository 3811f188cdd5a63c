// npm start: real use. Installs if needed, builds if stale, starts with accounts. See docs/OPERATING.md.
import { join } from 'node:path'
import { build, install, ROOT } from './setup.mjs'

install()
build()
process.env.CORVIT_DATA ??= join(ROOT, 'data')
process.env.CORVIT_DEMO = '0'
process.env.NODE_ENV ??= 'production'
process.argv[1] = join(ROOT, '.output', 'server', 'index.mjs')
await import(process.argv[1])
