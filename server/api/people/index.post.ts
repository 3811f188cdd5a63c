import { randomUUID } from 'node:crypto'
import { NewPerson, Person } from '../../../shared/people'
import { addUser, findLogin, findUser } from '../../queries/people'

export default defineEventHandler(async event => {
  const { login, name, role, password } = await readInput(event, NewPerson)
  const db = await useDb()
  if (isDemo()) throw refuse('not-demo', 'A demo has no accounts')
  if (await findLogin(db, login)) {
    const problem = { path: 'login', expected: 'a sign-in name nobody has', found: login }
    throw refuse('conflict', 'Somebody has that sign-in name', [problem])
  }
  const id = randomUUID()
  await addUser(db, {
    id,
    login,
    name,
    role,
    password_hash: await hashPassword(password),
    session_version: 1,
    created_at: new Date().toISOString(),
    disabled_at: null,
  })
  await audit(event, 'account made', `${login}, ${role}`)
  setResponseStatus(event, 201)
  return Person.parse(personOf((await findUser(db, id))!))
})
