import type { Kysely } from 'kysely'
import { Access } from '../../shared/people'
import type { Database, JobRow } from '../database/types'
import { listUsers, membersOf } from '../queries/people'

/** Who has a job, whom it is shared with, and who else there is. */
export async function accessTo(db: Kysely<Database>, job: JobRow) {
  const users = (await listUsers(db)).filter(u => u.disabled_at === null)
  const members = await membersOf(db, job.id)
  const inside = new Set([job.owner_id, ...members.map(m => m.id)])
  const owner = users.find(u => u.id === job.owner_id)
  return Access.parse({
    owner: owner ? personOf(owner) : null,
    members: members.map(personOf),
    others: users.filter(u => !inside.has(u.id)).map(personOf),
  })
}
