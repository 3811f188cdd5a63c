import { Audit, AuditQuery } from '../../shared/people'
import { auditBefore } from '../queries/people'

const PAGE = 200

export default defineEventHandler(async event => {
  const { before } = readQuery(event, AuditQuery)
  const rows = await auditBefore(await useDb(), before, PAGE)
  return Audit.parse({
    entries: rows.map(r => ({
      seq: r.seq,
      at: r.at,
      who: r.user_name,
      device: r.device,
      action: r.action,
      jobId: r.job_id,
      detail: r.detail,
    })),
  })
})
