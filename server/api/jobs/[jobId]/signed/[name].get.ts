import { SignedName } from '../../../../../shared/files'
import { signedByName } from '../../../../queries/papers'

/** A signed report, the very file that was made when it was signed. */
export default defineEventHandler(async event => {
  const name = check(SignedName, getRouterParam(event, 'name'))
  const { db, row } = await requireJob(event)
  const signed = await signedByName(db, row.id, name)
  if (!signed) throw refuse('no-route', 'There is no such signed report')
  sendAs(event, 'application/pdf', `${fileName(row.name)}-${name}.pdf`)
  return signed.pdf
})
