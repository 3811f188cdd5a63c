import { PaperParam } from '../../../../../shared/api'

/** A paper of the accepted plan, as PDF. */
export default defineEventHandler(async event => {
  const { paper } = check(PaperParam, getRouterParams(event))
  const { db, row, asker } = await requireJob(event)
  const pdf = await heavyText({
    kind: 'paper',
    file: databaseFile(),
    jobId: row.id,
    paper,
    photos: photoFolder(),
    letterhead: await letterheadOf(db, asker),
  })
  sendAs(event, 'application/pdf', `${fileName(row.name)}-${paper}.pdf`)
  return pdf
})
