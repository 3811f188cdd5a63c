import { ChangePerson, Person } from '../../../shared/people'
import type { UsersTable } from '../../database/types'
import { changeUser, findUser, listUsers } from '../../queries/people'

/** Changing role or password, and closing an account, end its sessions. There is always an owner left. */
export default defineEventHandler(async event => {
  const input = await readInput(event, ChangePerson)
  const db = await useDb()
  const row = await findUser(db, getRouterParam(event, 'userId') ?? '')
  if (!row) throw refuse('gone', 'There is no such account')
  const losesOwner =
    row.role === 'owner' && (input.isDisabled === true || (input.role ?? 'owner') !== 'owner')
  const owners = (await listUsers(db)).filter(u => u.role === 'owner' && u.disabled_at === null)
  if (losesOwner && owners.length < 2) throw refuse('forbidden', 'The last owner stays the owner')
  const change: Partial<UsersTable> = { session_version: row.session_version + 1 }
  if (input.name !== undefined) change.name = input.name
  if (input.role !== undefined) change.role = input.role
  if (input.isDisabled !== undefined)
    change.disabled_at = input.isDisabled ? new Date().toISOString() : null
  if (input.password !== undefined) change.password_hash = await hashPassword(input.password)
  await changeUser(db, row.id, change)
  if (row.id === requireAsker(event).id)
    await signIn(event, { id: row.id, session_version: row.session_version + 1 })
  await audit(event, 'account changed', `${row.login}: ${Object.keys(input).join(', ')}`)
  return Person.parse(personOf((await findUser(db, row.id))!))
})
