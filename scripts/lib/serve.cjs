// Starts the built server on a free port with a database file of its own. Used by demo, browser tests and screenshots.
// CommonJS, so that Jest and the ESM scripts can both load it.
const { spawn } = require('node:child_process')
const { createServer } = require('node:net')
const { join } = require('node:path')

const entry = join(__dirname, '..', '..', '.output', 'server', 'index.mjs')

const freePort = () =>
  new Promise((resolve, reject) => {
    const server = createServer()
    server.once('error', reject)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => resolve(port))
    })
  })

/** @param {{ db: string, demo?: boolean, port?: number, quiet?: boolean, env?: Record<string, string> }} options */
async function serve({ db, demo = false, port, quiet = true, env = {} }) {
  const own = port ?? (await freePort())
  const child = spawn(process.execPath, [entry], {
    env: {
      ...process.env,
      PORT: String(own),
      NITRO_PORT: String(own),
      CORVIT_DB: db,
      CORVIT_DEMO: demo ? '1' : '0',
      CORVIT_LOG: 'warn',
      NODE_ENV: 'production',
      ...env,
    },
    stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
  })
  let log = ''
  child.stdout?.on('data', d => {
    log += d
  })
  child.stderr?.on('data', d => {
    log += d
  })
  const url = `http://127.0.0.1:${own}`
  for (let i = 0; ; i++) {
    if (child.exitCode !== null) throw new Error(`The server ended: ${log}`)
    try {
      if ((await fetch(`${url}/api/health`)).ok) break
    } catch {
      /* not listening yet */
    }
    if (i > 300) throw new Error(`The server did not answer: ${log}`)
    await new Promise(r => setTimeout(r, 100))
  }
  return {
    url,
    child,
    log: () => log,
    stop: (signal = 'SIGTERM') =>
      new Promise(resolve => {
        if (child.exitCode !== null || child.signalCode !== null) return resolve()
        child.once('exit', resolve)
        child.kill(signal)
      }),
  }
}

module.exports = { freePort, serve }
