import { SessionState } from '../../shared/people'
import { countUsers, findUser } from '../queries/people'

export default defineEventHandler(async event => {
  const db = await useDb()
  const serverTime = new Date().toISOString()
  if (isDemo()) return SessionState.parse({ door: 'open', person: null, serverTime })
  const { asker } = event.context
  const row = asker?.id ? await findUser(db, asker.id) : undefined
  if (row) return SessionState.parse({ door: 'in', person: personOf(row), serverTime })
  const door = (await countUsers(db)) === 0 ? 'setup' : 'closed'
  return SessionState.parse({ door, person: null, serverTime })
})
