import { randomUUID } from 'node:crypto'
import type SQLite from 'better-sqlite3'
import Papa from 'papaparse'
import {
  assess,
  FIELDS,
  findingsTable,
  Ledger,
  panelSchedule,
  paperOf,
  PREMISES_ID,
  readJobFile,
  recordedScope,
  Site,
  UnreadableFile,
  valueOf,
  valueText,
  visitOf,
  writeHouse,
  writeLog,
  writeReport,
  type AnyValue,
  type Observation,
  type PaperId,
  type Problem,
  type Voice,
} from '../../core'
import { connect } from '../database/open'
import regular from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff'
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff'
import { renderPdf } from '../pdf/render'

/** Work that would hold up other requests; done beside them, on a connection of its own. */
export type HeavyTask =
  | {
      kind: 'import'
      file: string
      jobId: string
      bytes: Uint8Array
      now: string
      accountId: string | null
      latestMs: number
    }
  | { kind: 'summary' | 'findings' | 'schedule'; file: string; jobId: string }
  | { kind: 'report'; file: string; jobId: string; voice: Voice }
  | { kind: 'paper'; file: string; jobId: string; paper: PaperId }
  | { kind: 'export'; file: string; jobId: string; form: 'log' | 'house' }

export interface JobCounts {
  name: string
  street: string
  purpose: string
  year_built: string
  edition: string
  make_safe: number
  repair: number
  upgrade: number
  record: number
  undecided: number
  in_scope: number
}
export type HeavyAnswer =
  | { kind: 'imported'; observations: number }
  | { kind: 'unreadable'; problems: readonly Problem[] }
  | { kind: 'counts'; counts: JobCounts }
  | { kind: 'text'; bytes: Uint8Array }

// Bundled as bytes; the types of the browser's bundler call every file a text.
const FONTS = {
  regular: regular as unknown as Uint8Array,
  bold: bold as unknown as Uint8Array,
}
const CHUNK = 250

/**
 * A cell that a spreadsheet would run, however it is dressed: blanks, line breaks and full-width
 * signs do not hide it.
 */
export const RUNS_IN_A_SHEET =
  // eslint-disable-next-line no-control-regex -- control characters are what it looks for
  /^[\s\u0000-\u001f\u00a0\u200b-\u200f\u2028-\u202f\u2060\ufeff"']*[=+\-@|%\uff1d\uff0b\uff0d\uff20]/u
const csv = (rows: Record<string, unknown>[]): string =>
  Papa.unparse(rows, { escapeFormulae: RUNS_IN_A_SHEET })

const connections = new Map<string, SQLite.Database>()
function connectionTo(file: string): SQLite.Database {
  let db = connections.get(file)
  if (!db) connections.set(file, (db = connect(file)))
  return db
}

function ledgerFrom(file: string, jobId: string): Ledger {
  const rows = connectionTo(file)
    .prepare('SELECT body FROM observations WHERE job_id = ? ORDER BY seq')
    .all(jobId)
  return new Ledger((rows as { body: string }[]).map(r => JSON.parse(r.body) as Observation))
}

export async function doTask(task: HeavyTask): Promise<HeavyAnswer> {
  switch (task.kind) {
    case 'import':
      return importFile(task)
    case 'summary':
      return { kind: 'counts', counts: countsOf(ledgerFrom(task.file, task.jobId)) }
    case 'findings':
      return text(csv(findingsTable(ledgerFrom(task.file, task.jobId).house)))
    case 'schedule':
      return text(csv(panelSchedule(ledgerFrom(task.file, task.jobId).house)))
    case 'report':
      return text(JSON.stringify(writeReport(ledgerFrom(task.file, task.jobId).house, task.voice)))
    case 'paper': {
      const { house } = ledgerFrom(task.file, task.jobId)
      return { kind: 'text', bytes: await renderPdf(paperOf(house, task.paper), FONTS) }
    }
    case 'export': {
      const ledger = ledgerFrom(task.file, task.jobId)
      const out =
        task.form === 'log' ? writeLog(ledger) : writeHouse(ledger.house, id => ledger.find(id))
      return text(JSON.stringify(out, null, 1))
    }
  }
}
const text = (written: string): HeavyAnswer => ({
  kind: 'text',
  bytes: new TextEncoder().encode(written),
})

/** What the list of jobs says of one. */
export function countsOf(ledger: Ledger): JobCounts {
  const site = new Site(ledger.house)
  const { results, totals } = assess(ledger.house)
  const say = (field: 'name' | 'street' | 'purpose' | 'yearBuilt' | 'edition') => {
    const value = valueOf(site.premises, field)
    return value === undefined ? '' : valueText(FIELDS.premises[field], value as AnyValue)
  }
  return {
    name: say('name'),
    street: say('street'),
    purpose: say('purpose'),
    year_built: say('yearBuilt'),
    edition: say('edition'),
    make_safe: totals.severity['make safe now'],
    repair: totals.severity.repair,
    upgrade: totals.severity['upgrade'],
    record: totals.severity['note'],
    undecided: totals.undecided,
    in_scope: visitOf(site, results, recordedScope(site)).counts.inScope,
  }
}

/** Reads a job file and writes it into a job that is not listed yet, in short transactions that hold nobody up. */
function importFile({
  file,
  jobId,
  bytes,
  now,
  accountId,
  latestMs,
}: HeavyTask & { kind: 'import' }): HeavyAnswer {
  // Ids in the order of the file: observations of one instant count in the order of their ids.
  const batch = randomUUID()
  let n = 0
  let observations: Observation[]
  try {
    const stamp = {
      at: now,
      by: 'import',
      nextId: () => `${batch}-${String(n++).padStart(7, '0')}`,
    }
    observations = readJobFile(new TextDecoder().decode(bytes), stamp).observations
  } catch (error) {
    if (error instanceof UnreadableFile) return { kind: 'unreadable', problems: error.problems }
    throw error
  }
  if (!observations.some(o => o.act === 'add' && o.subject === PREMISES_ID)) {
    const expected = `an observation that adds "${PREMISES_ID}"`
    return { kind: 'unreadable', problems: [{ path: 'observations', expected, found: 'none' }] }
  }
  const late = observations.findIndex(
    o => Date.parse(o.at) > latestMs || Date.parse(o.clock.slice(0, 24)) > latestMs,
  )
  if (late >= 0) {
    const expected = `a time up to ${new Date(latestMs).toISOString().slice(0, 16)}Z`
    return {
      kind: 'unreadable',
      problems: [{ path: `observations[${late}].at`, expected, found: observations[late]!.at }],
    }
  }
  const db = connectionTo(file)
  const insert =
    db.prepare(`INSERT INTO observations (job_id, id, at, act, subject, field, body, received_at, account_id)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`)
  const write = db.transaction((part: readonly Observation[]) => {
    for (const o of part) {
      const subject = 'subject' in o ? o.subject : null
      const field = 'field' in o ? o.field : null
      insert.run(jobId, o.id, o.at, o.act, subject, field, JSON.stringify(o), now, accountId)
    }
  })
  for (let i = 0; i < observations.length; i += CHUNK)
    write.immediate(observations.slice(i, i + CHUNK))
  return { kind: 'imported', observations: observations.length }
}
