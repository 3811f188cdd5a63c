import { randomUUID } from 'node:crypto'
import { MAX_FILE_BYTES, PREMISES_ID, readJobFile, UnreadableFile, type ReadFile } from '../../../core'
import { Appended } from '../../../shared/api'
import { removeJob } from '../../queries/jobs'

export default defineEventHandler(async (event) => {
  const text = await readText(event, MAX_FILE_BYTES)
  // Ids in the order of the file: observations of one instant count in the order of their ids.
  const batch = randomUUID()
  let n = 0
  let file: ReadFile
  try {
    file = readJobFile(text, { at: new Date().toISOString(), by: 'import', nextId: () => `${batch}-${String(n++).padStart(7, '0')}` })
  } catch (error) {
    if (error instanceof UnreadableFile) throw refuse('unreadable-file', error.message, error.problems)
    throw error
  }
  if (!file.observations.some(o => o.act === 'add' && o.subject === PREMISES_ID)) {
    throw refuse('unreadable-file', 'The file has no premises', [{ path: 'observations', expected: `an observation that adds "${PREMISES_ID}"`, found: 'none' }])
  }
  const db = await useDb()
  const id = await startJob(db)
  try {
    const answer = await append(db, id, file.observations)
    setResponseStatus(event, 201)
    return Appended.parse(answer)
  } catch (error) {
    await removeJob(db, id)
    throw error
  }
})
