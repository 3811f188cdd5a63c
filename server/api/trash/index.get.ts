import { TrashList } from '../../../shared/api'
import { listTrash } from '../../queries/jobs'

export default defineEventHandler(async event => {
  const db = await useDb()
  const asker = requireAsker(event)
  const rows = await listTrash(db, asker.role === 'owner' ? undefined : (asker.id ?? undefined))
  const { trashDays } = await settingsOf(db)
  const goneOn = (deletedAt: string) =>
    new Date(Date.parse(deletedAt) + trashDays * 86_400_000).toISOString()
  return TrashList.parse({
    jobs: rows.map(r => ({
      id: r.id,
      name: r.name,
      deletedAt: r.deleted_at!,
      goneOn: goneOn(r.deleted_at!),
      observations: r.observations,
    })),
  })
})
