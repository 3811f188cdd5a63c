import type { Generated, Insertable, Selectable } from 'kysely'
import type { Role } from '../../shared/people'

export interface JobsTable {
  id: string
  created_at: string
  changed_at: string
  name: string
  street: string
  purpose: string
  year_built: string
  edition: string
  observations: number
  make_safe: number
  repair: number
  upgrade: number
  record: number
  undecided: number
  /** Open within the scope of the visit; null until it is counted. */
  in_scope: number | null
  /** Null in a demo, where nobody signs in. */
  owner_id: string | null
  /** In the trash since. */
  deleted_at: string | null
  /** A job whose file is still being read is not listed, and swept away when the server was killed meanwhile. */
  state: 'ready' | 'importing'
  /** How many observations, first in sequence, came from a file: their names were not signed in here. */
  imported: number
  /** How far it is, as its log says. */
  stage: string
  /** Day of the next visit, year-month-day; empty where none is set. */
  next_on: string
  /** Out of the list since; it is kept whole, and found among the archived ones. */
  archived_at: string | null
}
/** What the search looks through: full text, one row a job. */
export interface JobSearchTable {
  job_id: string
  name: string
  street: string
  people: string
  findings: string
}
/** Signed reports, frozen: the paper as data, and the PDF as it was made. */
export interface SignedTable {
  job_id: string
  /** Number and voice, as in `2-inspector`. */
  name: string
  number: number
  voice: string
  /** SHA-256 of the paper. */
  hash: string
  signed_by: string
  signed_on: string
  paper: string
  pdf: Buffer
}
export interface OutboxTable {
  id: string
  job_id: string
  kind: 'mail' | 'labels'
  recipient: string
  subject: string
  /** Name of the file in the outbox folder. */
  file: string
  made_at: string
  made_by: string
}
export interface PermitsTable {
  reference: string
  job_id: string
  works: number
  sent_at: string
}
export interface ObservationsTable {
  seq: Generated<number>
  job_id: string
  id: string
  at: string
  act: string
  subject: string | null
  field: string | null
  /** The observation whole, as JSON. */
  body: string
  received_at: string | null
  account_id: string | null
}
export interface PhotosTable {
  job_id: string
  /** SHA-256 of the file kept. */
  hash: string
  stored_at: string
  width: number
  height: number
  bytes: number
}
export interface UsersTable {
  id: string
  login: string
  name: string
  role: Role
  password_hash: string
  /** Raised when sessions given out before are no longer good. */
  session_version: number
  created_at: string
  disabled_at: string | null
}
export interface PasskeysTable {
  id: string
  user_id: string
  public_key: string
  counter: number
  transports: string
  created_at: string
}
export interface MembersTable {
  job_id: string
  user_id: string
}
export interface LinksTable {
  id: string
  job_id: string
  /** SHA-256 of the token; the token itself is shown once. */
  token_hash: string
  voice: string
  made_by: string
  made_at: string
  expires_at: string
  revoked_at: string | null
}
export interface AuditTable {
  seq: Generated<number>
  at: string
  user_id: string | null
  user_name: string
  device: string
  action: string
  job_id: string | null
  detail: string
}
export interface SettingsTable {
  key: string
  value: string
}
export interface Database {
  jobs: JobsTable
  observations: ObservationsTable
  photos: PhotosTable
  users: UsersTable
  passkeys: PasskeysTable
  members: MembersTable
  links: LinksTable
  audit: AuditTable
  settings: SettingsTable
  job_search: JobSearchTable
  signed: SignedTable
  outbox: OutboxTable
  permits: PermitsTable
}
export type JobRow = Selectable<JobsTable>
export type UserRow = Selectable<UsersTable>
export type LinkRow = Selectable<LinksTable>
export type SignedRow = Selectable<SignedTable>
export type OutboxRow = Selectable<OutboxTable>
export type AuditRow = Selectable<AuditTable>
export type NewObservationRow = Insertable<ObservationsTable>
