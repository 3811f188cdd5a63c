import { People } from '../../../shared/people'
import { jobsByOwner, listUsers } from '../../queries/people'

export default defineEventHandler(async () => {
  const db = await useDb()
  const jobs = new Map((await jobsByOwner(db)).map(r => [r.owner_id, Number(r.n)]))
  const rows = await listUsers(db)
  return People.parse({
    people: rows.map(r => ({
      ...personOf(r),
      createdAt: r.created_at,
      isDisabled: r.disabled_at !== null,
      jobs: jobs.get(r.id) ?? 0,
    })),
  })
})
