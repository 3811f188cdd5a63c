import { RETAIN_EVERY_MS } from '../utils/setup'

/**
 * Opens the database before the first request, keeps to what may be kept, and ends it gracefully.
 * Without a word about it, only this machine is listened to: Node would listen on every address.
 */
export default defineNitroPlugin(nitroApp => {
  process.env.NITRO_HOST ??= process.env.HOST ?? '127.0.0.1'
  process.env.NUXT_SESSION_PASSWORD ??= keptSecret('secret')
  const opening = useDb().then(async db => {
    await retain(db)
    await announceSetup(db)
    setInterval(
      () => void retain(db).catch(error => log.warn({ err: error }, 'retention')),
      RETAIN_EVERY_MS,
    ).unref()
  })
  opening.catch((error: Error) => {
    if (error instanceof DatabaseTaken) process.stderr.write(`${error.message}\n`)
    else log.fatal({ err: error }, 'the database could not be opened')
    process.exit(1)
  })
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, endStreams)
  nitroApp.hooks.hook('close', async () => {
    endStreams()
    await drainBoxes()
    await stopHeavy()
    await closeDb()
  })
})
