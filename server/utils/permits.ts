import type { Kysely } from 'kysely'
import { paperOf, paperText, remedyById, valueOf, worksOf, type Subject } from '../../core'
import type { Permit } from '../../shared/files'
import type { Database, JobRow } from '../database/types'
import { addPermit, listPermits } from '../queries/papers'
import type { Asker } from './people'

type Db = Kysely<Database>

export async function permitsOf(db: Db, jobId: string): Promise<Permit[]> {
  const office = permitOffice()
  const rows = await listPermits(db, jobId)
  return Promise.all(
    rows.map(async ({ reference, works, sent_at }) => ({
      reference,
      works,
      sentAt: sent_at,
      state: (await office.status(reference)) ?? 'received',
      result: (await office.result(reference)) ?? '',
    })),
  )
}

/** Sends what is planned and needs a permit; answers with the reference of the office. */
export async function applyForPermit(db: Db, row: JobRow, asker: Asker): Promise<string> {
  const { house } = await ledgerOf(db, row.id)
  const works = worksOf(house).filter(
    w => w.state === 'planned' && remedyById(w.remedy.id)?.needsPermit,
  ).length
  const premises = house.subjects.get('premises') as Subject<'premises'> | undefined
  const { reference } = await permitOffice().submit({
    property: valueOf(premises, 'name') ?? '',
    street: valueOf(premises, 'street') ?? '',
    applicant: asker.name || (valueOf(premises, 'assessor') ?? ''),
    note: paperText(paperOf(house, 'permit-note')),
    works,
  })
  await addPermit(db, { reference, job_id: row.id, works, sent_at: new Date().toISOString() })
  return reference
}
