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
export interface Database { jobs: JobsTable, observations: ObservationsTable }
export type JobRow = Selectable<JobsTable>
export type NewObservationRow = Insertable<ObservationsTable>
