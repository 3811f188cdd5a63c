// One of the workers of npm run mutants: plants an error, runs the tests, says which one noticed.
import { basename, join } from 'node:path'
import { parentPort, workerData } from 'node:worker_threads'
import { planted } from './mutate.mjs'
import { quickTests } from './quick-tests.mjs'

const { root } = workerData
const run = quickTests(root)
parentPort.on('message', async mutant => {
  const text = planted(root, mutant)
  const { failed, passed } = await run(
    { path: join(root, mutant.file), text },
    basename(mutant.file, '.ts'),
  )
  parentPort.postMessage({ failed, passed })
})
parentPort.postMessage('ready')
