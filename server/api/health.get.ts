import { sql } from 'kysely'
import { Health } from '../../shared/api'
import { settingOf } from '../queries/settings'
import { version } from '../../package.json'

/** Whether this server can do its work; says nothing about anybody's jobs. */
export default defineEventHandler(async event => {
  const problems: string[] = []
  let instance = ''
  try {
    const db = await useDb()
    instance = (await settingOf(db, 'instance')) ?? ''
    await sql`SELECT 1`.execute(db)
  } catch {
    problems.push('the database does not answer')
  }
  if (problems.length > 0) setResponseStatus(event, 503)
  return Health.parse({
    status: problems.length > 0 ? 'failing' : 'ok',
    version,
    instance,
    isDemo: isDemo(),
    problems,
  })
})
