import { createHash } from 'node:crypto'
import type { User } from '#auth-utils'
import type { H3Event } from 'h3'
import type { Kysely } from 'kysely'
import { mayAtLeast, type Person, type Role } from '../../shared/people'
import type { Database, JobRow, UserRow } from '../database/types'
import { addAudit, findUser, isMember } from '../queries/people'

type Db = Kysely<Database>

/** Who asks. In a demo everybody is the owner, and nobody has a name. */
export interface Asker {
  id: string | null
  name: string
  role: Role
}
export const DEMO_ASKER: Asker = { id: null, name: '', role: 'owner' }

declare module '#auth-utils' {
  interface User {
    id: string
    version: number
  }
}
declare module 'h3' {
  interface H3EventContext {
    asker?: Asker
  }
}

export const personOf = ({ id, login, name, role }: UserRow): Person => ({ id, login, name, role })

/** Who asks, from the sealed cookie and the account behind it; undefined for a stranger. */
export async function askerOf(event: H3Event, db: Db): Promise<Asker | undefined> {
  if (isDemo()) return DEMO_ASKER
  const { user }: { user?: User } = await getUserSession(event)
  if (!user) return undefined
  const row = await findUser(db, user.id)
  if (!row || row.disabled_at !== null || row.session_version !== user.version) return undefined
  return { id: row.id, name: row.name, role: row.role }
}

export function requireAsker(event: H3Event): Asker {
  if (!event.context.asker) throw refuse('sign-in', 'Sign in first')
  return event.context.asker
}

/** Signs a person in: a sealed cookie that scripts cannot read. */
export async function signIn(
  event: H3Event,
  row: Pick<UserRow, 'id' | 'session_version'>,
): Promise<void> {
  const secure =
    getRequestProtocol(event, { xForwardedProto: process.env.CORVIT_PROXY === '1' }) === 'https'
  const cookie = { sameSite: 'strict', httpOnly: true, secure } as const
  await replaceUserSession(
    event,
    { user: { id: row.id, version: row.session_version } },
    { cookie },
  )
}

export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex')

/** Which device asks, as it says itself, and what kind of browser it is. */
export function deviceOf(event: H3Event): string {
  const own = getHeader(event, 'x-corvit-device') ?? ''
  const agent = getHeader(event, 'user-agent') ?? ''
  return `${/^[\w-]{1,24}$/.test(own) ? own : 'unnamed'} · ${agent.slice(0, 120)}`
}

/** Writes the audit trail. It is not tied to the job or the account, and stays when they are gone. */
export async function audit(
  event: H3Event,
  action: string,
  detail = '',
  jobId: string | null = null,
): Promise<void> {
  const asker = event.context.asker
  await addAudit(await useDb(), {
    at: new Date().toISOString(),
    user_id: asker?.id ?? null,
    user_name: asker?.name ?? '',
    device: deviceOf(event),
    action,
    job_id: jobId,
    detail: detail.slice(0, 500),
  })
}

/** What is asked of a job: looking and recording (whoever it is shared with), or deciding about it (its owner). */
export type Need = 'use' | 'manage'
export async function mayOn(db: Db, asker: Asker, job: JobRow, need: Need): Promise<boolean> {
  if (asker.role === 'owner') return true
  if (job.owner_id === asker.id) return need === 'use' || mayAtLeast(asker.role, 'assessor')
  return need === 'use' && (await isMember(db, job.id, asker.id!))
}
