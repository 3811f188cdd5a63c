import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type SQLite from 'better-sqlite3'
import Papa from 'papaparse'
import {
  assess,
  findingsTable,
  Ledger,
  mergeLogs,
  panelSchedule,
  nextDayOf,
  paperOf,
  paperToSign,
  PREMISES_ID,
  readJobFile,
  recordedScope,
  sealText,
  Site,
  stageOf,
  UnreadableFile,
  visitOf,
  writeHouse,
  writeLog,
  reportPaper,
  type FieldName,
  type Observation,
  type PaperId,
  type Problem,
  type ToSign,
  type ReportVoice,
} from '../../core'
import { connect } from '../database/open'
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf'
import bold from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf'
import { isArchive, readBundle, sha256, writeBundle, type Bundle } from '../files/bundle'
import { checkBundle, unpackInto } from '../files/unpack'
import { markedPicture } from '../pdf/pictures'
import { renderPdf, type Dress, type Letterhead } from '../pdf/render'
import { listedOf, writtenOf } from '../utils/written'

/** Work that would hold up other requests; done beside them, on a connection of its own. */
export type HeavyTask =
  | {
      kind: 'import'
      file: string
      jobId: string
      photos: string
      bytes: Uint8Array
      now: string
      accountId: string | null
      latestMs: number
    }
  | { kind: 'summary' | 'findings' | 'schedule'; file: string; jobId: string }
  | { kind: 'report'; file: string; jobId: string; voice: ReportVoice }
  | {
      kind: 'paper'
      file: string
      jobId: string
      paper: PaperId
      photos: string
      letterhead: Letterhead
    }
  | {
      kind: 'sign'
      file: string
      jobId: string
      photos: string
      letterhead: Letterhead
      toSign: ToSign
    }
  | { kind: 'bundle'; file: string; jobId: string; photos: string }
  | {
      kind: 'copy'
      file: string
      jobId: string
      photos: string
      bytes: Uint8Array
      now: string
    }
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
  stage: string
  next_on: string
}
/** What the search finds a job by. */
export interface JobWords {
  name: string
  street: string
  people: string
  findings: string
}
export type HeavyAnswer =
  | { kind: 'imported'; observations: number }
  | { kind: 'unreadable'; problems: readonly Problem[] }
  | { kind: 'counts'; counts: JobCounts; words: JobWords }
  | {
      kind: 'signed'
      number: number
      open: number
      hash: string
      paper: string
      pdf: Uint8Array
      /** Clock of the last observation that the paper was made from. */
      after: string | undefined
    }
  | { kind: 'refused'; why: string }
  | { kind: 'copied'; fresh: readonly Observation[]; known: number; photos: number }
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
      return { kind: 'counts', ...countsOf(ledgerFrom(task.file, task.jobId)) }
    case 'findings':
      return text(csv(findingsTable(ledgerFrom(task.file, task.jobId).house)))
    case 'schedule':
      return text(csv(panelSchedule(ledgerFrom(task.file, task.jobId).house)))
    case 'report':
      return text(JSON.stringify(reportPaper(ledgerFrom(task.file, task.jobId).house, task.voice)))
    case 'paper': {
      const { house } = ledgerFrom(task.file, task.jobId)
      const pdf = await renderPdf(paperOf(house, task.paper), FONTS, dressOf(task))
      return { kind: 'text', bytes: pdf }
    }
    case 'sign': {
      const ledger = ledgerFrom(task.file, task.jobId)
      const signed = paperToSign(ledger, task.toSign)
      if ('refused' in signed) return { kind: 'refused', why: signed.refused }
      const paper = sealText(signed.paper)
      const pdf = await renderPdf(signed.paper, FONTS, dressOf(task))
      const hash = sha256(new TextEncoder().encode(paper))
      const after = ledger.lastClock
      return { kind: 'signed', number: signed.number, open: signed.open, hash, paper, pdf, after }
    }
    case 'copy':
      return readCopy(task)
    case 'bundle':
      return { kind: 'text', bytes: bundleOf(task) }
    case 'export': {
      const ledger = ledgerFrom(task.file, task.jobId)
      const out =
        task.form === 'log' ? writeLog(ledger) : writeHouse(ledger.house, id => ledger.find(id))
      return text(JSON.stringify(out, null, 1))
    }
  }
}
/** Photographs from the folder they lie in, with their marks; one that is not there is told as such. */
const dressOf = ({ photos, letterhead }: { photos: string; letterhead: Letterhead }): Dress => ({
  letterhead,
  pictureOf: async ({ hash, marks }) => {
    const bytes = readPicture(photos, hash)
    return bytes && markedPicture(bytes, marks)
  },
})
function readPicture(folder: string, hash: string): Uint8Array | undefined {
  if (!/^[0-9a-f]{64}$/.test(hash)) return undefined
  try {
    return readFileSync(join(folder, hash.slice(0, 2), `${hash}.jpg`))
  } catch {
    return undefined
  }
}

interface SignedBytes {
  name: string
  paper: string
  pdf: Buffer
}
function bundleOf({ file, jobId, photos }: HeavyTask & { kind: 'bundle' }): Uint8Array {
  const db = connectionTo(file)
  const ledger = ledgerFrom(file, jobId)
  const log = new TextEncoder().encode(JSON.stringify(writeLog(ledger), null, 1))
  const hashes = db.prepare('SELECT hash FROM photos WHERE job_id = ?').all(jobId)
  const pictures = (hashes as { hash: string }[]).flatMap(({ hash }) => {
    const bytes = readPicture(photos, hash)
    return bytes ? [[hash, bytes] as const] : []
  })
  const signed = db.prepare('SELECT name, paper, pdf FROM signed WHERE job_id = ?').all(jobId)
  return writeBundle({
    log,
    photos: new Map(pictures),
    signed: new Map(
      (signed as SignedBytes[]).flatMap(({ name, paper, pdf }) => [
        [`${name}.json`, new TextEncoder().encode(paper)] as const,
        [`${name}.pdf`, new Uint8Array(pdf)] as const,
      ]),
    ),
  })
}

const text = (written: string): HeavyAnswer => ({
  kind: 'text',
  bytes: new TextEncoder().encode(written),
})

/** What the list of jobs says of one, and what the search finds it by. */
export function countsOf(ledger: Ledger): { counts: JobCounts; words: JobWords } {
  const { house } = ledger
  const site = new Site(house)
  const { results, totals } = assess(house)
  const say = (field: FieldName<'premises'>) => writtenOf(site.premises, field)
  const found = results.filter(r => r.outcome === 'fault' || r.leans)
  const titles = new Set(found.flatMap(r => [r.title, r.subject.label]))
  return {
    counts: {
      ...listedOf(site.premises),
      make_safe: totals.severity['make safe now'],
      repair: totals.severity.repair,
      upgrade: totals.severity['upgrade'],
      record: totals.severity['note'],
      undecided: totals.undecided,
      in_scope: visitOf(site, results, recordedScope(site)).counts.inScope,
      stage: stageOf(house),
      next_on: nextDayOf(house),
    },
    words: {
      name: say('name'),
      street: say('street'),
      people: [say('client'), say('assessor'), say('purpose')].join(' '),
      findings: [...titles].join('; '),
    },
  }
}

/** Reads another copy of a job, as a file or a bundle, and puts its pictures and signed reports beside ours. */
async function readCopy({
  file,
  jobId,
  photos,
  bytes,
  now,
}: HeavyTask & { kind: 'copy' }): Promise<HeavyAnswer> {
  try {
    const bundle = isArchive(bytes) ? readBundle(bytes) : undefined
    const { form, observations } = readJobFile(new TextDecoder().decode(bundle?.log ?? bytes), {
      at: now,
      by: 'import',
      nextId: randomUUID,
    })
    if (form !== 'log') {
      const problem = { path: 'form', expected: 'a log, which knows who saw what', found: form }
      return { kind: 'unreadable', problems: [problem] }
    }
    if (bundle) await checkBundle(bundle, observations)
    const mine = ledgerFrom(file, jobId)
    const merged = mergeLogs(mine.log(), observations)
    if ('clashes' in merged) {
      const problems = merged.clashes.slice(0, 20).map(({ id }) => ({
        path: `observation ${id}`,
        expected: 'the same content as in this job',
        found: 'another under this id: the file is of another job',
      }))
      return { kind: 'unreadable', problems }
    }
    if (merged.shared === 0) {
      const expected = 'a copy of this job'
      const found = 'one that shares no observation with it'
      return { kind: 'unreadable', problems: [{ path: 'observations', expected, found }] }
    }
    if (bundle) await unpackInto({ file, jobId, photos, now }, bundle)
    const fresh = observations.filter(o => !mine.has(o.id))
    return { kind: 'copied', fresh, known: merged.shared, photos: bundle?.photos.size ?? 0 }
  } catch (error) {
    if (error instanceof UnreadableFile) return { kind: 'unreadable', problems: error.problems }
    throw error
  }
}

/** Reads a job file and writes it into a job that is not listed yet, in short transactions that hold nobody up. */
async function importFile({
  file,
  jobId,
  photos,
  bytes,
  now,
  accountId,
  latestMs,
}: HeavyTask & { kind: 'import' }): Promise<HeavyAnswer> {
  // Ids in the order of the file: observations of one instant count in the order of their ids.
  const batch = randomUUID()
  let n = 0
  let observations: Observation[]
  let bundle: Bundle | undefined
  try {
    if (isArchive(bytes)) bundle = readBundle(bytes)
    const stamp = {
      at: now,
      by: 'import',
      nextId: () => `${batch}-${String(n++).padStart(7, '0')}`,
    }
    const log = new TextDecoder().decode(bundle?.log ?? bytes)
    observations = readJobFile(log, stamp).observations
    if (bundle) await checkBundle(bundle, observations)
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
  if (bundle) await unpackInto({ file, jobId, photos, now }, bundle)
  return { kind: 'imported', observations: observations.length }
}
