import { Settings } from '../../shared/people'
import { setSetting } from '../queries/settings'

export default defineEventHandler(async event => {
  const settings = await readInput(event, Settings)
  const db = await useDb()
  await setSetting(db, 'settings', JSON.stringify(settings))
  await audit(event, 'settings changed', JSON.stringify(settings))
  return settings
})
