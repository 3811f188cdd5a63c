import { Person, SignIn } from '../../shared/people'
import { findLogin } from '../queries/people'

/** A hash of nothing anybody knows: a login that is not there takes as long as a wrong password. */
let decoy: Promise<string> | undefined

export default defineEventHandler(async event => {
  const { login, password } = await readInput(event, SignIn)
  const db = await useDb()
  await mayTryPassword(event, login)
  const row = await findLogin(db, login)
  decoy ??= hashPassword(crypto.randomUUID())
  const isRight = await verifyPassword(row?.password_hash ?? (await decoy), password)
  if (!row || !isRight || row.disabled_at !== null) {
    await audit(event, 'sign-in refused', login)
    await spendWrongPassword(event, login)
    throw refuse('wrong-password', 'Name and password do not belong together')
  }
  await forgiveWrongPasswords(login)
  await signIn(event, row)
  event.context.asker = { id: row.id, name: row.name, role: row.role }
  await audit(event, 'signed in')
  return Person.parse(personOf(row))
})
