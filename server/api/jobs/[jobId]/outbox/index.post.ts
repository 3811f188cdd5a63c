import { Mail, Sent } from '../../../../../shared/files'

/** Sends a report by mail: the message with its PDF goes to the mail office. */
export default defineEventHandler(async event => {
  const mail = await readInput(event, Mail)
  const { db, row, asker } = await requireJob(event)
  const sent = await mailPaper(db, row, mail, asker)
  await audit(event, 'report mailed', `${mail.paper} to ${mail.to}`, row.id)
  setResponseStatus(event, 201)
  return Sent.parse(sent)
})
