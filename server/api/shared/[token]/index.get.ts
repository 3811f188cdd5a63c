import { SharedReport } from '../../../../shared/files'

/**
 * One report, for whoever holds the link, until it expires: as it was signed last. Only where nobody has signed it yet,
 * as it stands now.
 */
export default defineEventHandler(async event => {
  const { job, voice, signed } = await requireLink(event)
  const text =
    signed?.paper ??
    (await heavyText({ kind: 'report', file: databaseFile(), jobId: job.id, voice })).toString()
  return SharedReport.parse({ paper: JSON.parse(text), signed: signed ? signedOut(signed) : null })
})
