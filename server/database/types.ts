import type { Generated, Insertable, Selectable } from 'kysely'

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
export interface Database { jobs: JobsTable, observations: ObservationsTable, photos: PhotosTable }
export type JobRow = Selectable<JobsTable>
export type NewObservationRow = Insertable<ObservationsTable>
