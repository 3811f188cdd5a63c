import { SetMembers } from '../../../../shared/people'
import { findUser, setMembers } from '../../../queries/people'

export default defineEventHandler(async event => {
  const { members } = await readInput(event, SetMembers)
  const { db, row } = await requireJob(event, 'manage')
  const ids = [...new Set(members)]
  for (const id of ids) {
    if (await findUser(db, id)) continue
    throw refuse('invalid-input', 'No such account', [
      { path: 'members', expected: 'ids of accounts', found: id },
    ])
  }
  await setMembers(db, row.id, ids)
  await audit(event, 'job shared', `with ${ids.length}`, row.id)
  return accessTo(db, row)
})
