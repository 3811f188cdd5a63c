import { randomUUID } from 'node:crypto'
import { Person, Setup } from '../../shared/people'
import { addUser, countUsers, findUser } from '../queries/people'

/** Makes the owner's account, once, with the code from the console. */
export default defineEventHandler(async event => {
  const { code, login, name, password } = await readInput(event, Setup)
  const db = await useDb()
  if (isDemo() || (await countUsers(db)) > 0) throw refuse('gone', 'There is an owner already')
  if (!isSetupCode(code)) {
    const problem = {
      path: 'code',
      expected: 'the code this server printed when it started',
      found: 'another',
    }
    throw refuse('wrong-code', 'That is not the code this server printed', [problem])
  }
  spendSetupCode()
  const id = randomUUID()
  await addUser(db, {
    id,
    login,
    name,
    role: 'owner',
    password_hash: await hashPassword(password),
    session_version: 1,
    created_at: new Date().toISOString(),
    disabled_at: null,
  })
  const row = (await findUser(db, id))!
  await signIn(event, row)
  event.context.asker = { id, name, role: 'owner' }
  await audit(event, 'owner made', login)
  setResponseStatus(event, 201)
  return Person.parse(personOf(row))
})
