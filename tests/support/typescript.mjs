// Node reads the TypeScript of core, server and unit tests itself, with tsx.
import { register as registerRequire } from 'tsx/cjs/api'
import { register } from 'tsx/esm/api'

registerRequire()
register()
