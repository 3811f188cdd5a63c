import { MAX_AHEAD_MS } from '../../../core'
import { Appended } from '../../../shared/api'
import { findJob, updateJob } from '../../queries/jobs'

/** The file is read beside the server, into a job that nobody sees until it is whole. */
export default defineEventHandler(async event => {
  const body = await readJobBody(event)
  const db = await useDb()
  const asker = requireAsker(event)
  const jobId = await startJob(db, undefined, { owner_id: asker.id, state: 'importing' })
  try {
    const now = Date.now()
    const answer = await heavy({
      kind: 'import',
      file: databaseFile(),
      jobId,
      photos: photoFolder(),
      bytes: new Uint8Array(body),
      now: new Date(now).toISOString(),
      accountId: asker.id,
      latestMs: now + MAX_AHEAD_MS,
    })
    if (answer.kind === 'unreadable') throw unreadableFile(answer.problems)
    if (answer.kind !== 'imported') throw new Error('an import answered with something else')
    await updateJob(db, jobId, { imported: answer.observations, observations: answer.observations })
    await countNow(db, jobId)
    await updateJob(db, jobId, { state: 'ready' })
    await audit(event, 'job imported', `${answer.observations} observations`, jobId)
    const row = (await findJob(db, jobId))!
    setResponseStatus(event, 201)
    return Appended.parse({
      stored: answer.observations,
      known: 0,
      refused: [],
      lastSequence: 0,
      skewSeconds: null,
      job: summary(row, asker),
    })
  } catch (error) {
    await purge(db, jobId)
    if (error instanceof TookTooLong) throw tookTooLong()
    throw isFull(error) ? diskFull() : error
  }
})
