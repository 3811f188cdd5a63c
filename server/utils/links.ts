import type { Link } from '../../shared/people'
import type { LinkRow } from '../database/types'

export const linkOut = (row: LinkRow): Link => ({
  id: row.id,
  voice: row.voice,
  madeBy: row.made_by,
  madeAt: row.made_at,
  expiresAt: row.expires_at,
  isRevoked: row.revoked_at !== null,
})
