import { randomUUID } from 'node:crypto'
import type { Kysely } from 'kysely'
import {
  clockAfter,
  clockOfInstant,
  PREMISES_ID,
  type RawObservation,
  type ToSign,
} from '../../core'
import type { Signed } from '../../shared/files'
import type { Database, SignedRow } from '../database/types'
import { sha256 } from '../files/bundle'
import { addSigned, removeSigned } from '../queries/papers'
import type { Asker } from './people'

type Db = Kysely<Database>

export const signedOut = (row: Omit<SignedRow, 'pdf' | 'paper'>): Signed => ({
  name: row.name,
  number: row.number,
  voice: row.voice as Signed['voice'],
  hash: row.hash,
  signedBy: row.signed_by,
  signedOn: row.signed_on,
})

/**
 * Freezes a report: paper, PDF and seal are kept as they are, and the log says who signed what, and when. The clock of
 * the signature comes right after what the paper was made from: whatever was recorded meanwhile counts as later.
 */
export async function signReport(
  db: Db,
  jobId: string,
  toSign: ToSign,
  asker: Asker,
): Promise<Signed> {
  const answer = await heavyAnswer({
    kind: 'sign',
    file: databaseFile(),
    jobId,
    photos: photoFolder(),
    letterhead: await letterheadOf(db, asker),
    toSign,
  })
  if (answer.kind === 'refused')
    throw refuse('conflict', answer.why, [
      { path: 'discloses', expected: 'what is left open, and why', found: 'nothing' },
    ])
  if (answer.kind !== 'signed') throw new Error('signing answered with something else')
  const { number, open, hash, paper, pdf, after } = answer
  const name = `${number}-${toSign.voice}`
  const row = {
    job_id: jobId,
    name,
    number,
    voice: toSign.voice,
    hash,
    signed_by: toSign.by,
    signed_on: toSign.on,
  }
  try {
    await addSigned(db, { ...row, paper, pdf: Buffer.from(pdf) })
  } catch (error) {
    if (isFull(error)) throw diskFull()
    if (!String((error as { code?: string }).code).startsWith('SQLITE_CONSTRAINT')) throw error
    throw refuse('conflict', 'Somebody else has just signed this revision; look at it first')
  }
  const at = new Date().toISOString()
  const clock = after === undefined ? clockOfInstant(at, 'signing') : clockAfter(after)
  const stamp = () => ({ id: randomUUID(), at, clock, by: toSign.by })
  const subject = `signing-${name}`
  const facts: Readonly<Record<string, string | number>> = {
    number,
    voice: toSign.voice,
    signedBy: toSign.by,
    signedOn: toSign.on,
    hash,
    fileHash: sha256(pdf),
    open,
    ...(toSign.discloses && { discloses: toSign.discloses }),
    ...(toSign.changes && { changes: toSign.changes }),
  }
  const note = (of: string, field: string, value: string | number): RawObservation => ({
    ...stamp(),
    act: 'note',
    subject: of,
    field,
    value,
    grade: 'told',
  })
  const observations: RawObservation[] = [
    { ...stamp(), act: 'add', subject, kind: 'signing', parent: PREMISES_ID },
    ...Object.entries(facts).map(([field, value]) => note(subject, field, value)),
    note(PREMISES_ID, 'stage', 'signed'),
  ]
  try {
    const { refused } = await append(db, jobId, { observations, account: asker })
    if (refused.length > 0)
      throw new Error(`the signature does not fit: ${JSON.stringify(refused)}`)
  } catch (error) {
    // A report that the log does not know of was not signed.
    await removeSigned(db, jobId, name)
    throw error
  }
  return signedOut(row)
}
