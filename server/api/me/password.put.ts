import { ChangeOwn, Person } from '../../../shared/people'
import { changeUser, findUser } from '../../queries/people'

/** A new password ends every other session of the account. */
export default defineEventHandler(async event => {
  const { current, password } = await readInput(event, ChangeOwn)
  const db = await useDb()
  const row = await findUser(db, requireAsker(event).id ?? '')
  if (!row) throw refuse('not-demo', 'A demo has no accounts')
  if (!(await verifyPassword(row.password_hash, current))) {
    const problem = { path: 'current', expected: 'your present password', found: 'another' }
    throw refuse('wrong-password', 'That is not your present password', [problem])
  }
  const session_version = row.session_version + 1
  await changeUser(db, row.id, { password_hash: await hashPassword(password), session_version })
  await signIn(event, { ...row, session_version })
  await audit(event, 'password changed')
  return Person.parse(personOf(row))
})
