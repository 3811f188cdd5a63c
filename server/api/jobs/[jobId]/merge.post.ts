import { conflictsIn } from '../../../../core'
import { MAX_BATCH } from '../../../../shared/api'
import { MergeAnswer } from '../../../../shared/files'

/** Another copy of this job, as a file or a bundle, is put together with it; nothing that is here is lost. */
export default defineEventHandler(async event => {
  const bytes = await readJobBody(event)
  const { db, row } = await requireJob(event)
  const answer = await heavyAnswer({
    kind: 'copy',
    file: databaseFile(),
    jobId: row.id,
    photos: photoFolder(),
    bytes: new Uint8Array(bytes),
    now: new Date().toISOString(),
  })
  if (answer.kind === 'unreadable') throw unreadableFile(answer.problems)
  if (answer.kind !== 'copied') throw new Error('a merge answered with something else')
  let stored = 0
  for (let i = 0; i < answer.fresh.length; i += MAX_BATCH) {
    const part = await append(db, row.id, { observations: answer.fresh.slice(i, i + MAX_BATCH) })
    if (part.refused.length > 0) {
      const problems = part.refused.flatMap(r => r.problems)
      throw refuse('unreadable-file', 'Some of the copy does not fit this job', problems)
    }
    stored += part.stored
  }
  await countNow(db, row.id)
  await audit(event, 'copy merged', `${stored} observations`, row.id)
  return MergeAnswer.parse({
    stored,
    known: answer.known,
    photos: answer.photos,
    conflicts: conflictsIn(await ledgerOf(db, row.id)),
  })
})
