import { PasskeyList } from '../../../../shared/people'
import { passkeysOf } from '../../../queries/people'

export default defineEventHandler(async event => {
  const rows = await passkeysOf(await useDb(), requireAsker(event).id ?? '')
  return PasskeyList.parse({ passkeys: rows.map(r => ({ id: r.id, createdAt: r.created_at })) })
})
