import { randomUUID } from 'node:crypto'
import type { Kysely } from 'kysely'
import type { z } from 'zod'
import { PAPERS } from '../../core'
import type { Mail, Sent } from '../../shared/files'
import type { Database, JobRow, OutboxRow } from '../database/types'
import { addToOutbox, signedByName } from '../queries/papers'
import type { Asker } from './people'

type Db = Kysely<Database>

export const sentOut = (row: OutboxRow): Sent => ({
  id: row.id,
  kind: row.kind,
  to: row.recipient,
  subject: row.subject,
  file: row.file,
  at: row.made_at,
  by: row.made_by,
})

/** The PDF of a signed report, or of a paper as it is now. */
async function pdfOf(db: Db, row: JobRow, name: string, asker: Asker): Promise<Buffer> {
  const signed = await signedByName(db, row.id, name)
  if (signed) return signed.pdf
  const paper = PAPERS.find(p => p === name)
  if (!paper)
    throw refuse('invalid-input', 'There is no such paper', [
      { path: 'paper', expected: 'a signed report, or a paper of this job', found: name },
    ])
  return heavyText({
    kind: 'paper',
    file: databaseFile(),
    jobId: row.id,
    paper,
    photos: photoFolder(),
    letterhead: await letterheadOf(db, asker),
  })
}

async function note(db: Db, sent: Omit<OutboxRow, 'id' | 'made_at'>): Promise<Sent> {
  const row: OutboxRow = { ...sent, id: randomUUID(), made_at: new Date().toISOString() }
  await addToOutbox(db, row)
  return sentOut(row)
}

export async function mailPaper(
  db: Db,
  row: JobRow,
  { to, subject, text, paper }: z.infer<typeof Mail>,
  asker: Asker,
): Promise<Sent> {
  const bytes = await pdfOf(db, row, paper, asker)
  const from = `"${(asker.name || 'Corvit').replaceAll('"', '')}" <no-reply@corvit.invalid>`
  const name = `${fileName(row.name)}-${paper}.pdf`
  const file = await outboxFiles.send({ from, to, subject, text, attachment: { name, bytes } })
  return note(db, {
    job_id: row.id,
    kind: 'mail',
    recipient: to,
    subject,
    file,
    made_by: asker.name,
  })
}

export async function printLabels(db: Db, row: JobRow, asker: Asker): Promise<Sent> {
  const file = await labelFiles.print(await pdfOf(db, row, 'labels', asker))
  return note(db, {
    job_id: row.id,
    kind: 'labels',
    recipient: 'label printer',
    subject: 'Marking sheet and labels',
    file,
    made_by: asker.name,
  })
}
