import { Sign, Signed } from '../../../../../shared/files'

/** Signs a report: the paper is frozen with its seal, and the signature goes on record. */
export default defineEventHandler(async event => {
  const read = await readInput(event, Sign)
  const { db, row, asker } = await requireJob(event)
  // Who is signed in signs under their own name; in a demo a name is what people write.
  const toSign = asker.id === null ? read : { ...read, by: asker.name }
  const signed = await signReport(db, row.id, toSign, asker)
  await audit(event, 'report signed', `${signed.name}, ${signed.hash}`, row.id)
  setResponseStatus(event, 201)
  return Signed.parse(signed)
})
